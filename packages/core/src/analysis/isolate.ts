import { derivativeOf } from '../algebra/differentiate.ts';
import { TooLarge } from '../budget/tooLarge.ts';
import { literal } from '../algebra/literal.ts';
import * as rational from '../numbers/rational.ts';
import { enclose, run } from '../evaluate/enclosures.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval } from '../numbers/interval.ts';
import { compileTogether, type Bundle } from '../evaluate/program.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { exactly, isBall } from '../numbers/ball.ts';
import * as big from '../numbers/bigFloat.ts';
import { enclosedOrUnsure } from '../limit/enclosed.ts';
import { exactPlace, pointPlace, rootPlace, type Place } from './place.ts';
import { isExactlyZero, signOfConstant } from '../limit/constantSign.ts';
import { limitOfFormula, nameOfSpot } from '../limit/growth/limitOfFormula.ts';
import { candidates } from './recognise.ts';
import { preciseSign, programOf } from './programs.ts';
import { endedEarly, stepsAllowed } from '../budget/thoroughness.ts';

/** A part of the axis, and whether the function has a singular place at its ends. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly fromPlace: Place | null;
  readonly toPlace: Place | null;
}

export interface Isolated {
  readonly roots: Place[];
  /** Parts in which roots could be neither found nor excluded. */
  readonly undecided: Box[];
  /** How many times the function was evaluated. */
  readonly evaluations: number;
}

export interface Box {
  readonly low: number;
  readonly high: number;
}

/** Evaluations that one search may take. */
const mostEvaluations = 3000;
/** Parts narrower than this share of the whole are left undecided. */
const narrowest = 1e-11;
/** Cutting beside the middle keeps roots at round numbers off the cuts. */
const cut = 0.4871;
/** Parts narrower than this share are tried for a root of higher multiplicity. */
const smallShare = 0.1;
/** Highest multiplicity that is looked for at an undecided place. */
const highestMultiplicity = 8;
/** Nodes beyond which a derivative is not differentiated once more to find a multiplicity. */
const longestSlope = 400;

/**
 * All roots of an analytic function on a stretch without singular places inside, proved by interval
 * arithmetic: where its enclosure excludes 0 there is none; where the slope's does, at most one.
 * Method: Neumaier, Interval Methods for Systems of Equations (1990), chapter 5; a touching root is proved at
 * a recognised number at which algebra shows value and slope to be 0.
 */
export function isolate(body: Expression, variable: string, stretch: Stretch): Isolated {
  return new Isolation(body, variable, stretch).result();
}

class Isolation {
  private readonly roots: Place[] = [];
  private readonly open: Box[] = [];
  private undecided: Box[] = [];
  private evaluations = 0;
  private unrecognised = 0;
  private areSlopesLong = false;
  private readonly bundle: Bundle;
  private readonly slopes: Expression[];
  private readonly signs: ReadonlyMap<number, number>;
  private readonly width: number;
  private readonly hasIntegral: boolean;

  constructor(
    private readonly body: Expression,
    private readonly variable: string,
    private readonly stretch: Stretch,
  ) {
    this.slopes = derivatives(body, variable);
    this.bundle = compileTogether([body, ...this.slopes], variable);
    this.width = stretch.to - stretch.from;
    this.hasIntegral = this.bundle.steps.some(({ op }) => op === 'integral');
    this.signs = this.divisorSigns();
  }

  result(): Isolated {
    const { from, to } = this.stretch;
    if (this.slopes.length === 2) this.open.push({ low: from, high: to });
    else this.undecided.push({ low: from, high: to });
    const most = stepsAllowed(mostEvaluations);
    // Wide parts first: what is left when the evaluations run out is as small as can be.
    for (let next = 0; next < this.open.length; next++) {
      const box = this.open[next] as Box;
      if (this.evaluations < most) this.look(box);
      else this.undecided.push(box);
    }
    if (this.evaluations >= most) endedEarly();
    this.joinClusters();
    return { roots: this.roots, undecided: this.undecided, evaluations: this.evaluations };
  }

  /** Divisors do not change their sign on the stretch: it is seen at one place inside. */
  private divisorSigns(): ReadonlyMap<number, number> {
    const middle = this.stretch.from + this.width * cut;
    const values = run(this.bundle, { low: middle, high: middle, sure: true }, []);
    const signs = new Map<number, number>();
    for (const step of this.bundle.steps) {
      const divisor = step.op === 'divide' ? step.b : step.op === 'integerPower' && step.n < 0 ? step.a : -1;
      const value = values[divisor];
      if (!value || intervals.isNothing(value)) continue;
      if (value.low > 0) signs.set(divisor, 1);
      else if (value.high < 0) signs.set(divisor, -1);
    }
    return signs;
  }

  /** Enclosures of the function, its slope and its second derivative over a box. */
  private enclose({ low, high }: Box): [Interval, Interval, Interval] {
    this.evaluations++;
    const values = run(this.bundle, { low, high, sure: true }, [], (value, index) => {
      const sign = this.signs.get(index);
      if (sign === undefined || intervals.isNothing(value)) return value;
      return sign > 0
        ? { ...value, low: Math.max(0, value.low) }
        : { ...value, high: Math.min(0, value.high) };
    });
    return this.bundle.outputs.map((index) => values[index] as Interval) as [Interval, Interval, Interval];
  }

  private look(box: Box): void {
    const [value, slope, bend] = this.enclose(box);
    if (excludesZero(value)) return;
    if (excludesZero(slope)) return this.monotone(box, slope.low > 0 ? 1 : -1);
    const centred = this.centred(box, slope, bend);
    if (excludesZero(centred.slope)) return this.monotone(box, centred.slope.low > 0 ? 1 : -1);
    if (excludesZero(centred.value)) return;
    const isBent = excludesZero(bend) && this.bent(box, bend.low > 0 ? 1 : -1);
    if (isBent || this.isMultiple(box)) return;
    const middle = box.low + (box.high - box.low) * cut;
    const isNarrow = box.high - box.low < this.width * narrowest || !(middle > box.low && middle < box.high);
    if (isNarrow) this.undecided.push(box);
    else this.open.push({ low: box.low, high: middle }, { low: middle, high: box.high });
  }

  /**
   * Slope and value by the mean-value form, f(m) + f′(X)(X − m), narrower than plain enclosures on a small box;
   * unbounded where the next derivative is.
   */
  private centred({ low, high }: Box, slope: Interval, bend: Interval): { value: Interval; slope: Interval } {
    if (!isBounded(slope)) return { value: intervals.everything, slope: intervals.everything };
    const middle = low + (high - low) * cut;
    const [rough, slopeAt] = this.enclose({ low: middle, high: middle });
    const valueAt = this.hasIntegral ? (this.sharpValue(middle) ?? rough) : rough;
    const offset = intervals.subtract({ low, high, sure: true }, intervals.exactly(middle));
    const form = (at: Interval, rate: Interval): Interval =>
      intervals.add(at, intervals.multiply(rate, offset));
    const tighter = isBounded(bend) ? meet(slope, form(slopeAt, bend)) : slope;
    return { value: form(valueAt, tighter), slope: tighter };
  }

  /** Bounds of the value at a number by what encloses integrals; null where it has none. */
  private sharpValue(x: number): Interval | null {
    const ball = enclosedOrUnsure(this.program, exactly(big.fromDouble(x)), [], preciseBits[0] as number);
    if (!isBall(ball)) return null;
    const [value, reach] = [big.toDouble(ball.middle), big.toDouble(ball.radius)];
    const beside = reach * (1 + 2 * Number.EPSILON) + Math.abs(value) * Number.EPSILON;
    return intervals.outward(value - beside, value + beside);
  }

  /** Whether a box whose end is singular takes in that end. */
  private isSingular(x: number): boolean {
    return (
      (x === this.stretch.from && this.stretch.fromPlace !== null) ||
      (x === this.stretch.to && this.stretch.toPlace !== null)
    );
  }

  /** The sign at an end of a box; beside the end where the function is singular there. */
  private signAt(x: number, direction: 1 | -1): number {
    if (this.isSingular(x)) return this.signBeside(x, direction);
    const [value] = this.enclose({ low: x, high: x });
    if (value.low > 0) return 1;
    if (value.high < 0) return -1;
    for (const bits of preciseBits) {
      this.evaluations++;
      const sign = preciseSign(this.program, big.fromDouble(x), bits);
      if (sign !== undefined) return sign;
    }
    const there = tree.substitute(this.body, this.variable, literal(rational.fromDouble(x)));
    return isExactlyZero(there) ? 0 : NaN;
  }

  /** The sign beside a singular end of a function that only rises (1) or only falls: that of its limit there. */
  private signBeside(x: number, direction: 1 | -1): number {
    const side = x === this.stretch.from && this.stretch.fromPlace !== null ? 1 : -1;
    const place = (side > 0 ? this.stretch.fromPlace : this.stretch.toPlace) as Place;
    const target = place.exact ? { exact: place.exact } : { ball: place.ball, isZero: () => false };
    const limit = limitOfFormula(this.body, { variable: this.variable, target, side });
    if (limit === null || limit === 'undecided') return NaN;
    if (limit.kind === 'infinite') return limit.sign;
    if (limit.kind !== 'finite' || tree.dependsOn(limit.exact, nameOfSpot)) return NaN;
    const sign = signOfConstant(limit.exact);
    return sign === 0 ? side * direction : sign;
  }

  private get program() {
    return programOf(this.body, this.variable);
  }

  /** At most one root on a box where the function only rises or only falls. */
  private monotone(box: Box, direction: 1 | -1): void {
    const [left, right] = [this.signAt(box.low, direction), this.signAt(box.high, direction)];
    if (Number.isNaN(left) || Number.isNaN(right)) this.undecided.push(box);
    else if (left === 0) this.addRoot({ low: box.low, high: box.low });
    else if (right === 0) this.addRoot({ low: box.high, high: box.high });
    else if (left !== right && left === -direction) this.addRoot(this.narrowed(box, direction));
  }

  /** The box of a simple root made as small as doubles allow, its signs proved at both ends. */
  private narrowed(box: Box, direction: 1 | -1): Box {
    const program = programOf(this.body, this.variable);
    let { low, high } = box;
    for (let i = 0; i < 80 && high - low > Math.abs(low) * 1e-15; i++) {
      const middle = low + (high - low) / 2;
      if (middle <= low || middle >= high) break;
      const value = evaluateAt(program, middle);
      if (Math.sign(value) === direction) high = middle;
      else low = middle;
    }
    const margin = Math.max(Math.abs(high) * 1e-15, this.width * 1e-17, 1e-300);
    for (let reach = margin; reach < this.width; reach *= 8) {
      const tight = { low: Math.max(box.low, low - reach), high: Math.min(box.high, high + reach) };
      const isProved =
        this.signAt(tight.low, direction) === -direction && this.signAt(tight.high, direction) === direction;
      if (isProved) return tight;
    }
    return box;
  }

  private addRoot(box: Box): void {
    const exact = this.recognised(box, 1);
    if (exact) return void this.roots.push(exact);
    if (box.low === box.high) return void this.roots.push(pointPlace(box.low));
    const slope = programOf(this.slopes[0] as Expression, this.variable);
    this.roots.push(rootPlace(this.program, slope, box.low, box.high));
  }

  /** The recognised number in the box at which the function and its first derivatives are exactly 0. */
  private recognised(box: Box, multiplicity: number): Place | null {
    if (this.unrecognised >= mostUnrecognised) return null;
    const value = (box.low + box.high) / 2;
    const formulas = [this.body, ...this.slopes].slice(0, multiplicity);
    for (const candidate of candidates(value)) {
      const isRoot = formulas.every((formula) =>
        isExactlyZero(tree.substitute(formula, this.variable, candidate)),
      );
      const place = isRoot ? exactPlace(candidate) : null;
      if (place && place.high >= box.low && place.low <= box.high) {
        this.unrecognised = 0;
        return place;
      }
    }
    this.unrecognised++;
    return null;
  }

  /**
   * A box on which the function bends one way: it has one turning place at most, and its height there tells
   * none, two or a touching root. Returns false where that cannot be told.
   */
  private bent(box: Box, direction: 1 | -1): boolean {
    if (this.isSingular(box.low) || this.isSingular(box.high)) return false;
    const turn = this.turningPlace(box, direction);
    if (turn === null) return false;
    const height = this.enclose({ low: turn.low, high: turn.high })[0];
    if (excludesZero(height)) {
      if (height.low > 0 === direction > 0) return true;
      this.monotone({ low: box.low, high: turn.low }, -direction as 1 | -1);
      this.monotone({ low: turn.high, high: box.high }, direction);
      return true;
    }
    const touching = this.recognised(turn, 2);
    if (!touching) return false;
    this.roots.push(touching);
    return true;
  }

  /** A small box around the place where the slope changes its sign; null where it does not or is not proved to. */
  private turningPlace(box: Box, direction: 1 | -1): Box | null {
    const slopeSign = (x: number): number => {
      const [, slope] = this.enclose({ low: x, high: x });
      return slope.low > 0 ? 1 : slope.high < 0 ? -1 : 0;
    };
    if (slopeSign(box.low) !== -direction || slopeSign(box.high) !== direction) return null;
    const slope = programOf(this.slopes[0] as Expression, this.variable);
    let { low, high } = box;
    for (let i = 0; i < 80; i++) {
      const middle = low + (high - low) / 2;
      if (middle <= low || middle >= high) break;
      if (Math.sign(evaluateAt(slope, middle)) === direction) high = middle;
      else low = middle;
    }
    const margin = Math.max(Math.abs(high) * 4e-16, 1e-300);
    for (let reach = margin; reach < box.high - box.low; reach *= 8) {
      const tight = { low: Math.max(box.low, low - reach), high: Math.min(box.high, high + reach) };
      if (slopeSign(tight.low) === -direction && slopeSign(tight.high) === direction) return tight;
    }
    return null;
  }

  /**
   * A small box on which the first derivative without a zero is one of higher order m: the function has at most m
   * zeros there, and exactly one of multiplicity m at a recognised number at which algebra shows the derivatives
   * below m to be 0.
   */
  private isMultiple(box: Box): boolean {
    const isSmall = box.high - box.low < this.width * smallShare;
    if (!isSmall || this.isSingular(box.low) || this.isSingular(box.high)) return false;
    const order = this.firstWithoutZero(box);
    if (order === null) return false;
    const place = this.recognised(this.zeroOf(order - 1, box), order);
    if (!place) return false;
    if (place.low > box.low && place.high < box.high) this.roots.push(place);
    return true;
  }

  /** The lowest order above 2 whose derivative is proved to have no zero on a box. */
  private firstWithoutZero({ low, high }: Box): number | null {
    for (let order = 3; order <= highestMultiplicity; order++) {
      const slope = this.slopes[order - 1] ?? this.nextSlope();
      if (!slope) return null;
      this.evaluations++;
      if (excludesZero(enclose(programOf(slope, this.variable), low, high))) return order;
    }
    return null;
  }

  /** One derivative more, as long as they stay short. */
  private nextSlope(): Expression | null {
    const last = this.slopes.at(-1) as Expression;
    if (this.areSlopesLong || tree.size(last) > longestSlope) return null;
    try {
      const next = derivativeOf(last, this.variable);
      this.slopes.push(next);
      return next;
    } catch (error) {
      if (!(error instanceof TooLarge)) throw error;
      this.areSlopesLong = true;
      return null;
    }
  }

  /** Near where a derivative that only rises or falls changes its sign. */
  private zeroOf(order: number, box: Box): Box {
    const program = programOf(this.slopes[order - 1] as Expression, this.variable);
    let { low, high } = box;
    const sign = Math.sign(evaluateAt(program, low));
    for (let i = 0; i < 60; i++) {
      const middle = low + (high - low) / 2;
      if (middle <= low || middle >= high) break;
      if (Math.sign(evaluateAt(program, middle)) === sign) low = middle;
      else high = middle;
    }
    const margin = this.width * 1e-15;
    return { low: low - margin, high: high + margin };
  }

  /** Undecided neighbours are taken together. */
  private joinClusters(): void {
    const clusters: Box[] = [];
    for (const box of this.undecided.sort((a, b) => a.low - b.low)) {
      const last = clusters.at(-1);
      const isNext = last && box.low <= last.high + this.width * narrowest;
      if (isNext) clusters[clusters.length - 1] = { low: last.low, high: Math.max(last.high, box.high) };
      else clusters.push(box);
    }
    this.undecided = clusters;
  }
}

/** Roots in a row that are no recognised numbers, after which none is expected. */
const mostUnrecognised = 8;
/** Binary digits to which a sign is looked at that doubles do not tell. */
const preciseBits = [200, 1200];

const isBounded = (x: Interval): boolean => x.sure && Number.isFinite(x.low) && Number.isFinite(x.high);

/** What two enclosures of one number have in common. */
const meet = (a: Interval, b: Interval): Interval => ({
  low: Math.max(a.low, b.low),
  high: Math.min(a.high, b.high),
  sure: a.sure,
});

/** No value at all counts: where the function is not defined it has no root. */
const excludesZero = (x: Interval): boolean => intervals.isNothing(x) || x.low > 0 || x.high < 0;

/** First and second derivative; none where they grow too long. */
function derivatives(body: Expression, variable: string): Expression[] {
  try {
    return [derivativeOf(body, variable), derivativeOf(body, variable, 2)];
  } catch (error) {
    if (error instanceof TooLarge) return [];
    throw error;
  }
}
