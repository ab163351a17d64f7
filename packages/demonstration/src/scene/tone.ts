/** Colour roles: the theme fills them in. One hue per order of a function, the same everywhere. */
export type Tone =
  | 'f'
  | 'f1'
  | 'f2'
  | 'g'
  | 'g1'
  | 'g2'
  | 'h'
  | 'h1'
  | 'h2'
  | 'ink'
  | 'quiet'
  | 'rule'
  | 'here'
  | 'sheet'
  | 'paper';

/** The tones of a family by order: a second function takes a second family. */
const families: readonly (readonly [Tone, Tone, Tone])[] = [
  ['f', 'f1', 'f2'],
  ['g', 'g1', 'g2'],
  ['h', 'h1', 'h2'],
];
export const familyCount = families.length;

export function toneOf(order: number, family = 0): Tone {
  const tones = families[family % families.length] as readonly [Tone, Tone, Tone];
  return tones[Math.min(order, tones.length - 1)] as Tone;
}

/** Dashes that tell the orders apart without colour: f whole, f′ dashed, f″ dotted. */
export const dashOf = (order: number): readonly number[] =>
  order === 0 ? [] : order === 1 ? [8, 5] : [2, 5];
