import * as range from '../evaluate/interval.ts';
import * as jet from '../evaluate/jet.ts';
import { namedOperator, oneArgument, template, type BuiltIn } from './row.ts';

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
  if (difference !== 0) return difference > 0 ? u : v;
  return u.map((c, k) => (c === v[k] ? c : NaN));
};

const roundHalfUp = (x: number): number => Math.floor(x + 0.5);

export const rounding: readonly BuiltIn[] = [
  {
    name: 'abs',
    spellings: ['abs'],
    argumentCount: oneArgument,
    value: Math.abs,
    derivatives: ['abs(x)/x'],
    range: range.absolute,
    jet: (u) => {
      const x = u[0] as number;
      if (x !== 0) return x > 0 ? u : jet.negate(u);
      return u.map((c, k) => (k === 0 || c === 0 ? 0 : NaN));
    },
    latex: template((x) => `\\left|${x}\\right|`),
  },
  {
    name: 'sign',
    spellings: ['sign', 'sgn'],
    argumentCount: oneArgument,
    value: Math.sign,
    derivatives: ['0'],
    range: (x) => range.stepwise(Math.sign, x),
    jet: (u) => jet.stepwise(Math.sign, (x) => x === 0, u),
    latex: namedOperator('sign'),
  },
  {
    name: 'floor',
    spellings: ['floor'],
    argumentCount: oneArgument,
    value: Math.floor,
    derivatives: ['0'],
    range: (x) => range.stepwise(Math.floor, x),
    jet: (u) => jet.stepwise(Math.floor, isInteger, u),
    latex: template((x) => `\\left\\lfloor ${x}\\right\\rfloor`),
  },
  {
    name: 'ceil',
    spellings: ['ceil'],
    argumentCount: oneArgument,
    value: Math.ceil,
    derivatives: ['0'],
    range: (x) => range.stepwise(Math.ceil, x),
    jet: (u) => jet.stepwise(Math.ceil, isInteger, u),
    latex: template((x) => `\\left\\lceil ${x}\\right\\rceil`),
  },
  {
    name: 'round',
    spellings: ['round'],
    argumentCount: oneArgument,
    value: roundHalfUp,
    derivatives: ['0'],
    range: (x) => range.stepwise(roundHalfUp, x),
    jet: (u) => jet.stepwise(roundHalfUp, (x) => isInteger(x + 0.5), u),
    latex: namedOperator('round'),
  },
  {
    name: 'min',
    spellings: ['min'],
    argumentCount: { least: 2, most: 2 },
    value: (x, y) => Math.min(x, y),
    derivatives: ['(1 - (x - y)/abs(x - y))/2', '(1 + (x - y)/abs(x - y))/2'],
    range: (x, y) => ({
      low: Math.min(x.low, y.low),
      high: Math.min(x.high, y.high),
      sure: x.sure && y.sure,
    }),
    jet: (u, v) => larger(u, v, -1),
    latex: template((x, y) => `\\min\\left(${x ?? ''}, ${y ?? ''}\\right)`),
  },
  {
    name: 'max',
    spellings: ['max'],
    argumentCount: { least: 2, most: 2 },
    value: (x, y) => Math.max(x, y),
    derivatives: ['(1 + (x - y)/abs(x - y))/2', '(1 - (x - y)/abs(x - y))/2'],
    range: (x, y) => ({
      low: Math.max(x.low, y.low),
      high: Math.max(x.high, y.high),
      sure: x.sure && y.sure,
    }),
    jet: (u, v) => larger(u, v, 1),
    latex: template((x, y) => `\\max\\left(${x ?? ''}, ${y ?? ''}\\right)`),
  },
  {
    name: 'mod',
    spellings: ['mod'],
    argumentCount: { least: 2, most: 2 },
    value: modulo,
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
    latex: template((x, y) => `\\operatorname{mod}\\left(${x ?? ''}, ${y ?? ''}\\right)`),
  },
  {
    name: 'factorial',
    spellings: ['factorial'],
    argumentCount: oneArgument,
    value: factorial,
    derivatives: [undefined],
    range: (x) =>
      x.low === x.high ? { low: factorial(x.low), high: factorial(x.low), sure: false } : range.everything,
    jet: (u) => jet.constantJet(factorial(u[0] as number), u.length).map((c, k) => (k === 0 ? c : NaN)),
    latex: template((x) => `\\left(${x}\\right)!`),
  },
];
