import * as range from '../numbers/interval.ts';
import * as rangeJets from '../numbers/intervalJet.ts';
import * as jet from '../numbers/jet.ts';
import * as balls from '../numbers/ballFunctions.ts';
import { atReciprocal, reciprocalOf } from './reciprocals.ts';
import { namedOperator, oneArgument, operator, type BuiltIn } from './row.ts';

const first = (u: jet.Jet) => u[0] as number;
const square = (u: jet.Jet) => jet.multiply(u, u);

const arcoshRange = (x: range.Interval) => range.monotone(Math.acosh, range.within(x, 1, Infinity));
function artanhRange(x: range.Interval): range.Interval {
  const inside = range.monotone(Math.atanh, range.within(x, -1, 1));
  return x.low > -1 && x.high < 1 ? inside : { ...inside, sure: false };
}

const elementary: readonly BuiltIn[] = [
  {
    name: 'sinh',
    spellings: ['sinh'],
    spoken: 'hyperbolic sine',
    argumentCount: oneArgument,
    value: Math.sinh,
    ball: balls.sinh,
    derivatives: ['cosh(x)'],
    range: (x) => range.monotone(Math.sinh, x),
    jet: (u) => jet.sinhCosh(u)[0],
    rangeJet: (u) => rangeJets.sinhCosh(u)[0],
    notation: operator('\\sinh'),
  },
  {
    name: 'cosh',
    spellings: ['cosh'],
    spoken: 'hyperbolic cosine',
    argumentCount: oneArgument,
    value: Math.cosh,
    ball: balls.cosh,
    derivatives: ['sinh(x)'],
    range: (x) => range.monotone(Math.cosh, range.absolute(x)),
    jet: (u) => jet.sinhCosh(u)[1],
    rangeJet: (u) => rangeJets.sinhCosh(u)[1],
    notation: operator('\\cosh'),
  },
  {
    name: 'tanh',
    spellings: ['tanh'],
    spoken: 'hyperbolic tangent',
    argumentCount: oneArgument,
    value: Math.tanh,
    ball: balls.tanh,
    derivatives: ['1/cosh(x)^2'],
    range: (x) => range.monotone(Math.tanh, x),
    jet: (u) => {
      const tanh = Math.tanh(first(u));
      const cosh = jet.sinhCosh(u)[1];
      return Number.isFinite(first(cosh))
        ? jet.integrateProduct(u, jet.divide(jet.one(u), square(cosh)), tanh)
        : jet.constantJet(tanh, u.length);
    },
    rangeJet: (u) =>
      rangeJets.along(
        u,
        (v) => rangeJets.reciprocal(rangeJets.integerPower(rangeJets.sinhCosh(v)[1], 2)),
        (x) => range.monotone(Math.tanh, x),
      ),
    notation: operator('\\tanh'),
  },
  {
    name: 'arsinh',
    spellings: ['arsinh', 'asinh', 'arcsinh'],
    spoken: 'inverse hyperbolic sine',
    argumentCount: oneArgument,
    value: Math.asinh,
    ball: balls.arsinh,
    derivatives: ['1/sqrt(x^2+1)'],
    range: (x) => range.monotone(Math.asinh, x),
    jet: (u) =>
      jet.integrateProduct(
        u,
        jet.divide(jet.one(u), jet.sqrt(jet.add(square(u), jet.one(u)))),
        Math.asinh(first(u)),
      ),
    rangeJet: (u) =>
      rangeJets.along(
        u,
        (v) => rangeJets.rationalPower(rangeJets.plus(rangeJets.integerPower(v, 2), 1), -1, 2),
        (x) => range.monotone(Math.asinh, x),
      ),
    notation: namedOperator('arsinh'),
  },
  {
    name: 'arcosh',
    spellings: ['arcosh', 'acosh', 'arccosh'],
    spoken: 'inverse hyperbolic cosine',
    argumentCount: oneArgument,
    value: Math.acosh,
    ball: balls.arcosh,
    derivatives: ['1/sqrt(x^2-1)'],
    range: arcoshRange,
    jet: (u) =>
      jet.integrateProduct(
        u,
        jet.divide(jet.one(u), jet.sqrt(jet.subtract(square(u), jet.one(u)))),
        Math.acosh(first(u)),
      ),
    rangeJet: (u) =>
      rangeJets.along(
        u,
        (v) => rangeJets.rationalPower(rangeJets.plus(rangeJets.integerPower(v, 2), -1), -1, 2),
        arcoshRange,
      ),
    notation: namedOperator('arcosh'),
    domain: 'x ≥ 1',
    boundaries: ['x-1'],
  },
  {
    name: 'artanh',
    spellings: ['artanh', 'atanh', 'arctanh'],
    spoken: 'inverse hyperbolic tangent',
    argumentCount: oneArgument,
    value: (x) => (Math.abs(x) === 1 ? NaN : Math.atanh(x)),
    ball: balls.artanh,
    derivatives: ['1/(1-x^2)'],
    range: artanhRange,
    jet: (u) =>
      jet.integrateProduct(
        u,
        jet.divide(jet.one(u), jet.subtract(jet.one(u), square(u))),
        Math.atanh(first(u)),
      ),
    rangeJet: (u) =>
      rangeJets.along(
        u,
        (v) => rangeJets.reciprocal(rangeJets.plus(rangeJets.negate(rangeJets.integerPower(v, 2)), 1)),
        artanhRange,
      ),
    notation: namedOperator('artanh'),
    domain: '-1 < x < 1',
    boundaries: ['x-1', 'x+1'],
  },
];

const named = (name: string): BuiltIn => elementary.find((row) => row.name === name) as BuiltIn;

/** Their reciprocals, and the inverses of these (Bronstein and Semendjajew, hyperbolic and area functions). */
const reciprocals: readonly BuiltIn[] = [
  reciprocalOf(named('cosh'), {
    name: 'sech',
    spellings: ['sech'],
    spoken: 'hyperbolic secant',
    derivatives: ['-sech(x) tanh(x)'],
    notation: namedOperator('sech'),
  }),
  reciprocalOf(named('sinh'), {
    name: 'csch',
    spellings: ['csch'],
    spoken: 'hyperbolic cosecant',
    derivatives: ['-csch(x) coth(x)'],
    notation: namedOperator('csch'),
    domain: 'x ≠ 0',
  }),
  reciprocalOf(named('tanh'), {
    name: 'coth',
    spellings: ['coth'],
    spoken: 'hyperbolic cotangent',
    derivatives: ['-csch(x)^2'],
    notation: operator('\\coth'),
    domain: 'x ≠ 0',
  }),
  atReciprocal(named('arcosh'), {
    name: 'arsech',
    spellings: ['arsech', 'asech'],
    spoken: 'inverse hyperbolic secant',
    derivatives: ['-1/(x sqrt(1-x^2))'],
    notation: namedOperator('arsech'),
    domain: '0 < x ≤ 1',
    boundaries: ['x', 'x-1'],
  }),
  atReciprocal(named('arsinh'), {
    name: 'arcsch',
    spellings: ['arcsch', 'acsch'],
    spoken: 'inverse hyperbolic cosecant',
    derivatives: ['-1/(abs(x) sqrt(1+x^2))'],
    notation: namedOperator('arcsch'),
    domain: 'x ≠ 0',
    boundaries: ['x'],
  }),
  atReciprocal(named('artanh'), {
    name: 'arcoth',
    spellings: ['arcoth', 'acoth'],
    spoken: 'inverse hyperbolic cotangent',
    derivatives: ['1/(1-x^2)'],
    notation: namedOperator('arcoth'),
    domain: 'x < -1 or x > 1',
    boundaries: ['x-1', 'x+1'],
  }),
];

export const hyperbolic: readonly BuiltIn[] = [...elementary, ...reciprocals];
