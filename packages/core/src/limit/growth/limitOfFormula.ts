import {
  canonical,
  difference,
  numeric,
  power,
  product,
  quotient,
  sum,
  whole,
  type Canonical,
} from '../../algebra/canonical.ts';
import { expanded } from '../../algebra/expand.ts';
import { TooLarge } from '../../budget/tooLarge.ts';
import { dependsOn } from '../../algebra/parts.ts';
import * as rational from '../../numbers/rational.ts';
import { shortest } from '../../algebra/shortest.ts';
import { written } from '../../algebra/written.ts';
import { ifWithin } from '../../budget/effort.ts';
import * as tree from '../../language/tree.ts';
import type { Expression } from '../../language/tree.ts';
import type { Ball } from '../../numbers/ball.ts';
import * as big from '../../numbers/bigFloat.ts';
import { ballOfConstant, signOfConstant, type Known } from '../constantSign.ts';
import { farAway, Growth, NotDefined, type Tendency } from './growth.ts';
import { holdsSwing, NoSeries, Preparation, type Swing } from './prepared.ts';
import { Undecided, type Constants } from './series.ts';

/** Where a variable tends to. */
export interface Goal {
  readonly variable: string;
  /** 1 or −1 for ±∞, or a place. */
  readonly target: 1 | -1 | Spot;
  /** The side from which it comes to a place: 1 from the right. */
  readonly side: 1 | -1;
}

/** A place: a number known by a formula, or between bounds that can be made as narrow as is wanted. */
export type Spot =
  | { readonly exact: Expression }
  | {
      readonly ball: (bits: number) => Ball;
      /** Whether a formula in the variable is known to be 0 there. */
      readonly isZero: (formula: Expression) => boolean;
    };

/** A limit that is proved, in full. */
export type ProvedLimit =
  /** With the number itself, in terms of `nameOfSpot` where that is no formula. */
  | { readonly kind: 'finite'; readonly exact: Expression; readonly value: number }
  | { readonly kind: 'infinite'; readonly sign: 1 | -1 }
  /** The function is not defined beside the place. */
  | { readonly kind: 'undefined' }
  /** It tends to different values along different ways to the place. */
  | { readonly kind: 'none' };

/** The name that stands for a place without a formula. */
export const nameOfSpot = '#spot';

/** Operations that a limit may take. */
const mostOperations = 30_000_000;

/**
 * The limit of a formula from one side, by series; 'undecided' where nothing shows it, null where the formula holds what
 * has no series (integrals, sums, factorials).
 * @param formula in the variable alone
 */
export function limitOfFormula(formula: Expression, goal: Goal): ProvedLimit | 'undecided' | null {
  const answer = ifWithin(mostOperations, () => new Approach(formula, goal).limit());
  return answer === null ? 'undecided' : answer === 'no series' ? null : answer;
}

class Approach {
  private readonly known: Known;
  private readonly constants: Constants;
  private readonly x: Canonical;
  private readonly signs = new Map<string, number>();

  constructor(
    private readonly formula: Expression,
    private readonly goal: Goal,
  ) {
    const { target, side } = goal;
    this.known = knownAt(goal);
    this.constants = { signOf: (constant) => this.signOf(constant) };
    const step = product([whole(side), power(farAway, whole(-1))]);
    if (typeof target === 'number') this.x = product([whole(target), farAway]);
    else this.x = sum([canonical('exact' in target ? target.exact : tree.name(nameOfSpot)), step]);
  }

  private signOf(constant: Canonical): number {
    if (constant.kind === 'number') return rational.compare(constant.value, rational.zero);
    const known = this.signs.get(constant.key);
    const sign = known ?? signOfConstant(written(constant), this.known);
    this.signs.set(constant.key, sign);
    if (Number.isNaN(sign)) throw new Undecided('the sign of a constant');
    return sign;
  }

  limit(): ProvedLimit | 'undecided' | 'no series' {
    const growth = new Growth(this.constants);
    const preparation = new Preparation(growth, this.goal.variable, this.x);
    const found = told(() => {
      const tendency = growth.limit(preparation.of(this.formula));
      const isSwinging = tendency.kind === 'finite' && holdsSwing(tendency.form, preparation.swings);
      return isSwinging ? 'undecided' : this.proved(tendency);
    });
    const { swings } = preparation;
    return found === 'undecided' && swings.length > 0 ? this.alongSequences(swings) : found;
  }

  private proved(tendency: Tendency): ProvedLimit | 'undecided' {
    if (tendency.kind === 'infinite') return tendency;
    const exact = shortest(tendency.form, 'fraction');
    const ball = ballOfConstant(exact, valueBits, this.known);
    if (ball === null || ball === 'unsure') return 'undecided';
    const value = big.toDouble(ball.middle);
    return Number.isFinite(value) ? { kind: 'finite', exact, value } : 'undecided';
  }

  /** Sequences on which all swings keep one value: if they lead to different limits, there is none. */
  private alongSequences(swings: readonly Swing[]): ProvedLimit | 'undecided' {
    let first: Tendency | null = null;
    for (const at of positions) {
      const other = this.alongOne(swings, at);
      if (!other) continue;
      if (first && this.differ(first, other)) return { kind: 'none' };
      first ??= other;
    }
    return 'undecided';
  }

  private alongOne(swings: readonly Swing[], at: Canonical): Tendency | null {
    let tendency: Tendency | null = null;
    told(() => {
      const values = new Map(swings.map((swing) => [swing.name, this.valueAt(swing, swings, at)]));
      const growth = new Growth(this.constants);
      const fixed = new Preparation(growth, this.goal.variable, this.x, ({ name }) => {
        const value = values.get(name);
        if (!value) throw new Undecided('a swing of its own');
        return value;
      });
      tendency = growth.limit(fixed.of(this.formula));
      return 'undecided';
    });
    return tendency;
  }

  /**
   * What a swing is where the first argument of all is at·n + 2πk·n (at + k, for whole parts), n the common denominator
   * of the ratios to it and k any whole number. @throws Undecided where arguments have no such ratio
   */
  private valueAt(swing: Swing, swings: readonly Swing[], at: Canonical): Canonical {
    const [base] = swings as [Swing, ...Swing[]];
    const isWave = swing.kind !== 'floor';
    if ((base.kind !== 'floor') !== isWave) throw new Undecided('swings of different kinds');
    const shares = swings.map(({ of }) => this.shareOf(of, base.of));
    const common = shares.reduce((n, { ratio }) => lcm(n, ratio.denominator), 1n);
    const { ratio, rest } = shares[swings.indexOf(swing)] as Share;
    const times = rational.multiply(ratio, rational.rational(common));
    const unit = isWave
      ? at
      : product([at, power(canonical(tree.constant('pi')), whole(-1)), numeric(rational.rational(1, 2))]);
    const argument = written(sum([product([numeric(times), unit]), rest]));
    if (isWave) return canonical(tree.call(swing.kind, argument));
    return canonical(tree.subtract(argument, tree.call('floor', argument)));
  }

  private shareOf(of: Canonical, base: Canonical): Share {
    const growth = new Growth(this.constants);
    const ratio = growth.limit(quotient(of, base));
    if (ratio.kind === 'infinite' || ratio.form.kind !== 'number') throw new Undecided('no common measure');
    const rest = expanded(difference(of, product([ratio.form, base])));
    if (isMoving(rest)) throw new Undecided('no common measure');
    return { ratio: ratio.form.value, rest };
  }

  private differ(a: Tendency, b: Tendency): boolean {
    if (a.kind === 'infinite' || b.kind === 'infinite') {
      return a.kind !== b.kind || (a.kind === 'infinite' && b.kind === 'infinite' && a.sign !== b.sign);
    }
    const sign = signOfConstant(written(difference(a.form, b.form)), this.known);
    return sign === 1 || sign === -1;
  }
}

const isMoving = (form: Canonical): boolean => dependsOn(form, farAway.key);

interface Share {
  readonly ratio: rational.Rational;
  readonly rest: Canonical;
}

/** Binary digits to which a limit is worked out for its double. */
const valueBits = 160;

/** Multiples of π at which swings are looked at, and one that is none. */
const positions: readonly Canonical[] = [
  ...[0, 1 / 2, 1, 3 / 2, 2 / 3].map((turns) =>
    product([numeric(rational.fromDouble(turns)), canonical(tree.constant('pi'))]),
  ),
  whole(1),
];

const gcd = (a: bigint, b: bigint): bigint => (b === 0n ? a : gcd(b, a % b));
const lcm = (a: bigint, b: bigint): bigint => (a / gcd(a, b)) * b;

/** What is known of swings, and of a place without a formula. */
function knownAt({ variable, target }: Goal): Known {
  const spot = typeof target === 'number' || 'exact' in target ? null : target;
  return {
    ballOf: (name, bits) => (name === nameOfSpot ? (spot?.ball(bits) ?? null) : anySwing(name)),
    isZero: (formula) =>
      spot !== null && spot.isZero(tree.substitute(formula, nameOfSpot, tree.name(variable))),
  };
}

/** Between −1 and 1, which holds the parts from 0 to 1, too. */
const anySwing = (name: string): Ball | null =>
  name.startsWith('#swing') ? { middle: big.zero, radius: big.one } : null;

/** What comes of some work on growth. */
function told(work: () => ProvedLimit | 'undecided'): ProvedLimit | 'undecided' | 'no series' {
  try {
    return work();
  } catch (error) {
    if (error instanceof NotDefined) return { kind: 'undefined' };
    if (error instanceof NoSeries) return 'no series';
    const isBeyond =
      error instanceof Undecided || error instanceof TooLarge || error instanceof big.OutOfRange;
    if (isBeyond) return 'undecided';
    throw error;
  }
}
