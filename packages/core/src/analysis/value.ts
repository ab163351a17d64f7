import { exactForm } from '../algebra/exactForm.ts';
import { literal } from '../algebra/pieces.ts';
import * as rational from '../algebra/rational.ts';
import { integral, type DefiniteIntegral } from '../area/integral.ts';
import { exactValue } from '../evaluate/exact.ts';
import { compile } from '../evaluate/program.ts';
import { indices } from '../evaluate/summation.ts';
import { evaluateAt } from '../evaluate/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression, IntegralNode, LimitNode, SummationNode } from '../language/tree.ts';
import { limitOfProgram, type Limit } from '../limit/limit.ts';

/** What a formula without names comes to. */
export interface ToldValue {
  readonly value: number;
  /** The number itself as a formula, where sums, limits and integrals in it are known exactly, too. */
  readonly exact: Expression | null;
  /** Of a formula that is one limit: what it is where it is no number, and the limits from either side. */
  readonly missing: { readonly whole: Limit; readonly left: Limit; readonly right: Limit } | null;
  /** Why a formula that is one integral has no value. */
  readonly missingIntegral: Pick<DefiniteIntegral, 'diverges' | 'undefinedOn'> | null;
}

/**
 * The value of a formula without names, exact as far as algebra and proved limits reach.
 * @throws TooLarge as `compile` does
 */
export function toldValue(body: Expression): ToldValue {
  const binders = new Binders();
  const known = binders.putIn(body);
  const program = compile(known, '');
  const value = evaluateAt(
    program,
    0,
    program.parameters.map((name) => binders.numbers.get(name) ?? NaN),
  );
  const isMissing = Number.isNaN(value);
  return {
    value,
    exact: Number.isFinite(value) ? exactForm(known, new Map()) : null,
    missing: body.kind === 'limit' && isMissing ? sidesOf(body) : null,
    missingIntegral: body.kind === 'integral' && isMissing && isClosed(body) ? integralOf(body) : null,
  };
}

/** Sums, limits and integrals in a formula, replaced by what they are. */
class Binders {
  /** Names that stand for numbers of which no formula is known. */
  readonly numbers = new Map<string, number>();

  putIn(node: Expression): Expression {
    const inner = tree.mapChildren(node, (child) => this.putIn(child));
    if (inner.kind === 'limit' && isClosed(inner)) {
      const limit = limitOf(inner, inner.side);
      return limit.kind === 'finite' && limit.exact ? limit.exact : inner;
    }
    if (inner.kind === 'integral' && isClosed(inner)) {
      const { value, exact } = integralOf(inner);
      return exact ?? this.numbered(value);
    }
    return inner.kind === 'summation' ? (sumOf(inner) ?? inner) : inner;
  }

  private numbered(value: number): Expression {
    const name = `#${this.numbers.size}`;
    this.numbers.set(name, value);
    return tree.name(name);
  }
}

/** Whether a limit or an integral mentions no name but its own variable. */
const isClosed = (node: LimitNode | IntegralNode): boolean => {
  const bounds = node.kind === 'limit' ? [node.target] : [node.from, node.to];
  const isFree = (part: Expression, allowed: string | null): boolean =>
    [...tree.mentioned(part).names].every((name) => name === allowed);
  return isFree(node.body, node.variable) && bounds.every((bound) => isFree(bound, null));
};

function integralOf({ variable, from, to, body }: IntegralNode): DefiniteIntegral {
  const [a, b] = [from, to].map((bound) => evaluateAt(compile(bound, ''), 0)) as [number, number];
  return integral(body, variable, [a, b], { ends: [from, to] });
}

function limitOf({ variable, body, target }: LimitNode, side: tree.Side): Limit {
  return limitOfProgram(compile(body, variable), evaluateAt(compile(target, ''), 0), side);
}

const sidesOf = (node: LimitNode): ToldValue['missing'] => ({
  whole: limitOf(node, node.side),
  left: limitOf(node, 'left'),
  right: limitOf(node, 'right'),
});

/** Terms of a sum that are added up as fractions. */
const mostTerms = 60;

/** A sum of fractions. */
function sumOf({ variable, from, to, body }: SummationNode): Expression | null {
  const [low, high] = [exactValue(from, new Map()), exactValue(to, new Map())];
  const range = low && high && indices(rational.toNumber(low), rational.toNumber(high));
  if (!range || range.count > mostTerms) return null;
  let sum = rational.zero;
  for (let i = 0; i < range.count; i++) {
    const term = exactValue(body, new Map([[variable, rational.rational(range.first + i)]]));
    if (!term) return null;
    sum = rational.add(sum, term);
  }
  return literal(sum);
}

/** Whether a formula holds a sum, a limit or an integral, of which more may be told than their digits. */
export const holdsBinder = (node: Expression): boolean =>
  ['summation', 'limit', 'integral'].includes(node.kind) || tree.children(node).some(holdsBinder);
