import { canonical } from '../algebra/canonical.ts';
import { withoutDerivatives } from '../algebra/differentiate.ts';
import { TooLarge } from '../budget/tooLarge.ts';
import { replacedNode } from '../algebra/kinks.ts';
import { literal } from '../algebra/literal.ts';
import { writtenOut } from '../algebra/products.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { polynomialFrom } from '../interpolation/through.ts';
import type { ExactPoint } from '../language/table.ts';
import { enclose } from '../evaluate/enclosures.ts';
import { isRelated } from '../algebra/exact.ts';
import { literalRational } from '../algebra/exponent.ts';
import { evaluateAt } from '../values/values.ts';
import { builtIn } from '../functions/table.ts';
import { printText } from '../language/printText.ts';
import * as tree from '../language/tree.ts';
import * as big from '../numbers/bigFloat.ts';
import type { Condition, Expression, PiecewiseNode } from '../language/tree.ts';
import type { Box } from './isolate.ts';
import { isStrictlyBetween, pointPlace, sortedPlaces, type Place } from './place.ts';
import { formulaOf } from '../algebra/rowFormula.ts';
import type { Zeros } from './zeros.ts';
import { exactly } from '../numbers/ball.ts';
import { isExactlyZero } from '../limit/constantSign.ts';
import { enclosedOrUnsure } from '../limit/enclosed.ts';
import { preciseSign, programOf } from './programs.ts';

/** An open stretch of the axis on which a function is given by one formula without corners. */
export interface Piece {
  readonly from: Place;
  readonly to: Place;
  /** Null where the function is not defined, and where it is not decided which formula holds. */
  readonly body: Expression | null;
  /** Whether that is not decided: nothing may be said of the ends of such a piece. */
  readonly isOpen: boolean;
}

export interface Pieces {
  readonly pieces: readonly Piece[];
  readonly undecided: readonly Box[];
  /** Whether a step function jumps more often than is looked at. */
  readonly hasTooManyJumps: boolean;
}

/** Jumps of one step function that are looked for, and pieces that a function may fall into. */
const mostJumps = 500;
const mostPieces = 1000;
/** Beyond it a factorial is no double. */
const largestFactorial = 170;

/** The tree in the functions by which behaviour is proved: tan as sin over cos, ⌈x⌉ as −⌊−x⌋. */
export function inSimplerTerms(node: Expression): Expression {
  return rewritten(withoutDerivatives(node));
}

function rewritten(node: Expression): Expression {
  const inner = tree.mapChildren(node, rewritten);
  if (inner.kind === 'product') return writtenOut(inner) ?? inner;
  if (inner.kind === 'divide') return withPlainZero(inner);
  if (inner.kind !== 'call') return inner;
  const sized = withSize(inner);
  if (sized) return sized;
  const { inTermsOf } = builtIn(inner.name);
  return inTermsOf === undefined ? inner : rewritten(formulaOf(inTermsOf, inner.arguments));
}

/** u/sin π as u/0: a divisor that is shown to be 0 is one to whatever looks at the quotient. */
const withPlainZero = ({ left, right }: { left: Expression; right: Expression }): Expression =>
  tree.divide(left, tree.isConstant(right) && isExactlyZero(right) ? tree.number(0) : right);

/** √(u²) as |u|, and ln(u²) as 2 ln |u|, with any even power; null for any other call. */
function withSize({ name, arguments: [argument] }: tree.CallNode): Expression | null {
  if (argument?.kind !== 'power' || (name !== 'sqrt' && name !== 'ln')) return null;
  const n = literalRational(argument.exponent);
  const half = n && rational.divide(n, rational.rational(2));
  if (!half || !rational.isInteger(half) || half.numerator <= 0n) return null;
  const size = tree.call('abs', argument.base);
  if (name === 'ln') return tree.multiply(literal(n), tree.call('ln', size));
  return rational.isOne(half) ? size : tree.power(size, literal(half));
}

/**
 * Takes a function apart into pieces without corners: at every place where an absolute value turns, a step
 * function jumps or a condition changes, one piece ends and the next begins.
 */
export function piecesOf(body: Expression, zeros: Zeros, from: Place, to: Place): Pieces {
  return new Splitter(zeros).split(inSimplerTerms(body), from, to);
}

/** A stretch between zeros of a boundary; its sign is NaN where the boundary has no value, or where that is open. */
interface SplitStretch {
  readonly from: Place;
  readonly to: Place;
  readonly sign: number;
  readonly isOpen: boolean;
}

/** Stretches of one gap, with open ones in the places that are left between them. */
function withOpenGaps(stretches: readonly SplitStretch[], start: Place, end: Place): SplitStretch[] {
  const all: SplitStretch[] = [];
  let last = start;
  for (const stretch of stretches) {
    if (stretch.from !== last) all.push({ from: last, to: stretch.from, sign: NaN, isOpen: true });
    all.push(stretch);
    last = stretch.to;
  }
  return last === end ? all : [...all, { from: last, to: end, sign: NaN, isOpen: true }];
}

/** What is left of a stretch when boxes are taken out of it. */
export function without(boxes: readonly Box[], start: Place, end: Place): { from: Place; to: Place }[] {
  let parts = [{ from: start, to: end }];
  for (const { low, high } of boxes) {
    parts = parts.flatMap((part) => {
      if (high < part.from.low || low > part.to.high) return [part];
      const before = low > part.from.high ? [{ from: part.from, to: pointPlace(low) }] : [];
      const behind = high < part.to.low ? [{ from: pointPlace(high), to: part.to }] : [];
      return [...before, ...behind];
    });
  }
  return parts;
}

class Splitter {
  private readonly pieces: Piece[] = [];
  private readonly undecided: Box[] = [];
  private hasTooManyJumps = false;

  constructor(private readonly zeros: Zeros) {}

  split(body: Expression, from: Place, to: Place): Pieces {
    this.resolve(body, from, to);
    return { pieces: this.pieces, undecided: this.undecided, hasTooManyJumps: this.hasTooManyJumps };
  }

  private resolve(body: Expression, from: Place, to: Place): void {
    const kink = innermostKink(body, this.zeros.variable);
    if (!kink) return void this.pieces.push({ from, to, body, isOpen: false });
    if (this.pieces.length >= mostPieces) return this.giveUp(from, to);
    if (kink.kind === 'call' && kink.name === 'factorial') return this.resolveFactorial(kink, from, to);
    if (kink.kind === 'call' && kink.name === 'floor') return this.resolveSteps(body, kink, from, to);
    if (kink.kind === 'call') return this.resolveSides(body, kink, from, to);
    if (kink.kind === 'spline') return this.resolveSpline(body, kink, from, to);
    return this.resolvePieces(body, kink, from, to);
  }

  private nowhere(from: Place, to: Place, isOpen = false): void {
    this.pieces.push({ from, to, body: null, isOpen });
  }

  private giveUp(from: Place, to: Place): void {
    this.hasTooManyJumps = true;
    this.undecided.push({ low: from.value, high: to.value });
    this.nowhere(from, to, true);
  }

  /** It has values at single places: where its argument is a whole number that has a factorial. */
  private resolveFactorial(kink: tree.CallNode, from: Place, to: Place): void {
    const [argument] = kink.arguments as [Expression];
    const range = rangeOver(argument, this.zeros.variable, from.value, to.value);
    if (!range) return this.giveUp(from, to);
    const [low, high] = [
      Math.max(0, Math.floor(range.low)),
      Math.min(largestFactorial, Math.ceil(range.high)),
    ];
    const levels = Array.from({ length: Math.max(0, high - low + 1) }, (_, i) => rational.rational(low + i));
    this.resolveBetween(argument, levels, from, to, (_value, start, end) => this.nowhere(start, end));
  }

  /**
   * The stretches between the zeros and breaks of a boundary, each with the boundary's sign on it. Where zeros may hide,
   * stretches of their own stay open.
   */
  private stretches(boundary: Expression, from: Place, to: Place): SplitStretch[] {
    const set = this.zeros.of(boundary);
    this.undecided.push(...set.undecided.filter((box) => box.high > from.value && box.low < to.value));
    if (set.isZero) return [{ from, to, sign: 0, isOpen: false }];
    const inside = sortedPlaces([...set.roots, ...set.breaks]).filter((place) =>
      isStrictlyBetween(place, from, to),
    );
    const ends = [from, ...inside, to];
    return ends.slice(1).flatMap((end, i) => {
      const start = ends[i] as Place;
      const parts = without(set.undecided, start, end);
      const signed = parts.map((part) => this.signedStretch(boundary, part.from, part.to));
      return withOpenGaps(signed, start, end);
    });
  }

  private signedStretch(boundary: Expression, from: Place, to: Place): SplitStretch {
    const sign = signInside(boundary, this.zeros.variable, from, to);
    const isOpen = Number.isNaN(sign) && isDefinedInside(boundary, this.zeros.variable, from, to);
    if (isOpen) this.undecided.push({ low: from.value, high: to.value });
    return { from, to, sign, isOpen };
  }

  private resolveSides(body: Expression, kink: tree.CallNode, from: Place, to: Place): void {
    const { boundaries = [], sides } = builtIn(kink.name);
    if (!sides) throw new TypeError(`${kink.name} has no sides`);
    const boundary = formulaOf(boundaries[0] as string, kink.arguments);
    for (const stretch of this.stretches(boundary, from, to)) {
      // Where the boundary is 0 throughout, sign is 0 and both sides of the others agree.
      const isLevelSign = stretch.sign === 0 && kink.name === 'sign';
      const text = isLevelSign ? '0' : stretch.sign < 0 ? sides.negative : sides.positive;
      const inside = Number.isNaN(stretch.sign) ? null : formulaOf(text, kink.arguments);
      if (inside) this.resolve(replaced(body, kink, inside), stretch.from, stretch.to);
      else this.nowhere(stretch.from, stretch.to, stretch.isOpen);
    }
  }

  private resolveSteps(body: Expression, kink: tree.CallNode, from: Place, to: Place): void {
    const [argument] = kink.arguments as [Expression];
    const range = rangeOver(argument, this.zeros.variable, from.value, to.value);
    if (!range || range.high - range.low > mostJumps) return this.giveUp(from, to);
    const levels = Array.from({ length: Math.ceil(range.high) - Math.floor(range.low) + 1 }, (_, i) =>
      rational.rational(Math.floor(range.low) + i),
    );
    this.resolveBetween(argument, levels, from, to, (value, start, end) =>
      this.resolve(replaced(body, kink, literal(rational.rational(Math.floor(value)))), start, end),
    );
  }

  /** A table's function is one polynomial between two of its knots. */
  private resolveSpline(body: Expression, kink: tree.SplineNode, from: Place, to: Place): void {
    const { spline, argument } = kink;
    const range = rangeOver(argument, this.zeros.variable, from.value, to.value);
    const knots = spline.points.filter((_, i) => {
      const knot = spline.knots[i] as number;
      return !range || (knot >= range.low && knot <= range.high);
    });
    if (knots.length > mostJumps) {
      return this.giveUp(from, to);
    }
    const levels = knots.map(({ x }) => x);
    this.resolveBetween(argument, levels, from, to, (value, start, end) => {
      if (!spline.isWithin(value)) return this.nowhere(start, end);
      this.resolve(replaced(body, kink, pieceFormula(kink, spline.pieceAt(value))), start, end);
    });
  }

  /** Goes through the stretches between the places at which an argument passes one of some levels. */
  private resolveBetween(
    argument: Expression,
    levels: readonly Rational[],
    from: Place,
    to: Place,
    resolve: (value: number, start: Place, end: Place) => void,
  ): void {
    const passed = levels.flatMap((level) => {
      const set = this.zeros.of(tree.subtract(argument, literal(level)));
      this.undecided.push(...set.undecided.filter((box) => box.high > from.value && box.low < to.value));
      return [...set.roots, ...set.breaks];
    });
    const ends = [from, ...sortedPlaces(passed).filter((place) => isStrictlyBetween(place, from, to)), to];
    ends.slice(1).forEach((end, i) => {
      const start = ends[i] as Place;
      const value = this.valueAmong(argument, levels, start, end);
      if (value === null) this.undecided.push({ low: start.value, high: end.value });
      if (value === null || Number.isNaN(value)) this.nowhere(start, end, value === null);
      else resolve(value, start, end);
    });
  }

  /**
   * A number that lies among some levels as an argument does between two places: a double that cannot be told from a
   * level is moved to the side on which the argument is shown to be. tanh 49 is below 1, though no double is between.
   * @param levels in ascending order
   * @returns NaN where the argument has no value, null where nothing shows its side
   */
  private valueAmong(
    argument: Expression,
    levels: readonly Rational[],
    start: Place,
    end: Place,
  ): number | null {
    const { variable } = this.zeros;
    const [program, x] = [programOf(argument, variable), between(start, end)];
    const value = evaluateAt(program, x);
    const { low, high } = enclose(program, x, x);
    const near = levels.findIndex((level) => {
      const at = rational.toNumber(level);
      return at >= low && at <= high;
    });
    const level = levels[near];
    if (Number.isNaN(value) || !level) return value;
    const at = rational.toNumber(level);
    const difference = tree.subtract(argument, literal(level));
    if (this.zeros.of(difference).isZero) return at;
    const side = signInside(difference, variable, start, end);
    if (Number.isNaN(side)) return null;
    const next = levels[near + side];
    return side === 0 ? at : next ? (at + rational.toNumber(next)) / 2 : at + side / 2;
  }

  /** Splits where the first undecided comparison of the pieces changes, until every condition is decided. */
  private resolvePieces(body: Expression, kink: PiecewiseNode, from: Place, to: Place): void {
    this.choose(body, kink, kink, new Map(), from, to);
  }

  private choose(
    body: Expression,
    original: PiecewiseNode,
    rest: PiecewiseNode,
    signs: ReadonlyMap<string, number>,
    from: Place,
    to: Place,
  ): void {
    const [first, ...others] = rest.pieces;
    if (!first) {
      if (!rest.otherwise) return this.nowhere(from, to);
      return this.resolve(replaced(body, original, rest.otherwise), from, to);
    }
    const state = truthOf(first.condition, signs);
    if (state === true) return this.resolve(replaced(body, original, first.value), from, to);
    if (state === false) {
      return this.choose(body, original, tree.piecewise(others, rest.otherwise), signs, from, to);
    }
    if (state === null) return this.nowhere(from, to);
    for (const stretch of this.stretches(state, from, to)) {
      if (stretch.isOpen) {
        this.nowhere(stretch.from, stretch.to, true);
        continue;
      }
      const known = new Map([...signs, [printText(state), stretch.sign]]);
      this.choose(body, original, rest, known, stretch.from, stretch.to);
    }
  }
}

/**
 * Whether a condition holds where the signs of differences are known: true, false, null where it is undefined,
 * or the first difference whose sign is still wanted.
 */
function truthOf(condition: Condition, signs: ReadonlyMap<string, number>): boolean | null | Expression {
  switch (condition.kind) {
    case 'not': {
      const inner = truthOf(condition.operand, signs);
      return typeof inner === 'boolean' ? !inner : inner;
    }
    case 'and':
    case 'or':
      return joined(truthOf(condition.left, signs), truthOf(condition.right, signs), condition.kind === 'or');
    case 'comparison': {
      const links = condition.relations.map((relation, i): boolean | null | Expression => {
        const [left, right] = [condition.operands[i], condition.operands[i + 1]] as [Expression, Expression];
        if (isInfinite(left) || isInfinite(right))
          return isRelated(tree.sizeAtInfinity(left) - tree.sizeAtInfinity(right), relation);
        const difference = tree.subtract(left, right);
        const sign = signs.get(printText(difference));
        if (sign === undefined) return difference;
        return Number.isNaN(sign) ? null : isRelated(sign, relation);
      });
      return links.reduce((a, b) => joined(a, b, false));
    }
  }
}

const isInfinite = (node: Expression): boolean => tree.sizeAtInfinity(node) !== 0;

function joined(
  a: boolean | null | Expression,
  b: boolean | null | Expression,
  decisive: boolean,
): boolean | null | Expression {
  if (a === decisive || b === decisive) return decisive;
  if (typeof a === 'object' && a !== null) return a;
  if (typeof b === 'object' && b !== null) return b;
  return a === null || b === null ? null : !decisive;
}

function pieceFormula({ spline, argument }: tree.SplineNode, piece: number): Expression {
  return polynomialFrom((spline.points[piece] as ExactPoint).x, spline.exactPiece(piece), argument);
}

/** The innermost node, from the left, at which a formula has a corner or is put together from pieces. */
function innermostKink(
  node: Expression,
  variable: string,
): tree.CallNode | tree.SplineNode | PiecewiseNode | undefined {
  // What turns inside an integral with the variable of that is no kink of the function.
  const isOwn =
    node.kind === 'integral' && (node.variable === variable || !tree.dependsOn(node.body, variable));
  for (const child of isOwn ? [node.from, node.to] : tree.children(node)) {
    const found = innermostKink(child, variable);
    if (found) return found;
  }
  if (node.kind === 'piecewise' || node.kind === 'spline') return node;
  if (node.kind !== 'call') return undefined;
  // The factorial of a number is a number.
  if (node.name === 'factorial') return tree.dependsOn(node, variable) ? node : undefined;
  return builtIn(node.name).sides !== undefined || node.name === 'floor' ? node : undefined;
}

/** @throws TooLarge where the formula with a part put in grows too long */
function replaced(node: Expression, from: Expression, to: Expression): Expression {
  const result = replacedNode(node, from, to);
  if (tree.size(result) > largestBody) throw new TooLarge('too many pieces in one formula');
  return result;
}

const largestBody = 5000;

/** A place between two others, off the middle, where nothing special is expected. */
const between = (from: Place, to: Place): number => from.value + (to.value - from.value) * 0.4617;

/** Binary digits to which a sign is looked at that doubles cannot tell. */
const signBits = [120, 600, 2400];

/** The sign of an expression that keeps it between two places; NaN where it is not defined there, or nothing shows it. */
export function signInside(body: Expression, variable: string, from: Place, to: Place): number {
  const x = between(from, to);
  const program = programOf(body, variable);
  const { low, high } = enclose(program, x, x);
  if (low > 0) return 1;
  if (high < 0) return -1;
  const form = canonical(body);
  if (form.kind === 'number' && !Number.isNaN(low)) return rational.compare(form.value, rational.zero);
  // Numbers too small for doubles still have a sign: e^(−10^10).
  for (const bits of signBits) {
    const sign = preciseSign(program, big.fromDouble(x), bits);
    if (sign !== undefined) return sign;
  }
  return NaN;
}

/** Whether a formula that is defined throughout or nowhere between two places has values there. */
export function isDefinedInside(body: Expression, variable: string, from: Place, to: Place): boolean {
  const x = between(from, to);
  const program = programOf(body, variable);
  const ball = enclosedOrUnsure(program, exactly(big.fromDouble(x)), [], signBits[0] as number);
  return ball === 'unsure' ? !Number.isNaN(evaluateAt(program, x)) : ball !== null;
}

function rangeOver(body: Expression, variable: string, from: number, to: number): Box | null {
  const program = programOf(body, variable);
  const parts = 64;
  let range: Box | null = null;
  for (let i = 0; i < parts; i++) {
    const at = (k: number): number => from + ((to - from) * k) / parts;
    const { low, high } = enclose(program, at(i), at(i + 1));
    if (Number.isNaN(low)) continue;
    if (!Number.isFinite(low) || !Number.isFinite(high)) return null;
    range = range ? { low: Math.min(range.low, low), high: Math.max(range.high, high) } : { low, high };
  }
  return range ?? { low: 0, high: 0 };
}
