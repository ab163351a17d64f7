import {
  closedFormula,
  compile,
  evaluateAt,
  exactValue,
  knownNumber,
  readExpression,
  TooLarge,
  type Expression,
  type Functions,
  type KnownNumber,
  type Program,
  type Rational,
  type Reading,
} from '@yperkine/core';
import { exactTextOf } from '../numbers/exactText.ts';
import type { Directory } from '../resolve/directory.ts';
import type { Id } from '../schema/fields.ts';
import type { Unit } from '../units/unit.ts';
import { functionsMentioned, idsMentioned, parameterValues, statedUnit, unreadable } from './formula.ts';
import type { WorkContext } from './kind.ts';
import { failed, waiting, worked, type Outcome } from './outcome.ts';

/** What a formula without a variable comes to. */
export interface FormulaValue {
  readonly value: KnownNumber;
  /** Its exact form as text, where one is proved and says more than the digits. */
  readonly form: string | null;
  readonly unit: Unit;
  /** What there is to be said against it: a missing value, unlike units. */
  readonly warning: string;
}

/** Works out a formula without a variable. */
export function formulaValue(body: Expression, context: WorkContext): Outcome<FormulaValue> {
  const functions = functionsMentioned(body, context);
  if (!functions) return waiting('This waits for another entry that cannot be worked out yet.');
  try {
    const { program, formula } = compiled(body, functions);
    const { parameters, exactParameters } = parameterValues(program.parameters, context);
    const value = knownValue(program, formula, parameters, exactParameters);
    const { unit, sentence } = statedUnit('', body, context);
    const warning = Number.isNaN(value.value) ? 'This has no value.' : sentence;
    return worked({ value, unit, warning, form: exactTextOf(formula, exactParameters, value) });
  } catch (error) {
    if (error instanceof TooLarge) return failed('This is too large to be worked out.');
    throw error;
  }
}

function knownValue(
  program: Program,
  formula: Expression,
  parameters: readonly number[],
  exact: ReadonlyMap<string, Rational>,
): KnownNumber {
  const number = evaluateAt(program, 0, parameters);
  return knownNumber(number, Number.isNaN(number) ? null : exactValue(formula, exact));
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
