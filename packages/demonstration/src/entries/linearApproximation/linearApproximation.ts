import {
  closedFormula,
  compile,
  derivativeOf,
  evaluateAt,
  indicator,
  isReserved,
  knownNumber,
  latexFunction,
  latexName,
  rational,
  tangentAt,
  tree,
  writtenNumber,
  type Condition,
  type Expression,
  type KnownNumber,
  type Program,
  type Tangent,
} from '@yperkine/core';
import { z } from 'zod';
import { idSchema, typedSchema, type Id } from '../../fields/fields.ts';
import { dashes, toneOf } from '../../fields/tone.ts';
import type { Mark, MarkOf } from '../../marks/mark.ts';
import type { TierView } from '../../marks/view.ts';
import type { Answered } from '../answers.ts';
import { formatSetting, type RoundingRule } from '../../numbers/format.ts';
import { asWritten, idsInInterval, onInterval, studied, withAnswer, type Studied } from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import { curveMark } from '../curveMark.ts';
import { parameterValues } from '../formula.ts';
import { idsInText, typedValue } from '../formulaValue.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { failed, waiting, worked, type Outcome } from '../outcome.ts';
import type { ParameterResult } from '../parameter/result.ts';
import { partOfRuns } from '../partOfCurve.ts';
import { placeOn, placeWords, valueOn, type Place } from '../point/point.ts';
import { approximationLines, approximationSentence } from './inWords.ts';
import type { LinearApproximationResult, SlopedTangent, Stretch } from './result.ts';

const linearApproximationSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('linearApproximation'),
  /** The parameter that is the place a of the tangent. */
  parameter: idSchema,
  /** The parameter that is the place at which function and approximation are compared. */
  beside: idSchema,
  name: z.string().min(1).max(60),
  /** How much it may be off: a number or a formula of parameters. */
  tolerance: typedSchema,
  /** The tier of the difference. */
  tier: idSchema,
  family: z.int().min(0).max(9),
});
export type LinearApproximationEntry = z.infer<typeof linearApproximationSchema>;

/** L(x) = f(a) + f′(a)(x − a) as a function of its own, its distance from f, and where that stays below a tolerance. */
export const linearApproximationKind: EntryKind<LinearApproximationEntry, LinearApproximationResult> = {
  schema: linearApproximationSchema,
  defaults: { tolerance: '0.1', family: 1 },
  standsOn: ({ on, parameter, beside }) => [on, parameter, beside],
  dependsOn: (entry, directory) => [
    entry.on,
    entry.parameter,
    entry.beside,
    ...idsInInterval(entry, directory),
    ...idsInText(entry.tolerance, directory),
  ],
  defines: ({ name }) => ({ name, isFunction: true }),
  head: ({ name, family }, result) => ({
    heading: result
      ? `Linear approximation ${name} of ${placeWords({ curve: result.of, at: result.at })}`
      : 'Linear approximation',
    tone: toneOf(0, family),
  }),
  curve: (result) => result,
  alsoDraws: ({ difference }) => [difference],

  workOut(entry, context, previous) {
    if (isReserved(entry.name))
      return failed(`“${entry.name}” already has a meaning; please choose another name.`);
    const place = placeOn(entry, context);
    if (typeof place === 'string') return waiting(place);
    const beside = context.parameter(entry.beside);
    if (!beside) return waiting('This waits for its second place, which cannot be worked out yet.');
    const tolerance = typedValue(entry.tolerance, context);
    if (!tolerance.ok) return tolerance;
    if (!(tolerance.result.value.value > 0))
      return failed('The tolerance is a number larger than 0: how much the approximation may be off.');
    return studied(entry, context, (parts) =>
      approximated(entry, context, { ...parts, place, beside, tolerance: tolerance.result.value }, previous),
    );
  },

  say: (result, entry, { rule, xUnit }) => ({
    lines: approximationLines(result, limitText(entry, rule), { rule, xUnit }),
    sentence: approximationSentence(result, limitText(entry, rule), rule),
    ...(result.isSought || !result.tangent
      ? {}
      : { certainty: { text: result.isProved ? 'proved' : 'not proved', isProved: result.isProved } }),
  }),

  results: ({ off, unit, good }, xUnit) => [
    { key: 'difference', label: 'difference', number: off, unit },
    ...(good
      ? [
          { key: 'from', label: 'begin of the good part', number: numberOf(good.from), unit: xUnit },
          { key: 'to', label: 'end of the good part', number: numberOf(good.to), unit: xUnit },
        ]
      : []),
  ],

  places: ({ beside, off, difference }) => [
    {
      key: 'difference',
      label: 'the difference',
      x: beside.value.value,
      y: off.value,
      tier: difference.tier,
    },
  ],

  marks(id, entry, result, tier) {
    const own = result.tier === tier.id ? marksBesideCurve(id, entry, result, tier) : [];
    return result.difference.tier === tier.id ? [...own, ...marksOfDifference(id, entry, result, tier)] : own;
  },
};

/** The tolerance as it was typed: what is said of it holds for that, and for no rounded number. */
const limitText = ({ tolerance }: LinearApproximationEntry, rule: RoundingRule): string =>
  formatSetting(asWritten(tolerance), rule);

const numberOf = ({ value }: Stretch['from']): KnownNumber => knownNumber(value);

interface Parts extends Studied {
  readonly place: Place;
  readonly beside: ParameterResult;
  readonly tolerance: KnownNumber;
}

function approximated(
  entry: LinearApproximationEntry,
  context: WorkContext,
  parts: Parts,
  previous: LinearApproximationResult | undefined,
): Outcome<LinearApproximationResult> {
  const { place, beside, tolerance, asked, values, interval } = parts;
  const { curve: of, at } = place;
  const touching = tangentAt(of, at.value, of.parameters, of.exactParameters);
  const tangent = touching.kind === 'line' && touching.side === 'both' ? touching : null;
  const formulas = tangent
    ? formulasOf(place, entry.name, tangent, context, previous)
    : formulasNowhere(of.variable);
  const { approximation, difference } = curvesFrom(formulas, of, entry, context);
  const off = tangent ? differenceOf(of, approximation, beside, tangent) : knownNumber(NaN);
  const whyNone = tangent ? '' : whyNoLine(touching, place);
  const { madeFrom } = formulas;
  const found = {
    ...approximation,
    ...{ of, at, beside, tangent, whyNone, difference, off, tolerance, interval, madeFrom },
  };
  if (!tangent) return worked({ ...found, good: null, isSought: false, isProved: false });
  const closed = closedFormula(formulas.body, new Map([...values, [at.name, at.value.value]]));
  const body = indicator(isWithin(tree.subtract(asked.body, closed), writtenNumber(tolerance)));
  const question = { ...asked, ask: 'holds', body } as const;
  const open = { ...found, good: null, isProved: false };
  if (isOfBefore(context.ask<'holds'>(question)))
    return { ok: true, result: { ...open, isSought: true }, progress: { isPending: true } };
  return withAnswer(
    context,
    question,
    ({ stretches, complete }) => {
      const a = at.value.value;
      const good = stretches.find(({ from, to }) => from.value <= a && a <= to.value) ?? null;
      return worked({ ...found, good, isSought: false, isProved: complete && good !== null });
    },
    () => ({ ...open, isSought: false }),
  );
}

/** Why there is no line that touches the curve from both sides, in one sentence. */
function whyNoLine(tangent: Tangent, { curve, at }: Place): string {
  const [f, place] = [primed(curve.name, curve.order), `${curve.variable} = ${at.name}`];
  switch (tangent.kind) {
    case 'line':
      return `${place} is an end of ${f}: it has a one-sided slope only.`;
    case 'vertical':
      return `At ${place} the tangent to ${f} is vertical.`;
    case 'noSlope':
      return `${f} has no single slope at ${place}.`;
    case 'undefined':
      return Number.isFinite(valueOn(curve, at).value)
        ? `No slope of ${f} could be found at ${place}.`
        : `${f} has no value at ${place}.`;
  }
}

/** Whether an answer is that of a moment ago, to another tangent. */
const isOfBefore = (told: Answered<unknown>): boolean =>
  told.state === 'answered' && (told.of === 'before' || told.of === 'foundBefore');

/** L on the tier of its function, and f − L on its own. */
function curvesFrom(
  formulas: Formulas,
  of: CurveResult,
  { name, family, tier }: LinearApproximationEntry,
  context: WorkContext,
): { readonly approximation: CurveResult; readonly difference: CurveResult } {
  const head = `${latexFunction(name, 0)}(${latexName(of.variable)})`;
  const title = `${latexFunction(of.name, of.order)}(${latexName(of.variable)}) - ${head}`;
  const shared = { order: 0, family, variable: of.variable, functions: new Map(), unit: of.unit };
  const made = (body: Expression, program: Program) => ({
    ...shared,
    body,
    program,
    ...parameterValues(program.parameters, context),
  });
  return {
    approximation: { ...made(formulas.body, formulas.program), name, latex: head, tier: of.tier },
    difference: {
      ...made(formulas.difference, formulas.differenceProgram),
      name: `${of.name} − ${name}`,
      latex: title,
      title,
      tier,
    },
  };
}

/** Share of the sizes in a difference that is nothing but rounding. */
const noise = 1e-13;

/** f − L at a place: exact where both are, and no number that is rounding alone. */
function differenceOf(
  of: CurveResult,
  line: CurveResult,
  at: ParameterResult,
  tangent: SlopedTangent,
): KnownNumber {
  const [height, other] = [valueOn(of, at), valueOn(line, at)];
  const exact = height.exact && other.exact && rational.subtract(height.exact, other.exact);
  if (exact) return knownNumber(rational.toNumber(exact), exact);
  const run = Math.abs(at.value.value) + Math.abs(tangent.x.value);
  const sizes = [height.value, other.value, tangent.y.value, tangent.slope.value * run].map(Math.abs);
  const off = height.value - other.value;
  return knownNumber(Math.abs(off) <= noise * Math.max(...sizes) ? 0 : off);
}

/** −t ≤ d ≤ t. */
const isWithin = (difference: Expression, tolerance: Expression): Condition => ({
  kind: 'comparison',
  operands: [tree.negate(tolerance), difference, tolerance],
  relations: ['≤', '≤'],
});

interface Formulas {
  readonly body: Expression;
  readonly program: Program;
  readonly difference: Expression;
  readonly differenceProgram: Program;
  readonly madeFrom: readonly unknown[];
}

/** L and f − L in the names of the document, made anew only where the function or a name has changed. */
function formulasOf(
  { curve, at }: Place,
  name: string,
  tangent: SlopedTangent,
  context: WorkContext,
  previous: LinearApproximationResult | undefined,
): Formulas {
  const madeFrom = [curve.program, at.name, name];
  const isSame = previous?.madeFrom.every((part, i) => part === madeFrom[i]) ?? false;
  if (previous && isSame && isTangent(previous.program, tangent, context))
    return {
      ...previous,
      difference: previous.difference.body,
      differenceProgram: previous.difference.program,
    };
  const open = closedFormula(curve.body, new Map(), curve.functions);
  const named = inNames(open, curve.variable, at.name);
  const program = named && compile(named, curve.variable);
  const isFaithful = program !== null && isTangent(program, tangent, context);
  const body = isFaithful && named ? named : inNumbers(tangent, curve.variable);
  const difference = tree.subtract(open, body);
  return {
    body,
    program: isFaithful ? program : compile(body, curve.variable),
    difference,
    differenceProgram: compile(difference, curve.variable),
    madeFrom,
  };
}

/** Formulas without any value. */
function formulasNowhere(variable: string): Formulas {
  const body = tree.divide(tree.number(0), tree.number(0));
  const program = compile(body, variable);
  return { body, program, difference: body, differenceProgram: program, madeFrom: [] };
}

/** f(a) + f′(a)(x − a); null where a is called like the variable itself. */
function inNames(body: Expression, variable: string, place: string): Expression | null {
  if (place === variable) return null;
  const a = tree.name(place);
  const at = (formula: Expression): Expression => tree.substitute(formula, variable, a);
  const run = tree.subtract(tree.name(variable), a);
  return tree.add(at(body), tree.multiply(at(derivativeOf(body, variable, 1)), run));
}

/** The same with the numbers of this moment, for a place at which the rules of differentiation give no slope. */
const inNumbers = ({ x, y, slope }: SlopedTangent, variable: string): Expression =>
  tree.add(
    writtenNumber(y),
    tree.multiply(writtenNumber(slope), tree.subtract(tree.name(variable), writtenNumber(x))),
  );

/** Share of a height by which a line may miss another through rounding. */
const rounding = 1e-9;

/** Whether a line goes through the point of contact with the slope of the tangent. */
function isTangent(program: Program, { x, y, slope }: SlopedTangent, context: WorkContext): boolean {
  const { parameters } = parameterValues(program.parameters, context);
  return [0, 1].every((run) => {
    const expected = y.value + run * slope.value;
    const off = Math.abs(evaluateAt(program, x.value + run, parameters) - expected);
    return (
      off <= rounding * Math.max(1, Math.abs(y.value), Math.abs(slope.value) * Math.max(1, Math.abs(x.value)))
    );
  });
}

/** Widths in pixels of the part that is good enough, and of the segment of the difference. */
const goodWidth = 7;
const segmentWidth = 3;

/** The line, the part of it that is good enough, the point of contact and the segment of the difference. */
function marksBesideCurve(
  id: string,
  { parameter, beside }: LinearApproximationEntry,
  result: LinearApproximationResult,
  tier: TierView,
): Mark[] {
  const { of, at } = result;
  const line = { ...curveMark(id, result, tier), dash: dashes.dashed };
  // Where nothing touches the curve its two places keep their grips.
  const grips = result.tangent ? [] : gripAt(id, beside, { curve: of, at: result.beside }, tier);
  return [
    line,
    ...goodPart(line, result, tier),
    ...segmentAt(id, beside, result, tier),
    ...grips,
    ...gripAt(id, parameter, { curve: of, at }, tier),
  ];
}

/** A place on the curve that can be moved. */
function gripAt(id: string, parameter: Id, { curve, at }: Place, tier: TierView): Mark[] {
  const [x, y] = [at.value.value, valueOn(curve, at).value];
  if (!Number.isFinite(y)) return [];
  const tone = toneOf(curve.order, curve.family);
  return [{ kind: 'point', entry: id, x: tier.toX(x), y: tier.toY(y), tone, parameter }];
}

/** The part of the line that is good enough. */
function goodPart(
  { entry, runs }: MarkOf<'curve'>,
  { good, family }: LinearApproximationResult,
  tier: TierView,
): Mark[] {
  if (!good) return [];
  const part = partOfRuns(runs, tier.toX(good.from.value), tier.toX(good.to.value));
  return [{ kind: 'track', entry, runs: part, tone: toneOf(0, family), dash: [], weight: goodWidth }];
}

/** From the line to the curve at the second place; the curve's end is its grip. */
function segmentAt(id: string, beside: Id, result: LinearApproximationResult, tier: TierView): Mark[] {
  const { of, off, family, program, parameters } = result;
  if (!Number.isFinite(off.value)) return [];
  const at = result.beside.value.value;
  const x = tier.toX(at);
  const [low, high] = [
    tier.toY(evaluateAt(program, at, parameters)),
    tier.toY(evaluateAt(of.program, at, of.parameters)),
  ];
  const ends = { x0: x, y0: low, x1: x, y1: high };
  return [
    { kind: 'line', entry: id, ...ends, tone: 'ink', weight: segmentWidth, dash: [] },
    { kind: 'dot', entry: id, x, y: low, tone: toneOf(0, family) },
    { kind: 'point', entry: id, x, y: high, tone: toneOf(of.order, of.family), parameter: beside },
  ];
}

/** The difference in its own tier, between the two lines of the tolerance. */
function marksOfDifference(
  id: string,
  { beside }: LinearApproximationEntry,
  { difference, tolerance, off, ...result }: LinearApproximationResult,
  tier: TierView,
): Mark[] {
  const tone = toneOf(0, difference.family);
  const [left, right] = [tier.frame.left, tier.frame.left + tier.frame.width];
  const limits = [tolerance.value, -tolerance.value].map((height): Mark => {
    const y = tier.toY(height);
    return {
      kind: 'line',
      entry: id,
      x0: left,
      y0: y,
      x1: right,
      y1: y,
      tone: 'quiet',
      weight: 1.5,
      dash: dashes.dotted,
    };
  });
  const [x, y] = [tier.toX(result.beside.value.value), tier.toY(off.value)];
  const segment: Mark[] = Number.isFinite(off.value)
    ? [
        {
          kind: 'line',
          entry: id,
          x0: x,
          y0: tier.toY(0),
          x1: x,
          y1: y,
          tone: 'ink',
          weight: segmentWidth,
          dash: [],
        },
        { kind: 'point', entry: id, x, y, tone, parameter: beside },
      ]
    : [];
  return [{ ...curveMark(id, difference, tier), isAside: true }, ...limits, ...segment];
}
