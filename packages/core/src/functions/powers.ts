import * as range from '../numbers/interval.ts';
import * as rangeJets from '../numbers/intervalJet.ts';
import * as jet from '../numbers/jet.ts';
import * as balls from '../numbers/ballFunctions.ts';
import { oneArgument, twoArguments, type BuiltIn } from './row.ts';

/** The real n-th root of x for a whole number n ≥ 1; undefined otherwise. */
function realRoot(n: number, x: number): number {
  if (!Number.isInteger(n) || n < 1) return NaN;
  return jet.rationalPowerValue(x, 1, n);
}

const isDegree = (n: range.Interval) => n.low === n.high && Number.isInteger(n.low) && n.low >= 1;

export const powers: readonly BuiltIn[] = [
  {
    name: 'sqrt',
    spellings: ['sqrt'],
    spoken: 'square root',
    argumentCount: oneArgument,
    value: Math.sqrt,
    ball: balls.sqrt,
    derivatives: ['1/(2 sqrt(x))'],
    range: (x) => range.rationalPower(x, 1, 2),
    jet: jet.sqrt,
    rangeJet: (u) => rangeJets.rationalPower(u, 1, 2),
    jetBeside: (side, u) => jet.rationalPowerBeside(u, 1, 2, side),
    notation: { kind: 'root', degree: 2 },
    domain: 'x ≥ 0',
    boundaries: ['x'],
  },
  {
    name: 'cbrt',
    spellings: ['cbrt'],
    spoken: 'cube root',
    argumentCount: oneArgument,
    value: Math.cbrt,
    ball: balls.cbrt,
    derivatives: ['1/(3 cbrt(x)^2)'],
    range: (x) => range.rationalPower(x, 1, 3),
    jet: (u) => jet.rationalPower(u, 1, 3),
    rangeJet: (u) => rangeJets.rationalPower(u, 1, 3),
    jetBeside: (side, u) => jet.rationalPowerBeside(u, 1, 3, side),
    notation: { kind: 'root', degree: 3 },
    boundaries: ['x'],
  },
  {
    name: 'root',
    spellings: ['root'],
    spoken: 'root',
    argumentCount: twoArguments,
    value: realRoot,
    ball: balls.root,
    derivatives: [undefined, 'root(x, y)/(x y)'],
    range: (n, x) => (isDegree(n) ? range.rationalPower(x, 1, n.low) : range.everything),
    jet: (n, u) => {
      const degree = n[0] as number;
      const isWhole = Number.isInteger(degree) && degree >= 1;
      return isWhole ? jet.rationalPower(u, 1, degree) : jet.constantJet(NaN, u.length);
    },
    rangeJet: (n, u) => {
      const degree = rangeJets.valuesOf(n);
      return isDegree(degree)
        ? rangeJets.rationalPower(u, 1, degree.low)
        : rangeJets.rough(range.everything, rangeJets.lengthOf(u));
    },
    jetBeside: (side, n, u) => jet.rationalPowerBeside(u, 1, n[0] as number, side),
    notation: { kind: 'root', degree: 'argument' },
    domain: 'x > 0',
    boundaries: ['y'],
  },
];
