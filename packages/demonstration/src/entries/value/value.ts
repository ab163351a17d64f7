import {
  closedFormula,
  compile,
  evaluateAt,
  exactValue,
  knownNumber,
  latexName,
  printLatex,
  readDefinition,
  readExpression,
  TooLarge,
  type Expression,
  type KnownNumber,
  type Reading,
  type Scope,
} from '@yperkine/core';
import { z } from 'zod';
import { exactTextOf } from '../../numbers/exactText.ts';
import type { Unit } from '../../units/unit.ts';
import { equalsResult, latex, unitPart } from '../../numbers/line.ts';
import { common, typedSchema } from '../../schema/fields.ts';
import {
  functionsMentioned,
  idsMentioned,
  parameterValues,
  rememberedHead,
  statedUnit,
  unreadable,
} from '../formula.ts';
import type { EntryKind } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import type { StudyResult } from '../study.ts';

export const valueSchema = z.strictObject({
  ...common,
  kind: z.literal('value'),
  /** A formula without a variable, such as f\'(3), or a name and its formula: m = f\'(3). */
  text: typedSchema,
});
export type ValueEntry = z.infer<typeof valueSchema>;

export interface ValueResult extends StudyResult {
  readonly value: KnownNumber;
  readonly unit: Unit;
}

/** The value of a formula without a variable; with a name, a constant that follows what it is made of. */
export const valueKind: EntryKind<ValueEntry, ValueResult> = {
  schema: valueSchema,
  defaults: {},
  standsOn: () => [],
  dependsOn(entry, { scope, ...directory }) {
    const body = formulaOf(entry.text, scope);
    return body.ok ? idsMentioned(body.value, { scope, ...directory }) : [];
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
    const body = formulaOf(entry.text, context.directory.scope);
    if (!body.ok) return unreadable(body.problem);
    const functions = functionsMentioned(body.value, context);
    if (!functions) return waiting('This waits for another entry that cannot be worked out yet.');
    try {
      const program = compile(body.value, '', functions);
      const { parameters, exactParameters } = parameterValues(program.parameters, context);
      const number = evaluateAt(program, 0, parameters);
      const formula = closedFormula(body.value, new Map(), functions);
      const value = knownNumber(number, Number.isNaN(number) ? null : exactValue(formula, exactParameters));
      const name = nameOf(entry.text);
      const head = latex(`${name === undefined ? '' : `${latexName(name)} = `}${printLatex(body.value)}`);
      const { unit, sentence } = statedUnit('', body.value, context);
      const result = equalsResult(value, context.rule, exactTextOf(formula, exactParameters, value));
      return worked({
        value,
        unit,
        lines: [[head, ...result, ...unitPart(unit)]],
        sentence: Number.isNaN(number) ? 'This has no value.' : sentence,
      });
    } catch (error) {
      if (error instanceof TooLarge) return failed('This is too large to be worked out.');
      throw error;
    }
  },

  marks: () => [],
};

/** The name before the equals sign, if there is one. */
const nameOf = (text: string): string | undefined =>
  text.includes('=') ? rememberedHead(text)?.name : undefined;

function formulaOf(text: string, scope: Scope): Reading<Expression> {
  if (nameOf(text) === undefined) return readExpression(text, scope);
  const reading = readDefinition(text, scope);
  return reading.ok ? { ok: true, value: reading.value.body } : reading;
}
