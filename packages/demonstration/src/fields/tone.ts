/** Colour roles: the theme fills them in. One hue per order of a function, the same everywhere. */
export const colourRoles = [
  'f',
  'f1',
  'f2',
  'g',
  'g1',
  'g2',
  'h',
  'h1',
  'h2',
  'total',
  'minus',
  'ink',
  'quiet',
  'rule',
  'here',
  'sheet',
  'paper',
] as const;
export type ColourRole = (typeof colourRoles)[number];

/** A colour role, or a colour that a teacher chose, which is the same in every theme. */
export type Tone = ColourRole | `#${string}`;

/** The tones of a family by order: a second function takes a second family. */
const families: readonly (readonly [ColourRole, ColourRole, ColourRole])[] = [
  ['f', 'f1', 'f2'],
  ['g', 'g1', 'g2'],
  ['h', 'h1', 'h2'],
];
export const familyCount = families.length;
/** The family of running totals; their slope is the function again. */
export const totalFamily = 9;
const ofTotals = ['total', 'f', 'f1'] as const;

export function toneOf(order: number, family = 0): ColourRole {
  const tones =
    family === totalFamily
      ? ofTotals
      : (families[family % families.length] as readonly [ColourRole, ColourRole, ColourRole]);
  return tones[Math.min(order, tones.length - 1)] as ColourRole;
}

const [whole, dashed, dotted] = [[], [8, 5], [2, 5]] as const;
export const dashes = { whole, dashed, dotted } as const;

/** Dashes that tell the orders apart without colour: f whole, f′ dashed, f″ dotted. */
export const dashOf = (order: number): readonly number[] =>
  order === 0 ? whole : order === 1 ? dashed : dotted;
