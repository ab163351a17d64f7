import { derivativeOf } from '../algebra/differentiate.ts';
import { isExactlyZero } from '../limit/constantSign.ts';
import type { Certificate, Claim, Shown } from '../checker/claims.ts';
import { enclosedJet } from '../evaluate/enclosedJets.ts';
import * as intervals from '../numbers/interval.ts';
import * as jets from '../numbers/intervalJet.ts';
import type { Program } from '../evaluate/program.ts';
import { Arcs, type Arc } from './arcs.ts';
import { programOf } from './programs.ts';
import { differenceOf } from './holds.ts';
import type { Place } from './place.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

/** How often a part is halved before its claim is left to the checker as it is. */
const deepest = 40;
/** Parts of one order on one arc. */
const mostParts = 2000;
/** Parts between two zeros beyond which they are left to the checker as one. */
const manyParts = 300;
/** How often the part around a zero is narrowed. */
const mostNarrowings = 30;

/**
 * What there is to show for a list of key points: the interval in parts, and how many zeros the function and its
 * derivatives have in each. The parts are chosen by interval arithmetic in doubles; whether the claims hold is for the
 * checker to say.
 * @param depth up to which derivative
 */
export function certificateOf(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  order = 0,
  depth: 0 | 1 | 2 = 2,
): Certificate {
  const arcs = new Arcs(body, variable, interval, depth, order);
  const orders = Array.from({ length: depth + 1 }, (_, k) => order + k);
  const claims = arcs.arcs.flatMap((arc) =>
    orders.flatMap((k) => new ArcClaims(arcs, arc, variable, k, k - order).all()),
  );
  const joints = arcs.joints.map(({ low, high, exact }) => ({ low, high, ...(exact ? { at: exact } : {}) }));
  return { body, variable, from: arcs.from.value, to: arcs.to.value, orders, joints, claims };
}

/**
 * What there is to show for a list of solutions, of f⁽ᵏ⁾ = g: the zeros of the difference of both sides. That of a number
 * c from f⁽ᵏ⁾ is the k-th derivative of f − c xᵏ/k!; null for a derivative that is compared with a function.
 */
export function certificateOfSolutions(
  body: Expression,
  equals: Expression,
  variable: string,
  interval: readonly [number, number],
  order = 0,
): Certificate | null {
  if (order > 0 && tree.dependsOn(equals, variable)) return null;
  const power = tree.power(tree.name(variable), tree.number(order));
  const other =
    order === 0 ? equals : tree.divide(tree.multiply(equals, power), tree.number(factorial(order)));
  return certificateOf(differenceOf(body, other), variable, interval, order, 0);
}

const factorial = (n: number): number => (n < 2 ? 1 : n * factorial(n - 1));

const highestMultiplicity = 6;
/** Where doubles end, the checker's numbers go on. */
const beyondDoubles = 1e-290;

/** One part of a certificate that was checked. */
interface CheckedPart {
  /** 0 for the function that was asked about, 1 for its slope, 2 for its bend. */
  readonly above: number;
  readonly from: number;
  readonly to: number;
  readonly zeros: Claim['zeros'];
  /** Of a part without a zero; 0 where it is not known. */
  readonly sign: -1 | 0 | 1;
  /** Whether a pole, a jump or a corner stands where it begins. */
  readonly isAfterJoint: boolean;
  readonly shown: Shown | null;
}

/** A certificate as plain data, with what the checker says of it. */
export interface ToldCertificate {
  readonly isAccepted: boolean;
  readonly parts: readonly CheckedPart[];
}

type Jets = (from: number, to: number, length: number) => jets.IntervalJet;

/**
 * The Taylor coefficients of a quotient over parts that begin or end at a place at which dividend and divisor are 0: both
 * without that zero, as for the checker. Null where they are not.
 */
function withoutCommonZero(body: Expression, variable: string, place: Place): Jets | null {
  const at = place.exact;
  if (body.kind !== 'divide' || !at) return null;
  const orders = [body.left, body.right].map((one) => orderOfZero(one, variable, at));
  const order = Math.min(...orders);
  if (order === 0) return null;
  const [above, below] = [programOf(body.left, variable), programOf(body.right, variable)];
  return (from, to, length) => {
    const part = intervals.interval(Math.min(from, place.low), Math.max(to, place.high));
    const lowered = (program: Program): jets.IntervalJet =>
      jets.withoutFirst(enclosedJet(program, jets.variable(part, length + order)), order);
    return jets.divide(lowered(above), lowered(below));
  };
}

/** How many derivatives of a formula, itself the first, are 0 at a number. */
function orderOfZero(formula: Expression, variable: string, at: Expression): number {
  let slope = formula;
  for (let order = 0; order < highestMultiplicity; order++) {
    if (!isExactlyZero(tree.substitute(slope, variable, at))) return order;
    slope = derivativeOf(slope, variable);
  }
  return 0;
}

/** The claims of one order on one arc. */
class ArcClaims {
  private readonly claims: Claim[] = [];
  private readonly program: Program | null;
  /** At both ends, how the function is beside them where dividend and divisor are 0 there. */
  private readonly removable: readonly (Jets | null)[];

  constructor(
    private readonly arcs: Arcs,
    private readonly arc: Arc,
    variable: string,
    private readonly order: number,
    private readonly relative: number,
  ) {
    const body = arcs.bodyOf(arc, 0);
    this.program = body && programOf(body, variable);
    this.removable = [arc.from, arc.to].map((place) => body && withoutCommonZero(body, variable, place));
  }

  all(): readonly Claim[] {
    const [from, to] = [this.arc.from.high, this.arc.to.low];
    if (!(from < to)) return [];
    if (!this.program) return [this.claim(from, to, 'nowhere')];
    const body = this.arcs.bodyOf(this.arc, this.relative) as Expression;
    if (this.arcs.zeros.of(body).isZero) return [this.claim(from, to, 'all')];
    let reached = from;
    const zeros = this.arcs.zerosOn(this.arc, this.relative);
    zeros.forEach((zero, i) => {
      const [before, behind] = [zeros[i - 1]?.high ?? from, zeros[i + 1]?.low ?? to];
      const around = this.around(zero, before, behind);
      this.empty(reached, around.from);
      this.claims.push(this.claim(around.from, around.to, 1, zero));
      reached = around.to;
    });
    this.empty(reached, to);
    return this.claims;
  }

  private claim(from: number, to: number, zeros: Claim['zeros'], place?: Place | null): Claim {
    const at = place?.exact;
    return { order: this.order, from, to, zeros, ...(at ? { at } : {}) };
  }

  /** The joint at which a part ends, if it ends at one; of two the one at which it may come to 0. */
  private jointOf(from: number, to: number): Place | null {
    const first = from === this.arc.from.high ? this.arc.from : null;
    const last = to === this.arc.to.low ? this.arc.to : null;
    return first && last && this.keepsSign(from, from, 0) ? last : (first ?? last);
  }

  /** A part around a zero on which the next derivative keeps its sign, as far as doubles tell. */
  private around(zero: Place, before: number, behind: number): { from: number; to: number } {
    let [left, right] = [(zero.value - before) / 2, (behind - zero.value) / 2];
    const least = Math.max(Math.abs(zero.value) * 2 ** -50, zero.high - zero.low, 1e-290);
    const multiplicity = this.multiplicityOf(zero);
    for (let i = 0; i < mostNarrowings; i++) {
      const part = { from: zero.value - left, to: zero.value + right };
      if (this.keepsSign(part.from, part.to, multiplicity)) return part;
      [left, right] = [left / 3, right / 3];
      if (Math.min(left, right) < 4 * least) break;
    }
    // A zero of a higher order: the part is for algebra.
    return { from: zero.value - (zero.value - before) / 8, to: zero.value + (behind - zero.value) / 8 };
  }

  /** How many derivatives are 0 at a zero, as far as doubles tell. */
  private multiplicityOf({ low, high }: Place): number {
    let m = 1;
    while (m < highestMultiplicity && !this.keepsSign(low, high, m)) m++;
    return m;
  }

  /** Claims that there is no zero between two numbers, in parts that bounds show or that are very small. */
  private empty(from: number, to: number): void {
    const before = this.claims.length;
    const open = [{ from, to, depth: 0 }];
    for (let part = open.pop(); part; part = open.pop()) {
      if (!(part.from < part.to)) continue;
      const middle = part.from + (part.to - part.from) / 2;
      const isShown =
        this.keepsSign(part.from, part.to, 0) ||
        this.keepsSign(part.from, part.to, 1) ||
        this.isBeyondDoubles(part.from, part.to);
      const isLast = part.depth >= deepest || middle <= part.from || middle >= part.to;
      if (isShown || isLast || this.claims.length + open.length > mostParts) {
        this.claims.push(this.claim(part.from, part.to, 0, this.jointOf(part.from, part.to)));
        continue;
      }
      open.push(
        { from: middle, to: part.to, depth: part.depth + 1 },
        { from: part.from, to: middle, depth: part.depth + 1 },
      );
    }
    // Beside e^(1/x) at 0 bounds keep no sign in any number of parts; its factors do so in one.
    if (this.claims.length - before > manyParts)
      this.claims.splice(before, Infinity, ...this.asOne(from, to));
  }

  /** One part, or two: between two joints there are two numbers at which it may come to 0. */
  private asOne(from: number, to: number): Claim[] {
    const isBetweenJoints = from === this.arc.from.high && to === this.arc.to.low;
    const ends = isBetweenJoints ? [from, from + (to - from) / 2, to] : [from, to];
    return ends.slice(1).map((end, i) => {
      const start = ends[i] as number;
      return this.claim(start, end, 0, this.jointOf(start, end));
    });
  }

  /** Whether the enclosure of the derivative so many orders above leaves out 0. */
  private keepsSign(from: number, to: number, above: number): boolean {
    const { low, high } = this.coefficient(from, to, this.relative + above);
    return low > 0 || high < 0;
  }

  private isBeyondDoubles(from: number, to: number): boolean {
    const { low, high } = this.coefficient(from, to, this.relative);
    return Math.max(Math.abs(low), Math.abs(high)) < beyondDoubles;
  }

  private coefficient(from: number, to: number, k: number): intervals.Interval {
    const removable =
      from <= this.arc.from.high ? this.removable[0] : to >= this.arc.to.low ? this.removable[1] : null;
    if (removable) return jets.coefficient(removable(from, to, k + 1), k);
    const x = jets.variable(intervals.interval(from, to), k + 1);
    return jets.coefficient(enclosedJet(this.program as Program, x), k);
  }
}
