import {
  callOf,
  canonical,
  difference,
  euler,
  negative,
  nameOf,
  numeric,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
} from '../../algebra/canonical.ts';
import { dependsOn } from '../../algebra/parts.ts';
import { literal } from '../../algebra/literal.ts';
import { writtenOut } from '../../algebra/products.ts';
import * as rational from '../../numbers/rational.ts';
import { exactValue, isRelated } from '../../algebra/exact.ts';
import { literalRational } from '../../algebra/exponent.ts';
import { indices } from '../../evaluate/summation.ts';
import { truthOf } from '../../algebra/truth.ts';
import { polynomialFrom } from '../../interpolation/through.ts';
import type { ExactPoint } from '../../language/table.ts';
import * as tree from '../../language/tree.ts';
import type { Condition, Expression } from '../../language/tree.ts';
import { ballOfConstant, signOfConstant } from '../constantSign.ts';
import { lastBy, wholePartBy } from '../halving.ts';
import { hasKinks, settled, Unsettled } from '../settled.ts';
import { NotDefined, type Growth, type Tendency } from './growth.ts';
import { Undecided } from './series.ts';

/** Thrown where a formula holds what has no series: integrals, sums, factorials. */
export class NoSeries extends Error {}

/** A sine, cosine or whole part of something that grows beyond all bounds: it has every value of a range, again and again. */
export interface Swing {
  /** The name that stands for it. */
  readonly name: string;
  readonly kind: 'sin' | 'cos' | 'floor';
  readonly of: Canonical;
}

/** The function whose reciprocal, or whose value at the reciprocal, a function is. */
const reciprocalName = {
  sech: 'cosh',
  csch: 'sinh',
  coth: 'tanh',
  arsech: 'arcosh',
  arcsch: 'arsinh',
  arcoth: 'artanh',
  arcsec: 'arccos',
  arccsc: 'arcsin',
} as const;

/** Terms of a sum that are written out. */
const mostTerms = 300;

const half = numeric(rational.rational(1, 2));
const one = whole(1);
const halfTurn = canonical(tree.constant('pi'));
const quarterTurn = product([half, halfTurn]);

/**
 * A formula as a form whose growth can be told: each part is checked to have a value near the limit, and what turns or
 * jumps is replaced by what it is there.
 */
export class Preparation {
  readonly swings: Swing[] = [];

  /**
   * @param variable the variable of the formula
   * @param x what it is, as a form that tends to the place
   * @param valueOf what stands for a swing: a name for any value, or a fixed one
   */
  constructor(
    private readonly growth: Growth,
    private readonly variable: string,
    private readonly x: Canonical,
    private readonly valueOf: (swing: Swing) => Canonical = ({ name }) => nameOf(name),
  ) {}

  /** @throws NotDefined, Undecided, NoSeries */
  of(node: Expression): Canonical {
    if (!tree.dependsOn(node, this.variable)) return constantOf(node);
    switch (node.kind) {
      case 'name':
        return this.x;
      case 'negate':
        return negative(this.of(node.operand));
      case 'add':
        return sum([this.of(node.left), this.of(node.right)]);
      case 'subtract':
        return difference(this.of(node.left), this.of(node.right));
      case 'multiply':
        return product([this.of(node.left), this.of(node.right)]);
      case 'divide':
        return this.ofQuotient(this.of(node.left), this.of(node.right));
      case 'power':
        return this.ofPower(node.base, node.exponent);
      case 'call':
        return this.ofCall(
          node.name,
          node.arguments.map((argument) => this.of(argument)),
        );
      case 'piecewise':
        return this.ofPieces(node);
      case 'spline':
        return this.ofSpline(node);
      case 'summation':
        return this.ofSum(node);
      case 'product': {
        const factors = writtenOut(node);
        if (!factors) throw new NoSeries('product');
        return this.of(factors);
      }
      default:
        throw new NoSeries(node.kind);
    }
  }

  private ofQuotient(above: Canonical, below: Canonical): Canonical {
    // A swing may be 0 again and again: what it divides has no bounds.
    if (this.growth.sign(below) === 0) throw new NotDefined('division by 0');
    return quotient(above, below);
  }

  private ofPower(base: Expression, exponent: Expression): Canonical {
    const r = literalRational(exponent);
    if (r) return this.raised(this.of(base), r);
    const [b, e] = [this.of(base), this.of(exponent)];
    if (e.kind === 'number') return this.raised(b, e.value);
    if (b.key === euler.key) return power(b, e);
    const side = this.growth.sign(b);
    if (side === 0 && this.growth.sign(e) > 0) return whole(0);
    if (side <= 0) throw new NotDefined('a power of a negative number');
    return power(euler, product([e, callOf('ln', [b])]));
  }

  private raised(base: Canonical, exponent: rational.Rational): Canonical {
    if (rational.isInteger(exponent)) {
      return rational.isNegative(exponent)
        ? this.ofQuotient(one, power(base, numeric(rational.negate(exponent))))
        : power(base, numeric(exponent));
    }
    return this.root(base, exponent);
  }

  /** u^r for a fraction r: |u|^r, with its sign where the denominator is odd. */
  private root(base: Canonical, exponent: rational.Rational): Canonical {
    const sign = this.growth.sign(base);
    if (sign === 0) {
      if (rational.isNegative(exponent)) throw new NotDefined('division by 0');
      return whole(0);
    }
    if (sign > 0) return this.positivePower(base, numeric(exponent));
    if (exponent.denominator % 2n === 0n) throw new NotDefined('an even root of a negative number');
    const size = this.positivePower(negative(base), numeric(exponent));
    return exponent.numerator % 2n === 0n ? size : negative(size);
  }

  /** Of a base that is positive: √(u²) is |u|. */
  private positivePower(base: Canonical, exponent: Canonical): Canonical {
    if (base.kind !== 'power' || base.exponent.kind !== 'number' || base.base.key === euler.key)
      return power(base, exponent);
    return this.positivePower(this.size(base.base), product([base.exponent, exponent]));
  }

  private size(form: Canonical): Canonical {
    try {
      const sign = this.growth.sign(form);
      return sign === 0 ? whole(0) : sign > 0 ? form : negative(form);
    } catch (error) {
      // What swings about 0 keeps no sign, but has a size.
      if (error instanceof Undecided && holdsSwing(form, this.swings))
        return power(power(form, whole(2)), half);
      throw error;
    }
  }

  private ofCall(name: string, args: readonly Canonical[]): Canonical {
    const [u, v] = args as [Canonical, Canonical];
    switch (name) {
      case 'sin':
      case 'cos':
        return this.wave(name, u);
      case 'tan':
        return this.ofQuotient(this.wave('sin', u), this.wave('cos', u));
      case 'cot':
        return this.ofQuotient(this.wave('cos', u), this.wave('sin', u));
      case 'sec':
        return this.ofQuotient(one, this.wave('cos', u));
      case 'csc':
        return this.ofQuotient(one, this.wave('sin', u));
      case 'exp':
        return power(euler, u);
      case 'ln':
        return this.logarithm(u);
      case 'log':
        return quotient(this.logarithm(u), callOf('ln', [whole(10)]));
      case 'logBase':
        return this.ofQuotient(this.logarithm(v), this.logarithm(u));
      case 'sqrt':
        return this.root(u, rational.rational(1, 2));
      case 'cbrt':
        return this.root(u, rational.rational(1, 3));
      case 'root':
        return this.ofDegree(u, v);
      case 'degrees':
        return product([numeric(rational.rational(1, 180)), halfTurn, u]);
      default:
        return this.ofInverse(name, u) ?? this.ofSteps(name, u, v);
    }
  }

  private ofDegree(degree: Canonical, u: Canonical): Canonical {
    const isDegree =
      degree.kind === 'number' && rational.isInteger(degree.value) && degree.value.numerator > 0n;
    if (!isDegree) throw new NotDefined('a root of such a degree');
    return this.root(u, rational.divide(rational.one, degree.value));
  }

  private logarithm(u: Canonical): Canonical {
    if (this.growth.sign(u) <= 0) throw new NotDefined('a logarithm of a number that is not positive');
    return callOf('ln', [u]);
  }

  private wave(kind: 'sin' | 'cos', u: Canonical): Canonical {
    return this.growth.limit(u).kind === 'infinite' ? this.swinging(kind, u) : callOf(kind, [u]);
  }

  private swinging(kind: Swing['kind'], of: Canonical): Canonical {
    const known = this.swings.find((swing) => swing.kind === kind && swing.of.key === of.key);
    const swing = known ?? { name: `#swing${this.swings.length}`, kind, of };
    if (!known) this.swings.push(swing);
    return this.valueOf(swing);
  }

  /** Hyperbolic functions and inverses through exponentials, logarithms, arctan and arcsin. */
  private ofInverse(name: string, u: Canonical): Canonical | null {
    switch (name) {
      case 'sinh':
      case 'cosh':
      case 'tanh': {
        const [up, down] = [power(euler, u), power(euler, negative(u))];
        const [sinh, cosh] = [product([half, difference(up, down)]), product([half, sum([up, down])])];
        return name === 'sinh' ? sinh : name === 'cosh' ? cosh : quotient(sinh, cosh);
      }
      case 'arsinh':
        // Odd: of a positive number, so that nothing cancels.
        return this.growth.sign(u) < 0 ? negative(areaSine(negative(u))) : areaSine(u);
      case 'arcosh':
        if (this.growth.sign(difference(u, one)) < 0) throw new NotDefined(name);
        return callOf('ln', [sum([u, power(difference(product([u, u]), one), half)])]);
      case 'artanh': {
        const [above, below] = [sum([one, u]), difference(one, u)];
        if (this.growth.sign(above) <= 0 || this.growth.sign(below) <= 0) throw new NotDefined(name);
        return product([half, callOf('ln', [quotient(above, below)])]);
      }
      case 'arctan':
        return this.arctangent(u);
      case 'arccot':
        return difference(quarterTurn, this.arctangent(u));
      case 'arcsin':
        return this.arcsine(u);
      case 'arccos':
        return difference(quarterTurn, this.arcsine(u));
      case 'sech':
      case 'csch':
      case 'coth':
        return this.ofQuotient(one, this.ofInverse(reciprocalName[name], u) as Canonical);
      case 'arsech':
      case 'arcsch':
      case 'arcoth':
      case 'arcsec':
      case 'arccsc':
        return this.ofInverse(reciprocalName[name], this.ofQuotient(one, u));
      default:
        return null;
    }
  }

  private arctangent(u: Canonical): Canonical {
    const limit = this.growth.limit(u);
    if (limit.kind === 'finite') return callOf('arctan', [u]);
    return difference(product([whole(limit.sign), quarterTurn]), callOf('arctan', [quotient(one, u)]));
  }

  /** Beside ±1 by arcsin u = π/2 − 2 arcsin √((1 − u)/2). */
  private arcsine(u: Canonical): Canonical {
    const gaps = [difference(one, u), sum([one, u])] as const;
    const signs = gaps.map((gap) => this.growth.sign(gap));
    if (signs.includes(-1)) throw new NotDefined('arcsin');
    for (const [i, gap] of gaps.entries()) {
      const limit = this.growth.limit(gap);
      if (limit.kind !== 'finite' || this.growth.sign(limit.form) !== 0) continue;
      const side = i === 0 ? one : whole(-1);
      const inner = callOf('arcsin', [power(product([half, gap]), half)]);
      return product([side, difference(quarterTurn, product([whole(2), inner]))]);
    }
    return callOf('arcsin', [u]);
  }

  private ofSteps(name: string, u: Canonical, v: Canonical): Canonical {
    switch (name) {
      case 'abs':
        return this.size(u);
      case 'sign':
        return whole(this.growth.sign(u));
      case 'min':
        return this.growth.sign(difference(u, v)) < 0 ? u : v;
      case 'max':
        return this.growth.sign(difference(u, v)) > 0 ? u : v;
      case 'floor':
        return this.wholePart(u);
      case 'ceil':
        return negative(this.wholePart(negative(u)));
      case 'round':
        return this.wholePart(sum([u, half]));
      case 'mod':
        return difference(u, product([v, this.wholePart(this.ofQuotient(u, v))]));
      default:
        throw new NoSeries(name);
    }
  }

  private wholePart(u: Canonical): Canonical {
    const limit: Tendency = this.growth.limit(u);
    // ⌊u⌋ = u − φ with 0 ≤ φ < 1
    if (limit.kind === 'infinite') return difference(u, this.swinging('floor', u));
    const below = this.wholeBelow(limit.form);
    return this.growth.sign(difference(u, below)) < 0 ? difference(below, one) : below;
  }

  /** ⌊c⌋ of a constant, by halving. */
  private wholeBelow(c: Canonical): Canonical {
    const known = callOf('floor', [c]);
    if (known.kind === 'number') return known;
    const found = wholePartBy((n) => this.growth.sign(difference(c, whole(n))) >= 0);
    if (found === null) throw new Undecided('floor');
    return whole(found);
  }

  private ofPieces({ pieces, otherwise }: tree.PiecewiseNode): Canonical {
    for (const { value, condition } of pieces) if (this.holds(condition)) return this.of(value);
    if (!otherwise) throw new NotDefined('no piece');
    return this.of(otherwise);
  }

  private holds(condition: Condition): boolean {
    const truth = truthOf(condition, ({ operands, relations }) =>
      relations.every((relation, i) => {
        const [left, right] = [operands[i], operands[i + 1]] as [Expression, Expression];
        const [a, b] = [tree.sizeAtInfinity(left), tree.sizeAtInfinity(right)];
        if (a !== 0 || b !== 0) return isRelated(a - b, relation);
        return isRelated(this.growth.sign(difference(this.of(left), this.of(right))), relation);
      }),
    );
    if (truth === null) throw new Undecided('a condition');
    return truth;
  }

  /** A sum with bounds that are numbers, term by term. */
  private ofSum({ variable, from, to, body }: tree.SummationNode): Canonical {
    const [low, high] = [exactValue(from, new Map()), exactValue(to, new Map())];
    const range = low && high && indices(rational.toNumber(low), rational.toNumber(high));
    if (!range || range.count > mostTerms) throw new NoSeries('summation');
    const terms = Array.from({ length: range.count }, (_, i) =>
      this.of(tree.substitute(body, variable, literal(rational.rational(range.first + i)))),
    );
    return sum(terms);
  }

  private ofSpline({ spline, argument }: tree.SplineNode): Canonical {
    const u = this.of(argument);
    const points = spline.points as readonly ExactPoint[];
    const side = (i: number): number =>
      this.growth.sign(difference(u, canonical(literal((points[i] as ExactPoint).x))));
    const last = points.length - 1;
    const [first, end] = [side(0), side(last)];
    if (first < 0 || end > 0) throw new NotDefined('beyond the table');
    const low = lastBy((i) => side(i) >= 0, 0, last);
    const { x } = points[low] as ExactPoint;
    const formula = polynomialFrom(x, spline.exactPiece(low), tree.name('#u'));
    const inner = new Preparation(this.growth, '#u', u, this.valueOf);
    return inner.of(formula);
  }
}

/** Binary digits to which it is looked at whether a constant has a value. */
const constantBits = 120;

/** A part without the variable, which has to have a value, too. */
function constantOf(node: Expression): Canonical {
  if (literalRational(node) || node.kind === 'constant') return canonical(node);
  const plain = ballOfConstant(node, constantBits);
  const form = plain === 'unsure' || hasKinks(node) ? settledConstant(node) : node;
  const ball = form === node ? plain : ballOfConstant(form, constantBits);
  if (ball === null) throw new NotDefined('a constant');
  if (ball === 'unsure') throw new Undecided('a constant');
  return canonical(form);
}

function settledConstant(node: Expression): Expression {
  try {
    return settled(node, (formula) => signOfConstant(formula));
  } catch (error) {
    if (error instanceof Unsettled) throw new Undecided('a constant');
    throw error;
  }
}

const areaSine = (u: Canonical): Canonical =>
  callOf('ln', [sum([u, power(sum([product([u, u]), one]), half)])]);

/** Whether a form holds the name of a swing. */
export const holdsSwing = (form: Canonical, swings: readonly Swing[]): boolean =>
  swings.some(({ name }) => dependsOn(form, name));
