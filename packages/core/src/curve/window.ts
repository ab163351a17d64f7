import type { Program } from '../evaluate/program.ts';
import { evaluatorFor } from '../values/evaluator.ts';
import { derivativesAt } from '../values/jets.ts';
import { findFeatures, type Feature } from './features.ts';

export interface Range {
  readonly from: number;
  readonly to: number;
}

/** A function with the values of its parameters, as far as a window is concerned. */
export interface Plotted {
  readonly program: Program;
  readonly parameters: readonly number[];
}

const usual: Range = { from: -5, to: 5 };
/** As many features as this within reach are taken for a pattern that goes on. */
const manyFeatures = 12;

/**
 * A window along x that shows the zeros, highs, lows, poles and ends of the given functions.
 * Where a pattern goes on (sin x) it shows the few of its features nearest to 0; where there are none, −5 to 5.
 */
export function chooseXRange(functions: readonly Plotted[]): Range {
  const features = functions.flatMap(({ program, parameters }) =>
    findFeatures(program, parameters, manyFeatures),
  );
  if (features.length === 0) return scaledToDecay(functions);
  return padded(features.sort((a, b) => a.x - b.x));
}

/** Beyond this length of decay the usual window would show a curve as good as straight. */
const longDecay = 2.5;

/** For a curve that only falls off or grows away: the usual window, or some lengths f′/f″ of its change. */
function scaledToDecay(functions: readonly Plotted[]): Range {
  const lengths = functions.map(({ program, parameters }) => {
    const [, slope = NaN, bend = NaN] = derivativesAt(program, 0, 2, parameters);
    return slope / bend;
  });
  const length = lengths.find((l) => Number.isFinite(l) && Math.abs(l) > longDecay && Math.abs(l) < 1e6);
  if (length === undefined) return usual;
  // A negative length decays to the right.
  const [behind, ahead] = [Math.abs(length) / 2, Math.abs(length) * 4];
  return rounded(length < 0 ? { from: -behind, to: ahead } : { from: -ahead, to: behind });
}

function padded(features: readonly Feature[]): Range {
  const [first, last] = [features[0] as Feature, features.at(-1) as Feature];
  const span = last.x - first.x;
  const hasEdge = first.kind === 'edge' || last.kind === 'edge';
  const margin = marginAround(features.length, span, first.x) * (features.length === 2 && hasEdge ? 2 : 1);
  // Beyond the end of the domain there is nothing to see.
  const edgeMargin = 0.15 * (span + margin);
  let from = first.x - (first.kind === 'edge' && span > 0 ? edgeMargin : margin);
  let to = last.x + (last.kind === 'edge' && span > 0 ? edgeMargin : margin);
  // The y-axis helps to read a curve that lies near it.
  if (from > 0 && from < span + margin) from = -margin * 0.25;
  if (to < 0 && -to < span + margin) to = margin * 0.25;
  return rounded({ from, to });
}

/** Few features say little about scale, so the window reaches further around them. */
function marginAround(count: number, span: number, x: number): number {
  if (span === 0) return Math.max(4, Math.abs(x));
  if (count === 2) return span * 2;
  return count < manyFeatures ? span * 0.6 : span * 0.05;
}

/** Widened to multiples of a fiftieth or so of the width, so that limits have few digits. */
function rounded({ from, to }: Range): Range {
  const step = 10 ** Math.floor(Math.log10((to - from) / 4));
  const fine = (to - from) / step > 12 ? step : step / 2;
  const trim = (x: number) => Number(x.toPrecision(12));
  return { from: trim(Math.floor(from / fine) * fine), to: trim(Math.ceil(to / fine) * fine) };
}

const looks = 800;

/**
 * A window along y for the given functions over an x-range: all of a tame curve, and of a curve that
 * runs away (a pole, an exponential) the part around its zeros, highs and lows.
 */
export function chooseYRange(functions: readonly Plotted[], x: Range): Range {
  const ranges = functions.map((plotted) => yRangeOf(plotted, x)).filter((range) => range !== undefined);
  if (ranges.length === 0) return usual;
  const from = Math.min(...ranges.map((range) => range.from));
  const to = Math.max(...ranges.map((range) => range.to));
  return rounded(withAxis({ from, to }));
}

function yRangeOf({ program, parameters }: Plotted, x: Range): Range | undefined {
  const xs = Float64Array.from({ length: looks }, (_, i) => x.from + ((x.to - x.from) * (i + 0.5)) / looks);
  const ys = new Float64Array(looks);
  evaluatorFor(program).evaluate(xs, ys, parameters);
  const values = ys.filter(Number.isFinite).sort();
  if (values.length === 0) return undefined;
  const features = findFeatures(program, parameters, 2 * manyFeatures).filter(
    (feature) => feature.x >= x.from && feature.x <= x.to,
  );
  const [lowest, highest] = [quantile(values, 0), quantile(values, 1)];
  // At an end of its domain a curve may run away, as a logarithm does.
  const heights = features
    .filter(({ kind, y }) => Number.isFinite(y) && (kind !== 'edge' || (y >= lowest && y <= highest)))
    .map(({ y }) => y);
  return wellShown(
    values,
    heights,
    features.some(({ kind }) => kind === 'pole'),
  );
}

const quantile = (sorted: Float64Array, share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] as number;

/** How much of a curve's height beyond its features is shown before its ends are cut off. */
const tamest = 3.5;

function wellShown(sorted: Float64Array, features: readonly number[], hasPole: boolean): Range {
  const all: Range = {
    from: Math.min(...features, quantile(sorted, 0)),
    to: Math.max(...features, quantile(sorted, 1)),
  };
  const within = (cut: number): Range => ({
    from: Math.min(...features, quantile(sorted, cut)),
    to: Math.max(...features, quantile(sorted, 1 - cut)),
  });
  const core = within(hasPole ? shareCutAtPole(sorted) : 0.15);
  const heart = features.length > 1 ? { from: Math.min(...features), to: Math.max(...features) } : core;
  const isTame = !hasPole && all.to - all.from <= tamest * (heart.to - heart.from);
  const isLone = hasPole || features.length === 0 || heart.to === heart.from;
  const shown = features.length === 0 && !hasPole ? within(0.3) : core;
  const kept = isTame ? all : isLone ? withLevelSide(shown, all) : stretched(heart, all);
  const margin = (kept.to - kept.from) * 0.08;
  if (margin > 0) return { from: kept.from - margin, to: kept.to + margin };
  const height = Math.abs(kept.from) || 1;
  return { from: Math.min(0, kept.from - height), to: Math.max(0, kept.to + height) };
}

/** How much of a curve is cut off above and below at a pole: less where it runs away on both sides. */
function shareCutAtPole(sorted: Float64Array): number {
  const middle = quantile(sorted, 0.75) - quantile(sorted, 0.25);
  const runsUp = quantile(sorted, 0.99) - quantile(sorted, 0.75) > 3 * middle;
  const runsDown = quantile(sorted, 0.25) - quantile(sorted, 0.01) > 3 * middle;
  return runsUp && runsDown ? 0.05 : 0.1;
}

/** The side on which a curve does not run away is shown whole. */
function withLevelSide(core: Range, all: Range): Range {
  const height = core.to - core.from;
  return {
    from: core.from - all.from < height / 2 ? all.from : core.from,
    to: all.to - core.to < height / 2 ? all.to : core.to,
  };
}

/** The heart of a curve with room above and below, as far as the curve itself reaches. */
function stretched(heart: Range, all: Range): Range {
  const room = heart.to - heart.from;
  return { from: Math.max(all.from, heart.from - room * 1.5), to: Math.min(all.to, heart.to + room * 1.5) };
}

/** The x-axis helps to read a curve that lies near it. */
function withAxis({ from, to }: Range): Range {
  const height = to - from;
  if (from > 0 && from < height) return { from: -height * 0.08, to };
  if (to < 0 && -to < height) return { from, to: height * 0.08 };
  return { from, to };
}
