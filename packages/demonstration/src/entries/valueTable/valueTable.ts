import {
  compile,
  evaluateAt,
  exactValue,
  knownNumber,
  rational,
  readExpression,
  TooLarge,
  type Expression,
  type Functions,
  type KnownNumber,
  type Program,
  type Rational,
} from '@yperkine/core';
import { z } from 'zod';
import { format, formatSetting } from '../../numbers/format.ts';
import type { Mark } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, decimalSchema, idSchema, typedSchema } from '../../fields/fields.ts';
import { decimalText } from '../../numbers/slider.ts';
import { primed, type CurveResult } from '../curve.ts';
import { inferredUnit } from '../../units/inferred.ts';
import { bare, unitText, type Unit } from '../../units/unit.ts';
import { functionsMentioned, parameterValues, unitsOfNames, unreadable } from '../formula.ts';
import { withVariable } from '../asking.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { failed, waiting, worked, type Outcome } from '../outcome.ts';

const valueTableSchema = z.strictObject({
  ...common,
  kind: z.literal('valueTable'),
  on: idSchema,
  from: decimalSchema,
  to: decimalSchema,
  step: decimalSchema,
  /** Values of x typed one by one, with semicolons between; they stand in place of the even ones. */
  list: typedSchema,
  /** Formulas of the columns, with semicolons between. */
  columns: typedSchema,
});
export type ValueTableEntry = z.infer<typeof valueTableSchema>;

export interface ValueTableResult {
  readonly curve: CurveResult;
  /** The values of x, one a row. */
  readonly xs: readonly number[];
  /** What stands over the columns, that of x first. */
  readonly head: readonly string[];
  /** Of each row its x and the values in it. */
  readonly rows: readonly { readonly x: Rational; readonly numbers: readonly KnownNumber[] }[];
}

/** Values of a function, of its slopes and of one's own formulas at chosen x; the rows are marked on the curve. */
export const valueTableKind: EntryKind<ValueTableEntry, ValueTableResult> = {
  schema: valueTableSchema,
  defaults: { list: '' },
  standsOn: (entry) => [entry.on],
  // The curve's variable is not known yet, so every name that may be meant counts.
  dependsOn: (entry, directory) => [
    entry.on,
    ...[...directory.idOf].filter(([name]) => entry.columns.includes(name)).map(([, id]) => id),
  ],
  head: (_entry, result) => ({
    heading: result ? `Table of ${primed(result.curve.name, result.curve.order)}` : 'Table of values',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut(entry, context) {
    const curve = context.curve(entry.on);
    if (!curve) return waiting('This waits for its function, which cannot be worked out yet.');
    const places = placesOf(entry);
    if (typeof places === 'string') return failed(places);
    const columns = columnsOf(entry, curve, context);
    if (!columns.ok) return columns;
    const rows = places.map((x) => ({ x, numbers: columns.result.map((column) => numberIn(column, x)) }));
    const head = [
      headingIn(curve.variable, context.xUnit),
      ...columns.result.map(({ text, body }) =>
        headingIn(asHeading(text), unitOfColumn(body, curve, context)),
      ),
    ];
    return worked({ curve, xs: places.map(rational.toNumber), head, rows });
  },

  say({ curve, head, rows }, _entry, { rule }) {
    const caption = `Values of ${primed(curve.name, curve.order)}`;
    const written = rows.map(({ x, numbers }) => ({
      cells: [formatSetting(decimalText(x), rule), ...numbers.map((number) => format(number, rule).text)],
      numbers: [null, ...numbers],
    }));
    return { lines: [], sentence: '', table: { caption, head, rows: written } };
  },

  marks(_id, _entry, { curve, xs }, tier) {
    if (curve.tier !== tier.id) return [];
    return xs.flatMap((x): Mark[] => {
      const y = evaluateAt(curve.program, x, curve.parameters);
      const tone = toneOf(curve.order, curve.family);
      return Number.isFinite(y) ? [{ kind: 'dot', x: tier.toX(x), y: tier.toY(y), tone }] : [];
    });
  },
};

const mostRows = 200;
const mostColumns = 8;

export const splitList = (text: string): string[] =>
  text
    .split(';')
    .map((part) => part.trim())
    .filter((part) => part !== '');

/** The values of x in exact numbers, or a sentence about what is wrong with them. */
function placesOf({ from, to, step, list }: ValueTableEntry): readonly Rational[] | string {
  const typed = splitList(list);
  if (typed.length > mostRows) return `A table has at most ${mostRows} rows.`;
  if (typed.length > 0) {
    const numbers = typed.map((text) => rational.parseDecimal(text.replace('−', '-')));
    const wrong = numbers.indexOf(null);
    return wrong >= 0 ? `“${typed[wrong] ?? ''}” is not a number.` : (numbers as Rational[]);
  }
  const [start, end, distance] = [from, to, step].map((text) => rational.parseDecimal(text) as Rational) as [
    Rational,
    Rational,
    Rational,
  ];
  if (rational.compare(distance, rational.zero) <= 0) return 'The step must be greater than zero.';
  if (rational.compare(start, end) > 0) return 'The start must not lie behind the end.';
  const count = rational.floor(rational.divide(rational.subtract(end, start), distance)) + 1n;
  if (count > BigInt(mostRows)) return `A table has at most ${mostRows} rows: choose a larger step.`;
  return Array.from({ length: Number(count) }, (_, i) =>
    rational.add(start, rational.multiply(rational.rational(i), distance)),
  );
}

interface Column {
  readonly text: string;
  readonly body: Expression;
  readonly variable: string;
  readonly program: Program;
  readonly parameters: readonly number[];
  readonly exactParameters: ReadonlyMap<string, Rational>;
  readonly hasFunctions: boolean;
}

function columnsOf(
  entry: ValueTableEntry,
  curve: CurveResult,
  context: WorkContext,
): Outcome<readonly Column[]> {
  const texts = splitList(entry.columns);
  if (texts.length > mostColumns) return failed(`A table has at most ${mostColumns} columns of formulas.`);
  const columns: Column[] = [];
  for (const text of texts) {
    const column = columnOf(text, curve, context);
    if (!column.ok) return column;
    columns.push(column.result);
  }
  return worked(columns);
}

function columnOf(text: string, { variable }: CurveResult, context: WorkContext): Outcome<Column> {
  const reading = readExpression(text, withVariable(context.directory.scope, variable));
  if (!reading.ok) {
    const { problem } = unreadable(reading.problem) as Extract<Outcome<never>, { ok: false }>;
    return failed(
      `In the column “${text}”: ${problem.message}`,
      problem.missingName === undefined ? {} : { missingName: problem.missingName },
    );
  }
  const functions = functionsMentioned(reading.value, context);
  if (!functions) return waiting('This waits for another entry that cannot be worked out yet.');
  return compiledColumn(text, reading.value, variable, functions, context);
}

function compiledColumn(
  text: string,
  body: Expression,
  variable: string,
  functions: Functions,
  context: WorkContext,
): Outcome<Column> {
  try {
    const program = compile(body, variable, functions);
    const values = parameterValues(program.parameters, context);
    return worked({ text, body, variable, program, hasFunctions: functions.size > 0, ...values });
  } catch (error) {
    if (error instanceof TooLarge) return failed(`The column “${text}” is too large to be worked out.`);
    throw error;
  }
}

function numberIn(column: Column, x: Rational): KnownNumber {
  const { body, variable, program, parameters, exactParameters, hasFunctions } = column;
  const value = evaluateAt(program, rational.toNumber(x), parameters);
  const exact =
    hasFunctions || Number.isNaN(value)
      ? null
      : exactValue(body, new Map([...exactParameters, [variable, x]]));
  return knownNumber(value, exact);
}

/** The unit of a column; of the variable itself, that of the x-axis. */
function unitOfColumn(body: Expression, { variable }: CurveResult, context: WorkContext): Unit {
  const names = unitsOfNames(context);
  const of = (name: string) => (name === variable && names.x.size > 0 ? names.x : names.of(name));
  return inferredUnit(body, { ...names, of }).unit ?? bare;
}

const headingIn = (heading: string, unit: Unit): string =>
  unit.size === 0 ? heading : `${heading} in ${unitText(unit)}`;

const asHeading = (text: string): string =>
  text.replaceAll("'''", '‴').replaceAll("''", '″').replaceAll("'", '′').replaceAll('-', '−');
