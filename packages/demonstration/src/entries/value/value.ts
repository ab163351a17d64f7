import { latexName, printLatex, readDefinition, type Expression, type Reading } from '@yperkine/core';
import { z } from 'zod';
import type { Directory } from '../names.ts';
import { equalsResult, latex, unitPart, type Bounds } from '../../numbers/line.ts';
import { common, typedSchema } from '../../fields/fields.ts';
import { idsMentioned, rememberedHead, unreadable } from '../formula.ts';
import { formulaValue, readFormula, remembered, type FormulaValue, warningText } from '../formulaValue.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';
import { integralBounds } from './integralBounds.ts';

const valueSchema = z.strictObject({
  ...common,
  kind: z.literal('value'),
  /** A formula without a variable, such as f\'(3), or a name and its formula: m = f\'(3). */
  text: typedSchema,
});
export type ValueEntry = z.infer<typeof valueSchema>;

export interface ValueResult extends FormulaValue {
  readonly formula: Expression;
}

/** The value of a formula without a variable; with a name, a constant that follows what it is made of. */
export const valueKind: EntryKind<ValueEntry, ValueResult> = {
  schema: valueSchema,
  defaults: {},
  standsOn: () => [],
  dependsOn(entry, directory) {
    const body = formulaOf(entry.text, directory);
    return body.ok ? idsMentioned(body.value, directory) : [];
  },
  defines(entry) {
    const name = nameOf(entry.text);
    return name === undefined ? undefined : { name, isFunction: false };
  },
  head({ text }) {
    const name = nameOf(text);
    return { heading: name === undefined ? 'Value' : `Value of ${name}`, tone: 'ink' };
  },
  number: ({ value }) => value,
  unit: ({ unit }) => unit,

  workOut(entry, context) {
    const body = formulaOf(entry.text, context.directory);
    if (!body.ok) return unreadable(body.problem);
    let hasAsked = false;
    const ask: typeof context.ask = (question) => {
      hasAsked = true;
      return context.ask(question);
    };
    const outcome = formulaValue(body.value, { ...context, ask }, true);
    if (!outcome.ok) return outcome;
    const { value, form, bounds: told } = outcome.result;
    // Of an exact number no bounds are told. An entry asks one question at a time: a number that was asked for has its own.
    const asked = (): Bounds | null => (hasAsked ? told : integralBounds(body.value, context));
    const bounds = form !== null || value.exact ? null : asked();
    return worked({ ...outcome.result, formula: body.value, bounds });
  },

  say({ value, form, unit, bounds, warning, formula }, { text }, { rule }) {
    const name = nameOf(text);
    const head = latex(`${name === undefined ? '' : `${latexName(name)} = `}${printLatex(formula)}`);
    // A formula without a value is approximately nothing: the sentence says why.
    const result = Number.isNaN(value.value)
      ? []
      : [...equalsResult(value, rule, form, bounds), ...unitPart(unit)];
    return { lines: [[head, ...result]], sentence: warningText(warning, rule) };
  },

  marks: () => [],
};

/** The name before the equals sign, if there is one. */
const nameOf = (text: string): string | undefined =>
  text.includes('=') ? rememberedHead(text)?.name : undefined;

function formulaOf(text: string, directory: Directory): Reading<Expression> {
  if (nameOf(text) === undefined) return readFormula(text, directory);
  return remembered(directory, 'definition', text, () => {
    const reading = readDefinition(text, directory.scope);
    return reading.ok ? { ok: true, value: reading.value.body } : reading;
  });
}
