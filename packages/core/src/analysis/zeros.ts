import { ownNames } from '../language/ownNames.ts';
import {
  baseAndExponent,
  canonical,
  numeric,
  power,
  product,
  splitCoefficient,
  sum,
  whole,
  type Canonical,
} from '../algebra/canonical.ts';
import { expanded, factored } from '../algebra/expand.ts';
import { hasWaves, inSinesAndCosines, quotientNames } from '../algebra/identities.ts';
import { literal } from '../algebra/literal.ts';
import * as polynomial from '../algebra/polynomial.ts';
import type { Polynomial } from '../algebra/polynomial.ts';
import * as rational from '../numbers/rational.ts';
import { vanishes } from '../algebra/vanishes.ts';
import { written } from '../algebra/written.ts';
import { enclose } from '../evaluate/enclosures.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import * as big from '../numbers/bigFloat.ts';
import { Breaks, holdsIntegral } from './breaks.ts';
import { constantSign, numberOf, principalAngle } from './constants.ts';
import { isolate, type Box, type Stretch } from './isolate.ts';
import { comparePlaces, exactPlace, placeBy, rootPlace, sortedPlaces, type Place } from './place.ts';
import { preciseSign, programOf } from './programs.ts';
import { endedEarly, stepsAllowed } from '../budget/thoroughness.ts';
import { withoutOutweighed } from './outweighed.ts';
import { placeByRoot, rootName, underRoot } from './underRoot.ts';
import { nowhere, rangeParts, union, type ZeroSet } from './zeroSet.ts';

/** Evaluations by interval arithmetic that one function on one interval may take in all. */
const mostEvaluations = 30_000;
/** How often a form is taken apart into simpler ones before it is searched as it is. */
const deepest = 60;
/** How often, one inside another, terms that outweigh others are looked for: the slopes of ratios have ratios, too. */
const mostWeighings = 1;
/** Where on the interval it is tried whether a function is 0 throughout. */
const somewhere = 0.38;
/** Levels of a wave, such as the multiples of π, that are looked for one by one. */
const mostLevels = 400;

/**
 * Zeros of expressions without corners or pieces on one interval. Products are taken apart into factors;
 * polynomials are solved by exact algebra, simple equations by inverse functions, and the rest by interval
 * arithmetic. Results are kept by expression, so that the same factor has the same zeros wherever it occurs.
 */
export class Zeros {
  private readonly known = new Map<string, ZeroSet>();
  private readonly knownBreaks = new Map<string, ZeroSet>();
  private readonly breaks: Breaks;
  private depth = 0;
  private weighings = 0;
  /** Evaluations by interval arithmetic so far. */
  evaluations = 0;

  constructor(
    readonly variable: string,
    readonly low: number,
    readonly high: number,
  ) {
    this.breaks = new Breaks(this, (name, from, to) => new Zeros(name, from, to));
  }

  of(body: Expression): ZeroSet {
    return this.ofForm(canonical(body));
  }

  private ofForm(form: Canonical): ZeroSet {
    const found = this.known.get(form.key);
    if (found) return found;
    const result = this.within(() => this.solve(form)) ?? this.searched(form);
    this.known.set(form.key, result);
    return result;
  }

  /** One step of taking a form apart; null where it has gone deeper than any that comes to an end. */
  private within(step: () => ZeroSet): ZeroSet | null {
    if (this.depth >= deepest) return null;
    this.depth++;
    const result = step();
    this.depth--;
    return result;
  }

  private dependsOn(form: Canonical): boolean {
    return tree.dependsOn(written(form), this.variable);
  }

  private solve(form: Canonical): ZeroSet {
    if (form.kind === 'number') return { ...nowhere, isZero: rational.isZero(form.value) };
    if (!this.dependsOn(form)) return this.ofConstant(form);
    switch (form.kind) {
      case 'product':
        return union(form.factors.map((factor) => this.ofFactor(factor)));
      case 'power':
        return this.ofFactor(form);
      case 'sum':
        return this.ofSum(form);
      default:
        return this.ofFunction(form);
    }
  }

  private ofConstant(form: Canonical): ZeroSet {
    const sign = constantSign(form);
    const undecided = Number.isNaN(sign) ? [{ low: this.low, high: this.high }] : [];
    return { ...nowhere, isZero: sign === 0, undecided };
  }

  /** A factor of a product: the zeros of a base with a positive exponent; those of others are breaks. */
  private ofFactor(factor: Canonical): ZeroSet {
    const { base, exponent } = baseAndExponent(factor);
    if (factor.kind !== 'power') return this.ofForm(factor);
    const breaks = this.breaksOf(factor);
    if (!this.dependsOn(base)) return { ...nowhere, breaks: breaks.roots, undecided: breaks.undecided };
    const zeros = this.ofForm(base);
    const isPositive = exponent.kind === 'number' ? !rational.isNegative(exponent.value) : false;
    return {
      roots: isPositive ? zeros.roots : [],
      breaks: breaks.roots,
      undecided: [...new Set([...zeros.undecided, ...breaks.undecided])],
      isZero: isPositive && zeros.isZero,
    };
  }

  private ofSum(form: Canonical): ZeroSet {
    const poly = polynomial.polynomialOf(expanded(form), this.variable);
    if (poly) return poly.length === 0 ? { ...nowhere, isZero: true } : this.ofPolynomial(poly);
    const straight = this.ofLinear(form);
    if (straight) return straight;
    const isOfQuotients = hasWaves(form, quotientNames);
    for (const [split, least] of [
      // Over one divisor nothing grows beyond all bounds on the way.
      ...(isOfQuotients ? ([[factored(inSinesAndCosines(form)), 1]] as const) : []),
      [factored(form), 1],
      // Multiplying out makes enclosures wider: it must find more than a constant factor to be worth it.
      [factored(expanded(form)), 2],
    ] as const) {
      if (split.kind === 'number') return this.ofForm(split);
      const isSplit = split.kind === 'product' && split.factors.every((factor) => factor.key !== form.key);
      const moving = split.kind === 'product' ? split.factors.filter((factor) => this.dependsOn(factor)) : [];
      if (isSplit && moving.length >= least) return this.withBreaksOf(form, this.ofForm(split));
    }
    if (this.isZeroSomewhere(form) && vanishes(form)) return { ...nowhere, isZero: true };
    return this.ofUnderRoot(form) ?? this.ofInverse(form) ?? this.searched(form);
  }

  /** By the zeros of a polynomial in a root of a linear expression. */
  private ofUnderRoot(form: Canonical): ZeroSet | null {
    const found = underRoot(form, this.variable);
    if (!found) return null;
    const { polynomial: inRoot, a, b, n, hasValueAtZero } = found;
    if (inRoot.length === 0) return this.withBreaksOf(form, { ...nowhere, isZero: true });
    const widest = Math.max(Math.abs(this.low), Math.abs(this.high)) * Math.abs(rational.toNumber(a));
    const reach = (widest + Math.abs(rational.toNumber(b))) ** (1 / n) * 1.01 + Number.MIN_VALUE;
    const zeros = new Zeros(rootName, n % 2 === 0 ? 0 : -reach, reach);
    const { roots } = zeros.of(written(polynomial.toCanonical(inRoot, rootName)));
    const origin = exactPlace(tree.number(0)) as Place;
    const places = roots.flatMap((root) => {
      const side = comparePlaces(root, origin);
      if ((n % 2 === 0 && side < 0) || (side === 0 && !hasValueAtZero)) return [];
      const place = placeBy(placeByRoot(found), rootName, root);
      return place && place.high >= this.low && place.low <= this.high ? [place] : [];
    });
    return this.withBreaksOf(form, { ...nowhere, roots: sortedPlaces(places) });
  }

  /** Whether an enclosure at one place leaves it open that a form is 0 everywhere. */
  private isZeroSomewhere(form: Canonical): boolean {
    const at = this.low + (this.high - this.low) * somewhere;
    const sign = preciseSign(programOf(written(form), this.variable), big.fromDouble(at), 80);
    return sign === undefined || Number.isNaN(sign);
  }

  private withBreaksOf(form: Canonical, zeros: ZeroSet): ZeroSet {
    const breaks = this.breaksOf(form);
    return {
      ...zeros,
      breaks: sortedPlaces([...zeros.breaks, ...breaks.roots]),
      undecided: [...zeros.undecided, ...breaks.undecided],
    };
  }

  private ofPolynomial(poly: Polynomial): ZeroSet {
    const parts = polynomial.squareFreeFactors(poly);
    return { ...nowhere, roots: sortedPlaces(parts.flatMap(({ factor }) => this.rootsOf(factor))) };
  }

  /** The roots of a square-free polynomial: fractions and surds as such, others between bounds. */
  private rootsOf(factor: Polynomial): Place[] {
    const { roots, rest } = polynomial.rationalRoots(factor);
    const places = roots.map((root) => exactPlace(literal(root)) as Place);
    if (polynomial.degree(rest) === 2) places.push(...quadraticRoots(rest));
    else if (polynomial.degree(rest) > 2) places.push(...this.isolatedRoots(rest));
    return places.filter((place) => place.high >= this.low && place.low <= this.high);
  }

  private isolatedRoots(rest: Polynomial): Place[] {
    const body = programOf(written(polynomial.toCanonical(rest, this.variable)), this.variable);
    const slope = programOf(
      written(polynomial.toCanonical(polynomial.derivative(rest), this.variable)),
      this.variable,
    );
    const [from, to] = [rational.fromDouble(this.low), rational.fromDouble(this.high)];
    return polynomial.isolatedRoots(rest, from, to).map((box) => {
      const { low, high } = polynomial.narrowed(rest, box);
      return rootPlace(body, slope, low, high);
    });
  }

  /** α x + β with any constants: −β/α. */
  private ofLinear(form: Canonical): ZeroSet | null {
    const terms = form.kind === 'sum' ? form.terms : [form];
    const moving = terms.filter((term) => this.dependsOn(term));
    const x = atom(this.variable);
    const rates = moving.map((term) => product([term, power(x, whole(-1))]));
    if (rates.some((rate) => this.dependsOn(rate))) return null;
    const rate = sum(rates);
    if (Math.abs(constantSign(rate)) !== 1) return null;
    const rest = sum(terms.filter((term) => !moving.includes(term)));
    const root = exactPlace(written(product([whole(-1), rest, power(rate, whole(-1))])));
    if (!root) return null;
    const isInside = root.high >= this.low && root.low <= this.high;
    return { ...nowhere, roots: isInside ? [root] : [] };
  }

  /** c·F(u) + d = 0 through the inverse of F; null where F has none here. */
  private ofInverse(form: Canonical): ZeroSet | null {
    const terms = form.kind === 'sum' ? form.terms : [form];
    const moving = terms.filter((term) => this.dependsOn(term));
    const [only] = moving;
    if (!only || moving.length !== 1) return null;
    const { coefficient, rest } = splitCoefficient(only);
    const others = sum(terms.filter((term) => term !== only));
    const level = product([numeric(rational.divide(rational.minusOne, coefficient)), others]);
    const targets = this.argumentsAt(rest, level);
    if (!targets) return null;
    const zeros = union(
      targets.flatMap(({ argument, values }) =>
        values.map((value) => this.ofForm(sum([argument, product([whole(-1), value])]))),
      ),
    );
    return this.withBreaksOf(form, zeros);
  }

  /** For F(u) = level the values that u takes; null where that is not known. */
  private argumentsAt(
    form: Canonical,
    level: Canonical,
  ): { argument: Canonical; values: Canonical[] }[] | null {
    const at = (argument: Canonical, ...values: Expression[]) => [
      { argument, values: values.map((value) => canonical(value)) },
    ];
    const k = written(level);
    if (form.kind === 'power') {
      if (form.base.key === '#e') {
        const sign = constantSign(level);
        if (Number.isNaN(sign)) return null;
        return sign > 0 ? at(form.exponent, tree.call('ln', k)) : at(form.exponent);
      }
      const { exponent } = form;
      return exponent.kind === 'number' ? this.rootArguments(form.base, exponent.value, level) : null;
    }
    if (form.kind !== 'call') return null;
    const [argument] = form.operands as [Canonical];
    if (form.name === 'ln') return at(argument, tree.power(tree.constant('e'), k));
    if (form.name === 'sin' || form.name === 'cos') return this.waveArguments(form.name, argument, k);
    return null;
  }

  /** For u^(1/n) or u^n = level the values that u takes. */
  private rootArguments(
    argument: Canonical,
    exponent: rational.Rational,
    level: Canonical,
  ): { argument: Canonical; values: Canonical[] }[] | null {
    const sign = constantSign(level);
    const isRoot = exponent.numerator === 1n;
    if (!(isRoot || (rational.isInteger(exponent) && exponent.numerator > 0n)) || Number.isNaN(sign))
      return null;
    const isEven = (isRoot ? exponent.denominator : exponent.numerator) % 2n === 0n;
    if (isEven && sign < 0) return [];
    const size = power(
      sign < 0 ? product([whole(-1), level]) : level,
      numeric(rational.divide(rational.one, exponent)),
    );
    const opposite = product([whole(-1), size]);
    if (isEven && !isRoot) return [{ argument, values: [size, opposite] }];
    return [{ argument, values: [sign < 0 ? opposite : size] }];
  }

  private waveArguments(
    name: 'sin' | 'cos',
    argument: Canonical,
    level: Expression,
  ): { argument: Canonical; values: Canonical[] }[] | null {
    const height = numberOf(level);
    if (height === null) return null;
    if (Math.abs(height) > 1)
      return constantSign(canonical(tree.subtract(tree.power(level, tree.number(2)), tree.number(1)))) > 0
        ? []
        : null;
    const range = this.rangeOf(written(argument));
    if (!range) return null;
    const angle = principalAngle(name, level);
    const pi = tree.constant('pi');
    const others = name === 'sin' ? [angle, tree.subtract(pi, angle)] : [angle, tree.negate(angle)];
    const first = Math.floor(range.low / (2 * Math.PI)) - 1;
    const last = Math.ceil(range.high / (2 * Math.PI)) + 1;
    if (last - first > mostLevels) return null;
    const turns = Array.from({ length: last - first + 1 }, (_, i) => 2 * (first + i));
    const values = turns.flatMap((n) =>
      others.map((start) => canonical(tree.add(start, tree.multiply(literal(rational.rational(n)), pi)))),
    );
    const distinct = [...new Map(values.map((value) => [value.key, value])).values()];
    return [{ argument, values: distinct }];
  }

  /** Bounds of an expression over the whole interval; null where it has none. */
  rangeOf(body: Expression): Box | null {
    const program = programOf(body, this.variable);
    let range: Box | null = null;
    for (let i = 0; i < rangeParts; i++) {
      const at = (k: number): number => this.low + ((this.high - this.low) * k) / rangeParts;
      const { low, high, sure } = enclose(program, at(i), at(i + 1));
      this.evaluations++;
      if (Number.isNaN(low)) continue;
      if (!sure && !Number.isFinite(low - high)) return null;
      range = range ? { low: Math.min(range.low, low), high: Math.max(range.high, high) } : { low, high };
    }
    return range && Number.isFinite(range.high - range.low) ? range : { low: 0, high: 0 };
  }

  private ofFunction(form: Canonical): ZeroSet {
    if (form.kind === 'atom') return this.ofPolynomial([rational.zero, rational.one]);
    const inverse = form.kind === 'call' ? this.ofInverse(form) : null;
    if (inverse) return inverse;
    const risesThrough = form.kind === 'call' ? rootOfArgument[form.name] : undefined;
    if (form.kind === 'call' && risesThrough !== undefined) {
      const [argument] = form.operands as [Canonical];
      return this.withBreaksOf(form, this.ofForm(sum([argument, whole(-risesThrough)])));
    }
    return this.searched(form);
  }

  /** By interval arithmetic, stretch by stretch between the breaks. */
  private searched(form: Canonical): ZeroSet {
    const breaks = this.breaksOf(form);
    const body = written(form);
    // An integral over a pole is long to look at, and nothing could be proved of it.
    const isOpen = breaks.undecided.some(({ low, high }) => low <= this.low && high >= this.high);
    if (isOpen && holdsIntegral(body)) return { ...nowhere, undecided: breaks.undecided };
    const ends: (Place | null)[] = [null, ...breaks.roots, null];
    const roots: Place[] = [];
    const undecided: Box[] = [...breaks.undecided];
    ends.slice(1).forEach((toPlace, i) => {
      const fromPlace = ends[i] ?? null;
      const whole = {
        from: fromPlace?.low ?? this.low,
        to: toPlace?.high ?? this.high,
        fromPlace,
        toPlace,
      };
      if (!(whole.from < whole.to)) return;
      const stretch = this.weighed(form, whole);
      if (!(stretch.from < stretch.to)) return;
      if (this.evaluations > stepsAllowed(mostEvaluations)) {
        endedEarly();
        undecided.push({ low: stretch.from, high: stretch.to });
        return;
      }
      const found = isolate(body, this.variable, stretch);
      this.evaluations += found.evaluations;
      roots.push(...found.roots);
      undecided.push(...found.undecided);
    });
    return { roots: sortedPlaces(roots), breaks: breaks.roots, undecided, isZero: false };
  }

  /** A stretch without what one term outweighs. What is asked on the way asks the same no deeper than a few times. */
  private weighed(form: Canonical, stretch: Stretch): Stretch {
    if (this.weighings >= mostWeighings) return stretch;
    this.weighings++;
    const left = withoutOutweighed(form, this.variable, stretch, (part) => this.ofForm(part));
    this.weighings--;
    return left;
  }

  /** The places where a form may fail to be analytic, as the roots of a set. */
  breaksOf(form: Canonical): ZeroSet {
    const found = this.knownBreaks.get(form.key) ?? this.breaksOfBody(written(form));
    this.knownBreaks.set(form.key, found);
    return found;
  }

  /**
   * The places where a formula may fail to be analytic or defined, as the roots of a set. The formula is taken as
   * it stands: x/x has a break at 0.
   */
  breaksOfBody(body: Expression): ZeroSet {
    return this.breaks.of(body);
  }
}

const atom = (variable: string): Canonical => ({
  kind: 'atom',
  node: { kind: 'name', name: variable },
  key: variable,
});

/** Rising functions that are 0 at one argument only. */
const rootOfArgument = ownNames<number>({
  arctan: 0,
  arcsin: 0,
  sinh: 0,
  tanh: 0,
  arsinh: 0,
  artanh: 0,
  arcosh: 1,
  arccos: 1,
});

function quadraticRoots([c, b, a]: Polynomial): Place[] {
  const [A, B, C] = [a, b, c] as [rational.Rational, rational.Rational, rational.Rational];
  const discriminant = rational.subtract(
    rational.multiply(B, B),
    rational.multiply(rational.rational(4), rational.multiply(A, C)),
  );
  if (rational.isNegative(discriminant)) return [];
  const root = tree.call('sqrt', literal(discriminant));
  const below = literal(rational.multiply(rational.rational(2), A));
  return ([tree.subtract, tree.add] as const).map(
    (join) => exactPlace(tree.divide(join(literal(rational.negate(B)), root), below)) as Place,
  );
}
