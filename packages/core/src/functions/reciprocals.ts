import * as range from '../numbers/interval.ts';
import * as rangeJets from '../numbers/intervalJet.ts';
import * as jet from '../numbers/jet.ts';
import * as balls from '../numbers/ballFunctions.ts';
import { oneArgument, type BuiltIn } from './row.ts';

/** What a row says that does not follow from the function it is made of. */
type Own = Pick<
  BuiltIn,
  'name' | 'spellings' | 'spoken' | 'derivatives' | 'notation' | 'domain' | 'boundaries'
>;

/** The row of 1/f. */
export function reciprocalOf(f: BuiltIn, own: Own): BuiltIn {
  return {
    ...own,
    argumentCount: oneArgument,
    value: (x) => {
      const y = f.value(x);
      return y === 0 ? NaN : 1 / y;
    },
    ball: balls.reciprocalOf(f.ball),
    range: (x) => range.reciprocal(f.range(x)),
    jet: (u) => jet.divide(jet.one(u), f.jet(u)),
    rangeJet: (u) => rangeJets.reciprocal(f.rangeJet(u)),
    inTermsOf: `1/${f.name}(x)`,
  };
}

/** The row of f(1/x). */
export function atReciprocal(f: BuiltIn, own: Own): BuiltIn {
  return {
    ...own,
    argumentCount: oneArgument,
    value: (x) => (x === 0 ? NaN : f.value(1 / x)),
    ball: balls.atReciprocal(f.ball),
    range: (x) => f.range(range.reciprocal(x)),
    jet: (u) => f.jet(jet.divide(jet.one(u), u)),
    rangeJet: (u) => f.rangeJet(rangeJets.reciprocal(u)),
    inTermsOf: `${f.name}(1/x)`,
  };
}
