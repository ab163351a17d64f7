import { exactForm } from '../algebra/exactForm.ts';
import { TooLarge } from '../budget/tooLarge.ts';
import { literal } from '../algebra/literal.ts';
import { writtenOut } from '../algebra/products.ts';
import * as rational from '../numbers/rational.ts';
import { integral } from '../area/integral.ts';
import type { IntegralFound } from '../area/parts.ts';
import { enclose } from '../evaluate/enclosures.ts';
import { exactValue } from '../algebra/exact.ts';
import { compile, type Program } from '../evaluate/program.ts';
import { hasTooManyTerms, indices } from '../evaluate/summation.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression, IntegralNode, LimitNode, SummationNode } from '../language/tree.ts';
import * as big from '../numbers/bigFloat.ts';
import { largestFactorial } from '../numbers/ballFunctions.ts';
import type { Limit } from '../limit/found.ts';
import { limitOfProgram } from '../values/ofPrograms.ts';
import { hasKinks } from '../limit/settled.ts';
import { heightAt } from '../analysis/height.ts';
import { inSimplerTerms } from '../analysis/pieces.ts';
import { exactPlace, type Place } from '../analysis/place.ts';

/** What a formula without names comes to. */
export interface ToldValue {
  readonly value: number;
  /** The number itself as a formula, where sums, limits and integrals in it are known exactly, too. */
  readonly exact: Expression | null;
  /** Of a formula that is one limit: what it is where it is no number, and the limits from either side. */
  readonly missing: { readonly whole: Limit; readonly left: Limit; readonly right: Limit } | null;
  /** Of a formula that is one integral without an exact form: what was found of it, with its ends. */
  readonly integral: (IntegralFound & { readonly interval: readonly [number, number] }) | null;
  /** Between which such an integral lies, proved: put in by `certified`; null before, and where it shows none. */
  readonly bounds: readonly [number, number] | null;
}

/**
 * The value of a formula without names, exact as far as algebra and proved limits reach. Where there is an exact form, or
 * bounds of any precision, the double is the one nearest to them: 2 sin(π/6) is 1, and its floor is 1, too.
 * @throws TooLarge as `compile` does
 */
export function toldValue(body: Expression): ToldValue {
  const binders = new Binders();
  const known = binders.putIn(body);
  const { value, exact } = settledValue(known, binders) ?? valueInDoubles(known, binders);
  const isMissing = Number.isNaN(value);
  return {
    value,
    exact,
    missing: body.kind === 'limit' && isMissing ? sidesOf(body) : null,
    integral: body.kind === 'integral' && !exact ? binders.lastIntegral : null,
    bounds: null,
  };
}

type ExactValue = Pick<ToldValue, 'value' | 'exact'>;

const origin = exactPlace(tree.number(0)) as Place;

/** The value by bounds and algebra; NaN where it is shown that there is none, and null where nothing shows it. */
function settledValue(known: Expression, { numbers }: Binders): ExactValue | null {
  if (numbers.size > 0) return null;
  const simple = inSimplerTerms(known);
  const plain = hasKinks(simple) ? null : plainValue(simple);
  if (plain !== null) {
    const exact = exactForm(simple, new Map());
    const fraction = exact && exactValue(exact, new Map());
    return { value: fraction ? rational.toNumber(fraction) : plain, exact };
  }
  let isOpen = false;
  const height = heightAt(
    simple,
    '',
    origin,
    () => false,
    () => {
      isOpen = true;
    },
  );
  if (!height) return isOpen ? null : { value: NaN, exact: null };
  if (!height.exact) return null;
  const value = big.toDouble(height.value);
  if (!Number.isFinite(value)) return { value, exact: null };
  const exact = exactForm(withFactorials(height.exact), new Map());
  const fraction = exact && exactValue(exact, new Map());
  return { value: fraction ? rational.toNumber(fraction) : value, exact };
}

/** Of its size: how wide the bounds of a double's value may be whose digits are trusted. */
const trusted = 1e-14;

/** The value in doubles where narrow bounds show that it is right, in a hundredth of the time; null where they do not. */
const plainValue = (simple: Expression): number | null => plainValueAt(compile(simple, ''), 0);

/**
 * The value of a program without parameters at the number that a double stands for, 0.3 at three tenths, where narrow
 * bounds show that the double of it is right; null where they do not.
 */
export function plainValueAt(program: Program, x: number): number | null {
  const reach = Number.isInteger(x) ? 0 : Math.abs(x) * Number.EPSILON;
  const { low, high, sure } = enclose(program, x - reach, x + reach);
  const isRight = sure && high - low <= trusted * Math.min(Math.abs(low), Math.abs(high));
  return isRight ? evaluateAt(program, x) : null;
}

/** The value as doubles give it. */
function valueInDoubles(known: Expression, { numbers }: Binders): ExactValue {
  const program = compile(known, '');
  const value = evaluateAt(
    program,
    0,
    program.parameters.map((name) => numbers.get(name) ?? NaN),
  );
  return { value, exact: null };
}

/** Factorials of whole numbers as these numbers. */
function withFactorials(node: Expression): Expression {
  const inner = tree.mapChildren(node, withFactorials);
  const [argument] = inner.kind === 'call' && inner.name === 'factorial' ? inner.arguments : [];
  const n = argument?.kind === 'number' ? Number(argument.text) : NaN;
  if (!Number.isInteger(n) || n > largestDoubleFactorial) return inner;
  let product = 1n;
  for (let k = 2n; k <= BigInt(n); k++) product *= k;
  return tree.number(String(product));
}

/** Beyond it a factorial is no double. */
const largestDoubleFactorial = 170;

/** Sums, limits and integrals in a formula, replaced by what they are. */
class Binders {
  /** Names that stand for numbers of which no formula is known. */
  readonly numbers = new Map<string, number>();
  /** The integral that was worked out last: of a formula that is one integral, that one. */
  lastIntegral: ToldValue['integral'] = null;

  putIn(node: Expression): Expression {
    const inner = tree.mapChildren(node, (child) => this.putIn(child));
    if (inner.kind === 'limit' && isClosed(inner)) {
      const limit = limitOf(inner, inner.side);
      return limit.kind === 'finite' && limit.exact ? limit.exact : inner;
    }
    if (inner.kind === 'integral' && isClosed(inner)) {
      const found = integralOf(inner);
      this.lastIntegral = found;
      return found.exact ?? this.numbered(found.value);
    }
    if (inner.kind === 'product') return writtenOut(inner) ?? inner;
    if (inner.kind === 'summation') return sumOf(inner) ?? inner;
    if (inner.kind === 'call' && inner.name === 'factorial') refuseHugeFactorial(inner.arguments[0]);
    return inner;
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

function integralOf({ variable, from, to, body }: IntegralNode): NonNullable<ToldValue['integral']> {
  const interval = [from, to].map((bound) => evaluateAt(compile(bound, ''), 0)) as [number, number];
  const { value, bound, exact, certainty, diverges, undefinedOn } = integral(body, variable, interval, {
    ends: [from, to],
  });
  return { value, bound, exact, certainty, diverges, undefinedOn, interval };
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

/** @throws TooLarge where a factorial has more digits than are worked out */
function refuseHugeFactorial(argument: Expression | undefined): void {
  const n = argument && exactValue(argument, new Map());
  if (n?.denominator === 1n && n.numerator > BigInt(largestFactorial))
    throw new TooLarge('the factorial has too many digits');
}

/** A sum of fractions. @throws TooLarge where it has more terms than any sum may have */
function sumOf({ variable, from, to, body }: SummationNode): Expression | null {
  const [low, high] = [from, to].map((bound) => {
    const exact = exactValue(bound, new Map());
    return exact ? rational.toNumber(exact) : NaN;
  }) as [number, number];
  if (hasTooManyTerms(low, high)) throw new TooLarge('the sum has too many terms');
  const range = indices(low, high);
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
  ['summation', 'product', 'limit', 'integral'].includes(node.kind) || tree.children(node).some(holdsBinder);
