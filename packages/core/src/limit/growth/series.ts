import { negative, numeric, power, product, sum, whole, type Canonical } from '../../algebra/canonical.ts';
import * as rational from '../../numbers/rational.ts';

/**
 * A sum of terms c·ω^e with rising exponents, known up to O(ω^order): coefficients are forms that grow or vanish more
 * slowly than any power of ω, exponents are constant forms.
 */
export interface Series {
  readonly terms: readonly Term[];
  /** The exponent from which nothing is known; null where the terms are all there is. */
  readonly order: Canonical | null;
}

export interface Term {
  readonly coefficient: Canonical;
  readonly exponent: Canonical;
}

/** Thrown where more terms of a series are needed than were worked out. */
export class NeedsMoreTerms extends Error {}
/** Thrown where nothing shows what is asked. */
export class Undecided extends Error {}

/** What series need to know about constants. */
export interface Constants {
  /** −1, 0 or 1. @throws Undecided where nothing shows it */
  signOf(constant: Canonical): number;
}

const zero = whole(0);
const one = whole(1);
/** Terms beyond which a series is not worked out, and powers of a series that are added up. */
const mostTerms = 120;
const mostPowers = 80;

export const constantSeries = (form: Canonical): Series =>
  isZeroNumber(form) ? nothing : { terms: [{ coefficient: form, exponent: zero }], order: null };
const nothing: Series = { terms: [], order: null };
const isZeroNumber = (form: Canonical): boolean => form.kind === 'number' && rational.isZero(form.value);

/** Series in one ω. */
export class SeriesAlgebra {
  /** @param coefficientSign the sign of a coefficient, far enough towards the limit */
  constructor(
    private readonly constants: Constants,
    private readonly coefficientSign: (coefficient: Canonical) => number,
  ) {}

  compare(a: Canonical, b: Canonical): number {
    if (a.key === b.key) return 0;
    if (a.kind === 'number' && b.kind === 'number') return rational.compare(a.value, b.value);
    return this.constants.signOf(sum([a, negative(b)]));
  }

  private lower(a: Canonical | null, b: Canonical | null): Canonical | null {
    if (!a || !b) return a ?? b;
    return this.compare(a, b) <= 0 ? a : b;
  }

  /** In ascending order, like terms together, without what lies beyond the order. */
  private tidy(terms: readonly Term[], order: Canonical | null): Series {
    const byExponent = new Map<string, Term[]>();
    for (const term of terms) {
      const like = byExponent.get(term.exponent.key) ?? [];
      like.push(term);
      byExponent.set(term.exponent.key, like);
    }
    const distinct = [...byExponent.values()].map((like) => ({
      exponent: (like[0] as Term).exponent,
      coefficient:
        like.length === 1 ? (like[0] as Term).coefficient : sum(like.map((term) => term.coefficient)),
    }));
    const sorted = distinct
      .filter(
        ({ coefficient, exponent }) =>
          !isZeroNumber(coefficient) && (!order || this.compare(exponent, order) < 0),
      )
      .sort((a, b) => this.compare(a.exponent, b.exponent));
    const merged: Term[] = [];
    for (const term of sorted) {
      const last = merged.at(-1);
      // Exponents that are written in two ways.
      if (last && this.compare(last.exponent, term.exponent) === 0) {
        merged[merged.length - 1] = { ...last, coefficient: sum([last.coefficient, term.coefficient]) };
      } else merged.push(term);
    }
    if (merged.length <= mostTerms) return { terms: merged, order };
    return { terms: merged.slice(0, mostTerms), order: (merged[mostTerms] as Term).exponent };
  }

  add(parts: readonly Series[]): Series {
    const order = parts.reduce<Canonical | null>((least, part) => this.lower(least, part.order), null);
    return this.tidy(
      parts.flatMap(({ terms }) => terms),
      order,
    );
  }

  multiply(a: Series, b: Series): Series {
    if ((a.terms.length === 0 && !a.order) || (b.terms.length === 0 && !b.order)) return nothing;
    const [first, second] = [leadOf(a), leadOf(b)];
    const order = this.lower(b.order && sum([first, b.order]), a.order && sum([second, a.order]));
    const terms = a.terms.flatMap((left) =>
      b.terms.flatMap((right) => {
        const exponent = sum([left.exponent, right.exponent]);
        if (order && this.compare(exponent, order) >= 0) return [];
        return [{ exponent, coefficient: product([left.coefficient, right.coefficient]) }];
      }),
    );
    return this.tidy(terms, order);
  }

  scaled(a: Series, coefficient: Canonical, exponent: Canonical): Series {
    return {
      terms: a.terms.map((term) => ({
        coefficient: product([coefficient, term.coefficient]),
        exponent: sum([exponent, term.exponent]),
      })),
      order: a.order && sum([a.order, exponent]),
    };
  }

  /**
   * The first term whose coefficient is not 0, and what follows it.
   * @throws NeedsMoreTerms where all known terms are 0
   */
  leading(a: Series): { first: Term; rest: Series } | null {
    for (const [i, term] of a.terms.entries()) {
      if (this.coefficientSign(term.coefficient) !== 0)
        return { first: term, rest: { terms: a.terms.slice(i + 1), order: a.order } };
    }
    if (a.order) throw new NeedsMoreTerms('all known terms are 0');
    return null;
  }

  /** Without terms that are 0 and do not vanish: the coefficient of ω⁰, and what vanishes. @throws Undecided for a pole */
  split(a: Series): { constant: Canonical; vanishing: Series } {
    let constant = zero;
    const vanishing: Term[] = [];
    if (a.order && this.compare(a.order, zero) <= 0) throw new NeedsMoreTerms('no constant term is known');
    for (const term of a.terms) {
      const side = this.compare(term.exponent, zero);
      if (side > 0) vanishing.push(term);
      else if (side === 0) constant = term.coefficient;
      else if (this.coefficientSign(term.coefficient) !== 0) throw new Undecided('a pole');
    }
    return { constant, vanishing: { terms: vanishing, order: a.order } };
  }

  /** Σ c_n δⁿ for a series δ that vanishes, up to an order. */
  composed(delta: Series, coefficient: (n: number) => Canonical, order: Canonical): Series {
    const parts: Series[] = [constantSeries(coefficient(0))];
    if (delta.terms.length === 0 && !delta.order) return parts[0] as Series;
    const lead = leadOf(delta);
    let powerOfDelta = constantSeries(one);
    for (let n = 1; n <= mostPowers; n++) {
      const below = product([whole(n), lead]);
      if (this.compare(below, order) >= 0) return this.add([...parts, { terms: [], order }]);
      powerOfDelta = this.cut(this.multiply(powerOfDelta, delta), order);
      parts.push(this.scaled(powerOfDelta, coefficient(n), zero));
    }
    return this.add([...parts, { terms: [], order: product([whole(mostPowers + 1), lead]) }]);
  }

  cut(a: Series, order: Canonical): Series {
    const least = this.lower(a.order, order);
    return this.tidy(a.terms, least);
  }

  /** a^r for a constant r, of a series with a first term. */
  power(a: Series, exponent: Canonical, order: Canonical): Series {
    const n =
      exponent.kind === 'number' && rational.isInteger(exponent.value)
        ? Number(exponent.value.numerator)
        : -1;
    if (n >= 1 && n <= mostRepeated) {
      let result = a;
      for (let i = 1; i < n; i++) result = this.multiply(result, a);
      return result;
    }
    const lead = this.leading(a);
    if (!lead) {
      if (exponent.kind === 'number' && !rational.isNegative(exponent.value)) return nothing;
      throw new Undecided('a power of nothing');
    }
    const { first, rest } = lead;
    const raised = product([first.exponent, exponent]);
    const delta = this.scaled(rest, power(first.coefficient, whole(-1)), negative(first.exponent));
    const binomial = this.composed(delta, binomials(exponent), sum([order, negative(raised)]));
    return this.scaled(binomial, power(first.coefficient, exponent), raised);
  }
}

const mostRepeated = 6;

/** The exponent of the first term, or that from which nothing is known. */
const leadOf = (a: Series): Canonical => a.terms[0]?.exponent ?? a.order ?? zero;

/** The coefficients of (1 + δ)^r. */
function binomials(exponent: Canonical): (n: number) => Canonical {
  const known: Canonical[] = [one];
  return (n) => {
    while (known.length <= n) {
      const k = known.length;
      const factor = sum([exponent, whole(1 - k)]);
      known.push(product([known[k - 1] as Canonical, factor, numeric(rational.rational(1, k))]));
    }
    return known[n] as Canonical;
  };
}

/** 1/n!. */
export const reciprocalFactorial = (n: number): Canonical => {
  let value = 1n;
  for (let k = 2n; k <= BigInt(n); k++) value *= k;
  return numeric(rational.rational(1n, value));
};
