/** Thrown when working something out would need more than a bounded amount of steps; a person's formula, not a bug. */
export class TooLarge extends Error {}

/**
 * What the engines say where they give up: too many calls inside one another, whole numbers, lists or texts too long.
 * Texts and no pattern: where calls lie too deep there may be no room left to compile one, which ends the process.
 */
const limitsOfEngines = [
  'call stack',
  'recursion',
  'BigInt',
  'array length',
  'Array buffer',
  'string length',
];

/** Whether something grew too large, for our bounds or for the engine's; any other error is a fault of ours. */
export const isTooLarge = (error: unknown): boolean =>
  error instanceof TooLarge ||
  (error instanceof Error &&
    (error instanceof RangeError || error.name === 'InternalError') &&
    limitsOfEngines.some((limit) => error.message.includes(limit)));

/** Terms that multiplying out may make before the factored form is kept. */
export const mostTerms = 200;
/** Factors of a product that the product rule is still applied to: it makes their square. */
export const mostFactors = 60;
/** Nodes that a derivative may have. */
export const largestTree = 20_000;
