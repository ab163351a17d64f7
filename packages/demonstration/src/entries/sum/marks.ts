import { knownNumber, partOf, type RiemannSum } from '@yperkine/core';
import { format } from '../../numbers/format.ts';
import type { Mark } from '../../marks/mark.ts';
import { dashes, toneOf, type Tone } from '../../fields/tone.ts';
import type { TierView } from '../../marks/view.ts';
import type { Id } from '../../fields/fields.ts';
import { withUnit } from '../../units/unit.ts';
import { areaMarks, baseOf, baseSpan, dashOfSide, outlinesOn, sides, toneOfSide } from '../areas.ts';
import type { SumEntry, SumResult } from './result.ts';

/** Pixels that a strip needs to have an outline of its own, and a point for its height. */
const edgePixels = 3;
const pointPixels = 9;
/** Points up to which partition points can be dragged. */
const mostCuts = 60;
/** Points of a parabola that is drawn. */
const curvePoints = 12;

/** The strips with their points, the second rule over them, the partition's grips, and the product of one strip. */
export function sumMarks(id: Id, entry: SumEntry, result: SumResult, tier: TierView): readonly Mark[] {
  const { curve, interval, sum, against, chosen, count } = result;
  if (curve.tier !== tier.id) return [];
  const tone = toneOf(curve.order, curve.family);
  const ends = [interval.from, interval.to] as const;
  const span = baseSpan(id, ends, tone, tier);
  if (!sum) return [...areaMarks(id, curve, ends, tone, tier), span];
  const pixels = (tier.toX(interval.to) - tier.toX(interval.from)) / sum.xs.length;
  const strips = stripMarks(id, sum, tone, tier, pixels >= edgePixels, true);
  const over = against ? stripMarks(id, against.sum, 'ink', tier, pixels >= edgePixels, false) : [];
  const points = entry.showsPoints && pixels >= pointPixels ? pointMarks(sum, tone, tier) : [];
  const cuts = count <= mostCuts ? cutMarks(id, sum, tone, tier) : [];
  return [...strips, ...over, ...points, span, ...cuts, ...chosenMarks(id, result, sum, tone, tier, chosen)];
}

function stripMarks(
  id: Id,
  sum: RiemannSum,
  tone: Tone,
  tier: TierView,
  hasEdges: boolean,
  isFilled: boolean,
): Mark[] {
  const base = baseOf(tier);
  return sides.flatMap(({ sign, hatch }): Mark[] => {
    const look = {
      entry: id,
      tone: isFilled ? toneOfSide(sign, tone) : tone,
      hatch: isFilled ? hatch : ('none' as const),
      hasEdges,
      dash: isFilled ? dashOfSide(sign) : dashes.dashed,
      isOutline: !isFilled,
    };
    if (sum.atEnds) {
      const outlines = topsOf(sum, tier).flatMap((run) => outlinesOn(run, base, sign));
      return outlines.length > 0 ? [{ kind: 'area', outlines, ...look }] : [];
    }
    const bars = barsOf(sum, sign, tier, hasEdges);
    return bars.length > 0 ? [{ kind: 'bars', bars, base, ...look }] : [];
  });
}

/** x₀ x₁ y of the rectangles on one side; of more than there are pixels, several as one of their mean height. */
function barsOf(sum: RiemannSum, sign: 1 | -1, tier: TierView, hasEdges: boolean): Float64Array {
  const { xs, ends, areas } = sum;
  const together = hasEdges ? 1 : Math.max(1, Math.floor(xs.length / Math.max(1, tier.frame.width)));
  const bars = new Float64Array(3 * Math.ceil(xs.length / together));
  const [lowest, highest] = [tier.frame.top + 2 * tier.frame.height, tier.frame.top - tier.frame.height];
  let count = 0;
  for (let i = 0; i < xs.length; i += together) {
    const last = Math.min(i + together, xs.length);
    let area = 0;
    for (let k = i; k < last; k++) area += areas[k] as number;
    const [from, to] = [ends[i] as number, ends[last] as number];
    const height = area / (to - from);
    if (!(sign * height > 0)) continue;
    bars[count++] = tier.toX(from);
    bars[count++] = tier.toX(to);
    bars[count++] = Math.min(lowest, Math.max(highest, tier.toY(height)));
  }
  return bars.subarray(0, count);
}

/** The upper edges of trapezoids and parabolas, one run a strip. */
function topsOf({ ends, xs, atEnds, atMiddles }: RiemannSum, tier: TierView): Float64Array[] {
  return Array.from(xs, (_, i) => {
    const [a, b] = [ends[i] as number, ends[i + 1] as number];
    const [p, q] = [atEnds?.[i] as number, atEnds?.[i + 1] as number];
    const middle = atMiddles?.[i];
    if (middle === undefined) return Float64Array.of(tier.toX(a), tier.toY(p), tier.toX(b), tier.toY(q));
    const run = new Float64Array(2 * (curvePoints + 1));
    for (let k = 0; k <= curvePoints; k++) {
      const t = k / curvePoints;
      // The parabola through the three values (Lagrange).
      const y = p * (1 - t) * (1 - 2 * t) + middle * 4 * t * (1 - t) + q * t * (2 * t - 1);
      run[2 * k] = tier.toX(a + (b - a) * t);
      run[2 * k + 1] = tier.toY(y);
    }
    return run;
  });
}

function pointMarks(sum: RiemannSum, tone: Tone, tier: TierView): Mark[] {
  const points: number[] = [];
  const add = (x: number, y: number): void => {
    points.push(tier.toX(x), tier.toY(y));
  };
  if (sum.atEnds) sum.ends.forEach((x, i) => add(x, sum.atEnds?.[i] as number));
  if (sum.atMiddles) sum.xs.forEach((x, i) => add(x, sum.atMiddles?.[i] as number));
  if (!sum.atEnds) sum.xs.forEach((x, i) => add(x, sum.heights[i] as number));
  return [{ kind: 'dots', points, tone, shape: 'ring', size: 4 }];
}

function cutMarks(id: Id, { ends }: RiemannSum, tone: Tone, tier: TierView): Mark[] {
  const y = Math.min(Math.max(tier.toY(0), tier.frame.top), tier.frame.top + tier.frame.height);
  return Array.from(ends.subarray(1, -1), (x, i): Mark => ({
    kind: 'cut',
    entry: id,
    index: i,
    x: tier.toX(x),
    y,
    tone,
  }));
}

/** The strip that is looked at, with its product. */
function chosenMarks(
  id: Id,
  { unit }: SumResult,
  sum: RiemannSum,
  tone: Tone,
  tier: TierView,
  chosen: number | null,
): Mark[] {
  if (chosen === null) return [];
  const { from, to, height, area } = partOf(sum, chosen);
  const text = (value: number): string => format(knownNumber(value), tier.rule).text;
  const factor = text(height).startsWith('−') ? `(${text(height)})` : text(height);
  const [x0, x1, y] = [tier.toX(from), tier.toX(to), tier.toY(height)];
  return [
    {
      kind: 'bars',
      entry: id,
      bars: Float64Array.of(x0, x1, y),
      base: baseOf(tier),
      tone: 'here',
      hatch: 'none',
      hasEdges: true,
      dash: dashes.whole,
    },
    {
      kind: 'label',
      x: (x0 + x1) / 2,
      y,
      tone: height < 0 ? 'minus' : tone,
      text: `${factor} · ${text(to - from)} ≈ ${withUnit(text(area), unit)}`,
    },
  ];
}
