import * as f from './functions.ts';
import * as jets from './jets.ts';
import type { Jet } from './jets.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';

/** The functions of the language that have one rule wherever they have a value. */

type Call = (u: Jet, v: Jet | undefined) => Jet | null;

export const notNegative: Range = { low: n.zero, high: n.everything.high };
const notBelowOne: Range = { low: { m: 1n, e: 0 }, high: n.everything.high };
const unit = n.between(-1, 1);
export const domains: ReadonlyMap<string, Range> = new Map([
  ['logBase', notNegative],
  ['arcsin', unit],
  ['arccos', unit],
  ['arcosh', notBelowOne],
  ['artanh', unit],
]);
/** Functions of what is not below 0. */
export const fromZeroUp: ReadonlySet<string> = new Set(['ln', 'log', 'sqrt']);
/** Functions of 1/x, and what 1/x must be for them. */
export const innerDomains: ReadonlyMap<string, Range> = new Map([
  ['arcsec', unit],
  ['arccsc', unit],
  ['arsech', notBelowOne],
  ['arcoth', unit],
]);
export const throughReciprocal: ReadonlySet<string> = new Set([
  ...innerDomains.keys(),
  'arcsch',
  'csch',
  'coth',
]);
export const quotients: ReadonlySet<string> = new Set(['tan', 'cot', 'sec', 'csc']);
const atReciprocal =
  (rule: (u: Jet) => Jet | null): Call =>
  (u) =>
    rule(jets.reciprocal(u));
const logarithm =
  (base: Range): Call =>
  (u) => {
    const value = jets.ln(u);
    return value && jets.scale(value, n.reciprocal(f.ln(base)));
  };
const complement =
  (rule: (u: Jet) => Jet | null): Call =>
  (u) => {
    const value = rule(u);
    return value && jets.subtract(jets.constant(n.scaled(f.pi, -1), u.length), value);
  };
export const calls: ReadonlyMap<string, Call> = new Map<string, Call>([
  ['sin', (u) => jets.waves(u).sin],
  ['cos', (u) => jets.waves(u).cos],
  ['exp', jets.exp],
  ['ln', jets.ln],
  ['log', logarithm(n.whole(10))],
  [
    'logBase',
    (b, u) => {
      const [above, below] = [u ? jets.ln(u) : null, jets.ln(b)];
      return above && below && jets.divide(above, below);
    },
  ],
  ['sqrt', (u) => jets.rationalPower(u, 1, 2)],
  ['cbrt', (u) => jets.rationalPower(u, 1, 3)],
  ['arctan', jets.arctan],
  ['arcsin', jets.arcsin],
  ['arccos', complement(jets.arcsin)],
  ['arccot', complement(jets.arctan)],
  ['arcsec', atReciprocal((u) => complement(jets.arcsin)(u, undefined))],
  ['arccsc', atReciprocal(jets.arcsin)],
  ['sinh', jets.sinh],
  ['cosh', jets.cosh],
  ['tanh', jets.tanh],
  ['sech', (u) => jets.reciprocal(jets.cosh(u))],
  ['csch', (u) => jets.reciprocal(jets.sinh(u))],
  ['coth', (u) => jets.reciprocal(jets.tanh(u))],
  ['arsinh', jets.arsinh],
  ['arcosh', jets.arcosh],
  ['artanh', jets.artanh],
  ['arsech', atReciprocal(jets.arcosh)],
  ['arcsch', atReciprocal(jets.arsinh)],
  ['arcoth', atReciprocal(jets.artanh)],
  ['degrees', (u) => jets.scale(u, n.divide(f.pi, n.whole(180)))],
]);
