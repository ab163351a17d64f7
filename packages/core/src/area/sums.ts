import { evaluatorFor } from '../values/evaluator.ts';
import { compile } from '../evaluate/program.ts';
import type { Expression } from '../language/tree.ts';
import { extremeHeights, extremes, type ExtremeHeights } from './extremes.ts';
import { samplePoints, type PointRule, type SumRule } from './rules.ts';

/** Fills an array with a function's values at the points of another. */
export type Values = (xs: Float64Array, ys: Float64Array) => void;

/** A sum over a partition, column by column: one entry a strip. Parabolas make one strip of two parts. */
export interface RiemannSum {
  readonly total: number;
  /** The ends of the strips: one more than there are strips. */
  readonly ends: Float64Array;
  /** The sample points; of trapezoids and parabolas the middle of the strip. */
  readonly xs: Float64Array;
  /** The heights there, or the mean height of a strip with more than one. */
  readonly heights: Float64Array;
  readonly areas: Float64Array;
  /** Of trapezoids and parabolas the values at the ends of the strips, and of parabolas those in the middle. */
  readonly atEnds: Float64Array | null;
  readonly atMiddles: Float64Array | null;
  /** Whether the heights of a lower or upper sum are proved to be the least and greatest; true for other rules. */
  readonly isProved: boolean;
}

/** One term of a sum. */
export interface SumPart {
  readonly from: number;
  readonly to: number;
  readonly x: number;
  readonly height: number;
  readonly area: number;
}

export const partOf = ({ ends, xs, heights, areas }: RiemannSum, i: number): SumPart => ({
  from: ends[i] as number,
  to: ends[i + 1] as number,
  x: xs[i] as number,
  height: heights[i] as number,
  area: areas[i] as number,
});

/**
 * The sum of a function over a partition by a rule. Parabolas (Simpson's rule) take the parts in pairs, which have to
 * be equally wide, and so an even number of them.
 * @param body a formula in the variable alone
 * @param ends the ends of the parts, in ascending order
 * @returns NaN as a height, and so as the total, where the function has no value
 * @throws RangeError for parabolas over an odd number of parts
 */
export function riemannSum(
  body: Expression,
  variable: string,
  ends: Float64Array,
  rule: SumRule,
): RiemannSum {
  const evaluator = evaluatorFor(compile(body, variable));
  const values: Values = (xs, ys) => evaluator.evaluate(xs, ys);
  if (rule !== 'lower' && rule !== 'upper') return sumOver(values, ends, rule);
  const [a, b] = [ends[0] as number, ends[ends.length - 1] as number];
  return extremeSum(values, extremeHeights(body, variable, [a, b]), ends, rule);
}

/** The sum by any rule but the lower and upper one. */
export function sumOver(
  values: Values,
  ends: Float64Array,
  rule: PointRule | 'trapezoid' | 'simpson',
): RiemannSum {
  if (rule === 'simpson') return parabolas(values, ends);
  if (rule === 'trapezoid') return trapezoids(values, ends);
  const xs = samplePoints(ends, rule);
  const heights = new Float64Array(xs.length);
  values(xs, heights);
  return summed({ ends, xs, heights, atEnds: null, atMiddles: null, isProved: true });
}

/** The lower or upper sum, from the heights that the function has or comes near to at its extrema and jumps. */
export function extremeSum(
  values: Values,
  found: ExtremeHeights,
  ends: Float64Array,
  rule: 'lower' | 'upper',
): RiemannSum {
  const atEnds = new Float64Array(ends.length);
  values(ends, atEnds);
  const { xs, heights } = extremes(found, ends, atEnds, rule);
  return summed({ ends, xs, heights, atEnds: null, atMiddles: null, isProved: found.isProved });
}

function trapezoids(values: Values, ends: Float64Array): RiemannSum {
  const atEnds = new Float64Array(ends.length);
  values(ends, atEnds);
  const heights = new Float64Array(ends.length - 1);
  for (let i = 0; i < heights.length; i++)
    heights[i] = ((atEnds[i] as number) + (atEnds[i + 1] as number)) / 2;
  return summed({
    ends,
    xs: samplePoints(ends, 'midpoint'),
    heights,
    atEnds,
    atMiddles: null,
    isProved: true,
  });
}

function parabolas(values: Values, partEnds: Float64Array): RiemannSum {
  const count = partEnds.length - 1;
  if (count % 2 !== 0) throw new RangeError('parabolas need an even number of parts');
  const all = new Float64Array(partEnds.length);
  values(partEnds, all);
  const [ends, xs, atEnds, atMiddles] = [
    everyOther(partEnds, 0),
    everyOther(partEnds, 1),
    everyOther(all, 0),
    everyOther(all, 1),
  ];
  const heights = new Float64Array(xs.length);
  for (let k = 0; k < heights.length; k++)
    heights[k] = ((atEnds[k] as number) + 4 * (atMiddles[k] as number) + (atEnds[k + 1] as number)) / 6;
  return summed({ ends, xs, heights, atEnds, atMiddles, isProved: true });
}

function everyOther(all: Float64Array, first: number): Float64Array {
  const kept = new Float64Array(Math.ceil((all.length - first) / 2));
  for (let i = 0; i < kept.length; i++) kept[i] = all[2 * i + first] as number;
  return kept;
}

/** Areas and total by Neumaier's compensated summation (1974), so that a million terms lose no digits. */
function summed(columns: Omit<RiemannSum, 'total' | 'areas'>): RiemannSum {
  const { ends, heights } = columns;
  const areas = new Float64Array(heights.length);
  let [sum, lost] = [0, 0];
  for (let i = 0; i < areas.length; i++) {
    const area = (heights[i] as number) * ((ends[i + 1] as number) - (ends[i] as number));
    areas[i] = area;
    const next = sum + area;
    lost += Math.abs(sum) >= Math.abs(area) ? sum - next + area : area - next + sum;
    sum = next;
  }
  return { ...columns, areas, total: Number.isFinite(sum) ? sum + lost : sum };
}
