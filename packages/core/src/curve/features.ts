import { evaluateAt } from '../evaluate/values.ts';
import type { Program } from '../evaluate/program.ts';
import { derivativesAt } from '../evaluate/jets.ts';

/** A place of a curve that a window should show. Found by search: good enough to aim at, not a proof. */
export interface Feature {
  readonly kind: 'zero' | 'extremum' | 'pole' | 'edge';
  readonly x: number;
  /** The value there; NaN at a pole. */
  readonly y: number;
}

/** How far from 0 features are sought, and how many places are looked at on each side. */
const reach = 1000;
const looksPerSide = 300;
/** Values nearer to 0 than this are underflow, not zeros. */
const negligible = 1e-200;

interface Look {
  readonly x: number;
  readonly y: number;
  readonly slope: number;
}

/** Two neighbouring looks with a feature between them, not yet pinned down. */
interface Bracket {
  readonly sought: 'edge' | 'zero' | 'extremum';
  readonly a: Look;
  readonly b: Look;
}

/**
 * Zeros, extrema, poles and the ends of where f is defined, in ascending order of x; at most `most`
 * of them, those nearest to 0.
 */
export function findFeatures(program: Program, parameters: readonly number[], most: number): Feature[] {
  const looks = searchGrid().map((x) => look(program, x, parameters));
  const brackets = looks.slice(1).flatMap((b, i) => bracketsBetween(looks[i] as Look, b));
  const nearest = brackets.sort((p, q) => Math.abs(p.a.x) - Math.abs(q.a.x)).slice(0, most);
  return nearest.map((bracket) => pinDown(program, bracket, parameters)).sort((p, q) => p.x - q.x);
}

function look(program: Program, x: number, parameters: readonly number[]): Look {
  const [y = NaN, slope = NaN] = derivativesAt(program, x, 1, parameters);
  return { x, y, slope };
}

/** Dense near 0 and thinner outward (a hyperbolic sine), a little off centre so that 0 itself lies between two. */
function searchGrid(): number[] {
  const scale = Math.asinh(reach);
  return Array.from({ length: 2 * looksPerSide }, (_, i) =>
    Math.sinh(((i - looksPerSide + 0.4837) / looksPerSide) * scale),
  );
}

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

function pinDown(program: Program, { sought, a, b }: Bracket, parameters: readonly number[]): Feature {
  const value = (x: number) => evaluateAt(program, x, parameters);
  if (sought === 'edge') {
    const x = edge(value, Number.isNaN(a.y) ? [b.x, a.x] : [a.x, b.x]);
    return { kind: 'edge', x, y: value(x) };
  }
  const slope = (x: number) => derivativesAt(program, x, 1, parameters)[1] ?? NaN;
  const x = a.y === 0 ? a.x : signChange(sought === 'zero' ? value : slope, a.x, b.x);
  const y = value(x);
  const isPole = !Number.isFinite(y) || Math.abs(y) > 1e3 * (1 + Math.abs(a.y) + Math.abs(b.y));
  if (isPole) return { kind: 'pole', x, y: NaN };
  return sought === 'zero' ? { kind: 'zero', x, y: 0 } : { kind: 'extremum', x, y };
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
