import {
  closedFormula,
  compile,
  completeDerivatives,
  evaluatorFor,
  ifInTime,
  isNowhereDefined,
  latexFunction,
  latexName,
  printLatex,
  readDefinition,
  TooLarge,
} from '@yperkine/core';
import { latex } from '../../numbers/line.ts';
import { common, idSchema, typedSchema, unitSchema } from '../../fields/fields.ts';
import { curveMark } from '../curveMark.ts';
import {
  functionsMentioned,
  idsMentioned,
  parameterValues,
  rememberedHead,
  statedUnit,
  unreadable,
} from '../formula.ts';
import { isSameFunctions } from '../formulaValue.ts';
import type { EntryKind } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import { type CurveResult, asStated, type StatedCurve } from '../curve.ts';
import { toneOf } from '../../fields/tone.ts';
import { z } from 'zod';

const functionSchema = z.strictObject({
  ...common,
  kind: z.literal('function'),
  /** The only copy of the formula. */
  text: typedSchema,
  tier: idSchema,
  /** The family of colours. */
  family: z.int().min(0).max(9),
  /** The unit of its heights. */
  unit: unitSchema,
});
export type FunctionEntry = z.infer<typeof functionSchema>;

/** A function given by a formula, such as f(x) = 3x^2 - 5x - 2. */
export const functionKind: EntryKind<FunctionEntry, StatedCurve> = {
  schema: functionSchema,
  defaults: { family: 0, unit: '' },
  standsOn: () => [],
  defines(entry) {
    const head = rememberedHead(entry.text);
    return head && { name: head.name, isFunction: head.variable !== undefined };
  },
  head: (entry) => ({ heading: 'Given', tone: toneOf(0, entry.family) }),
  curve: (result) => result,
  say: asStated,

  dependsOn(entry, directory) {
    const reading = readDefinition(entry.text, directory.scope);
    return reading.ok ? idsMentioned(reading.value.body, directory, reading.value.variable) : [];
  },

  workOut(entry, context, previous) {
    const reading = readDefinition(entry.text, context.directory.scope);
    if (!reading.ok) return unreadable(reading.problem);
    const definition = reading.value;
    if (definition.variable === undefined) {
      return failed(`A function needs its variable: write ${definition.name}(x) = ….`);
    }
    const { variable } = definition;
    const functions = functionsMentioned(definition.body, context);
    if (!functions) return waiting('This waits for another entry that cannot be worked out yet.');
    const body = sameTree(previous?.body, definition.body);
    const isSame =
      previous?.name === definition.name &&
      previous.body === body &&
      isSameFunctions(previous.functions, functions);
    try {
      if (!isSame) ifInTime(mostOperationsOfGlue, () => completeDerivatives(body, variable));
      const program = isSame ? previous.program : compile(body, variable, functions);
      const values = parameterValues(program.parameters, context);
      const { unit, sentence } = statedUnit(entry.unit, definition.body, context);
      const isEmpty = ifInTime(mostOperations, () =>
        hasNoValue({ program, body, variable, functions }, values.parameters),
      );
      return worked({
        ...namedCurve(definition.name, variable, body),
        program,
        functions: isSame ? previous.functions : functions,
        ...values,
        tier: entry.tier,
        family: entry.family,
        unit,
        sentence: isEmpty ? `${definition.name} has no value anywhere: its domain is empty.` : sentence,
      });
    } catch (error) {
      if (error instanceof TooLarge)
        return failed('This formula is too large to be worked out; please split it into smaller parts.');
      throw error;
    }
  },

  marks: (id, _entry, result, tier) => (result.tier === tier.id ? [curveMark(id, result, tier)] : []),
};

/** Operations that looking for a value may take. */
const mostOperations = 300_000;
/** Operations that slopes at single points may take. */
const mostOperationsOfGlue = 2_000_000;
/** How far from 0 a value is looked for. */
const reach = 1e6;
const looks = Float64Array.from({ length: 200 }, (_, i) => Math.sinh(((i - 99.6) / 100) * Math.asinh(reach)));

/** Whether it is proved that a function has no value within reach; asked only where none is in sight. */
function hasNoValue(
  { program, body, variable, functions }: Pick<CurveResult, 'program' | 'body' | 'variable' | 'functions'>,
  parameters: readonly number[],
): boolean {
  const seen = new Float64Array(looks.length);
  evaluatorFor(program).evaluate(looks, seen, parameters);
  if (!seen.every(Number.isNaN) || !parameters.every(Number.isFinite)) return false;
  const values = new Map(program.parameters.map((name, i) => [name, parameters[i] as number]));
  return isNowhereDefined(closedFormula(body, values, functions), variable, [-reach, reach]) === true;
}

/** The previous tree where it is equal, so that what was compiled for it is found again. */
function sameTree(previous: CurveResult['body'] | undefined, next: CurveResult['body']): CurveResult['body'] {
  return previous && JSON.stringify(previous) === JSON.stringify(next) ? previous : next;
}

function namedCurve(name: string, variable: string, body: CurveResult['body']) {
  const head = `${latexFunction(name, 0)}(${latexName(variable)})`;
  const text = `${head} = ${printLatex(body)}`;
  return { name, order: 0, variable, body, latex: text, lines: [[latex(text)]] };
}
