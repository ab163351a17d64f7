import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { evaluate, numberOf } from './evaluate.ts';
import { isZero } from './exact.ts';
import * as f from './functions.ts';
import { minus, multiple, plus, ratio, times, together, type Exponent, type Ratio } from './exponents.ts';
import { derivativeWrittenOut } from './identities.ts';
import { NoRule, ratioOf, withinRules } from './literals.ts';
import { moved } from './moved.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { divided } from './quotients.ts';
import { exactJetAt } from './removable.ts';

/**
 * How a function of t grows as t falls to 0: for every t of (0, ε] its value lies in range · tᵖ Lʲ e^u, where L = |ln t|
 * and p is the power (Hardy, Orders of Infinity, 1910; from memory).
 */
export interface Growth {
  readonly range: Range;
  readonly power: Ratio;
  readonly logarithms: number;
  /** u, which is not bounded; null where there is none. */
  readonly exponent: Exponent;
}

const none = ratio(0, 1);
const rangeOf = ({ p, q }: Ratio): Range => n.fraction(BigInt(p), BigInt(q));

const unit = n.whole(1);
const nought = n.whole(0);
const fromNought = ({ high }: Range): Range => ({ low: n.zero, high });
const withZero = (x: Range): Range => n.hull(nought, x);

/** Functions that differ from their argument by no more than a share of its cube, for |u| ≤ 1 (their series; from memory). */
const nearlyItself = new Map([
  ['sin', 6],
  ['arctan', 3],
  ['tanh', 3],
]);

/** The highest order of a zero at 0 that is looked for. */
const highestOrder = 6;

/** Growth of formulas in one variable beside 0, for numbers of (0, ε] with ε ≤ ¼. Null, or NoRule, where nothing is shown. */
export class Growths {
  private readonly part: Range;
  private readonly end: Range;
  /** L at ε, where it is least: above 1. */
  private readonly least: Range;

  constructor(
    private readonly variable: string,
    epsilon: number,
  ) {
    if (!(epsilon > 0 && epsilon <= 0.25)) throw new NoRule('too far from 0');
    this.part = n.between(0, epsilon);
    this.end = n.point(n.fromDouble(epsilon));
    this.least = n.negate(f.ln(this.end));
  }

  of(node: Expression): Growth | null {
    const known = this.byForm(node);
    return known && (this.isShown(known) ? known : (this.bySeries(node) ?? known));
  }

  /** A range that reaches 0 tells nothing of what is divided by it, and an infinite one nothing at all. */
  private isShown = ({ range }: Growth): boolean => n.isOneSided(range) && n.isBounded(range);

  private byForm(node: Expression): Growth | null {
    if (!tree.dependsOn(node, this.variable)) return this.ofNumber(node);
    switch (node.kind) {
      case 'name':
        return { range: unit, power: ratio(1, 1), logarithms: 0, exponent: null };
      case 'negate': {
        const u = this.of(node.operand);
        return u && { ...u, range: n.negate(u.range) };
      }
      case 'add':
      case 'subtract': {
        const [u, v] = [this.of(node.left), this.of(node.right)];
        const other = v && node.kind === 'subtract' ? { ...v, range: n.negate(v.range) } : v;
        return (u && other && this.sum(u, other)) ?? this.bounded(node);
      }
      case 'multiply': {
        const [u, v] = [this.of(node.left), this.of(node.right)];
        return u && v && product(u, v);
      }
      case 'divide': {
        const [u, v] = [this.of(node.left), this.of(node.right)];
        return u && v && n.isOneSided(v.range) ? product(u, inverse(v)) : this.bounded(node);
      }
      case 'power':
        return this.power(node.base, node.exponent) ?? this.bounded(node);
      case 'call':
        return this.call(node.name, node.arguments) ?? this.bounded(node);
      default:
        return this.bounded(node);
    }
  }

  private ofNumber(node: Expression): Growth | null {
    const range = numberOf(node);
    return range && { range, power: none, logarithms: 0, exponent: null };
  }

  private power(base: Expression, exponent: Expression): Growth | null {
    if (base.kind === 'constant' && base.name === 'e') return this.exp(exponent);
    const fixed = ratioOf(exponent);
    if (!fixed) return this.exp(tree.multiply(exponent, tree.call('ln', base)));
    const u = this.of(base);
    if (!u || !n.isBounded(u.range)) return null;
    const isWhole = fixed.q === 1;
    if (fixed.p < 0 && !n.isOneSided(u.range)) return null;
    if (!isWhole && n.signOf(u.range.low) < 0) return null;
    const logarithms = (u.logarithms * fixed.p) / fixed.q;
    if (!Number.isInteger(logarithms)) return null;
    const size = n.power(isWhole ? u.range : n.root(u.range, fixed.q), Math.abs(fixed.p));
    return {
      range: fixed.p < 0 ? n.reciprocal(size) : size,
      power: times(u.power, fixed),
      logarithms,
      exponent: multiple(u.exponent, fixed),
    };
  }

  private exp(exponent: Expression): Growth | null {
    const u = this.of(exponent);
    const values = u && this.valuesOf(u);
    if (values && n.isBounded(values))
      return { range: f.exp(values), power: none, logarithms: 0, exponent: null };
    return { range: unit, power: none, logarithms: 0, exponent };
  }

  private call(name: string, args: readonly Expression[]): Growth | null {
    const [first] = args;
    if (!first || args.length > 1) return null;
    if (name === 'sqrt') return this.power(first, tree.divide(tree.number(1), tree.number(2)));
    if (name === 'exp') return this.exp(first);
    const e = { kind: 'constant', name: 'e' } as const;
    const [rising, falling] = [first, tree.negate(first)].map((by) => tree.power(e, by)) as [
      Expression,
      Expression,
    ];
    const half = (both: Expression): Growth | null => this.of(tree.divide(both, tree.number(2)));
    if (name === 'sinh') return half(tree.subtract(rising, falling));
    if (name === 'cosh') return half(tree.add(rising, falling));
    if (name === 'abs') {
      const u = this.of(first);
      return u && { ...u, range: n.signOf(u.range.low) >= 0 ? u.range : sizeOf(u.range) };
    }
    if (name === 'floor' || name === 'ceil') {
      // Less than one away from its argument, which is seen where that grows.
      const u = this.of(first);
      return u && this.sum(u, constantGrowth(name === 'floor' ? n.between(-1, 0) : n.between(0, 1)));
    }
    const small = nearlyItself.get(name);
    if (small !== undefined) return this.besideItself(first, small);
    const [sine, cosine] = [tree.call('sin', first), tree.call('cos', first)];
    if (name === 'tan') return this.of(tree.divide(sine, cosine));
    if (name === 'cot') return this.of(tree.divide(cosine, sine));
    return name === 'ln' ? (this.logarithm(this.of(first)) ?? this.besideOne(first)) : null;
  }

  /** ln of range · tᵖ is L (−p + ln(range)/L). */
  private logarithm(u: Growth | null): Growth | null {
    if (!u || u.exponent || u.logarithms !== 0 || u.power.p === 0) return null;
    if (!n.isBounded(u.range) || n.signOf(u.range.low) <= 0) return null;
    const rest = n.multiply(f.ln(u.range), fromNought(n.reciprocal(this.least)));
    return { range: n.add(rangeOf(minus(u.power)), rest), power: none, logarithms: 1, exponent: null };
  }

  /** sin u and its kin beside 0: u times something between 1 − u²/n and 1. */
  private besideItself(node: Expression, by: number): Growth | null {
    const u = this.of(node);
    const values = u && this.valuesOf(u);
    if (!values || !n.contains(n.between(-1, 1), values)) return null;
    const share = n.subtract(unit, n.divide(fromNought(n.power(values, 2)), n.whole(by)));
    return { ...u, range: n.multiply(u.range, share) };
  }

  /** ln(1 + v) is v/(1 + w) with w between 0 and v. */
  private besideOne(node: Expression): Growth | null {
    const rest = derivativeWrittenOut(tree.subtract(node, tree.number(1)), this.variable, 0);
    // Written out it may have values where it has none as it stands: √u² is u.
    const v = rest && this.of(node) && this.of(rest);
    const values = v && this.valuesOf(v);
    const below = values && n.add(unit, withZero(values));
    return v && below && n.signOf(below.low) > 0
      ? { ...v, range: n.multiply(v.range, n.reciprocal(below)) }
      : null;
  }

  /** The larger of two growths, with what the other is beside it. */
  sum(u: Growth, v: Growth): Growth | null {
    if (isNought(u)) return v;
    if (isNought(v)) return u;
    const [beside, reverse] = [this.beside(v, u), this.beside(u, v)];
    // Of two that are about as large, the one that leaves more to be said of the sum.
    if (beside && (!reverse || isNarrower(beside, reverse))) return { ...u, range: n.add(u.range, beside) };
    return reverse && { ...v, range: n.add(v.range, reverse) };
  }

  /** The range of v over the growth of u; null where it is not shown to be bounded. */
  private beside(v: Growth, u: Growth): Range | null {
    const [power, logarithms] = [plus(v.power, minus(u.power)), v.logarithms - u.logarithms];
    const exponent = together(v.exponent, multiple(u.exponent, ratio(-1, 1)));
    const share = exponent ? this.falling(exponent, power, logarithms) : this.vanishing(power, logarithms);
    return share && n.multiply(v.range, share);
  }

  /** All values of tᵖ Lʲ; null where they are not bounded, or reach their bound inside. */
  private vanishing(power: Ratio, logarithms: number): Range | null {
    if (power.p < 0 || (power.p === 0 && logarithms > 0)) return null;
    if (power.p === 0 && logarithms === 0) return unit;
    // tᵖ Lʲ rises up to L = j/p.
    const peak = n.fraction(BigInt(logarithms * power.q), BigInt(power.p || 1));
    if (logarithms > 0 && n.compare(peak.high, this.least.low) > 0) return null;
    return fromNought(n.multiply(this.raised(power), n.power(this.least, logarithms)));
  }

  /** εᵖ. */
  raised = (power: Ratio): Range =>
    power.p === 0 ? unit : f.exp(n.multiply(rangeOf(power), f.ln(this.end)));

  /**
   * Bounds from 0 up of e^u tᵖ Lʲ, where u falls to −∞ as −c t^(−q), or is bounded: e^(−c/t^q) ≤ (m/(q e c))^(m/q) tᵐ.
   */
  falling(exponent: Expression, power: Ratio, logarithms: number): Range | null {
    const u = this.of(exponent);
    if (!u || u.exponent) return null;
    const values = this.valuesOf(u);
    if (values && n.isBounded(values)) {
      const share = this.vanishing(power, logarithms);
      return share && n.multiply(f.exp(values), share);
    }
    if (u.power.p >= 0 || u.logarithms < 0 || !n.isBounded(u.range) || n.signOf(u.range.high) >= 0)
      return null;
    const c = n.point(n.opposite(u.range.high));
    const q = minus(u.power);
    const bounds = [8, 40].map((more): Range | null => {
      const m = plus(ratio(more, 1), power.p < 0 ? minus(power) : none);
      const inside = n.divide(rangeOf(times(m, ratio(q.q, q.p))), n.multiply(f.e, c));
      const constant = f.exp(n.multiply(rangeOf(times(m, ratio(q.q, q.p))), f.ln(inside)));
      const share = this.vanishing(plus(m, power), Math.max(0, logarithms));
      return share && fromNought(n.multiply(constant, share));
    });
    const [first, second] = bounds;
    return (first && second && n.common(first, second)) ?? first ?? second ?? null;
  }

  /** What a function comes to on (0, ε]; null where that is not bounded. */
  valuesOf({ range, power, logarithms, exponent }: Growth): Range | null {
    if (n.signOfRange(range) === 0) return nought;
    if (exponent) {
      const share = this.falling(exponent, power, logarithms);
      return share && n.multiply(range, share);
    }
    const share = this.vanishing(power, logarithms);
    return share && n.multiply(range, share);
  }

  /** Whether a function is shown to fall to 0. */
  vanishes(growth: Growth): boolean {
    const { range, power, logarithms, exponent } = growth;
    if (!n.isBounded(range)) return false;
    if (n.signOfRange(range) === 0) return true;
    if (exponent) return this.falling(exponent, plus(power, ratio(-1, 1)), logarithms) !== null;
    return power.p > 0 || (power.p === 0 && logarithms < 0);
  }

  /** Of a function whose first derivatives are exactly 0 at 0, tᵏ times what the next comes to on all of [0, ε]. */
  private bySeries(node: Expression): Growth | null {
    return withinRules(() => {
      const jet = exactJetAt(node, this.variable, tree.number(0), highestOrder + 1);
      const order = jet.findIndex((coefficient) => !isZero(coefficient));
      if (order < 0) return null;
      const [only, ...others] = evaluate(node, this.variable, this.part, order + 1);
      const range = only?.below || !only?.isWhole ? undefined : only.above[order];
      if (others.length > 0 || !range || !n.isBounded(range)) return null;
      return { range, power: ratio(order, 1), logarithms: 0, exponent: null };
    });
  }

  /** A function by the bounds of its values. */
  private bounded(node: Expression): Growth | null {
    const courses = evaluate(node, this.variable, this.part, 1);
    if (courses.length === 0 || !courses.every(({ isWhole }) => isWhole)) return null;
    const range = courses.map((course) => divided(course)[0] as Range).reduce(n.hull);
    return n.isBounded(range) ? { range, power: none, logarithms: 0, exponent: null } : null;
  }

  /** The integral of a growth from 0 to ε; null where it is not shown to have a value. */
  area({ range, power, logarithms, exponent }: Growth): Range | null {
    if (n.signOfRange(range) === 0) return nought;
    const above = plus(power, ratio(1, 1));
    if (exponent) {
      const share = this.falling(exponent, power, logarithms);
      return share && n.multiply(n.multiply(range, share), this.end);
    }
    if (above.p <= 0) return null;
    // By parts, ∫ tᵇ⁻¹ Lʲ = εᵇ Lʲ/b + j/b ∫ tᵇ⁻¹ Lʲ⁻¹.
    const by = rangeOf(above);
    const raised = this.raised(above);
    let weight = n.divide(raised, by);
    for (let j = 1; j <= logarithms; j++) {
      const edge = n.multiply(raised, n.power(this.least, j));
      weight = n.divide(n.add(edge, n.multiply(n.whole(j), weight)), by);
    }
    if (logarithms < 0) weight = fromNought(n.multiply(weight, n.power(this.least, logarithms)));
    return n.multiply(range, weight);
  }
}

export const constantGrowth = (range: Range): Growth => ({
  range,
  power: none,
  logarithms: 0,
  exponent: null,
});
export const isNought = ({ range }: Growth): boolean => n.signOfRange(range) === 0;

export const product = (u: Growth, v: Growth): Growth => ({
  range: n.multiply(u.range, v.range),
  power: plus(u.power, v.power),
  logarithms: u.logarithms + v.logarithms,
  exponent: together(u.exponent, v.exponent),
});

export const inverse = ({ range, power, logarithms, exponent }: Growth): Growth => ({
  range: n.reciprocal(range),
  power: minus(power),
  logarithms: -logarithms,
  exponent: multiple(exponent, ratio(-1, 1)),
});

const sizeOf = (x: Range): Range => {
  const other = n.negate(x);
  return n.signOf(x.high) <= 0 ? other : withZero({ low: n.zero, high: n.hull(x, other).high });
};

const widthOf = ({ low, high }: Range): Range => n.subtract(n.point(high), n.point(low));
const isNarrower = (x: Range, y: Range): boolean => n.compare(widthOf(x).high, widthOf(y).high) <= 0;

/** Shares of a width for which it is tried to show a sign. */
const widths = [1, 0.5, 0.25, 2 ** -4, 2 ** -8, 2 ** -16, 2 ** -32, 2 ** -48];

/**
 * How far from a number a derivative is shown to be nowhere 0; null where it is not shown at all.
 * @param way the side on which it is looked at
 */
export function reachOfSign(
  body: Expression,
  variable: string,
  order: number,
  at: Expression,
  way: -1 | 1,
  width: number,
): number | null {
  const derivative = derivativeWrittenOut(body, variable, order);
  if (!derivative) return null;
  const t = tree.name(variable);
  const beside = moved(derivative, variable, way > 0 ? tree.add(at, t) : tree.subtract(at, t));
  const found = widths
    .map((share) => Math.min(0.25, share * width))
    .find((epsilon) => {
      const growth = withinRules(() => new Growths(variable, epsilon).of(beside));
      return growth !== null && n.isOneSided(growth.range);
    });
  return found ?? null;
}
