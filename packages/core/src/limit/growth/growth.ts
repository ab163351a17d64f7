import {
  callOf,
  canonical,
  difference,
  euler,
  nameOf,
  negative,
  numeric,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
  type Power,
} from '../../algebra/canonical.ts';
import { derivativeOf } from '../../algebra/differentiate.ts';
import { dependsOn, partsOf, replaced } from '../../algebra/parts.ts';
import * as rational from '../../numbers/rational.ts';
import { vanishes } from '../../algebra/vanishes.ts';
import * as tree from '../../language/tree.ts';
import {
  constantSeries,
  NeedsMoreTerms,
  reciprocalFactorial,
  SeriesAlgebra,
  Undecided,
  type Constants,
  type Series,
} from './series.ts';

/** What a form tends to. */
export type Tendency =
  | { readonly kind: 'finite'; readonly form: Canonical }
  | { readonly kind: 'infinite'; readonly sign: 1 | -1 };

/** Thrown where a form has no value beside the place. */
export class NotDefined extends Error {}

/** The variable that grows beyond all bounds. */
const far = '#far';
export const farAway: Canonical = nameOf(far);
const isMoving = (form: Canonical): boolean => dependsOn(form, far);

const zero = whole(0);
const one = whole(1);
const limitZero: Tendency = { kind: 'finite', form: zero };
/** The exponent u of a form e^u; null for any other. */
const exponentOf = (form: Canonical): Canonical | null =>
  form.kind === 'power' && form.base.key === euler.key ? form.exponent : null;

/** Orders of ω up to which series are worked out, one after another. */
const orders = [2, 5, 12, 26, 60].map(whole);
/** How deep limits may stand on one another. */
const deepest = 60;

/**
 * Limits of forms made of powers, exponentials, logarithms and analytic functions as their variable grows beyond all
 * bounds. What grows fastest is written as a power of one ω that vanishes, the form as a series in it, and the first
 * coefficient, which grows more slowly, tells the rest.
 * Source: D. Gruntz, On Computing Limits in a Symbolic Manipulation System (1996), chapters 3 to 5 (from memory). That a
 * coefficient is 0 is shown by algebra alone, that it is not by an enclosure: see `Constants`.
 */
export class Growth {
  private readonly limits = new Map<string, Tendency>();
  private readonly signs = new Map<string, number>();
  private readonly fastest = new Map<string, readonly Canonical[]>();
  private depth = 0;

  constructor(private readonly constants: Constants) {}

  /** @throws Undecided where nothing shows a limit, NotDefined where there is no value */
  limit(form: Canonical): Tendency {
    if (!isMoving(form)) return { kind: 'finite', form };
    const known = this.limits.get(form.key);
    if (known) return known;
    const found = this.deeper(() => this.findLimit(form));
    this.limits.set(form.key, found);
    return found;
  }

  private deeper<R>(work: () => R): R {
    if (this.depth >= deepest) throw new Undecided('limits stand on one another too deep');
    this.depth++;
    try {
      return work();
    } finally {
      this.depth--;
    }
  }

  private findLimit(form: Canonical): Tendency {
    const simple = monomial(form);
    if (simple) {
      const side = this.constants.signOf(simple.exponent);
      const isNothing = side > 0 && this.sign(simple.coefficient) === 0;
      return isNothing ? limitZero : this.tendency(simple.coefficient, side);
    }
    const lead = this.leading(form, 'vanishing');
    return lead ? this.tendency(lead.coefficient, -this.constants.signOf(lead.exponent)) : limitZero;
  }

  /** Of a coefficient times what grows beyond all bounds (1), stays what it is (0) or vanishes (−1). */
  private tendency(coefficient: Canonical, growing: number): Tendency {
    if (growing < 0) return limitZero;
    if (growing === 0) return this.limit(coefficient);
    const sign = this.sign(coefficient);
    if (sign === 0) throw new Undecided('a first term that is 0');
    return { kind: 'infinite', sign: sign > 0 ? 1 : -1 };
  }

  /** −1, 0 or 1: the sign that a form has and keeps, far enough out. */
  sign(form: Canonical): number {
    if (!isMoving(form)) return this.constants.signOf(form);
    const known = this.signs.get(form.key);
    if (known !== undefined) return known;
    const found = this.findSign(form);
    this.signs.set(form.key, found);
    return found;
  }

  private findSign(form: Canonical): number {
    if (form.key === far || exponentOf(form)) return 1;
    if (form.kind === 'product') {
      const signs = form.factors.map((factor) => this.sign(factor));
      return signs.reduce((a, b) => a * b, rational.isNegative(form.coefficient) ? -1 : 1);
    }
    const lead = this.deeper(() => this.leading(form));
    return lead ? this.sign(lead.coefficient) : 0;
  }

  /**
   * The first term of a form as a series in what vanishes fastest; null for 0.
   * @param wanted 'vanishing': a term that vanishes whatever its coefficient is one, too
   */
  private leading(
    form: Canonical,
    wanted: 'term' | 'vanishing' = 'term',
  ): { coefficient: Canonical; exponent: Canonical } | null {
    const fastest = this.mostRapid(form);
    // Where the variable itself is what grows fastest, its exponential is put in its place.
    const isVariable = fastest.some(({ key }) => key === far);
    const current = isVariable ? raisedUp(form) : form;
    const set = isVariable ? fastest.map(raisedUp) : fastest;
    const expansion = this.expansionIn(set);
    for (const order of orders) {
      try {
        const series = expansion.of(current, order);
        const [first] = series.terms;
        const isVanishing = wanted === 'vanishing' && first && this.constants.signOf(first.exponent) > 0;
        if (isVanishing) return first;
        const lead = expansion.algebra.leading(series);
        return lead && lead.first;
      } catch (error) {
        if (!(error instanceof NeedsMoreTerms)) throw error;
      }
    }
    if (vanishes(current)) return null;
    throw new Undecided('no first term within reach');
  }

  private expansionIn(set: readonly Canonical[]): Expansion {
    const [shortest] = [...set].sort((a, b) => a.key.length - b.key.length);
    const exponent = shortest && exponentOf(shortest);
    if (!exponent) throw new Undecided('no fastest part');
    const towards = this.limit(exponent);
    const isGrowing = towards.kind === 'infinite' && towards.sign > 0;
    const logarithm = isGrowing ? negative(exponent) : exponent;
    return new Expansion(this, this.constants, logarithm);
  }

  /** The parts of a form that grow or vanish fastest, all of one class: the variable, and exponentials. */
  private mostRapid(form: Canonical): readonly Canonical[] {
    if (!isMoving(form)) return [];
    if (form.key === far) return [form];
    const known = this.fastest.get(form.key);
    if (known) return known;
    const found = this.deeper(() => this.findMostRapid(form));
    this.fastest.set(form.key, found);
    return found;
  }

  private findMostRapid(form: Canonical): readonly Canonical[] {
    const inner = partsOf(form).reduce<readonly Canonical[]>(
      (found, part) => this.faster(found, this.mostRapid(part)),
      [],
    );
    const exponent = exponentOf(form);
    return exponent && this.limit(exponent).kind === 'infinite' ? this.faster([form], inner) : inner;
  }

  private faster(a: readonly Canonical[], b: readonly Canonical[]): readonly Canonical[] {
    const [first, other] = [a[0], b[0]];
    if (!first || !other) return first ? a : b;
    const union = [...new Map([...a, ...b].map((part) => [part.key, part])).values()];
    if (union.length < a.length + b.length) return union;
    const ratio = this.limit(quotient(logarithmOf(first), logarithmOf(other)));
    if (ratio.kind === 'infinite') return a;
    return this.constants.signOf(ratio.form) === 0 ? b : union;
  }

  /** lim u/h, where e^u grows or vanishes as fast as e^h; null where it does so more slowly. */
  share(u: Canonical, h: Canonical): Canonical | null {
    const ratio = this.limit(quotient(u, h));
    if (ratio.kind === 'infinite') throw new Undecided('faster than the fastest part');
    return this.constants.signOf(ratio.form) === 0 ? null : ratio.form;
  }
}

const raisedUp = (form: Canonical): Canonical => replaced(form, farAway, power(euler, farAway));

const logarithmOf = (part: Canonical): Canonical => exponentOf(part) ?? callOf('ln', [part]);

/** A constant times a power of the variable itself; null for anything else that moves. */
function monomial(form: Canonical): { coefficient: Canonical; exponent: Canonical } | null {
  if (form.key === far) return { coefficient: one, exponent: one };
  if (form.kind === 'power' && form.base.key === far && !isMoving(form.exponent))
    return { coefficient: one, exponent: form.exponent };
  if (form.kind !== 'product') return null;
  const moving = form.factors.filter(isMoving);
  const inner = moving.length === 1 ? monomial(moving[0] as Canonical) : null;
  if (!inner) return null;
  const others = form.factors.filter((factor) => !isMoving(factor));
  return { coefficient: product([numeric(form.coefficient), ...others]), exponent: inner.exponent };
}

/** Functions that are analytic wherever they are defined, with a series at every finite place. */
const analytic: ReadonlySet<string> = new Set(['sin', 'cos', 'arctan', 'arcsin']);

/** Forms as series in one ω = e^h. */
class Expansion {
  readonly algebra: SeriesAlgebra;
  private readonly rapid = new Map<string, boolean>();

  constructor(
    private readonly growth: Growth,
    constants: Constants,
    /** h: the logarithm of ω, which tends to −∞. */
    private readonly logarithm: Canonical,
  ) {
    this.algebra = new SeriesAlgebra(constants, (coefficient) => growth.sign(coefficient));
  }

  /** Whether a part of a form grows or vanishes as fast as ω. */
  private isRapid(form: Canonical): boolean {
    if (!isMoving(form)) return false;
    const known = this.rapid.get(form.key);
    if (known !== undefined) return known;
    const exponent = exponentOf(form);
    const isFound =
      (exponent !== null && this.growth.share(exponent, this.logarithm) !== null) ||
      partsOf(form).some((part) => this.isRapid(part));
    this.rapid.set(form.key, isFound);
    return isFound;
  }

  of(form: Canonical, order: Canonical): Series {
    if (!this.isRapid(form)) return constantSeries(form);
    switch (form.kind) {
      case 'sum':
        return this.algebra.add(form.terms.map((term) => this.of(term, order)));
      case 'product':
        return form.factors
          .map((factor) => this.of(factor, order))
          .reduce((a, b) => this.algebra.multiply(a, b), constantSeries(numeric(form.coefficient)));
      case 'power':
        return this.ofPower(form, order);
      case 'call':
        return this.ofCall(form.name, form.operands, order);
      default:
        throw new Undecided(form.kind);
    }
  }

  private ofPower(form: Power, order: Canonical): Series {
    const exponent = exponentOf(form);
    if (exponent) return this.ofExponential(exponent, order);
    if (isMoving(form.exponent)) throw new Undecided('a power with a moving exponent');
    return this.algebra.power(this.of(form.base, order), form.exponent, order);
  }

  private ofExponential(exponent: Canonical, order: Canonical): Series {
    // e^u = ω^c e^(u − c h) with c = lim u/h
    const share = this.growth.share(exponent, this.logarithm);
    if (!share) return this.exponential(this.of(exponent, order), order);
    const rest = difference(exponent, product([share, this.logarithm]));
    return this.algebra.scaled(this.exponential(this.of(rest, order), order), one, share);
  }

  private exponential(series: Series, order: Canonical): Series {
    const { constant, vanishing } = this.algebra.split(series);
    const raised = this.algebra.composed(vanishing, reciprocalFactorial, order);
    return this.algebra.scaled(raised, power(euler, constant), zero);
  }

  private ofCall(name: string, operands: readonly Canonical[], order: Canonical): Series {
    const [operand] = operands as [Canonical];
    const series = this.of(operand, order);
    if (name === 'ln') return this.ofLogarithm(series, order);
    if (!analytic.has(name)) throw new Undecided(name);
    const { constant, vanishing } = this.algebra.split(series);
    if (this.growth.limit(constant).kind === 'infinite') throw new Undecided(`${name} of something infinite`);
    return this.algebra.composed(vanishing, taylor(name, constant), order);
  }

  /** ln(c ω^e (1 + δ)) = ln c + e h + ln(1 + δ). */
  private ofLogarithm(series: Series, order: Canonical): Series {
    const lead = this.algebra.leading(series);
    if (!lead || this.growth.sign(lead.first.coefficient) < 0) throw new NotDefined('ln');
    const { coefficient, exponent } = lead.first;
    const delta = this.algebra.scaled(lead.rest, power(coefficient, whole(-1)), negative(exponent));
    const constant = sum([callOf('ln', [coefficient]), product([exponent, this.logarithm])]);
    const alternating = (n: number): Canonical =>
      n === 0 ? constant : numeric(rational.rational(n % 2 === 0 ? -1 : 1, n));
    return this.algebra.composed(delta, alternating, order);
  }
}

/** The Taylor coefficients of a function at a place. */
function taylor(name: string, at: Canonical): (n: number) => Canonical {
  if (name === 'sin' || name === 'cos') {
    const [sine, cosine] = [callOf('sin', [at]), callOf('cos', [at])];
    const cycle = name === 'sin' ? [sine, cosine] : [cosine, negative(sine)];
    return (n) => product([cycle[n % 2] as Canonical, whole(n % 4 < 2 ? 1 : -1), reciprocalFactorial(n)]);
  }
  const variable = tree.name('#t');
  const derivatives: tree.Expression[] = [tree.call(name, variable)];
  return (n) => {
    while (derivatives.length <= n)
      derivatives.push(derivativeOf(derivatives.at(-1) as tree.Expression, '#t'));
    const derivative = replaced(canonical(derivatives[n] as tree.Expression), nameOf('#t'), at);
    return product([derivative, reciprocalFactorial(n)]);
  };
}
