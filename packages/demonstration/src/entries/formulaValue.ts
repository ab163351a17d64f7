import {
  closedFormula,
  compile,
  evaluateAt,
  exactValue,
  holdsBinder,
  ifInTime,
  knownNumber,
  meetsZeroToZero,
  rational,
  readExpression,
  toldValue,
  writtenNumber,
  TooLarge,
  type AnswerTo,
  type Expression,
  type Functions,
  type KnownNumber,
  type Limit,
  type Program,
  type Reading,
} from '@yperkine/core';
import { exactText, exactTextOf, textOfForm } from '../numbers/exactText.ts';
import { format, type RoundingRule } from '../numbers/format.ts';
import type { Bounds } from '../numbers/line.ts';
import type { Answered } from './answers.ts';
import type { Directory } from './names.ts';
import type { Id } from '../fields/fields.ts';
import type { Unit } from '../units/unit.ts';
import { functionsMentioned, idsMentioned, parameterValues, statedUnit, unreadable } from './formula.ts';
import { tooFewDigits } from './tooFewDigits.ts';
import type { WorkContext } from './kind.ts';
import { slopeAsDefined, whyNoSlope, type MissingSlope } from './slopeAsDefined.ts';
import { failed, waiting, worked, type Outcome } from './outcome.ts';

/** What a formula without a variable comes to. */
export interface FormulaValue {
  readonly value: KnownNumber;
  /** Its exact form as text, where one is proved and says more than the digits. */
  readonly form: string | null;
  readonly unit: Unit;
  /** Between which a number that was asked for is proved to lie, where that is known. */
  readonly bounds: Bounds | null;
  /** What there is to be said against it: a missing value, unlike units. */
  readonly warning: Warning;
}

/** A sentence, or the missing number of which it is told why there is none. */
export type Warning = string | MissingSlope | { readonly missing: AnswerTo['value'] | null };

export function warningText(warning: Warning, rule: RoundingRule): string {
  if (typeof warning === 'string') return warning;
  return 'tangent' in warning ? whyNoSlope(warning, rule) : missingSentence(warning.missing, rule);
}

/** Operations that a number may take before it is asked for as long questions are. */
const ofQuickNumber = 400_000;

/**
 * Works out a formula without a variable.
 * @param asks whether a number that takes long may be asked for: only where an entry has one such formula, since it can
 *   ask one question at a time
 */
export function formulaValue(body: Expression, context: WorkContext, asks = false): Outcome<FormulaValue> {
  const functions = functionsMentioned(body, context);
  if (!functions) return waiting('This waits for another entry that cannot be worked out yet.');
  try {
    const { program, formula } = compiled(body, functions);
    const { parameters, exactParameters } = parameterValues(program.parameters, context);
    const stated = (
      value: KnownNumber,
      form: string | null,
      told?: AnswerTo['value'],
    ): Outcome<FormulaValue> => {
      const { unit, sentence } = statedUnit('', body, context);
      const slope = Number.isNaN(value.value) ? slopeAsDefined(body, functions, context) : null;
      if (slope && 'value' in slope)
        return stated(slope, slope.exact && exactTextOf(writtenNumber(slope), new Map(), slope));
      const isNumber = Number.isFinite(value.value);
      const isTooLarge = Math.abs(value.value) === Infinity;
      const missing = isTooLarge ? tooLarge : (slope ?? { missing: told ?? null });
      const convention = meetsZeroToZero(formula, exactParameters) ? zeroToZero : '';
      return worked({
        value: isNumber ? value : nothing,
        unit,
        warning: isNumber ? sentence || convention : missing,
        form,
        bounds: told?.bounds ?? null,
      });
    };
    const values = new Map(program.parameters.map((name, i) => [name, parameters[i] as number]));
    const ask = () => context.ask<'value'>({ ask: 'value', body: closedFormula(formula, values) });
    const fromAnswer = (told: AnswerTo['value']): Outcome<FormulaValue> => {
      const value = knownNumber(told.value, told.exact && exactValue(told.exact, new Map()));
      return stated(value, told.exact && textOfForm(told.exact, value), told);
    };
    const soon = <T>(work: () => T): T | null => (asks ? ifInTime(ofQuickNumber, work) : work());
    const fraction = exactValue(formula, exactParameters);
    if (fraction) {
      const value = knownNumber(rational.toNumber(fraction), fraction);
      return stated(value, exactTextOf(formula, exactParameters, value));
    }
    // It is told exactly what it is, or why it is nothing, unless numbers in it are on the move. Until then its digits
    // stand there.
    const isAtRest = program.parameters.every((name) => exactParameters.has(name));
    if ((holdsBinder(formula) || isAtRest) && parameters.every(Number.isFinite)) {
      const soonTold = soon(() => toldOf(formula, values));
      if (soonTold) return fromAnswer(soonTold);
      const later = ask();
      if (isOfNow(later)) return fromAnswer(later.answer);
    }
    const number = soon(() => evaluateAt(program, 0, parameters));
    if (number !== null) {
      const value = knownNumber(number);
      return stated(value, exactTextOf(formula, exactParameters, value));
    }
    const told = ask();
    if (told.state === 'unanswerable')
      return failed('This takes so long that it was given up; fewer terms may help.');
    return isOfNow(told) ? fromAnswer(told.answer) : waiting('The value is being worked out …');
  } catch (error) {
    if (error instanceof TooLarge) return failed('This is too large to be worked out.');
    throw error;
  }
}

/** Whether a question as it stands is answered, be it that bounds of the answer are still to come. */
const isOfNow = <A>(told: Answered<A>): told is Answered<A> & { state: 'answered' } =>
  told.state === 'answered' && (told.of === 'now' || told.of === 'found');

const toldBefore = new WeakMap<Expression, AnswerTo['value']>();

/** What a formula comes to; one without names, as the ends of most intervals are, is worked out once. */
function toldOf(formula: Expression, values: ReadonlyMap<string, number>): AnswerTo['value'] {
  const told = toldBefore.get(formula) ?? toldValue(closedFormula(formula, values));
  if (values.size === 0) toldBefore.set(formula, told);
  return told;
}

/** What is said where a value stands on it. */
export const zeroToZero = 'The power 0⁰ in it counts as 1.';

const nothing = knownNumber(NaN);
const tooLarge = 'This is larger than any number that can be shown here.';

/** Why there is no value: what a limit does instead of tending to a number. */
function missingSentence(told: AnswerTo['value'] | null, rule: RoundingRule): string {
  const missing = told?.missing;
  if (told?.integral) return missingIntegralSentence(told.integral, told.bounds, rule);
  if (!missing) return 'This has no value.';
  const { whole, left, right } = missing;
  switch (whole.kind) {
    case 'infinite':
      return `There is no limit: it grows beyond all bounds, to ${sideText(whole, rule)}.`;
    case 'undefined':
      return 'There is no limit: nothing is defined beside this place.';
    case 'undecided':
      return 'Whether this limit exists is not decided.';
    default: {
      const sides = [left, right].map((side) => sideText(side, rule));
      return sides[0] === sides[1]
        ? `The limit does not exist: it ${sides[0] === swings ? 'swings' : 'differs along different ways'}.`
        : `The limit does not exist: from the left it is ${sides[0] ?? ''}, from the right ${sides[1] ?? ''}.`;
    }
  }
}

function missingIntegralSentence(
  { diverges, undefinedOn }: NonNullable<AnswerTo['value']['integral']>,
  bounds: Bounds | null,
  rule: RoundingRule,
): string {
  const [gap] = undefinedOn;
  const text = (x: number): string => format(knownNumber(x), rule).text;
  if (gap) return `The integrand has no value from ${text(gap.low)} to ${text(gap.high)}.`;
  return diverges ? 'This integral diverges: it has no finite value.' : tooFewDigits(bounds, rule);
}

const swings = 'none, it swings';

function sideText(limit: Limit, rule: RoundingRule): string {
  switch (limit.kind) {
    case 'finite':
      return (limit.exact && exactText(limit.exact)) ?? format(knownNumber(limit.value), rule).text;
    case 'infinite':
      return limit.sign > 0 ? '∞' : '−∞';
    case 'undefined':
      return 'not defined';
    case 'none':
      return swings;
    case 'undecided':
      return 'not decided';
  }
}

interface Compiled {
  readonly functions: Functions;
  readonly program: Program;
  /** The formula with its functions put in. */
  readonly formula: Expression;
}
const programs = new WeakMap<Expression, Compiled>();

/** A formula is compiled again only when a function in it changed, not whenever a slider moves. */
export function compiled(body: Expression, functions: Functions): Compiled {
  const known = programs.get(body);
  if (known && isSameFunctions(known.functions, functions)) return known;
  const made = {
    functions,
    program: compile(body, '', functions),
    formula: closedFormula(body, new Map(), functions),
  };
  programs.set(body, made);
  return made;
}

export function isSameFunctions(a: Functions, b: Functions): boolean {
  return a.size === b.size && [...a].every(([name, { body }]) => b.get(name)?.body === body);
}

const readings = new WeakMap<Directory, Map<string, unknown>>();
const mostReadings = 2000;

/** What a text is read as, remembered while the names stay what they are. */
export function remembered<T>(
  directory: Directory,
  manner: string,
  text: string,
  read: (text: string, directory: Directory) => T,
): T {
  const known = readings.get(directory) ?? new Map<string, unknown>();
  readings.set(directory, known);
  const key = `${manner} ${text}`;
  if (!known.has(key)) {
    if (known.size >= mostReadings) known.clear();
    known.set(key, read(text, directory));
  }
  return known.get(key) as T;
}

/** The formula that a text is, by the names of the document. */
export const readFormula = (text: string, directory: Directory): Reading<Expression> =>
  remembered(directory, 'formula', text, () => readExpression(text, directory.scope));

/** The formula that a typed text is; null while it cannot be read. */
export function formulaOf(text: string, directory: Directory): Expression | null {
  const reading = readFormula(text, directory);
  return reading.ok ? reading.value : null;
}

/** The entries that a typed formula mentions; none while it cannot be read. */
export function idsInText(text: string, directory: Directory): readonly Id[] {
  const reading = readFormula(text, directory);
  return reading.ok ? idsMentioned(reading.value, directory) : [];
}

/** What a typed formula without a variable comes to. */
export function typedValue(text: string, context: WorkContext): Outcome<FormulaValue> {
  const reading = readFormula(text, context.directory);
  return reading.ok ? formulaValue(reading.value, context) : unreadable(reading.problem);
}
