import * as range from '../evaluate/interval.ts';
import * as jet from '../evaluate/jet.ts';
import { oneArgument, template, type BuiltIn } from './row.ts';

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
    argumentCount: oneArgument,
    value: Math.sqrt,
    derivatives: ['1/(2 sqrt(x))'],
    range: (x) => range.rationalPower(x, 1, 2),
    jet: jet.sqrt,
    latex: template((x) => `\\sqrt{${x}}`),
  },
  {
    name: 'cbrt',
    spellings: ['cbrt'],
    argumentCount: oneArgument,
    value: Math.cbrt,
    derivatives: ['1/(3 cbrt(x)^2)'],
    range: (x) => range.rationalPower(x, 1, 3),
    jet: (u) => jet.rationalPower(u, 1, 3),
    latex: template((x) => `\\sqrt[3]{${x}}`),
  },
  {
    name: 'root',
    spellings: ['root'],
    argumentCount: { least: 2, most: 2 },
    value: realRoot,
    derivatives: [undefined, 'root(x, y)/(x y)'],
    range: (n, x) => (isDegree(n) ? range.rationalPower(x, 1, n.low) : range.everything),
    jet: (n, u) => {
      const degree = n[0] as number;
      const isWhole = Number.isInteger(degree) && degree >= 1;
      return isWhole ? jet.rationalPower(u, 1, degree) : jet.constantJet(NaN, u.length);
    },
    latex: template((n, x) => `\\sqrt[${n ?? ''}]{${x ?? ''}}`),
  },
];
