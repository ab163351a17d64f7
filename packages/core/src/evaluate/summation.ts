/** Terms that one sum may have; a longer one has no value here. */
const mostTerms = 1_000_000;

/** The whole numbers from `from` to `to`; null where they are no whole numbers or too many. An empty sum has none. */
export function indices(from: number, to: number): { first: number; count: number } | null {
  if (!Number.isInteger(from) || !Number.isInteger(to) || to - from >= mostTerms) return null;
  return { first: from, count: Math.max(0, to - from + 1) };
}

/** Whether these bounds are whole numbers between which there are more terms than a sum may have. */
export const hasTooManyTerms = (from: number, to: number): boolean =>
  Number.isInteger(from) && Number.isInteger(to) && to - from >= mostTerms;

/** The sum of f(i) over the whole numbers from `from` to `to`, with compensated rounding (Neumaier, 1974). */
export function sumOf(f: (index: number) => number, from: number, to: number): number {
  const range = indices(from, to);
  if (!range) return NaN;
  let sum = 0;
  let lost = 0;
  for (let i = 0; i < range.count; i++) {
    const term = f(range.first + i);
    const next = sum + term;
    lost += Math.abs(sum) >= Math.abs(term) ? sum - next + term : term - next + sum;
    sum = next;
    if (Number.isNaN(sum)) return NaN;
  }
  return Number.isFinite(sum) ? sum + lost : sum;
}
