import { canonical, isNumber } from '../algebra/canonical.ts';
import { derivativeOf } from '../algebra/differentiate.ts';
import { shortest } from '../algebra/shortest.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { signOfConstant } from '../limit/constantSign.ts';
import { limitOfFormula, type Goal } from '../limit/growth/limitOfFormula.ts';
import { convergence, type Convergence } from './convergence.ts';

/** A wave: the sine or the cosine of something that has no waves itself. */
export interface Wave {
  readonly name: 'sin' | 'cos';
  readonly argument: Expression;
}

/** An amplitude without waves, times a wave where there is one. */
export interface WaveTerm {
  readonly amplitude: Expression;
  readonly wave: Wave | null;
}

/** Terms beyond which nothing is written in waves. */
const mostTerms = 32;
const highestPower = 8;

/** Functions that are monotone from some place on when they are put together (they belong to a Hardy field). */
const steady = new Set([
  ...['exp', 'ln', 'log', 'logBase', 'sqrt', 'cbrt', 'root', 'abs', 'sinh', 'cosh', 'tanh', 'arsinh'],
  ...['arcosh', 'artanh', 'arctan', 'arccot', 'degrees'],
]);

/** Whether a formula has no waves, jumps, tables or pieces in a variable. */
export function isSteady(node: Expression, variable: string): boolean {
  if (!tree.dependsOn(node, variable)) return true;
  const isKnown =
    ['name', 'negate', 'add', 'subtract', 'multiply', 'divide', 'power'].includes(node.kind) ||
    (node.kind === 'call' && steady.has(node.name));
  return isKnown && tree.children(node).every((child) => isSteady(child, variable));
}

/**
 * A formula as a sum of waves with amplitudes, by the addition theorems: sin²x/x² is 1/(2x²) − cos(2x)/(2x²). Null where
 * it is no such sum, or one of too many terms.
 */
export function waveTerms(body: Expression, variable: string): readonly WaveTerm[] | null {
  const terms = termsOf(body, variable);
  return terms && terms.some(({ wave }) => wave !== null) ? terms : null;
}

function termsOf(node: Expression, variable: string): readonly WaveTerm[] | null {
  if (isSteady(node, variable)) return [{ amplitude: node, wave: null }];
  const of = (part: Expression): readonly WaveTerm[] | null => termsOf(part, variable);
  switch (node.kind) {
    case 'negate':
      return of(node.operand)?.map((term) => ({ ...term, amplitude: tree.negate(term.amplitude) })) ?? null;
    case 'add':
      return joined(of(node.left), of(node.right));
    case 'subtract':
      return joined(of(node.left), of(tree.negate(node.right)));
    case 'multiply':
      return multiplied(of(node.left), of(node.right));
    case 'divide': {
      const { right } = node;
      if (!isSteady(right, variable)) return null;
      return (
        of(node.left)?.map((term) => ({ ...term, amplitude: tree.divide(term.amplitude, right) })) ?? null
      );
    }
    case 'power':
      return powerOf(node.base, node.exponent, variable);
    case 'call': {
      const [argument] = node.arguments;
      const isWave = node.name === 'sin' || node.name === 'cos';
      if (!isWave || !argument || !isSteady(argument, variable)) return null;
      return [{ amplitude: tree.number(1), wave: { name: node.name as 'sin' | 'cos', argument } }];
    }
    default:
      return null;
  }
}

type Terms = readonly WaveTerm[] | null;

function powerOf(base: Expression, exponent: Expression, variable: string): Terms {
  const n = exponent.kind === 'number' ? Number(exponent.text) : NaN;
  if (!Number.isInteger(n) || n < 1 || n > highestPower) return null;
  const once = termsOf(base, variable);
  let product: Terms = once;
  for (let i = 1; i < n; i++) product = multiplied(product, once);
  return product;
}

function joined(a: Terms, b: Terms): Terms {
  return a && b && a.length + b.length <= mostTerms ? [...a, ...b] : null;
}

function multiplied(a: Terms, b: Terms): Terms {
  if (!a || !b || 2 * a.length * b.length > mostTerms) return null;
  return a.flatMap((one) => b.flatMap((other) => productOf(one, other)));
}

const half = tree.divide(tree.number(1), tree.number(2));

/** sin a sin b = ½(cos(a − b) − cos(a + b)), and its kin. */
function productOf(one: WaveTerm, other: WaveTerm): WaveTerm[] {
  const amplitude = tree.multiply(one.amplitude, other.amplitude);
  if (!one.wave || !other.wave) return [{ amplitude, wave: one.wave ?? other.wave }];
  const [a, b] = one.wave.name === 'sin' ? [one.wave, other.wave] : [other.wave, one.wave];
  const halved = tree.multiply(half, amplitude);
  const name = a.name === b.name ? 'cos' : 'sin';
  const isMinus = a.name === 'sin' && b.name === 'sin';
  return [
    term(halved, name, tree.subtract(a.argument, b.argument)),
    term(isMinus ? tree.negate(halved) : halved, name, tree.add(a.argument, b.argument)),
  ];
}

/** A wave whose argument is 0 is a number. */
function term(amplitude: Expression, name: 'sin' | 'cos', argument: Expression): WaveTerm {
  const form = canonical(argument);
  if (!isNumber(form, 0)) return { amplitude, wave: { name, argument: shortest(form, 'fraction') } };
  return { amplitude: name === 'cos' ? amplitude : tree.number(0), wave: null };
}

/** What of a sum of waves is no wave; null where that is nothing. */
export function steadyRest(terms: readonly WaveTerm[]): Expression | null {
  const rest = terms.filter(({ wave }) => wave === null).map(({ amplitude }) => amplitude);
  const [first, ...others] = rest;
  if (!first) return null;
  const sum = canonical(others.reduce<Expression>(tree.add, first));
  return isNumber(sum, 0) ? null : shortest(sum, 'fraction');
}

/**
 * Whether the integral of a sum of waves has a value at ±∞: a wave times what tends to 0 steadily has one, and so the rest
 * decides. A single wave whose areas do not tend to 0 has none.
 * Source: Dirichlet's test (Apostol, Mathematical Analysis, section 10.9 in the second edition, from memory), after
 * substituting the argument of the wave.
 */
export function convergenceOfWaves(terms: readonly WaveTerm[], variable: string, side: 1 | -1): Convergence {
  const goal: Goal = { variable, target: side, side: side > 0 ? -1 : 1 };
  const verdicts = terms.map(({ amplitude, wave }) => (wave ? fading(amplitude, wave, goal) : 'fades'));
  if (verdicts.every((verdict) => verdict === 'fades')) {
    const rest = steadyRest(terms);
    return rest ? convergence(rest, variable, side, side > 0 ? -1 : 1) : 'converges';
  }
  return terms.length === 1 && verdicts[0] === 'stays' ? 'diverges' : 'unknown';
}

/** Whether the areas under the single arches of a wave tend to 0. */
function fading(amplitude: Expression, { argument }: Wave, goal: Goal): 'fades' | 'stays' | 'unknown' {
  const far = limitOfFormula(argument, goal);
  if (far === null || far === 'undecided' || far.kind !== 'infinite') return 'unknown';
  const area = tree.divide(amplitude, derivativeOf(argument, goal.variable));
  const limit = limitOfFormula(area, goal);
  if (limit === null || limit === 'undecided') return 'unknown';
  if (limit.kind === 'infinite') return 'stays';
  if (limit.kind !== 'finite') return 'unknown';
  const sign = signOfConstant(limit.exact);
  return sign === 0 ? 'fades' : Number.isNaN(sign) ? 'unknown' : 'stays';
}
