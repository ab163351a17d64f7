import {
  compile,
  fromDerivative,
  latexFunction,
  latexName,
  printLatex,
  readExpression,
  readStatement,
  TooLarge,
  tree,
  type Expression,
  type Functions,
  type Scope,
} from '@yperkine/core';
import { z } from 'zod';
import { latex } from '../../numbers/line.ts';
import { curveMark } from '../curveMark.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, idSchema, typedSchema, unitSchema } from '../../fields/fields.ts';
import { primed, type CurveResult, asStated, type StatedCurve } from '../curve.ts';
import { functionsMentioned, idsMentioned, parameterValues, unreadable } from '../formula.ts';
import type { EntryKind } from '../kind.ts';
import { readUnit } from '../../units/unit.ts';
import { failed, waiting, worked } from '../outcome.ts';

const givenDerivativeSchema = z.strictObject({
  ...common,
  kind: z.literal('givenDerivative'),
  /** The derivative and its formula: f\'\'(x) = 2 - x cos x. */
  text: typedSchema,
  /** Where the start values are given, and they themselves: f, f′, … at that place; empty for none. */
  startAt: typedSchema,
  startValues: typedSchema,
  tier: idSchema,
  family: z.int().min(0).max(9),
  /** The unit of its heights. */
  unit: unitSchema,
});
export type GivenDerivativeEntry = z.infer<typeof givenDerivativeSchema>;

export interface GivenDerivativeResult extends StatedCurve {
  /** Values that say which of all functions with that derivative is meant; null where there are none. */
  readonly starts: Start | null;
}

/** Whether a curve is one that is given by a derivative alone. */
export const isGivenAlone = (curve: CurveResult): curve is GivenDerivativeResult => 'starts' in curve;

/** A function that is given by one of its derivatives alone, with start values if it is to be known itself. */
export const givenDerivativeKind: EntryKind<GivenDerivativeEntry, GivenDerivativeResult> = {
  schema: givenDerivativeSchema,
  defaults: { startAt: '0', startValues: '', family: 0, unit: '' },
  standsOn: () => [],
  dependsOn(entry, directory) {
    const given = givenIn(entry.text, directory.scope);
    return given ? idsMentioned(given.body, directory, given.variable) : [];
  },
  defines(entry) {
    const name = headPattern.exec(entry.text)?.[1];
    return name === undefined || entry.startValues.trim() === '' ? undefined : { name, isFunction: true };
  },
  head: (entry, result) => ({
    heading: result ? `Given: ${primed(result.name, result.order)} alone` : 'Given: a derivative alone',
    tone: result ? toneOf(result.order, entry.family) : 'quiet',
  }),
  curve: (result) => result,
  say: asStated,

  workOut(entry, context) {
    const { scope } = context.directory;
    const reading = readStatement(entry.text, scope);
    if (!reading.ok) return unreadable(reading.problem);
    if (reading.value.kind !== 'givenDerivative') return failed("A derivative is given as f''(x) = ….");
    const { name, variable, order, body } = reading.value;
    const functions = functionsMentioned(body, context);
    if (!functions) return waiting('This waits for another entry that cannot be worked out yet.');
    const starts = startOf(entry, order, scope, name);
    if (typeof starts === 'string') return failed(starts);
    try {
      const program = compile(body, variable, functions);
      const head = `${latexFunction(name, order)}(${latexName(variable)})`;
      const text = `${head} = ${printLatex(body)}`;
      return worked({
        name,
        order,
        family: entry.family,
        variable,
        body,
        program,
        functions: original(starts, { name, variable, body }, functions),
        ...parameterValues(program.parameters, context),
        latex: text,
        lines: [[latex(text)]],
        sentence: sentenceOf(name, order, starts),
        tier: entry.tier,
        unit: readUnit(entry.unit),
        starts,
      });
    } catch (error) {
      if (error instanceof TooLarge) return failed('This formula is too large to be worked out.');
      throw error;
    }
  },

  marks: (id, _entry, result, tier) => (result.tier === tier.id ? [curveMark(id, result, tier)] : []),
};

const headPattern = /^\s*(\p{L}\w*)\s*['′″‴’]+\s*\(/u;

/** Whether a text gives a derivative: f\'\'(x) = …. */
export const isGivenDerivative = (text: string): boolean => headPattern.test(text) && text.includes('=');

function givenIn(text: string, scope: Scope) {
  const reading = readStatement(text, scope);
  return reading.ok && reading.value.kind === 'givenDerivative' ? reading.value : null;
}

/** f, f′, … at one place. */
interface Start {
  readonly at: Expression;
  readonly values: readonly Expression[];
}

/** The start values; null where there are none, a sentence where they cannot be used. */
function startOf(
  { startAt, startValues }: GivenDerivativeEntry,
  order: number,
  scope: Scope,
  name: string,
): Start | string | null {
  const texts = startValues
    .split(';')
    .map((text) => text.trim())
    .filter((text) => text !== '');
  if (texts.length === 0) return null;
  if (texts.length !== order) {
    const wanted = Array.from({ length: order }, (_, k) => primed(name, k)).join(' and ');
    return `Start values are needed for ${wanted}, with ; between.`;
  }
  const readings = [startAt, ...texts].map((text) => readExpression(text, scope));
  const wrong = readings.findIndex(
    (reading) => !reading.ok || tree.mentioned(reading.value).functions.size > 0,
  );
  if (wrong >= 0) return `“${[startAt, ...texts][wrong] ?? ''}” is not a number.`;
  const [at, ...values] = readings.map((reading) => (reading as { value: Expression }).value) as [
    Expression,
    ...Expression[],
  ];
  return { at, values };
}

/** With start values the function itself is known under its name. */
function original(
  starts: Start | null,
  { name, variable, body }: { name: string; variable: string; body: Expression },
  functions: Functions,
): Functions {
  if (!starts) return functions;
  return new Map([
    ...functions,
    [name, { variables: [variable], body: fromDerivative(body, variable, starts.at, starts.values) }],
  ]);
}

function sentenceOf(name: string, order: number, starts: Start | null): string {
  return starts
    ? `With its start values ${name} itself is known: use it in other formulas.`
    : `Only ${primed(name, order)} is given; start values would say which ${name} is meant.`;
}
