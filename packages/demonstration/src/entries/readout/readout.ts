import { printLatex, type KnownNumber } from '@yperkine/core';
import { z } from 'zod';
import { format } from '../../numbers/format.ts';
import { equalsResult, latex, unitPart } from '../../numbers/line.ts';
import { common, limits, standingSchema, textSizeSchema, typedSchema } from '../../fields/fields.ts';
import { withUnit } from '../../units/unit.ts';
import { unreadable } from '../formula.ts';
import { formulaValue, idsInText, readFormula } from '../formulaValue.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';
import type { StudyResult } from '../study.ts';

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

export interface ReadoutResult extends StudyResult {
  readonly value: KnownNumber;
  /** The number with its unit, as it is shown. */
  readonly text: string;
  /** Whether the text is the number itself, so that it may stand after an equals sign. */
  readonly isExact: boolean;
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
    if (!outcome.ok) return outcome;
    const { value, form, unit, warning } = outcome.result;
    const { text, isExact } = format(value, context.rule);
    const line = [
      latex(printLatex(reading.value)),
      ...equalsResult(value, context.rule, form),
      ...unitPart(unit),
    ];
    return worked({
      value,
      text: withUnit(text, unit),
      isExact,
      lines: [line],
      sentence: warning,
    });
  },

  results: ({ value }) => [{ key: 'value', label: 'value', number: value, unit: new Map() }],
  marks: () => [],
};
