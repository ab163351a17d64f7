import { typesetInto } from '../../parts/typesetting.ts';
import { tickPixels, type Scene } from '@yperkine/demonstration';

/** Numbers of the x-axis that are more than decimals, typeset over the canvas and moved without React. */
export class TickNumbers {
  private readonly elements: HTMLElement[] = [];
  private readonly typeset = new WeakMap<HTMLElement, string>();

  constructor(private readonly host: HTMLElement) {}

  place({ xTicks, tiers, looks }: Scene): void {
    const view = tiers.at(-1)?.view;
    const shown = view && looks.numbers ? xTicks.filter(({ latex }) => latex !== undefined) : [];
    while (this.elements.length < shown.length) this.elements.push(this.make());
    this.host.style.fontSize = `${tickPixels[looks.tickNumbers.size]}px`;
    this.elements.forEach((element, i) => {
      const tick = shown[i];
      element.hidden = tick === undefined;
      if (!tick || !view) return;
      if (this.typeset.get(element) !== tick.latex) {
        typesetInto(element, tick.latex ?? '');
        this.typeset.set(element, tick.latex ?? '');
      }
      const top = view.frame.top + view.frame.height + (tiers.at(-1)?.stripRoom ?? 0) + 5;
      element.style.transform = `translate(${view.toX(tick.value)}px, ${top}px) translateX(-50%)`;
    });
  }

  private make(): HTMLElement {
    const element = document.createElement('span');
    element.className = 'absolute top-0 left-0 whitespace-nowrap text-quiet';
    this.host.append(element);
    return element;
  }
}
