import * as tree from '../language/tree.ts';
import type { CallNode, Condition, Expression, Relation } from '../language/tree.ts';
import {
  algebraOf,
  comparedIn,
  isWithoutPole,
  isZeroAt,
  partOf,
  signOver,
  type Algebra,
  type ExactPlace,
  type Names,
} from './algebra.ts';
import {
  calls,
  domains,
  fromZeroUp,
  innerDomains,
  notNegative,
  quotients,
  throughReciprocal,
} from './calls.ts';
import { Decisions, leftOf } from './decisions.ts';
import * as f from './functions.ts';
import * as jets from './jets.ts';
import type { Jet } from './jets.ts';
import { decimal, NoRule, ratioOf, wholeNumber } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { added, divided, multiplied, quotient, raised, whole, type Quotient } from './quotients.ts';

/** Ways through a formula whose conditions are not decided on a part; more are not followed. */
const mostWays = 64;
/** Whole numbers among which a step function is looked at on one part. */
const mostSteps = 8;
/** Terms and factors that are written out. */
const mostTerms = 200;

/** A function on one way through its pieces. */
export interface Course extends Quotient {
  /** Whether it has a value at every number of the part, poles apart. */
  readonly isWhole: boolean;
  /** The formula, without the pieces that are not taken, and with what is left of sizes, steps and the like. */
  readonly body: Expression;
  /** The formula, without the pieces that are not taken, and with all else as it is written. */
  readonly pieces: Expression;
  /** The same way at a single number, or null where it leads to no value there: what is approached from inside the part. */
  readonly at: (x: Range, length: number) => Quotient | null;
}

/**
 * The function over a part of the axis, on every way through its pieces that may be taken there; the ends of the part
 * are no matter of it. Ways on which it is not defined are left out.
 * @param length how many Taylor coefficients
 * @param place the number that a part of no width stands for: what is a whole number at it is told by algebra
 */
export function evaluate(
  body: Expression,
  name: string,
  part: Range,
  length: number,
  place: Expression | null = null,
): Course[] {
  const courses: Course[] = [];
  const open: number[][] = [[]];
  let isWhole = true;
  const along = (way: Way, x: Range, count: number): Quotient | null =>
    way.of(body, new Map([[name, whole(jets.variable(x, count))]]), count);
  while (open.length > 0) {
    const way = new Way(open.pop() as number[], null, place && { name, at: place });
    const value = along(way, part, length);
    isWhole &&= value !== null && way.isWhole;
    for (let i = way.given; i < way.counts.length; i++)
      for (let other = 1; other < (way.counts[i] as number); other++)
        open.push([...way.choices.slice(0, i), other]);
    const at = (x: Range, count: number): Quotient | null => along(new Way([], way.taken), x, count);
    const { decisions } = way;
    const left = { body: leftOf(body, decisions), pieces: leftOf(body, decisions.ofPieces) };
    if (value) courses.push({ ...value, ...left, at, isWhole: true });
    if (courses.length + open.length > mostWays) throw new NoRule('too many ways');
  }
  return courses.map((course) => ({ ...course, isWhole }));
}

/** Bounds of a number; null where it has none. */
export function numberOf(formula: Expression): Range | null {
  const [value] = evaluate(formula, '', n.whole(0), 1);
  return value ? (divided(value)[0] ?? null) : null;
}

interface WhereUndecided extends Algebra {
  /** To what it comes at an end of the part. */
  readonly at: (end: 'low' | 'high') => Range | null;
}

/** One way through a formula. */
class Way {
  readonly choices: number[];
  readonly counts: number[] = [];
  readonly given: number;
  /** Whether nothing of the part was left out for having no value. */
  isWhole = true;
  /** Everything that was decided, in the order in which the formula is gone through. */
  readonly taken: bigint[] = [];

  /** What was decided of each part of the formula. */
  readonly decisions = new Decisions();

  /** @param follows decisions that are taken over instead of being made */
  constructor(
    given: readonly number[],
    private readonly follows: readonly bigint[] | null = null,
    private readonly place: ExactPlace | null = null,
  ) {
    this.choices = [...given];
    this.given = given.length;
  }

  private decide(decision: () => bigint): bigint {
    const taken = this.follows ? (this.follows[this.taken.length] ?? 0n) : decision();
    this.taken.push(taken);
    return taken;
  }

  private choose(count: number): number {
    const i = this.counts.length;
    this.counts.push(count);
    if (i >= this.choices.length) this.choices.push(0);
    return this.choices[i] as number;
  }

  /** Null where it is not defined. */
  of(node: Expression, names: Names, length: number): Quotient | null {
    const inner = (part: Expression): Quotient | null => this.of(part, names, length);
    switch (node.kind) {
      case 'number':
        return whole(jets.constant(decimal(node.text), length));
      case 'constant':
        if (node.name === 'infinity') throw new NoRule('infinity');
        return whole(jets.constant(node.name === 'pi' ? f.pi : f.e, length));
      case 'name': {
        const known = names.get(node.name);
        if (!known) throw new NoRule(node.name);
        return known;
      }
      case 'negate': {
        const u = inner(node.operand);
        return u && { ...u, above: jets.negate(u.above) };
      }
      case 'add':
      case 'subtract': {
        const [u, v] = [inner(node.left), inner(node.right)];
        return u && v && added(u, node.kind === 'add' ? v : { ...v, above: jets.negate(v.above) });
      }
      case 'multiply': {
        const [u, v] = [inner(node.left), inner(node.right)];
        return u && v && multiplied(u, v);
      }
      case 'divide': {
        const [u, v] = [inner(node.left), inner(node.right)];
        if (v && tree.isConstant(node.right) && n.signOfRange(v.above[0] as Range) === 0) return null;
        // 1/(1/x) has no value at 0.
        if (v?.below) this.withoutZero(v.below);
        return u && v && quotient(u, v);
      }
      case 'power':
        return this.power(node.base, node.exponent, names, length);
      case 'call':
        return this.call(node, names, length);
      case 'piecewise':
        for (const [i, { value, condition }] of node.pieces.entries()) {
          if (!this.holds(condition, names, length)) continue;
          this.decisions.note(node, BigInt(i));
          return inner(value);
        }
        this.decisions.note(node, BigInt(node.pieces.length));
        return node.otherwise ? inner(node.otherwise) : null;
      case 'summation':
      case 'product': {
        const [from, to] = [wholeNumber(node.from), wholeNumber(node.to)];
        if (from === null || to === null || to - from >= mostTerms) throw new NoRule(node.kind);
        const isSum = node.kind === 'summation';
        let all: Quotient | null = whole(jets.constant(n.whole(isSum ? 0 : 1), length));
        for (let k = from; k <= to && all; k++) {
          const term = this.of(
            node.body,
            new Map([...names, [node.variable, whole(jets.constant(n.whole(k), length))]]),
            length,
          );
          all = term && (isSum ? added(all, term) : multiplied(all, term));
        }
        return all;
      }
      default:
        throw new NoRule(node.kind);
    }
  }

  private power(base: Expression, exponent: Expression, names: Names, length: number): Quotient | null {
    if (base.kind === 'constant' && base.name === 'e') {
      const u = this.of(exponent, names, length);
      const x = u && this.value(u, exponent, names);
      return x && whole(jets.exp(x));
    }
    const u = this.of(base, names, length);
    const ratio = ratioOf(exponent);
    if (!u) return null;
    if (ratio && ratio.q === 1) {
      if (ratio.p < 0) {
        // As of a quotient: (1/x)^(−1) has no value at 0.
        if (u.below) this.withoutZero(u.below);
        return quotient(whole(jets.constant(n.whole(1), length)), raised(u, -ratio.p));
      }
      return raised(u, ratio.p);
    }
    const given = this.value(u, base, names);
    if (!given) return null;
    if (ratio) {
      const x = ratio.q % 2 === 0 ? this.fromZeroUp(given, base, names) : given;
      if (ratio.p < 0 && !signOver(base, names)) this.withoutZero(x);
      const result = jets.rationalPower(x, ratio.p, ratio.q);
      return result && whole(result);
    }
    const v = this.of(exponent, names, length);
    const power = v && this.value(v, exponent, names);
    if (!power) return null;
    // 0⁰ is a matter of convention.
    if (n.signOfRange(given[0] as Range) === 0) throw new NoRule('power of 0');
    this.within(given, notNegative);
    const logarithm = jets.ln(given);
    // (−2)ˣ has values at whole x alone.
    if (!logarithm && n.holdsWhole(power[0] as Range)) throw new NoRule('power of a number below 0');
    return logarithm && whole(jets.exp(jets.multiply(power, logarithm)));
  }

  private call(node: CallNode, names: Names, length: number): Quotient | null {
    const { name, arguments: args } = node;
    const before = this.taken.length;
    const [u, v] = args.map((argument) => this.of(argument, names, length));
    const [first, second] = args;
    if (!u || !first || v === null) return null;
    const taken = this.taken.slice(before);
    const given = this.value(u, first, names);
    const y = v && second && this.value(v, second, names);
    if (!given || y === null) return null;
    const x = fromZeroUp.has(name) ? this.fromZeroUp(given, first, names) : given;
    if (quotients.has(name)) {
      const { sin, cos } = jets.waves(x);
      const unit = jets.constant(n.whole(1), length);
      const above = name === 'tan' ? sin : name === 'cot' ? cos : unit;
      return { above, below: name === 'tan' || name === 'sec' ? cos : sin };
    }
    const rule = calls.get(name);
    if (rule) {
      const domain = domains.get(name);
      if (domain) this.within(x, domain);
      if (name === 'logBase' && y) this.within(y, notNegative);
      if (throughReciprocal.has(name) && !signOver(first, names)) this.withoutZero(x);
      const inner = innerDomains.get(name);
      if (inner) this.within(jets.reciprocal(x), inner);
      const result = rule(x, y);
      return result && whole(result);
    }
    return this.stepped(node, x, y, length, {
      ...algebraOf(comparedIn(node), names, this.place),
      at: (end) => atEnd(args, names, taken, end),
    });
  }

  private stepped(
    node: CallNode,
    x: Jet,
    y: Jet | undefined,
    length: number,
    whereUndecided: WhereUndecided,
  ): Quotient | null {
    const constant = (value: bigint): Quotient => whole(jets.constant(n.whole(value), length));
    const noted = (decision: bigint): bigint => this.decisions.note(node, decision);
    switch (node.name) {
      case 'abs': {
        const sign = noted(this.side(x, whereUndecided));
        return whole(sign > 0 ? onSide(x, 1) : jets.negate(onSide(x, -1)));
      }
      case 'sign':
        return constant(noted(BigInt(this.signOf(x, whereUndecided))));
      case 'floor':
        return constant(noted(this.step(x, whereUndecided)));
      case 'ceil':
        return constant(noted(-this.step(jets.negate(x), whereUndecided)));
      case 'round':
        return constant(
          noted(this.step(jets.add(x, jets.constant(n.fraction(1n, 2n), length)), whereUndecided)),
        );
      case 'min':
      case 'max': {
        if (!y) throw new NoRule(node.name);
        const sign = noted(this.side(jets.subtract(x, y), whereUndecided));
        return whole(sign > 0 === (node.name === 'max') ? x : y);
      }
      case 'mod': {
        if (!y) throw new NoRule(node.name);
        const steps = jets.constant(n.whole(noted(this.step(jets.divide(x, y), whereUndecided))), length);
        return whole(jets.subtract(x, jets.multiply(y, steps)));
      }
      default:
        throw new NoRule(node.name);
    }
  }

  /** Null where nothing but 0 is divided by. */
  private value(u: Quotient, formula: Expression, names: Names): Jet | null {
    if (u.below && n.signOfRange(u.below[0] as Range) === 0) return null;
    if (u.below && this.inside(u.below) === undefined && !isWithoutPole(formula, names)) this.isWhole = false;
    return divided(u);
  }

  /** The argument of a root or a logarithm: what lies below 0 is left out. */
  private fromZeroUp(u: Jet, formula: Expression, names: Names): Jet {
    if (n.contains(notNegative, u[0] as Range)) return u;
    if (signOver(formula, names) === 1) return onSide(u, 1);
    this.isWhole = false;
    return u;
  }

  /** Notes where an argument may leave the domain of its function. */
  private within(u: Jet, domain: Range): void {
    if (!n.contains(domain, u[0] as Range)) this.isWhole = false;
  }

  private withoutZero(u: Jet): void {
    if (this.inside(u) === undefined) this.isWhole = false;
  }

  /** Above or below 0, inside the part: where it is 0 both lead to the same value, so that it may touch 0. */
  private side(u: Jet, { counted, at }: WhereUndecided): bigint {
    const { low, high } = u[0] as Range;
    const touching = n.signOf(low) === 0 ? 1 : n.signOf(high) === 0 ? -1 : undefined;
    return this.decide(() => {
      const known = touching ?? this.inside(u) ?? this.insideByEnds(u, at) ?? counted();
      return BigInt(known ?? (this.choose(2) === 0 ? 1 : -1));
    });
  }

  /** The same of a function that only rises or only falls, by its values at the ends, which are sharper than its bounds. */
  private insideByEnds(u: Jet, ends: (end: 'low' | 'high') => Range | null): 1 | -1 | undefined {
    const rises = u[1] && n.signOfRange(u[1]);
    if (this.counts.length > 0 || (rises !== 1 && rises !== -1)) return undefined;
    const [first, last] = (['low', 'high'] as const).map((end) => {
      const value = ends(end);
      return value ? n.signOfRange(value) : undefined;
    });
    if (first === rises || first === 0) return rises;
    return last === -rises || last === 0 ? (-rises as 1 | -1) : undefined;
  }

  /** Above 0, below it, or on it, inside the part. */
  private signOf(u: Jet, { counted, equals }: Algebra): number {
    const isLevel = n.signOfRange(u[0] as Range) === 0;
    return Number(
      this.decide(() => {
        const known = isLevel ? 0 : (this.inside(u) ?? counted());
        return BigInt(known ?? (equals(0n) ? 0 : 1 - this.choose(3)));
      }),
    );
  }

  /**
   * The sign of a function inside the part: 0 at an end that it only rises or falls to is none. Where a way was chosen the
   * function goes that way on some of the part only, and the end may lie inside.
   */
  private inside(u: Jet): 1 | -1 | undefined {
    const values = u[0] as Range;
    const sign = n.signOfRange(values);
    if (sign === 1 || sign === -1) return sign;
    const rises = u[1] && n.signOfRange(u[1]);
    if (this.counts.length > 0 || (rises !== 1 && rises !== -1)) return undefined;
    if (n.signOf(values.low) === 0) return 1;
    return n.signOf(values.high) === 0 ? -1 : undefined;
  }

  /** ⌊u⌋ inside the part. */
  private step(u: Jet, algebra: Algebra): bigint {
    return this.decide(() => this.stepOf(u, algebra));
  }

  private stepOf(u: Jet, { reaches, equals }: Algebra): bigint {
    const values = u[0] as Range;
    if (!n.isBounded(values)) throw new NoRule('floor');
    const [first, last] = [n.floor(values.low), n.floor(values.high)];
    // A whole number that is the end of all values, which rise or fall throughout, is taken at an end of the part.
    const rises = u[1] && n.signOfRange(u[1]);
    const isWholePart = this.counts.length === 0 && rises !== undefined && rises !== 0;
    const isEnd = n.compare({ m: last, e: 0 }, values.high) === 0 && (isWholePart || !reaches(last));
    if (last === first + 1n && equals(last)) return last;
    const count = Number(last - first) + (isEnd ? 0 : 1);
    if (count > mostSteps) throw new NoRule('floor');
    return first + BigInt(count > 1 ? this.choose(count) : 0);
  }

  private holds(condition: Condition, names: Names, length: number): boolean {
    switch (condition.kind) {
      case 'not':
        return !this.holds(condition.operand, names, length);
      case 'and':
        return this.holds(condition.left, names, length) && this.holds(condition.right, names, length);
      case 'or':
        return this.holds(condition.left, names, length) || this.holds(condition.right, names, length);
      case 'comparison':
        return condition.relations.every((relation, i) => {
          const [left, right] = [condition.operands[i], condition.operands[i + 1]] as [
            Expression,
            Expression,
          ];
          return this.isRelated(left, relation, right, names, length);
        });
    }
  }

  private isRelated(
    left: Expression,
    relation: Relation,
    right: Expression,
    names: Names,
    length: number,
  ): boolean {
    const [a, b] = [unbounded(left), unbounded(right)];
    const sign = a !== 0 || b !== 0 ? Math.sign(a - b) : this.differenceSign(left, right, names, length);
    switch (relation) {
      case '<':
      case '≤':
        return relation === '≤' ? sign <= 0 : sign < 0;
      case '>':
      case '≥':
        return relation === '≥' ? sign >= 0 : sign > 0;
      case '=':
        return sign === 0;
      case '≠':
        return sign !== 0;
    }
  }

  private differenceSign(left: Expression, right: Expression, names: Names, length: number): number {
    const [u, v] = [this.of(left, names, length), this.of(right, names, length)];
    if (!u || !v) throw new NoRule('condition');
    const algebra = algebraOf(tree.subtract(left, right), names, this.place);
    return this.signOf(jets.subtract(divided(u), divided(v)), algebra);
  }
}

/**
 * What is approached at an end of the part, of two the difference; null where it is not one of the variable alone.
 * @param taken the decisions inside the part: at its end another piece may begin
 */
function atEnd(
  args: readonly Expression[],
  names: Names,
  taken: readonly bigint[],
  end: 'low' | 'high',
): Range | null {
  const known = partOf(names);
  if (!known) return null;
  const way = new Way([], taken);
  const there = new Map([[known.variable, whole(jets.variable(n.point(known.part[end]), 1))]]);
  const [u, v] = args.map((argument) => way.of(argument, there, 1));
  if (!u || v === null) return null;
  const value = divided(v ? added(u, { ...v, above: jets.negate(v.above) }) : u)[0];
  if (!value) return null;
  const [first, second] = args as readonly [Expression, Expression?];
  const isOpen = n.signOfRange(value) === undefined;
  return isOpen && isZeroAt(second ? tree.subtract(first, second) : first, known.variable, known.part[end])
    ? n.whole(0)
    : value;
}

const onSide = (u: Jet, side: 1 | -1): Jet => {
  const values = u[0] as Range;
  const half = side > 0 ? { low: n.zero, high: n.everything.high } : { low: n.everything.low, high: n.zero };
  return jets.withFirst(u, n.common(values, half) ?? values);
};

/** −∞ and ∞ as the sides of a condition. */
function unbounded(node: Expression): number {
  if (node.kind === 'negate') return -unbounded(node.operand);
  return node.kind === 'constant' && node.name === 'infinity' ? Infinity : 0;
}
