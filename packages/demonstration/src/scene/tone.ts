/** Colour roles: the theme fills them in. One hue per order of a function, the same everywhere. */
export type Tone = 'f' | 'f1' | 'f2' | 'ink' | 'quiet' | 'rule' | 'here' | 'sheet' | 'paper';

const orders: readonly Tone[] = ['f', 'f1', 'f2'];

export const toneOf = (order: number): Tone => orders[Math.min(order, orders.length - 1)] as Tone;

/** Dashes that tell the orders apart without colour: f whole, f′ dashed, f″ dotted. */
export const dashOf = (order: number): readonly number[] =>
  order === 0 ? [] : order === 1 ? [8, 5] : [2, 5];
