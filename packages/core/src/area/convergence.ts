import type { Expression } from '../language/tree.ts';
import * as tree from '../language/tree.ts';
import { signOfConstant } from '../limit/constantSign.ts';
import { limitOfFormula, type ProvedLimit } from '../limit/growth/limitOfFormula.ts';
import { goalAt } from './endValues.ts';
import { isFinitePlace, type End } from './stretches.ts';

/** Whether an integral up to an end has a value, as far as the growth of the integrand tells. */
export type Convergence = 'converges' | 'diverges' | 'unknown';

type Limit = ProvedLimit | 'undecided' | null;

/**
 * Whether ∫ f converges at an end, by comparison with powers and, where the power is −1, with powers of a logarithm:
 * f ~ sᵖ at distance s converges for p > −1, f ~ s⁻¹ |ln s|^q for q < −1; towards infinity, the other way round.
 * Source: the limit comparison test (Apostol, Calculus I, section 10.23, from memory).
 */
export function convergence(body: Expression, variable: string, end: End, side: 1 | -1): Convergence {
  const x = tree.name(variable);
  const isPlace = isFinitePlace(end);
  if (isPlace && !end.exact) return 'unknown';
  const limit = (formula: Expression): Limit => limitOfFormula(formula, goalAt(variable, end, side));
  if (isPlace && isFinite(limit(body))) return 'converges';
  const distance = isPlace
    ? tree.call('abs', tree.subtract(x, end.exact ?? tree.number(0)))
    : tree.call('abs', x);
  const verdictOn = (formula: Expression): Convergence => {
    const size = tree.call('abs', formula);
    const power = limit(tree.divide(tree.call('ln', size), tree.call('ln', distance)));
    return judge(power, -1, isPlace ? 1 : -1) ?? byLogarithm(limit, size, distance);
  };
  // At a place a sine may be as small as its argument.
  const asItIs = isPlace ? verdictOn(body) : 'unknown';
  if (asItIs !== 'unknown') return asItIs;
  const bounded = withoutWaves(body);
  const verdict = verdictOn(bounded.body);
  return verdict === 'diverges' && bounded.isSmaller ? 'unknown' : verdict;
}

function byLogarithm(
  limit: (formula: Expression) => Limit,
  size: Expression,
  distance: Expression,
): Convergence {
  const rest = tree.call('ln', tree.multiply(size, distance));
  const doubleLogarithm = tree.call('ln', tree.call('abs', tree.call('ln', distance)));
  const limited = limit(tree.multiply(size, distance));
  if (isFinite(limited) && Math.abs(signOfConstant(limited.exact)) === 1) return 'diverges';
  return judge(limit(tree.divide(rest, doubleLogarithm)), -1, -1) ?? 'diverges';
}

const isFinite = (limit: Limit): limit is ProvedLimit & { kind: 'finite' } =>
  limit !== null && limit !== 'undecided' && limit.kind === 'finite';

/** An exponent against the critical one; null where it is that one. */
function judge(exponent: Limit, critical: number, side: 1 | -1): Convergence | null {
  if (exponent === null || exponent === 'undecided') return 'unknown';
  if (exponent.kind === 'infinite') return exponent.sign === side ? 'converges' : 'diverges';
  if (exponent.kind !== 'finite') return 'unknown';
  const sign = signOfConstant(tree.subtract(exponent.exact, tree.number(critical)));
  if (Number.isNaN(sign)) return 'unknown';
  return sign === 0 ? null : sign === side ? 'converges' : 'diverges';
}

/** A product without its sines and cosines, which are never larger than 1. */
function withoutWaves(body: Expression): { body: Expression; isSmaller: boolean } {
  if (isWave(body)) return { body: tree.number(1), isSmaller: true };
  if (body.kind !== 'multiply' && body.kind !== 'divide') return { body, isSmaller: false };
  const left = withoutWaves(body.left);
  const right = body.kind === 'multiply' ? withoutWaves(body.right) : { body: body.right, isSmaller: false };
  return {
    body: tree.binary(body.kind, left.body, right.body),
    isSmaller: left.isSmaller || right.isSmaller,
  };
}

const isWave = (node: Expression): boolean =>
  (node.kind === 'call' && (node.name === 'sin' || node.name === 'cos')) ||
  (node.kind === 'power' && node.exponent.kind === 'number' && isWave(node.base));
