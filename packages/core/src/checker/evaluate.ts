import type { Condition, Expression, Relation } from '../language/tree.ts';
import * as f from './functions.ts';
import * as jets from './jets.ts';
import type { Jet } from './jets.ts';
import { decimal, NoRule, ratioOf, wholeNumber } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';

/** A function over a part of the axis as one jet over another, so that what stands above can be looked at beside a pole. */
export interface Quotient {
  readonly above: Jet;
  /** Null where nothing is divided by. */
  readonly below: Jet | null;
}

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
  /** The formula, without the pieces that are not taken. */
  readonly body: Expression;
  /** The same way at a single number, or null where it leads to no value there: what is approached from inside the part. */
  readonly at: (x: Range, length: number) => Quotient | null;
}

/**
 * The function over a part of the axis, on every way through its pieces that may be taken there; the ends of the part
 * are no matter of it. Ways on which it is not defined are left out.
 * @param length how many Taylor coefficients
 */
export function evaluate(body: Expression, name: string, part: Range, length: number): Course[] {
  const courses: Course[] = [];
  const open: number[][] = [[]];
  let isWhole = true;
  const along = (way: Way, x: Range, count: number): Quotient | null =>
    way.of(body, new Map([[name, whole(jets.variable(x, count))]]), count);
  while (open.length > 0) {
    const way = new Way(open.pop() as number[], null, body);
    const value = along(way, part, length);
    isWhole &&= value !== null && way.isWhole;
    for (let i = way.given; i < way.counts.length; i++)
      for (let other = 1; other < (way.counts[i] as number); other++)
        open.push([...way.choices.slice(0, i), other]);
    const at = (x: Range, count: number): Quotient | null => along(new Way([], way.taken), x, count);
    if (value) courses.push({ ...value, at, body: way.top ?? body, isWhole: true });
    if (courses.length + open.length > mostWays) throw new NoRule('too many ways');
  }
  return courses.map((course) => ({ ...course, isWhole }));
}

/** Bounds of a number; null where it has none. */
export function numberOf(formula: Expression): Range | null {
  const [value] = evaluate(formula, '', n.whole(0), 1);
  return value ? (divided(value)[0] ?? null) : null;
}

const whole = (above: Jet): Quotient => ({ above, below: null });
export const divided = ({ above, below }: Quotient): Jet => (below ? jets.divide(above, below) : above);

type Names = ReadonlyMap<string, Quotient>;
type Call = (u: Jet, v: Jet | undefined) => Jet | null;

/** One way through a formula. */
class Way {
  readonly choices: number[];
  readonly counts: number[] = [];
  readonly given: number;
  /** Whether nothing of the part was left out for having no value. */
  isWhole = true;
  /** Everything that was decided, in the order in which the formula is gone through. */
  readonly taken: bigint[] = [];

  /** @param follows decisions that are taken over instead of being made */
  constructor(
    given: readonly number[],
    private readonly follows: readonly bigint[] | null = null,
    /** The formula, and from then on the piece of it that is taken. */
    public top: Expression | null = null,
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
        // 1/(1/x) has no value at 0.
        if (v?.below) this.withoutZero(v.below);
        return u && v && quotient(u, v);
      }
      case 'power':
        return this.power(node.base, node.exponent, names, length);
      case 'call':
        return this.call(node.name, node.arguments, names, length);
      case 'piecewise':
        for (const { value, condition } of node.pieces) {
          const holds = this.holds(condition, names, length);
          if (!holds) continue;
          if (node === this.top) this.top = value;
          return inner(value);
        }
        if (node === this.top && node.otherwise) this.top = node.otherwise;
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
      return u && whole(jets.exp(this.value(u)));
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
    if (ratio) {
      if (ratio.q % 2 === 0) this.within(divided(u), notNegative);
      if (ratio.p < 0) this.withoutZero(divided(u));
      const result = jets.rationalPower(divided(u), ratio.p, ratio.q);
      return result && whole(result);
    }
    const v = this.of(exponent, names, length);
    // 0⁰ is a matter of convention.
    if (n.signOfRange(divided(u)[0] as Range) === 0) throw new NoRule('power of 0');
    this.within(divided(u), notNegative);
    const logarithm = jets.ln(divided(u));
    return v && logarithm && whole(jets.exp(jets.multiply(divided(v), logarithm)));
  }

  private call(name: string, args: readonly Expression[], names: Names, length: number): Quotient | null {
    const before = this.taken.length;
    const [u, v] = args.map((argument) => this.of(argument, names, length));
    if (!u || v === null) return null;
    const taken = this.taken.slice(before);
    const [x, y] = [this.value(u), v && this.value(v)];
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
      if (throughReciprocal.has(name)) this.withoutZero(x);
      const inner = innerDomains.get(name);
      if (inner) this.within(jets.reciprocal(x), inner);
      const result = rule(x, y);
      return result && whole(result);
    }
    return this.stepped(name, x, y, length, (end) => atEnd(args, names, taken, end));
  }

  private stepped(
    name: string,
    x: Jet,
    y: Jet | undefined,
    length: number,
    ends: (end: 'low' | 'high') => Range | null,
  ): Quotient | null {
    const constant = (value: number | bigint): Quotient => whole(jets.constant(n.whole(value), length));
    switch (name) {
      case 'abs': {
        const sign = this.side(x, ends);
        return whole(sign > 0 ? onSide(x, 1) : jets.negate(onSide(x, -1)));
      }
      case 'sign':
        return constant(this.signOf(x));
      case 'floor':
        return constant(this.step(x));
      case 'ceil':
        return constant(-this.step(jets.negate(x)));
      case 'round':
        return constant(this.step(jets.add(x, jets.constant(n.fraction(1n, 2n), length))));
      case 'min':
      case 'max': {
        if (!y) throw new NoRule(name);
        const sign = this.side(jets.subtract(x, y), ends);
        return whole(sign > 0 === (name === 'max') ? x : y);
      }
      case 'mod': {
        if (!y) throw new NoRule(name);
        const steps = jets.constant(n.whole(this.step(jets.divide(x, y))), length);
        return whole(jets.subtract(x, jets.multiply(y, steps)));
      }
      default:
        throw new NoRule(name);
    }
  }

  private value(u: Quotient): Jet {
    if (u.below) this.withoutZero(u.below);
    return divided(u);
  }

  /** Notes where an argument may leave the domain of its function. */
  private within(u: Jet, domain: Range): void {
    if (!n.contains(domain, u[0] as Range)) this.isWhole = false;
  }

  private withoutZero(u: Jet): void {
    if (this.inside(u) === undefined) this.isWhole = false;
  }

  /** Above or below 0, inside the part: where it is 0 both lead to the same value, so that it may touch 0. */
  private side(u: Jet, ends: (end: 'low' | 'high') => Range | null): number {
    const { low, high } = u[0] as Range;
    const touching = n.signOf(low) === 0 ? 1 : n.signOf(high) === 0 ? -1 : undefined;
    return Number(
      this.decide(() =>
        BigInt(touching ?? this.inside(u) ?? this.insideByEnds(u, ends) ?? (this.choose(2) === 0 ? 1 : -1)),
      ),
    );
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
  private signOf(u: Jet): number {
    const isLevel = n.signOfRange(u[0] as Range) === 0;
    return Number(this.decide(() => BigInt(isLevel ? 0 : (this.inside(u) ?? 1 - this.choose(3)))));
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
  private step(u: Jet): bigint {
    return this.decide(() => this.stepOf(u));
  }

  private stepOf(u: Jet): bigint {
    const values = u[0] as Range;
    if (!n.isBounded(values)) throw new NoRule('floor');
    const [first, last] = [n.floor(values.low), n.floor(values.high)];
    // A whole number that is the end of all values, which rise or fall throughout, is taken at an end of the part.
    const rises = u[1] && n.signOfRange(u[1]);
    const isWholePart = this.counts.length === 0 && rises !== undefined && rises !== 0;
    const isEnd = isWholePart && n.compare({ m: last, e: 0 }, values.high) === 0;
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
    return this.signOf(jets.subtract(divided(u), divided(v)));
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
  const [[name, { above, below }] = ['', whole([])], ...others] = [...names];
  const part = above[0];
  if (!part || below || others.length > 0 || !n.isBounded(part)) return null;
  const way = new Way([], taken);
  const there = new Map([[name, whole(jets.variable(n.point(part[end]), 1))]]);
  const [u, v] = args.map((argument) => way.of(argument, there, 1));
  if (!u || v === null) return null;
  return divided(v ? added(u, { ...v, above: jets.negate(v.above) }) : u)[0] ?? null;
}

const onSide = (u: Jet, side: 1 | -1): Jet => {
  const values = u[0] as Range;
  const half = side > 0 ? { low: n.zero, high: n.everything.high } : { low: n.everything.low, high: n.zero };
  return jets.withFirst(u, n.common(values, half) ?? values);
};

function added(u: Quotient, v: Quotient): Quotient {
  if (!u.below && !v.below) return whole(jets.add(u.above, v.above));
  const left = v.below ? jets.multiply(u.above, v.below) : u.above;
  const right = u.below ? jets.multiply(v.above, u.below) : v.above;
  return { above: jets.add(left, right), below: product(u.below, v.below) };
}

const product = (u: Jet | null, v: Jet | null): Jet | null => (u && v ? jets.multiply(u, v) : (u ?? v));

const multiplied = (u: Quotient, v: Quotient): Quotient => ({
  above: u.above === v.above ? jets.integerPower(u.above, 2) : jets.multiply(u.above, v.above),
  below: product(u.below, v.below),
});

const quotient = (u: Quotient, v: Quotient): Quotient => ({
  above: v.below ? jets.multiply(u.above, v.below) : u.above,
  below: product(u.below, v.above),
});

const raised = ({ above, below }: Quotient, p: number): Quotient => ({
  above: jets.integerPower(above, p),
  below: below && jets.integerPower(below, p),
});

const notNegative: Range = { low: n.zero, high: n.everything.high };
const notBelowOne: Range = { low: { m: 1n, e: 0 }, high: n.everything.high };
const unit = n.between(-1, 1);
const domains: ReadonlyMap<string, Range> = new Map([
  ['ln', notNegative],
  ['log', notNegative],
  ['logBase', notNegative],
  ['sqrt', notNegative],
  ['arcsin', unit],
  ['arccos', unit],
  ['arcosh', notBelowOne],
  ['artanh', unit],
]);
/** Functions of 1/x, and what 1/x must be for them. */
const innerDomains: ReadonlyMap<string, Range> = new Map([
  ['arcsec', unit],
  ['arccsc', unit],
  ['arsech', notBelowOne],
  ['arcoth', unit],
]);
const throughReciprocal: ReadonlySet<string> = new Set([...innerDomains.keys(), 'arcsch', 'csch', 'coth']);
const quotients: ReadonlySet<string> = new Set(['tan', 'cot', 'sec', 'csc']);
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
const calls: ReadonlyMap<string, Call> = new Map<string, Call>([
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

/** −∞ and ∞ as the sides of a condition. */
function unbounded(node: Expression): number {
  if (node.kind === 'negate') return -unbounded(node.operand);
  return node.kind === 'constant' && node.name === 'infinity' ? Infinity : 0;
}
