import {
  compile,
  isReserved,
  latexFunction,
  latexName,
  TooLarge,
  tree,
  type Expression,
} from '@yperkine/core';
import { z } from 'zod';
import { latex, live } from '../../numbers/line.ts';
import { curveMark } from '../curveMark.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, idSchema } from '../../fields/fields.ts';
import { per } from '../../units/unit.ts';
import { primed, type CurveResult } from '../curve.ts';
import { parameterValues } from '../formula.ts';
import type { EntryKind } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import { shownValue, type ParameterResult } from '../parameter/result.ts';

const differenceQuotientSchema = z.strictObject({
  ...common,
  kind: z.literal('differenceQuotient'),
  of: idSchema,
  /** The parameter that is the step h. */
  step: idSchema,
  direction: z.enum(['forward', 'backward', 'symmetric']),
  name: z.string().min(1).max(60),
  tier: idSchema,
  family: z.int().min(0).max(9),
});
export type DifferenceQuotientEntry = z.infer<typeof differenceQuotientSchema>;

export interface DifferenceQuotientResult extends CurveResult {
  /** What it was compiled from, so that a moving slider compiles nothing. */
  readonly madeFrom: readonly unknown[];
  readonly of: CurveResult;
  readonly step: ParameterResult;
}

/** The numerical derivative with a chosen step as a function of its own, to be laid beside the true one. */
export const differenceQuotientKind: EntryKind<DifferenceQuotientEntry, DifferenceQuotientResult> = {
  schema: differenceQuotientSchema,
  defaults: { direction: 'symmetric', family: 1 },
  standsOn: (entry) => [entry.of, entry.step],
  defines: ({ name }) => ({ name, isFunction: true }),
  head: ({ name, family }) => ({ heading: `Numerical derivative ${name}`, tone: toneOf(0, family) }),
  curve: (result) => result,

  workOut(entry, context, previous) {
    const { name, direction, tier, family } = entry;
    if (isReserved(name)) return failed(`“${name}” already has a meaning; please choose another name.`);
    const of = context.curve(entry.of);
    if (!of) return waiting('This waits for its function, which cannot be worked out yet.');
    const step = context.parameter(entry.step);
    if (!step) return waiting('This waits for its step h, which cannot be worked out yet.');
    if (step.value.value === 0) return failed(`With ${step.name} = 0 the quotient would be 0/0.`);
    const madeFrom = [of.program, step.name, direction, name];
    const isSame = previous?.madeFrom.every((part, i) => part === madeFrom[i]) ?? false;
    try {
      const body =
        isSame && previous ? previous.body : quotientOf(of.body, of.variable, step.name, direction);
      const program = isSame && previous ? previous.program : compile(body, of.variable, of.functions);
      const head = `${latexFunction(name, 0)}(${latexName(of.variable)})`;
      return worked({
        name,
        order: 0,
        family,
        variable: of.variable,
        body,
        program,
        functions: of.functions,
        ...parameterValues(program.parameters, context),
        latex: head,
        of,
        step,
        unit: per(of.unit, context.xUnit),
        tier,
        madeFrom,
      });
    } catch (error) {
      if (error instanceof TooLarge) return failed('This formula is too large to be worked out.');
      throw error;
    }
  },

  say: ({ latex: head, of, step }, { direction }, { rule }) => ({
    lines: [
      [latex(`${head} = ${quotientLatex(of, step.name, direction)}`)],
      [latex(latexName(step.name)), live(` = ${shownValue(step, rule)}`)],
    ],
    sentence: `Each height is the slope of a secant of ${primed(of.name, of.order)}; as ${step.name} shrinks it comes near ${primed(of.name, of.order + 1)}.`,
  }),

  marks: (id, _entry, result, tier) =>
    result.tier === tier.id ? [{ ...curveMark(id, result, tier), dash: [1, 4] }] : [],
};

type Direction = DifferenceQuotientEntry['direction'];

/** (f(x + h) − f(x))/h, (f(x) − f(x − h))/h or (f(x + h) − f(x − h))/(2h). */
function quotientOf(body: Expression, variable: string, step: string, direction: Direction): Expression {
  const [x, h] = [tree.name(variable), tree.name(step)];
  const at = (place: Expression): Expression => tree.substitute(body, variable, place);
  const upper = direction === 'backward' ? body : at(tree.add(x, h));
  const lower = direction === 'forward' ? body : at(tree.subtract(x, h));
  const width = direction === 'symmetric' ? tree.multiply(tree.number(2), h) : h;
  return tree.divide(tree.subtract(upper, lower), width);
}

function quotientLatex({ name, order, variable }: CurveResult, step: string, direction: Direction): string {
  const [f, x, h] = [latexFunction(name, order), latexName(variable), latexName(step)];
  const upper = direction === 'backward' ? `${f}(${x})` : `${f}(${x}+${h})`;
  const lower = direction === 'forward' ? `${f}(${x})` : `${f}(${x}-${h})`;
  return `\\dfrac{${upper}-${lower}}{${direction === 'symmetric' ? '2' : ''}${h}}`;
}
