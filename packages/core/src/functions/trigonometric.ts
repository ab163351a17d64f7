import * as range from '../numbers/interval.ts';
import * as rangeJets from '../numbers/intervalJet.ts';
import * as jet from '../numbers/jet.ts';
import * as balls from '../numbers/ballFunctions.ts';
import { atReciprocal } from './reciprocals.ts';
import { namedOperator, oneArgument, operator, type BuiltIn } from './row.ts';

const sinJet = (u: jet.Jet) => jet.sinCos(u)[0];
const cosJet = (u: jet.Jet) => jet.sinCos(u)[1];
const oneMinusSquare = (u: jet.Jet) => jet.subtract(jet.one(u), jet.multiply(u, u));
const onePlusSquare = (u: jet.Jet) => jet.add(jet.one(u), jet.multiply(u, u));
const first = (u: jet.Jet) => u[0] as number;

const arcsinRange = (x: range.Interval) => range.monotone(Math.asin, range.within(x, -1, 1));
const arccosRange = (x: range.Interval) => range.monotone(Math.acos, range.within(x, -1, 1), true);
const arctanRange = (x: range.Interval) => range.monotone(Math.atan, x);
const arccotRange = (x: range.Interval) => range.monotone((v) => Math.PI / 2 - Math.atan(v), x, true);
const degree = range.outwardElementary(Math.PI / 180, Math.PI / 180);

const squared = (u: rangeJets.IntervalJet) => rangeJets.integerPower(u, 2);
/** 1/√(1 − u²) and 1/(1 + u²). */
const arcsineSlope = (u: rangeJets.IntervalJet) =>
  rangeJets.rationalPower(rangeJets.plus(rangeJets.negate(squared(u)), 1), -1, 2);
const arctangentSlope = (u: rangeJets.IntervalJet) => rangeJets.reciprocal(rangeJets.plus(squared(u), 1));

/** tan between two neighbouring poles rises; an interval that may hold a pole has every value. */
function tanRange(x: range.Interval): range.Interval {
  if (range.isNothing(x)) return range.nothing;
  const cosine = range.cos(x);
  if (cosine.low > 0 || cosine.high < 0) return range.monotone(Math.tan, x);
  return range.everything;
}

const elementary: readonly BuiltIn[] = [
  {
    name: 'sin',
    spellings: ['sin'],
    spoken: 'sine',
    argumentCount: oneArgument,
    value: Math.sin,
    ball: balls.sin,
    derivatives: ['cos(x)'],
    range: range.sin,
    jet: sinJet,
    rangeJet: (u) => rangeJets.sinCos(u)[0],
    notation: operator('\\sin'),
  },
  {
    name: 'cos',
    spellings: ['cos'],
    spoken: 'cosine',
    argumentCount: oneArgument,
    value: Math.cos,
    ball: balls.cos,
    derivatives: ['-sin(x)'],
    range: range.cos,
    jet: cosJet,
    rangeJet: (u) => rangeJets.sinCos(u)[1],
    notation: operator('\\cos'),
  },
  {
    name: 'tan',
    spellings: ['tan'],
    spoken: 'tangent',
    argumentCount: oneArgument,
    value: Math.tan,
    ball: balls.tan,
    derivatives: ['sec(x)^2'],
    range: tanRange,
    jet: (u) => jet.divide(...jet.sinCos(u)),
    rangeJet: (u) =>
      rangeJets.withValues(rangeJets.divide(...rangeJets.sinCos(u)), tanRange(rangeJets.valuesOf(u))),
    notation: operator('\\tan'),
    domain: 'cos(x) ≠ 0',
    inTermsOf: 'sin(x)/cos(x)',
  },
  {
    name: 'cot',
    spellings: ['cot'],
    spoken: 'cotangent',
    argumentCount: oneArgument,
    value: (x) => (x === 0 ? NaN : 1 / Math.tan(x)),
    ball: balls.cot,
    derivatives: ['-csc(x)^2'],
    range: (x) => range.divide(range.cos(x), range.sin(x)),
    jet: (u) => jet.divide(cosJet(u), sinJet(u)),
    rangeJet: (u) => rangeJets.divide(rangeJets.sinCos(u)[1], rangeJets.sinCos(u)[0]),
    notation: operator('\\cot'),
    domain: 'sin(x) ≠ 0',
    inTermsOf: 'cos(x)/sin(x)',
  },
  {
    name: 'sec',
    spellings: ['sec'],
    spoken: 'secant',
    argumentCount: oneArgument,
    value: (x) => 1 / Math.cos(x),
    ball: balls.sec,
    derivatives: ['sec(x) tan(x)'],
    range: (x) => range.reciprocal(range.cos(x)),
    jet: (u) => jet.divide(jet.one(u), cosJet(u)),
    rangeJet: (u) => rangeJets.reciprocal(rangeJets.sinCos(u)[1]),
    notation: operator('\\sec'),
    domain: 'cos(x) ≠ 0',
    inTermsOf: '1/cos(x)',
  },
  {
    name: 'csc',
    spellings: ['csc'],
    spoken: 'cosecant',
    argumentCount: oneArgument,
    value: (x) => (x === 0 ? NaN : 1 / Math.sin(x)),
    ball: balls.csc,
    derivatives: ['-csc(x) cot(x)'],
    range: (x) => range.reciprocal(range.sin(x)),
    jet: (u) => jet.divide(jet.one(u), sinJet(u)),
    rangeJet: (u) => rangeJets.reciprocal(rangeJets.sinCos(u)[0]),
    notation: operator('\\csc'),
    domain: 'sin(x) ≠ 0',
    inTermsOf: '1/sin(x)',
  },
  {
    name: 'arcsin',
    spellings: ['arcsin', 'asin'],
    spoken: 'arc sine',
    argumentCount: oneArgument,
    value: Math.asin,
    ball: balls.arcsin,
    derivatives: ['1/sqrt(1-x^2)'],
    range: arcsinRange,
    jet: (u) =>
      jet.integrateProduct(u, jet.divide(jet.one(u), jet.sqrt(oneMinusSquare(u))), Math.asin(first(u))),
    rangeJet: (u) => rangeJets.along(u, arcsineSlope, arcsinRange),
    notation: operator('\\arcsin'),
    domain: '-1 ≤ x ≤ 1',
    boundaries: ['x-1', 'x+1'],
  },
  {
    name: 'arccos',
    spellings: ['arccos', 'acos'],
    spoken: 'arc cosine',
    argumentCount: oneArgument,
    value: Math.acos,
    ball: balls.arccos,
    derivatives: ['-1/sqrt(1-x^2)'],
    range: arccosRange,
    jet: (u) =>
      jet.integrateProduct(
        u,
        jet.negate(jet.divide(jet.one(u), jet.sqrt(oneMinusSquare(u)))),
        Math.acos(first(u)),
      ),
    rangeJet: (u) => rangeJets.along(u, (v) => rangeJets.negate(arcsineSlope(v)), arccosRange),
    notation: operator('\\arccos'),
    domain: '-1 ≤ x ≤ 1',
    boundaries: ['x-1', 'x+1'],
  },
  {
    name: 'arctan',
    spellings: ['arctan', 'atan'],
    spoken: 'arc tangent',
    argumentCount: oneArgument,
    value: Math.atan,
    ball: balls.arctan,
    derivatives: ['1/(1+x^2)'],
    range: arctanRange,
    jet: (u) => jet.integrateProduct(u, jet.divide(jet.one(u), onePlusSquare(u)), Math.atan(first(u))),
    rangeJet: (u) => rangeJets.along(u, arctangentSlope, arctanRange),
    notation: operator('\\arctan'),
  },
  {
    name: 'arccot',
    spellings: ['arccot', 'acot'],
    spoken: 'arc cotangent',
    argumentCount: oneArgument,
    value: (x) => Math.PI / 2 - Math.atan(x),
    ball: balls.arccot,
    derivatives: ['-1/(1+x^2)'],
    range: arccotRange,
    jet: (u) =>
      jet.integrateProduct(
        u,
        jet.negate(jet.divide(jet.one(u), onePlusSquare(u))),
        Math.PI / 2 - Math.atan(first(u)),
      ),
    rangeJet: (u) => rangeJets.along(u, (v) => rangeJets.negate(arctangentSlope(v)), arccotRange),
    notation: namedOperator('arccot'),
  },
  {
    name: 'degrees',
    spellings: ['degrees'],
    spoken: 'degrees',
    argumentCount: oneArgument,
    value: (x) => (x * Math.PI) / 180,
    ball: balls.degrees,
    derivatives: ['π/180'],
    range: (x) => range.multiply(x, degree),
    jet: (u) => jet.scale(u, Math.PI / 180),
    rangeJet: (u) => rangeJets.scale(u, degree),
    notation: { kind: 'suffix', latex: '^{\\circ}', symbol: '°' },
    inTermsOf: 'π*x/180',
  },
];

const named = (name: string): BuiltIn => elementary.find((row) => row.name === name) as BuiltIn;

export const trigonometric: readonly BuiltIn[] = [
  ...elementary,
  atReciprocal(named('arccos'), {
    name: 'arcsec',
    spellings: ['arcsec', 'asec'],
    spoken: 'arc secant',
    derivatives: ['1/(abs(x) sqrt(x^2-1))'],
    notation: namedOperator('arcsec'),
    domain: 'x ≤ -1 or x ≥ 1',
    boundaries: ['x-1', 'x+1'],
  }),
  atReciprocal(named('arcsin'), {
    name: 'arccsc',
    spellings: ['arccsc', 'acsc'],
    spoken: 'arc cosecant',
    derivatives: ['-1/(abs(x) sqrt(x^2-1))'],
    notation: namedOperator('arccsc'),
    domain: 'x ≤ -1 or x ≥ 1',
    boundaries: ['x-1', 'x+1'],
  }),
];
