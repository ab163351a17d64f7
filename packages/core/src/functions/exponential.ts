import * as range from '../numbers/interval.ts';
import * as rangeJets from '../numbers/intervalJet.ts';
import * as jet from '../numbers/jet.ts';
import * as balls from '../numbers/ballFunctions.ts';
import { oneArgument, operator, twoArguments, type BuiltIn } from './row.ts';

/** ln x, undefined at 0 as well as below. */
export const naturalLogarithm = (x: number): number => (x === 0 ? NaN : Math.log(x));

/** The logarithm of x > 0 to any base; exact where the base is 2 or 10 and x is a power of it. */
function logarithm(base: number, x: number): number {
  if (!(base > 0) || base === 1 || x === 0) return NaN;
  if (base === 10) return Math.log10(x);
  if (base === 2) return Math.log2(x);
  return Math.log(x) / Math.log(base);
}

export const exponential: readonly BuiltIn[] = [
  {
    name: 'exp',
    spellings: ['exp'],
    spoken: 'exponential',
    argumentCount: oneArgument,
    value: Math.exp,
    ball: balls.exp,
    derivatives: ['exp(x)'],
    range: range.exp,
    jet: jet.exp,
    rangeJet: rangeJets.exp,
    notation: { kind: 'exponential' },
  },
  {
    name: 'ln',
    spellings: ['ln'],
    spoken: 'natural logarithm',
    argumentCount: oneArgument,
    value: naturalLogarithm,
    ball: balls.ln,
    derivatives: ['1/x'],
    range: range.ln,
    jet: jet.ln,
    rangeJet: rangeJets.ln,
    notation: operator('\\ln'),
    domain: 'x > 0',
    boundaries: ['x'],
  },
  {
    name: 'log',
    spellings: ['log', 'lg'],
    spoken: 'logarithm',
    argumentCount: oneArgument,
    value: (x) => logarithm(10, x),
    ball: balls.log,
    derivatives: ['1/(x ln(10))'],
    range: (x) => range.divide(range.ln(x), range.ln(range.exactly(10))),
    jet: (u) => jet.scale(jet.ln(u), 1 / Math.LN10),
    rangeJet: (u) => rangeJets.scale(rangeJets.ln(u), range.reciprocal(range.ln(range.exactly(10)))),
    notation: operator('\\log'),
    domain: 'x > 0',
    inTermsOf: 'ln(x)/ln(10)',
  },
  {
    name: 'logBase',
    spellings: [],
    spoken: 'logarithm',
    argumentCount: twoArguments,
    value: logarithm,
    ball: balls.logBase,
    derivatives: ['-ln(y)/(x ln(x)^2)', '1/(y ln(x))'],
    range: (base, x) => range.divide(range.ln(x), range.ln(base)),
    jet: (base, u) => jet.divide(jet.ln(u), jet.ln(base)),
    rangeJet: (base, u) => rangeJets.divide(rangeJets.ln(u), rangeJets.ln(base)),
    notation: { kind: 'indexed', latex: '\\log', symbol: 'log' },
    domain: 'x > 0 and x ≠ 1 and y > 0',
    inTermsOf: 'ln(y)/ln(x)',
  },
];
