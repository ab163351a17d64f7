/** Thrown when working something out would need more than a bounded amount of steps; a person's formula, not a bug. */
export class TooLarge extends Error {}

/** Terms that multiplying out may make before the factored form is kept. */
export const mostTerms = 200;
/** Factors of a product that the product rule is still applied to: it makes their square. */
export const mostFactors = 60;
/** Nodes that a derivative may have. */
export const largestTree = 20_000;
