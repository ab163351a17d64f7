/** Digits of a double that arithmetic leaves right; the ones behind them are rounding noise. */
export const reliable = 15;

/** A number as it is meant, for tables and files: 0.1 + 0.2 is 0.3, not 0.30000000000000004. */
export const withoutNoise = (x: number): number => Number(x.toPrecision(reliable));
