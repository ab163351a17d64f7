import {
  type CanvasSurface,
  paintBackdrop,
  type Emphasis,
  type Mark,
  type Scene,
} from '@yperkine/demonstration';

/** What decides how the back of a scene looks, beside the marks in it: things that are the same as long as it is. */
type Ground = readonly unknown[];

/**
 * The back of the picture on a canvas of its own: the grid, the numbers, and the first marks as far as they stayed the
 * same since the last frame. While a point moves, the curves behind it are copied, not drawn.
 */
export class Backdrop {
  readonly canvas = document.createElement('canvas');
  private held: { readonly ground: Ground; readonly marks: readonly (readonly Mark[])[] } | null = null;
  private last: { readonly ground: Ground; readonly scene: Scene } | null = null;

  /** @param surfaceOn draws on a canvas in the colours of the moment, in pixels of the scene */
  constructor(private readonly surfaceOn: (canvas: HTMLCanvasElement) => CanvasSurface) {}

  /** Forgets everything, as after a change of size or colours. */
  reset(): void {
    this.held = this.last = null;
  }

  /** Makes the backdrop of a scene; so many marks of each tier are in it. Null where too little is left of the last frame. */
  countsFor(scene: Scene, emphasis: Emphasis): readonly number[] | null {
    const ground = groundOf(scene, emphasis);
    const { last, held } = this;
    this.last = { ground, scene };
    if (held && isSame(held.ground, ground) && startsWith(scene, held.marks))
      return held.marks.map(({ length }) => length);
    if (!last || !isSame(last.ground, ground)) return null;
    const counts = scene.tiers.map(({ marks }, i) => shared(marks, last.scene.tiers[i]?.marks ?? []));
    paintBackdrop(scene, counts, this.surfaceOn(this.canvas), emphasis);
    this.held = { ground, marks: scene.tiers.map(({ marks }, i) => marks.slice(0, counts[i])) };
    return counts;
  }
}

const groundOf = ({ tiers, xTicks, looks }: Scene, { entry }: Emphasis): Ground => [
  xTicks,
  looks,
  entry,
  ...tiers.flatMap(({ view, yTicks, stripRoom }) => [view, yTicks, stripRoom]),
];

const isSame = (a: Ground, b: Ground): boolean =>
  a.length === b.length && a.every((part, i) => part === b[i]);

const startsWith = ({ tiers }: Scene, marks: readonly (readonly Mark[])[]): boolean =>
  marks.every((held, i) => held.every((mark, k) => mark === tiers[i]?.marks[k]));

/** How many of the first marks are the same. */
function shared(marks: readonly Mark[], before: readonly Mark[]): number {
  const first = marks.findIndex((mark, i) => mark !== before[i]);
  return first < 0 ? marks.length : first;
}
