import { evaluateAt } from '../values/values.ts';
import { splineOf, type Program } from '../evaluate/program.ts';
import type { Table } from '../language/table.ts';
import { derivativesAt } from '../values/jets.ts';

/** A place of a curve that a window should show. Found by search: good enough to aim at, not a proof. */
export interface Feature {
  readonly kind: 'zero' | 'extremum' | 'inflection' | 'pole' | 'edge';
  readonly x: number;
  /** The value there; NaN at a pole. */
  readonly y: number;
}

/** How far from 0 features are sought, and how many places are looked at on each side. */
const reach = 1000;
const looksPerSide = 300;
/** Where they are sought when there is none within reach. */
const farReach = 1e6;
/** Values nearer to 0 than this are underflow, not zeros. */
const negligible = 1e-200;
/** A slope below this share of the height is rounding on a level curve. */
const steepestLevel = 1e-9;

interface Look {
  readonly x: number;
  readonly y: number;
  readonly slope: number;
  readonly bend: number;
}

/** Two neighbouring looks with a feature between them, not yet pinned down. */
interface Bracket {
  readonly sought: 'edge' | 'zero' | 'extremum' | 'inflection';
  readonly a: Look;
  readonly b: Look;
}

/**
 * Zeros, extrema, poles and the ends of where f is defined, in ascending order of x; at most `most`
 * of them, those nearest to 0. Where there is none, inflections, and only then what lies far away.
 */
export function findFeatures(program: Program, parameters: readonly number[], most: number): Feature[] {
  const table = splineOf(program);
  if (table) return featuresOfTable(table);
  const looks = nearGrid.map((x) => look(program, x, parameters));
  const near = between(looks, bracketsBetween);
  const brackets = near.length > 0 ? near : between(looks, bendsBetween);
  const found = brackets.length > 0 ? brackets : far(program, parameters);
  const nearest = found.sort((p, q) => Math.abs(p.a.x) - Math.abs(q.a.x)).slice(0, most);
  const features = nearest.map((bracket) => pinDown(program, bracket, parameters));
  const [only] = features;
  const zeros = only && features.length === 1 ? zerosBeside(program, only, parameters) : [];
  return [...features, ...zeros].sort((p, q) => p.x - q.x);
}

/** The ends of a table and its lowest and highest knots: all of the data belongs into a window. */
function featuresOfTable(table: Table): Feature[] {
  const dots = [...table.knots].map((x) => ({ x, y: table.value(x) })).filter(({ y }) => !Number.isNaN(y));
  const ends = [table.knots[0] as number, table.knots.at(-1) as number];
  const edges = ends.map((x): Feature => ({ kind: 'edge', x, y: table.value(x) }));
  if (dots.length === 0) return edges;
  const low = dots.reduce((a, b) => (b.y < a.y ? b : a));
  const high = dots.reduce((a, b) => (b.y > a.y ? b : a));
  const extremes = [low, high].map(({ x, y }): Feature => ({ kind: 'extremum', x, y }));
  return [...edges, ...extremes].sort((p, q) => p.x - q.x);
}

const between = (looks: readonly Look[], brackets: (a: Look, b: Look) => Bracket[]): Bracket[] =>
  looks.slice(1).flatMap((b, i) => brackets(looks[i] as Look, b));

/** What lies beyond the usual reach, on either side. */
function far(program: Program, parameters: readonly number[]): Bracket[] {
  return [-1, 1].flatMap((side) => {
    const looks = farGrid.map((x) => look(program, side * x, parameters));
    return between(side > 0 ? looks : looks.reverse(), bracketsBetween);
  });
}

/** The zeros on either side of a lone extremum, where the curve's bend says that they should be: x ± √(−2y/f″). */
function zerosBeside(program: Program, { kind, x, y }: Feature, parameters: readonly number[]): Feature[] {
  if (kind !== 'extremum') return [];
  const { bend } = look(program, x, parameters);
  const distance = Math.sqrt((-2 * y) / bend);
  if (!(distance > 0 && Number.isFinite(distance))) return [];
  return [-1.5, 1.5].flatMap((steps) => {
    const [a, b] = [look(program, x, parameters), look(program, x + steps * distance, parameters)];
    const isCrossing = Number.isFinite(b.y) && changesSign(a.y, b.y);
    return isCrossing ? [pinDown(program, { sought: 'zero', a, b }, parameters)] : [];
  });
}

function look(program: Program, x: number, parameters: readonly number[]): Look {
  const [y = NaN, slope = NaN, bend = NaN] = derivativesAt(program, x, 2, parameters);
  return { x, y, slope, bend };
}

/** Dense near 0 and thinner outward (a hyperbolic sine), a little off centre so that 0 itself lies between two. */
const nearGrid: readonly number[] = Array.from({ length: 2 * looksPerSide }, (_, i) =>
  Math.sinh(((i - looksPerSide + 0.4837) / looksPerSide) * Math.asinh(reach)),
);
/** From the last place of the near grid on, as dense as it is there. */
const farGrid: readonly number[] = Array.from(
  { length: Math.ceil((Math.log(farReach / reach) / Math.asinh(reach)) * looksPerSide) },
  (_, i, share = Math.asinh(reach) / looksPerSide) => reach * Math.exp((i - 0.5163) * share),
);

const changesSign = (p: number, q: number): boolean => Math.sign(p) * Math.sign(q) < 0;

function bracketsBetween(a: Look, b: Look): Bracket[] {
  if (Number.isNaN(a.y) || Number.isNaN(b.y)) {
    return Number.isNaN(a.y) && Number.isNaN(b.y) ? [] : [{ sought: 'edge', a, b }];
  }
  const isAtZero = a.y === 0 && a.slope !== 0 && Math.abs(b.y) > negligible;
  if (isAtZero || (changesSign(a.y, b.y) && Math.max(Math.abs(a.y), Math.abs(b.y)) > negligible)) {
    return [{ sought: 'zero', a, b }];
  }
  const isLevel = Math.abs(a.y) < negligible && Math.abs(b.y) < negligible;
  return changesSign(a.slope, b.slope) && !isLevel ? [{ sought: 'extremum', a, b }] : [];
}

/** Where the bend changes, as in the middle of a growth that levels off. */
function bendsBetween(a: Look, b: Look): Bracket[] {
  const isBend = changesSign(a.bend, b.bend) && Math.min(Math.abs(a.bend), Math.abs(b.bend)) > negligible;
  const isSeen = Math.abs(a.slope) > steepestLevel * Math.abs(a.y);
  return isBend && isSeen ? [{ sought: 'inflection', a, b }] : [];
}

function pinDown(program: Program, { sought, a, b }: Bracket, parameters: readonly number[]): Feature {
  const value = (x: number) => evaluateAt(program, x, parameters);
  if (sought === 'edge') {
    const x = edge(value, Number.isNaN(a.y) ? [b.x, a.x] : [a.x, b.x]);
    return { kind: 'edge', x, y: value(x) };
  }
  const derivative = (order: number) => (x: number) =>
    derivativesAt(program, x, order, parameters)[order] ?? NaN;
  const sign = { zero: value, extremum: derivative(1), inflection: derivative(2) }[sought];
  const x = a.y === 0 ? a.x : signChange(sign, a.x, b.x);
  const y = value(x);
  const isPole = !Number.isFinite(y) || Math.abs(y) > 1e3 * (1 + Math.abs(a.y) + Math.abs(b.y));
  if (isPole) return { kind: 'pole', x, y: NaN };
  return sought === 'zero' ? { kind: 'zero', x, y: 0 } : { kind: sought, x, y };
}

const halvings = 50;

/** Where f changes its sign between a and b, by halving. */
function signChange(f: (x: number) => number, a: number, b: number): number {
  let [low, high] = [a, b];
  const sign = Math.sign(f(low));
  for (let i = 0; i < halvings; i++) {
    const middle = (low + high) / 2;
    if (Math.sign(f(middle)) === sign) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** The last place, going from a defined place to an undefined one, where f is still defined. */
function edge(f: (x: number) => number, [defined, undefinedAt]: readonly [number, number]): number {
  let [inside, outside] = [defined, undefinedAt];
  for (let i = 0; i < halvings; i++) {
    const middle = (inside + outside) / 2;
    if (Number.isNaN(f(middle))) outside = middle;
    else inside = middle;
  }
  return inside;
}
