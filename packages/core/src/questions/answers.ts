import { derivativeOf } from '../algebra/differentiate.ts';
import { exactForm } from '../algebra/exactForm.ts';
import { TooLarge } from '../budget/tooLarge.ts';
import type { Rational } from '../numbers/rational.ts';
import { exactTruth, exactValue } from '../algebra/exact.ts';
import { roughCurve } from '../curve/rough.ts';
import { sampleCurve } from '../curve/sample.ts';
import type { Grid } from '../curve/sampled.ts';
import { Effort, OutOfEffort } from '../budget/effort.ts';
import { evaluatorFor } from '../values/evaluator.ts';
import { compile, noFunctions, type Functions, type Program } from '../evaluate/program.ts';
import { evaluateAt } from '../values/values.ts';
import { extremeHeights, type ExtremeHeights } from '../area/extremes.ts';
import { extremesByAreas } from '../area/extremesByAreas.ts';
import { integral } from '../area/integral.ts';
import type { DefiniteIntegral } from '../area/parts.ts';
import type { ExactEnds } from '../area/stretches.ts';
import type { IntegralPart } from '../area/parts.ts';
import { evenPartition, type SumRule } from '../area/rules.ts';
import { riemannSum } from '../area/sums.ts';
import { packed } from '../interpolation/packed.ts';
import * as tree from '../language/tree.ts';
import type { Condition, Expression } from '../language/tree.ts';
import { meanValuePoints, type Conditions, type Obstacle } from '../slope/meanValue.ts';
import { asymptotes, type Asymptotes, type KnownForm } from '../analysis/asymptotes.ts';
import type { Box } from '../analysis/isolate.ts';
import { joins, type Join } from '../analysis/joins.ts';
import { besidePlace, mendingAt, type MendingValues } from '../analysis/mending.ts';
import { whereHolds } from '../analysis/holds.ts';
import type { ToldCertificate } from '../analysis/certificate.ts';
import { keyPoints, type KeyPoint, type SideHeight } from '../analysis/keyPoints.ts';
import { located, type Located, type Place } from '../analysis/place.ts';
import { numberFormula } from '../limit/numberFormula.ts';
import { readFromDerivative, type Finding } from '../analysis/reading.ts';
import { sampledKeyPoints } from '../analysis/sampled.ts';
import { signs } from '../analysis/signs.ts';
import { solve, type Solutions } from '../analysis/solve.ts';
import { bendThroughout, slopeThroughout, within, type SignThroughout } from '../analysis/throughout.ts';
import { toldValue, type ToldValue } from './value.ts';

/** A function of one variable on an interval, free of parameters. */
interface Asked {
  readonly body: Expression;
  readonly variable: string;
  readonly interval: readonly [number, number];
  /** The ends of the interval as formulas, where the doubles are only near to them. */
  readonly ends?: ExactEnds;
}

/**
 * A question whose answer may take long. Questions and answers are plain data, so that they can go to a worker and
 * back once `sendable`.
 */
export type Question =
  /** Key points of the derivative of the given order, and what shows that they are all. */
  | (Asked & { readonly ask: 'keyPoints'; readonly order: number })
  | (Asked & { readonly ask: 'signs'; readonly order: number })
  /** Where that derivative equals the other side, a formula in the same variable. */
  | (Asked & { readonly ask: 'solve'; readonly order: number; readonly equals: Expression })
  /** Where a condition holds; the body is 1 under that condition and nothing else. */
  | (Asked & { readonly ask: 'holds' })
  /** What a function does at its joins, and for which values of the constant that `mend` leaves free they would meet. */
  | (Asked & {
      readonly ask: 'joins';
      readonly mend: { readonly constant: string; readonly body: Expression } | null;
    })
  /** What the graph of f⁽ᵏ⁾ says about f. */
  | (Asked & { readonly ask: 'reading'; readonly order: 1 | 2 | 3 })
  | (Asked & { readonly ask: 'meanValue' })
  /** The points of the curve that are nearest to a place. */
  | (Asked & { readonly ask: 'nearest'; readonly to: readonly [number, number] })
  /** The definite integral, or the area without signs. */
  | (Asked & { readonly ask: 'integral'; readonly isTotal: boolean })
  /** The curve itself over a window, where that takes longer than a frame. */
  | (Asked & { readonly ask: 'curve'; readonly grid: Grid })
  /** A derivative that is long to find. */
  | {
      readonly ask: 'derivative';
      readonly body: Expression;
      readonly variable: string;
      readonly order: number;
    }
  /** The value of a formula without a variable. */
  | { readonly ask: 'value'; readonly body: Expression }
  /** All that a sum over a partition is compared with; and the sum itself where it has too many parts to wait for. */
  | (Asked & { readonly ask: 'sum'; readonly many: ManyParts | null });

/** A sum of more parts than one works out between two frames. */
interface ManyParts {
  readonly n: number;
  readonly rule: SumRule;
}

/** A key point with the exact form of its height, where one is known. */
export interface ToldKeyPoint extends KeyPoint {
  readonly exactY: Expression | null;
}

/** An answer that may be all there is. */
export interface MayBeComplete {
  readonly complete: boolean;
  /** Whether the search found it to be complete, and no second check has shown that. */
  readonly isUnconfirmed?: boolean;
}

interface Told extends MayBeComplete {
  readonly undecided: readonly Box[];
  /** Whether a step function jumps more often than is looked at. */
  readonly hasTooManyJumps: boolean;
}

interface LocatedStretch {
  readonly from: Located;
  readonly to: Located;
}

/** A stretch on which something holds, and whether its ends belong to it. */
export interface LocatedHeld extends LocatedStretch {
  readonly includesFrom: boolean;
  readonly includesTo: boolean;
}

export interface ToldSolutions extends Told {
  readonly solutions: readonly Located[];
  readonly everywhere: readonly LocatedHeld[];
}

/** The values that a constant may take, as plain data. */
export interface ToldValues extends Omit<MendingValues, 'values'> {
  readonly values: readonly Located[];
}

/** A join as plain data; `mending` has the values of the constant that make it continuous, and without a corner. */
export interface ToldJoin extends Omit<Join, 'place'> {
  readonly place: Located;
  readonly mending: { readonly continuous: ToldValues; readonly smooth: ToldValues } | null;
}

export interface NearestPoint {
  readonly x: number;
  readonly exactX: Expression | null;
  readonly y: number;
  readonly distance: number;
  readonly exactDistance: Expression | null;
}

/** Whether the conditions of the mean value theorem hold, or what is wrong and where. */
type ToldConditions = Exclude<Conditions, Obstacle> | (Omit<Obstacle, 'at'> & { readonly at: Located });

/** A definite integral as plain data. */
export interface ToldIntegral extends Omit<DefiniteIntegral, 'parts'> {
  readonly parts: readonly Omit<IntegralPart, 'antiderivative'>[];
  /** Between which the integral lies, proved: put in by `certified`; null before, and where it shows none. */
  readonly bounds: readonly [number, number] | null;
}

/** What comes back for each question. */
export interface AnswerTo {
  readonly keyPoints: Told & {
    readonly points: readonly ToldKeyPoint[];
    readonly asymptotes: Asymptotes;
    /** Put in by `certified`; null before, and where the list is not complete. */
    readonly certificate: ToldCertificate | null;
  };
  readonly signs: Told & {
    readonly intervals: readonly (LocatedStretch & { readonly sign: -1 | 0 | 1 })[];
    readonly ends: readonly { readonly place: Located; readonly value: number | null }[];
  };
  readonly solve: ToldSolutions;
  readonly holds: MayBeComplete & { readonly stretches: readonly LocatedHeld[] };
  readonly joins: { readonly joins: readonly ToldJoin[] };
  readonly reading: MayBeComplete & { readonly findings: readonly Finding[] };
  /** Null where the function has no value at an end. */
  readonly meanValue: {
    readonly slope: number;
    readonly exactSlope: Expression | null;
    readonly points: ToldSolutions;
    readonly conditions: ToldConditions;
  } | null;
  readonly nearest: { readonly points: readonly NearestPoint[]; readonly isProved: boolean };
  readonly integral: ToldIntegral;
  /** Runs of joined points as x₀ y₀ x₁ y₁ …; rough where the curve would take too long even beside the page. */
  readonly curve: { readonly runs: readonly Float64Array[]; readonly isRough: boolean };
  readonly derivative: { readonly formula: Expression };
  readonly value: ToldValue;
  readonly sum: {
    readonly integral: ToldIntegral;
    /** Where the function may be least or greatest; null where that is out of reach. */
    readonly extremes: ExtremeHeights | null;
    /** The sign of the slope, and of the bend, throughout; null where that is not known. */
    readonly slope: SignThroughout | null;
    readonly bend: SignThroughout | null;
    /** The total of many parts. */
    readonly total: number | null;
  };
}
export type QuestionKind = keyof AnswerTo;
export type QuestionOf<K extends QuestionKind> = Extract<Question, { ask: K }>;
export type Answer = AnswerTo[QuestionKind];

/**
 * Works out a question.
 * @throws TooLarge where the function falls into too many pieces or its derivatives grow too long
 * @throws SingleValues where slopes or signs are asked of what has values at single numbers only
 */
export function answerTo<K extends QuestionKind>(question: QuestionOf<K>): AnswerTo[K];
export function answerTo(question: Question): Answer {
  switch (question.ask) {
    case 'keyPoints':
      return toldKeyPoints(question);
    case 'signs': {
      const { body, variable, interval, order } = question;
      const { intervals, ends, ...told } = signs(body, variable, interval, order);
      return {
        ...told,
        intervals: intervals.map((part) => ({ ...stretch(part), sign: part.sign })),
        ends: ends.map(({ place, value }) => ({ place: located(place), value })),
      };
    }
    case 'solve':
      return toldSolutions(
        solve(question.body, question.equals, question.variable, question.interval, question.order),
      );
    case 'holds':
      return toldStretches(question);
    case 'joins':
      return { joins: toldJoins(question) };
    case 'reading': {
      const read = readFromDerivative(question.body, question.variable, question.interval, question.order);
      const extremes = extremesByAreas(question.body, question.variable, question.interval, question.order);
      const findings = read.findings.map(toldFinding);
      return { ...read, findings: extremes ? [...findings, extremes] : findings };
    }
    case 'meanValue':
      return toldMeanValue(question);
    case 'nearest':
      return nearestPoints(question);
    case 'integral':
      return toldIntegral(question, question.isTotal);
    case 'curve':
      return toldCurve(question);
    case 'derivative':
      return { formula: packed(derivativeOf(question.body, question.variable, question.order)) };
    case 'value':
      return toldValue(question.body);
    case 'sum':
      return toldSum(question);
  }
}

/** Operations that a curve may take beside the page, and that a rough one may then: together less than anybody waits. */
const effortOfCurve = 60_000_000;
const effortOfRoughCurve = 60_000_000;

function toldCurve({ body, variable, grid }: QuestionOf<'curve'>): AnswerTo['curve'] {
  const program = compile(body, variable);
  const evaluator = evaluatorFor(program);
  try {
    const { runs } = new Effort(effortOfCurve).spendOn(() =>
      sampleCurve(program, evaluator, grid, [], slopeProgram(body, variable)),
    );
    return { runs, isRough: false };
  } catch (error) {
    if (!(error instanceof OutOfEffort)) throw error;
    return { runs: roughCurve(() => evaluator, grid, [], new Effort(effortOfRoughCurve)), isRough: true };
  }
}

/** The program of a slope; undefined where it would be too large. */
export function slopeProgram(
  body: Expression,
  variable: string,
  functions: Functions = noFunctions,
): Program | undefined {
  try {
    return compile(body, variable, functions, 1);
  } catch (error) {
    if (error instanceof TooLarge) return undefined;
    throw error;
  }
}

function toldIntegral({ body, variable, interval, ends }: Asked, isTotal: boolean): ToldIntegral {
  const { parts, ...told } = integral(body, variable, interval, { isTotal, ...(ends ? { ends } : {}) });
  return { ...told, parts: parts.map(({ antiderivative: _formula, ...part }) => part), bounds: null };
}

function toldSum(question: QuestionOf<'sum'>): AnswerTo['sum'] {
  const { body, variable, interval, many } = question;
  return {
    integral: toldIntegral(question, false),
    extremes: within(() => extremeHeights(body, variable, interval)),
    slope: slopeThroughout(body, variable, interval),
    bend: bendThroughout(body, variable, interval),
    total: many && riemannSum(body, variable, evenPartition(...interval, many.n), many.rule).total,
  };
}

const stretch = ({ from, to }: { from: Place; to: Place }): LocatedStretch => ({
  from: located(from),
  to: located(to),
});

/** How near to a proved point a searched one is the same, as a share of the interval. */
const sameShare = 1e-7;

function toldKeyPoints(question: QuestionOf<'keyPoints'>): AnswerTo['keyPoints'] {
  const { body, variable, interval, order } = question;
  const found = keyPoints(body, variable, interval, order);
  const near = (interval[1] - interval[0]) * sameShare;
  const searched = sampledKeyPoints(body, variable, order, found.undecided).filter(
    ({ kind, x }) => !found.points.some((point) => point.kind === kind && Math.abs(point.x - x) < near),
  );
  const derived = order === 0 ? body : derivativeOf(body, variable, order);
  const { asymptotes: lines, undecided: openSides } = asymptotes(derived, variable);
  return {
    ...found,
    points: [...found.points, ...searched]
      .sort((p, q) => p.x - q.x)
      .map((point) => ({ ...withSides(point), exactY: exactHeight(derived, variable, point) })),
    asymptotes: {
      asymptotes: lines.map((line) => ({
        ...line,
        slope: shortForm(line.slope),
        intercept: shortForm(line.intercept),
      })),
      undecided: openSides,
    },
    certificate: null,
  };
}

const shortForm = (number: KnownForm): KnownForm => ({
  ...number,
  exact: exactForm(number.exact, new Map()) ?? number.exact,
});

/** One-sided limits in the form in which they are told. */
function withSides(point: KeyPoint): KeyPoint {
  const { sides } = point;
  if (!sides) return point;
  const told = (side: SideHeight | null): SideHeight | null =>
    side && { ...side, exact: side.exact && exactForm(side.exact, new Map()) };
  return { ...point, sides: { left: told(sides.left), right: told(sides.right) } };
}

/**
 * The exact height of a curve at a place that is known exactly, of a hole and an open end that of the limit; null where
 * algebra does not reach.
 */
function exactHeight(body: Expression, variable: string, point: KeyPoint): Expression | null {
  const { kind, exact, y, sides } = point;
  if (kind === 'hole' || kind === 'openEnd') {
    const limit = sides?.left ?? sides?.right;
    return limit?.exact ? exactForm(limit.exact, new Map()) : null;
  }
  if (!exact || y === null) return null;
  const x: Rational | null = exactValue(exact, new Map());
  const value = x && exactValue(body, new Map([[variable, x]]));
  if (value) return exactForm(tree.name('y'), new Map([['y', value]]));
  const formula = withoutPieces(body, variable, x);
  return formula && exactForm(tree.substitute(formula, variable, exact), new Map());
}

/**
 * A formula with the piece that holds at a place put in for each of its pieces; null where that cannot be told. A
 * single piece is a domain: where there is a value, it is that of the piece.
 */
function withoutPieces(body: Expression, variable: string, x: Rational | null): Expression | null {
  let isTold = true;
  const chosen = (node: Expression): Expression => {
    const inner = tree.mapChildren(node, chosen);
    if (inner.kind !== 'piecewise') return inner;
    const [only] = inner.pieces;
    if (inner.pieces.length === 1 && !inner.otherwise && only) return only.value;
    const held = x && inner.pieces.map(({ condition }) => exactTruth(condition, new Map([[variable, x]])));
    const first = held?.findIndex((truth) => truth !== false) ?? -1;
    const piece = first < 0 ? inner.otherwise : held?.[first] ? inner.pieces[first]?.value : undefined;
    isTold &&= held !== null && piece !== undefined;
    return piece ?? inner;
  };
  const formula = chosen(body);
  return isTold ? formula : null;
}

const toldSolutions = ({ solutions, everywhere, ...told }: Solutions): ToldSolutions => ({
  ...told,
  solutions: solutions.map(located),
  everywhere: everywhere.map((held) => ({ ...held, ...stretch(held) })),
});

function toldStretches({ body, variable, interval }: QuestionOf<'holds'>): AnswerTo['holds'] {
  const condition = conditionIn(body);
  if (!condition) return { stretches: [], complete: true };
  const { stretches, complete } = whereHolds(condition, variable, interval);
  return { complete, stretches: stretches.map((held) => ({ ...held, ...stretch(held) })) };
}

/** A condition as the formula by which it is asked about: 1 where it holds. */
export const indicator = (condition: Condition): Expression =>
  tree.piecewise([{ value: tree.number(1), condition }]);

/** The condition of such a formula; null of one that holds nowhere. */
export const conditionIn = (body: Expression): Condition | null =>
  body.kind === 'piecewise' ? (body.pieces[0]?.condition ?? null) : null;

function toldJoins({ body, variable, interval, mend }: QuestionOf<'joins'>): ToldJoin[] {
  const found = joins(body, variable, interval);
  return found.map((join, i) => {
    const beside = mend && besidePlace(join.place, found[i - 1]?.place, found[i + 1]?.place);
    const mending = beside && mendingAt(mend.body, variable, beside, mend.constant);
    return {
      ...join,
      place: located(join.place),
      mending: mending && { continuous: toldValues(mending.continuous), smooth: toldValues(mending.smooth) },
    };
  });
}

const toldValues = ({ values, ...told }: MendingValues): ToldValues => ({
  ...told,
  values: values.map(located),
});

function toldFinding(finding: Finding): Finding {
  if (finding.kind === 'extremes') return finding;
  return finding.kind === 'stretch'
    ? { ...finding, from: located(finding.from), to: located(finding.to) }
    : { ...finding, at: located(finding.at) };
}

function toldMeanValue({ body, variable, interval }: QuestionOf<'meanValue'>): AnswerTo['meanValue'] {
  const found = meanValuePoints(body, variable, interval);
  if (!found) return null;
  const { slope, points, conditions } = found;
  return {
    slope: evaluateAt(compile(slope, ''), 0),
    exactSlope: exactForm(slope, new Map()),
    points: toldSolutions(points),
    conditions: typeof conditions === 'string' ? conditions : { ...conditions, at: located(conditions.at) },
  };
}

/** (x − p)² + (f(x) − q)², which is least where the distance is. */
export function squaredDistance(
  body: Expression,
  variable: string,
  p: Expression,
  q: Expression,
): Expression {
  const square = (part: Expression): Expression => tree.power(part, tree.number(2));
  return tree.add(square(tree.subtract(tree.name(variable), p)), square(tree.subtract(body, q)));
}

/** Share by which squares of distances that are proved to be equal may differ by rounding. */
const tie = 1e-9;

/** The square of the distance of a curve from a place, as a function of the variable. */
export const squaredDistances = ({ body, variable, to: [p, q] }: QuestionOf<'nearest'>): Expression =>
  pieceByPiece(body, (piece) => squaredDistance(piece, variable, numberFormula(p), numberFormula(q)));

function nearestPoints(question: QuestionOf<'nearest'>): AnswerTo['nearest'] {
  const { body, variable, interval } = question;
  const squared = squaredDistances(question);
  const { points, complete } = keyPoints(squared, variable, interval, 0, 1);
  const low = points.filter(({ kind, y }) => y !== null && (kind === 'minimum' || kind === 'endpoint'));
  const least = Math.min(...low.map(({ y }) => y as number));
  const isProved = complete && low.some(({ absolute }) => absolute === true);
  // An end of the interval can also be the farthest point of all.
  const isLeast = (y: number | null): boolean => y !== null && y <= least * (1 + tie) + Number.MIN_VALUE;
  const nearest = low.filter(({ absolute, y }) => isLeast(y) && (!isProved || absolute === true));
  const program = compile(body, variable);
  return {
    isProved,
    points: nearest.map((point) => {
      const exact = exactHeight(squared, variable, point);
      return {
        x: point.x,
        exactX: point.exact,
        y: evaluateAt(program, point.x),
        distance: Math.sqrt(point.y as number),
        exactDistance: exact && exactForm(tree.call('sqrt', exact), new Map()),
      };
    }),
  };
}

/** A change of a formula's value, put into its pieces, so that it stays a formula in pieces. */
function pieceByPiece(body: Expression, change: (piece: Expression) => Expression): Expression {
  if (body.kind !== 'piecewise') return change(body);
  const pieces = body.pieces.map(({ value, condition }) => ({ value: change(value), condition }));
  return tree.piecewise(pieces, body.otherwise && change(body.otherwise));
}
