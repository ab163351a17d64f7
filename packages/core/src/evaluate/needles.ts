import { enclosedJet } from './enclosedJets.ts';
import * as intervals from '../numbers/interval.ts';
import * as jets from '../numbers/intervalJet.ts';
import type { Program } from './program.ts';

/** Parts that are looked at for one stretch of the axis. */
const mostLooks = 300;
/** While an input moves, as in ∫[0, 1] f(x t) dt, each value has a stretch of its own. */
const fewLooks = 100;
/** How much more a function may rise on a part, by its slope, than its values show. */
const unseen = 40;
/** Places at which a part is sampled. */
const samples = [0, 0.21, 0.5, 0.79, 1];
/** Parts this much narrower than the whole stretch are where something narrow is. */
const narrow = 1 / 64;

/** Of the largest value: a rise that is nothing beside it; and what is nothing at all. */
const small = 1e-9;
const least = 1e-200;

interface Searched {
  readonly key: string;
  readonly from: number;
  readonly to: number;
  readonly needles: readonly number[];
}

const searched = new WeakMap<Program, Searched>();

/**
 * Places beside which a function does something so narrow that quadrature over the whole would not see it; ascending.
 * They are found by enclosures of its slope: a part is done with when it cannot rise by much more than its values show.
 * @param value the function itself
 * @param parameters values in the order of `body.parameters`
 */
export function needlesWithin(
  body: Program,
  value: (x: number) => number,
  parameters: readonly number[],
  from: number,
  to: number,
): readonly number[] {
  if (!Number.isFinite(from) || !Number.isFinite(to)) return [];
  const key = parameters.join();
  let known = searched.get(body);
  if (!known || known.key !== key || from < known.from || to > known.to) {
    const hasMoved = known !== undefined && known.key !== key;
    // The next stretch will reach a little further: it is searched with this one.
    const width = to - from;
    const [low, high] = hasMoved ? [from, to] : [from - (known ? width : 0), to + (known ? width : 0)];
    const needles = search(body, value, parameters, low, high, hasMoved ? fewLooks : mostLooks);
    known = { key, from: low, to: high, needles };
    searched.set(body, known);
  }
  return known.needles.filter((x) => x > from && x < to);
}

interface Part {
  readonly from: number;
  readonly to: number;
  /** By how much the function may rise without having been seen to. */
  readonly hidden: number;
}

function search(
  body: Program,
  value: (x: number) => number,
  parameters: readonly number[],
  low: number,
  high: number,
  looks: number,
): number[] {
  const inputs = parameters.map((x) => intervals.exactly(x));
  let scale = 0;
  const look = (from: number, to: number): Part => {
    const jet = enclosedJet(body, jets.variable({ low: from, high: to, sure: true }, 2), inputs);
    const slope = jets.coefficient(jet, 1);
    const rise = Math.max(Math.abs(slope.low), Math.abs(slope.high)) * (to - from);
    // What is unknown altogether, as beside a pole, is left to quadrature.
    if (rise === 0 || !Number.isFinite(rise)) return { from, to, hidden: 0 };
    const heights = samples.map((share) => value(from + share * (to - from))).filter(Number.isFinite);
    scale = heights.reduce((most, y) => Math.max(most, Math.abs(y)), scale);
    const swing = heights.length > 0 ? Math.max(...heights) - Math.min(...heights) : 0;
    return { from, to, hidden: rise <= unseen * swing ? 0 : rise };
  };
  const open = [look(low, high)];
  const needles: number[] = [];
  for (let done = 1; open.length > 0 && done < looks; done += 2) {
    const part = open.shift() as Part;
    const middle = part.from + (part.to - part.from) / 2;
    const isNothing = !(part.hidden > Math.max(scale * small, least));
    if (isNothing || middle <= part.from || middle >= part.to) continue;
    if (part.to - part.from < narrow * (high - low)) needles.push(part.from, part.to);
    open.push(look(part.from, middle), look(middle, part.to));
  }
  return [...new Set(needles)].sort((p, q) => p - q);
}
