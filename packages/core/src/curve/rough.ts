import { OutOfEffort, type Effort } from '../budget/effort.ts';
import type { Evaluator } from '../values/evaluator.ts';
import type { Grid } from './sampled.ts';

/** Points of a rough curve, from the first try to the best. */
const counts = [25, 97, 385, 1537] as const;

/**
 * A curve by its values at a few places alone, as far as an effort goes: nothing is proved of what lies between them,
 * and where even the first few would take too much there is none. Points without a value leave a gap.
 * @param evaluatorOf made within the effort too
 * @returns runs of joined points as x₀ y₀ x₁ y₁ …
 */
export function roughCurve(
  evaluatorOf: () => Evaluator,
  { xFrom, xTo }: Grid,
  parameters: readonly number[],
  effort: Effort,
): Float64Array[] {
  let best: Float64Array[] = [];
  for (const count of counts) {
    const xs = Float64Array.from({ length: count }, (_, i) => xFrom + ((xTo - xFrom) * i) / (count - 1));
    const ys = new Float64Array(count);
    try {
      effort.spendOn(() => evaluatorOf().evaluate(xs, ys, parameters));
    } catch (error) {
      if (error instanceof OutOfEffort) return best;
      throw error;
    }
    best = joined(xs, ys);
  }
  return best;
}

function joined(xs: Float64Array, ys: Float64Array): Float64Array[] {
  const runs: number[][] = [[]];
  xs.forEach((x, i) => {
    const y = ys[i] as number;
    if (Number.isFinite(y)) runs.at(-1)?.push(x, y);
    else if (runs.at(-1)?.length) runs.push([]);
  });
  return runs.filter((run) => run.length > 0).map((run) => Float64Array.from(run));
}
