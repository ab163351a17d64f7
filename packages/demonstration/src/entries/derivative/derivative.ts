import {
  compile,
  awayFromJumps,
  derivativeOf,
  hasSingleValues,
  latexFunction,
  latexName,
  printLatex,
  TooLarge,
  type Table,
} from '@yperkine/core';
import { latex } from '../../numbers/line.ts';
import { curveMark } from '../curveMark.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, idSchema } from '../../fields/fields.ts';
import { z } from 'zod';
import type { EntryKind } from '../kind.ts';
import { failed, waiting, worked, type Outcome } from '../outcome.ts';
import { per } from '../../units/unit.ts';
import { primed, type CurveResult, asStated, type StatedCurve } from '../curve.ts';

const derivativeSchema = z.strictObject({
  ...common,
  kind: z.literal('derivative'),
  of: idSchema,
  degree: z.int().min(1).max(8),
  tier: idSchema,
});
export type DerivativeEntry = z.infer<typeof derivativeSchema>;

/** The derivative of a function as a curve in a tier of its own, with its formula. */
export const derivativeKind: EntryKind<DerivativeEntry, StatedCurve> = {
  schema: derivativeSchema,
  defaults: { degree: 1 },
  standsOn: (entry) => [entry.of],
  head: (_entry, result) => ({
    heading: result ? `Slope ${primed(result.name, result.order)}` : 'Slope',
    tone: result ? toneOf(result.order, result.family) : 'quiet',
  }),
  curve: (result) => result,
  say: asStated,

  workOut(entry, context, previous): Outcome<StatedCurve> {
    const of = context.curve(entry.of);
    if (!of) return waiting('This waits for its function, which cannot be worked out yet.');
    if (hasSingleValues(of.body, of.variable))
      return failed('A factorial has values at whole numbers only, so it has no slope.');
    const order = of.order + entry.degree;
    const { parameters, exactParameters, family } = of;
    const unit = per(of.unit, context.xUnit, entry.degree);
    const values = { parameters, exactParameters, family, unit };
    const isSame = previous?.program !== undefined && derivedFrom.get(previous.program) === of.program;
    if (isSame && previous.order === order) return worked({ ...previous, ...values, tier: entry.tier });
    try {
      const derived = derivativeOf(of.body, of.variable, entry.degree);
      const body = awayFromJumps(derived, of.body, [of.variable]);
      // The slope of a running total is the function: no integral has to be worked out to know that it is there.
      const program =
        of.body.kind === 'integral'
          ? compile(body, of.variable, of.functions)
          : compile(of.body, of.variable, of.functions, entry.degree);
      derivedFrom.set(program, of.program);
      const head = `${latexFunction(of.name, order)}(${latexName(of.variable)})`;
      const table = body.kind === 'spline' ? body.spline : null;
      const text = table ? head : `${head} = ${printLatex(body)}`;
      return worked({
        name: of.name,
        order,
        variable: of.variable,
        body,
        program,
        functions: of.functions,
        ...values,
        latex: text,
        lines: [[latex(text)]],
        tier: entry.tier,
        sentence: sentenceOf(of, entry.degree, table),
      });
    } catch (error) {
      if (error instanceof TooLarge) return failed('This derivative is too long to be worked out.');
      throw error;
    }
  },

  marks: (id, _entry, result, tier) => (result.tier === tier.id ? [curveMark(id, result, tier)] : []),
};

function sentenceOf(of: CurveResult, degree: number, table: Table | null): string {
  const below = primed(of.name, of.order + degree - 1);
  const height = `At each ${of.variable} its height is the slope of ${below}.`;
  if (!table) return height;
  return `${height} It has no value where ${below} ${table.hasJumps ? 'has a corner or ends' : 'ends'}.`;
}

/** Which program a derivative's program was made from, so that a moving slider compiles nothing. */
const derivedFrom = new WeakMap<object, object>();
