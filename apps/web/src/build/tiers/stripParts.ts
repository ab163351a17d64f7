import { stripRow, type Id, type MarkOf, type Scene, type StripPart } from '@yperkine/demonstration';

/** A part of a sign strip that was chosen, and where it stands. */
export interface PickedPart {
  readonly entry: Id;
  readonly title: string;
  readonly part: StripPart;
  readonly x: number;
  readonly y: number;
}

const signWords = ['negative', 'zero', 'positive'] as const;
/** Pixels that a finger needs. */
const narrowest = 14;

/** Buttons over the parts of all sign strips, moved with the window and without React. */
export class StripParts {
  private readonly buttons: HTMLButtonElement[] = [];
  private shown: readonly PickedPart[] = [];

  constructor(
    private readonly host: HTMLElement,
    private readonly onPick: (picked: PickedPart) => void,
    private readonly onHover: (entry: Id | null) => void,
  ) {}

  place({ tiers }: Scene): void {
    this.shown = tiers.flatMap(({ marks, view: { frame } }) =>
      marks
        .filter((mark): mark is MarkOf<'strip'> => mark.kind === 'strip')
        .flatMap(({ entry, title, top, parts }) =>
          parts.flatMap((part): PickedPart[] => {
            const [x0, x1] = [Math.max(frame.left, part.x0), Math.min(frame.left + frame.width, part.x1)];
            const seen = { ...part, x0, x1 };
            return x1 > x0 ? [{ entry, title, part: seen, x: (x0 + x1) / 2, y: top }] : [];
          }),
        ),
    );
    while (this.buttons.length < this.shown.length) this.buttons.push(this.make(this.buttons.length));
    this.buttons.forEach((button, i) => {
      const picked = this.shown[i];
      button.hidden = picked === undefined;
      if (!picked) return;
      const { part, title, x, y } = picked;
      const width = Math.max(narrowest, part.x1 - part.x0);
      button.style.transform = `translate(${x - width / 2}px, ${y}px)`;
      button.style.width = `${width}px`;
      const name = `${title} ${part.sign === null ? 'not zero' : (signWords[part.sign + 1] ?? '')}: ${part.word}`;
      if (button.getAttribute('aria-label') !== name) button.setAttribute('aria-label', name);
    });
  }

  private make(index: number): HTMLButtonElement {
    const button = document.createElement('button');
    button.type = 'button';
    button.className = 'absolute top-0 left-0 rounded-sm hover:ring-2 hover:ring-here';
    button.style.height = `${stripRow.height}px`;
    button.dataset.overGraph = '';
    const picked = () => this.shown[index];
    button.addEventListener('click', () => {
      const now = picked();
      if (now) this.onPick(now);
    });
    button.addEventListener('pointerdown', (event) => event.stopPropagation());
    for (const name of ['pointerenter', 'focus'])
      button.addEventListener(name, () => this.onHover(picked()?.entry ?? null));
    for (const name of ['pointerleave', 'blur']) button.addEventListener(name, () => this.onHover(null));
    this.host.append(button);
    return button;
  }
}
