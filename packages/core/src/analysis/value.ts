import { exactForm } from '../algebra/exactForm.ts';
import { literal } from '../algebra/pieces.ts';
import * as rational from '../algebra/rational.ts';
import { exactValue } from '../evaluate/exact.ts';
import { compile } from '../evaluate/program.ts';
import { indices } from '../evaluate/summation.ts';
import { evaluateAt } from '../evaluate/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression, LimitNode, SummationNode } from '../language/tree.ts';
import { limitOfProgram, type Limit } from '../limit/limit.ts';

/** What a formula without names comes to. */
export interface ToldValue {
  readonly value: number;
  /** The number itself as a formula, where sums and limits in it are known exactly, too. */
  readonly exact: Expression | null;
  /** Of a formula that is one limit: what it is where it is no number, and the limits from either side. */
  readonly missing: { readonly whole: Limit; readonly left: Limit; readonly right: Limit } | null;
}

/**
 * The value of a formula without names, exact as far as algebra and proved limits reach.
 * @throws TooLarge as `compile` does
 */
export function toldValue(body: Expression): ToldValue {
  const known = withBindersPutIn(body);
  const value = evaluateAt(compile(known, ''), 0);
  return {
    value,
    exact: Number.isFinite(value) ? exactForm(known, new Map()) : null,
    missing: body.kind === 'limit' && Number.isNaN(value) ? sidesOf(body) : null,
  };
}

/** A formula with limits and sums replaced by what they are, where that is known. */
function withBindersPutIn(node: Expression): Expression {
  const inner = tree.mapChildren(node, withBindersPutIn);
  if (inner.kind === 'limit' && isClosed(inner)) {
    const limit = limitOf(inner, inner.side);
    return limit.kind === 'finite' && limit.exact ? limit.exact : inner;
  }
  return inner.kind === 'summation' ? (sumOf(inner) ?? inner) : inner;
}

/** Whether a limit mentions no name but its own variable. */
const isClosed = ({ variable, body, target }: LimitNode): boolean => {
  const names = [...tree.mentioned(body).names, ...tree.mentioned(target).names];
  return names.every((name) => name === variable);
};

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

/** Whether a formula holds a sum or a limit, of which more may be told than their digits. */
export const holdsSumOrLimit = (node: Expression): boolean =>
  node.kind === 'summation' || node.kind === 'limit' || tree.children(node).some(holdsSumOrLimit);
