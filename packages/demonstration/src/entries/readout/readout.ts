import { printLatex, type Expression } from '@yperkine/core';
import { z } from 'zod';
import { equalsResult, latex, unitPart } from '../../numbers/line.ts';
import { common, limits, standingSchema, textSizeSchema, typedSchema } from '../../fields/fields.ts';
import { unreadable } from '../formula.ts';
import { formulaValue, idsInText, readFormula, type FormulaValue, warningText } from '../formulaValue.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';

const readoutSchema = z.strictObject({
  ...common,
  kind: z.literal('readout'),
  /** The formula whose value is shown. */
  text: typedSchema,
  /** What stands before the number; empty for the formula itself. */
  title: z.string().max(limits.title),
  standing: standingSchema,
  size: textSizeSchema,
  /** Whether its least and its greatest value so far stand under it. */
  keeps: z.boolean(),
  /** Where motion halts by itself: where the number turns. */
  halt: z.enum(['never', 'least', 'greatest', 'either']),
});
export type ReadoutEntry = z.infer<typeof readoutSchema>;

export interface ReadoutResult extends FormulaValue {
  readonly formula: Expression;
}

/** A live number that is shown large, with the least and the greatest value that it has had. */
export const readoutKind: EntryKind<ReadoutEntry, ReadoutResult> = {
  schema: readoutSchema,
  defaults: {
    title: '',
    standing: { at: 'screen', x: 0.96, y: 0.08 },
    size: 'large',
    keeps: true,
    halt: 'never',
  },
  standsOn: () => [],
  dependsOn: ({ text }, directory) => idsInText(text, directory),
  head: ({ title, text }) => ({ heading: `Large number ${title || text}`, tone: 'ink' }),

  workOut(entry, context) {
    const reading = readFormula(entry.text, context.directory);
    if (!reading.ok) return unreadable(reading.problem);
    const outcome = formulaValue(reading.value, context, true);
    return outcome.ok ? worked({ ...outcome.result, formula: reading.value }) : outcome;
  },

  say: ({ value, form, unit, warning, formula }, _entry, { rule }) => ({
    lines: [[latex(printLatex(formula)), ...equalsResult(value, rule, form), ...unitPart(unit)]],
    sentence: warningText(warning, rule),
  }),

  results: ({ value }) => [{ key: 'value', label: 'value', number: value, unit: new Map() }],
  marks: () => [],
};
