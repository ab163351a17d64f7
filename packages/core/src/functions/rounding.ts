import * as range from '../numbers/interval.ts';
import * as rangeJets from '../numbers/intervalJet.ts';
import * as jet from '../numbers/jet.ts';
import * as balls from '../numbers/ballFunctions.ts';
import { fence, listed, namedOperator, oneArgument, twoArguments, type BuiltIn } from './row.ts';

const isInteger = Number.isInteger;

/** n! for whole n from 0 to 170; undefined otherwise. */
function factorial(n: number): number {
  if (!isInteger(n) || n < 0 || n > 170) return NaN;
  let product = 1;
  for (let k = 2; k <= n; k++) product *= k;
  return product;
}

/** x − y·⌊x/y⌋: the remainder with the sign of the divisor. */
const modulo = (x: number, y: number): number => x - y * Math.floor(x / y);

const larger = (u: jet.Jet, v: jet.Jet, sign: 1 | -1): jet.Jet => {
  const difference = sign * ((u[0] as number) - (v[0] as number));
  if (difference > 0) return u;
  if (difference < 0) return v;
  // Equal, or one of them undefined.
  return u.map((c, k) => (c === v[k] ? c : NaN));
};

const largerBeside = (side: 1 | -1, u: jet.Jet, v: jet.Jet, sign: 1 | -1): jet.Jet => {
  const difference = jet.subtract(u, v);
  if (Number.isNaN(difference[0])) return difference;
  return jet.signBeside(difference, side) * sign > 0 ? u : v;
};

const minRange = (x: range.Interval, y: range.Interval): range.Interval => ({
  low: Math.min(x.low, y.low),
  high: Math.min(x.high, y.high),
  sure: x.sure && y.sure,
});
const maxRange = (x: range.Interval, y: range.Interval): range.Interval => ({
  low: Math.max(x.low, y.low),
  high: Math.max(x.high, y.high),
  sure: x.sure && y.sure,
});
const factorialRange = (x: range.Interval): range.Interval =>
  x.low === x.high ? { low: factorial(x.low), high: factorial(x.low), sure: false } : range.everything;

const roundHalfUp = (x: number): number => Math.floor(x + 0.5);

export const rounding: readonly BuiltIn[] = [
  {
    name: 'abs',
    spellings: ['abs'],
    spoken: 'absolute value',
    argumentCount: oneArgument,
    value: Math.abs,
    ball: balls.abs,
    derivatives: ['abs(x)/x'],
    range: range.absolute,
    jet: (u) => {
      const x = u[0] as number;
      if (x !== 0) return x > 0 ? u : jet.negate(u);
      return u.map((c, k) => (k === 0 || c === 0 ? 0 : NaN));
    },
    rangeJet: (u) => {
      const { low, high } = rangeJets.valuesOf(u);
      if (low >= 0) return u;
      return high <= 0
        ? rangeJets.negate(u)
        : rangeJets.rough(range.absolute(rangeJets.valuesOf(u)), rangeJets.lengthOf(u));
    },
    jetBeside: (side, u) => (jet.signBeside(u, side) < 0 ? jet.negate(u) : u),
    notation: fence({ latex: '|', symbol: '|' }, { latex: '|', symbol: '|' }),
    boundaries: ['x'],
    sides: { positive: 'x', negative: '-x' },
  },
  {
    name: 'sign',
    spellings: ['sign', 'sgn'],
    spoken: 'sign',
    argumentCount: oneArgument,
    value: Math.sign,
    ball: balls.sign,
    derivatives: ['0'],
    range: (x) => range.stepwise(Math.sign, x),
    jet: (u) => jet.stepwise(Math.sign, (x) => x === 0, u),
    rangeJet: (u) => rangeJets.stepwise(Math.sign, u),
    jetBeside: (side, u) => jet.constantJet(jet.signBeside(u, side), u.length),
    notation: namedOperator('sign'),
    boundaries: ['x'],
    sides: { positive: '1', negative: '-1' },
  },
  {
    name: 'floor',
    spellings: ['floor'],
    spoken: 'floor',
    argumentCount: oneArgument,
    value: Math.floor,
    ball: balls.floor,
    derivatives: ['0'],
    range: (x) => range.stepwise(Math.floor, x),
    jet: (u) => jet.stepwise(Math.floor, isInteger, u),
    rangeJet: (u) => rangeJets.stepwise(Math.floor, u),
    jetBeside: (side, u) => jet.stepBeside(Math.floor, u, side),
    notation: fence({ latex: '\\lfloor ', symbol: '⌊' }, { latex: '\\rfloor', symbol: '⌋' }),
  },
  {
    name: 'ceil',
    spellings: ['ceil'],
    spoken: 'ceiling',
    argumentCount: oneArgument,
    value: Math.ceil,
    ball: balls.ceil,
    derivatives: ['0'],
    range: (x) => range.stepwise(Math.ceil, x),
    jet: (u) => jet.stepwise(Math.ceil, isInteger, u),
    rangeJet: (u) => rangeJets.stepwise(Math.ceil, u),
    jetBeside: (side, u) => jet.stepBeside(Math.ceil, u, side),
    notation: fence({ latex: '\\lceil ', symbol: '⌈' }, { latex: '\\rceil', symbol: '⌉' }),
    inTermsOf: '-floor(-x)',
  },
  {
    name: 'round',
    spellings: ['round'],
    spoken: 'nearest whole number',
    argumentCount: oneArgument,
    value: roundHalfUp,
    ball: balls.round,
    derivatives: ['0'],
    range: (x) => range.stepwise(roundHalfUp, x),
    jet: (u) => jet.stepwise(roundHalfUp, (x) => isInteger(x + 0.5), u),
    rangeJet: (u) => rangeJets.stepwise(roundHalfUp, u),
    jetBeside: (side, u) => jet.stepBeside(Math.floor, jet.add(u, jet.constantJet(0.5, u.length)), side),
    notation: namedOperator('round'),
    inTermsOf: 'floor(x + 1/2)',
  },
  {
    name: 'min',
    spellings: ['min'],
    spoken: 'smaller',
    argumentCount: twoArguments,
    value: (x, y) => Math.min(x, y),
    ball: balls.min,
    derivatives: ['(1 - (x - y)/abs(x - y))/2', '(1 + (x - y)/abs(x - y))/2'],
    range: minRange,
    jet: (u, v) => larger(u, v, -1),
    rangeJet: (u, v) => rangeJets.either(u, v, -1, minRange),
    jetBeside: (side, u, v) => largerBeside(side, u, v, -1),
    notation: listed('\\min'),
    boundaries: ['x-y'],
    sides: { positive: 'y', negative: 'x' },
  },
  {
    name: 'max',
    spellings: ['max'],
    spoken: 'larger',
    argumentCount: twoArguments,
    value: (x, y) => Math.max(x, y),
    ball: balls.max,
    derivatives: ['(1 + (x - y)/abs(x - y))/2', '(1 - (x - y)/abs(x - y))/2'],
    range: maxRange,
    jet: (u, v) => larger(u, v, 1),
    rangeJet: (u, v) => rangeJets.either(u, v, 1, maxRange),
    jetBeside: (side, u, v) => largerBeside(side, u, v, 1),
    notation: listed('\\max'),
    boundaries: ['x-y'],
    sides: { positive: 'x', negative: 'y' },
  },
  {
    name: 'mod',
    spellings: ['mod'],
    spoken: 'remainder',
    argumentCount: twoArguments,
    value: modulo,
    ball: balls.mod,
    derivatives: ['1', '-floor(x/y)'],
    range: (x, y) => {
      const steps = range.stepwise(Math.floor, range.divide(x, y));
      return range.subtract(x, range.multiply(y, steps));
    },
    jet: (u, v) => {
      const ratio = jet.divide(u, v);
      const steps = jet.stepwise(Math.floor, isInteger, ratio);
      return jet.subtract(u, jet.multiply(v, steps));
    },
    rangeJet: (u, v) =>
      rangeJets.subtract(u, rangeJets.multiply(v, rangeJets.stepwise(Math.floor, rangeJets.divide(u, v)))),
    jetBeside: (side, u, v) =>
      jet.subtract(u, jet.multiply(v, jet.stepBeside(Math.floor, jet.divide(u, v), side))),
    notation: listed('\\operatorname{mod}'),
    domain: 'y ≠ 0',
    inTermsOf: 'x - y*floor(x/y)',
  },
  {
    name: 'factorial',
    spellings: ['factorial'],
    spoken: 'factorial',
    argumentCount: oneArgument,
    value: factorial,
    ball: balls.factorial,
    derivatives: [undefined],
    range: factorialRange,
    jet: (u) => jet.constantJet(factorial(u[0] as number), u.length).map((c, k) => (k === 0 ? c : NaN)),
    rangeJet: (u) => rangeJets.rough(factorialRange(rangeJets.valuesOf(u)), rangeJets.lengthOf(u)),
    notation: { kind: 'suffix', latex: '!', symbol: '!' },
    domain: 'x ≥ 0 and floor(x) = x',
  },
];
