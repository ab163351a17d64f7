import {
  compile,
  fromDerivative,
  latexFunction,
  latexName,
  printLatex,
  TooLarge,
  tree,
  type Expression,
} from '@yperkine/core';
import { z } from 'zod';
import { latex } from '../../numbers/line.ts';
import { curveMark } from '../curveMark.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, idSchema } from '../../fields/fields.ts';
import { primed, type CurveResult, asStated, type StatedCurve } from '../curve.ts';
import { parameterValues } from '../formula.ts';
import { isGivenAlone } from '../givenDerivative/givenDerivative.ts';
import type { EntryKind } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import { times } from '../../units/unit.ts';

const originalSchema = z.strictObject({
  ...common,
  kind: z.literal('original'),
  /** The derivative that is given, with its start values. */
  of: idSchema,
  /** 0 for f itself, 1 for f′ where f″ is given. */
  degree: z.int().min(0).max(7),
  tier: idSchema,
});
export type OriginalEntry = z.infer<typeof originalSchema>;

/** The function itself (or a lower derivative) behind a given derivative, by its start values, as a curve of its own. */
export const originalKind: EntryKind<OriginalEntry, StatedCurve> = {
  schema: originalSchema,
  defaults: { degree: 0 },
  standsOn: ({ of }) => [of],
  head: (entry, result) => ({
    heading: result ? `${primed(result.name, result.order)} from its start values` : 'The function itself',
    tone: result ? toneOf(entry.degree, result.family) : 'quiet',
  }),
  curve: (result) => result,
  say: asStated,

  workOut({ of, degree: order, tier }, context, previous) {
    const given = context.curve(of);
    if (!given) return waiting('This waits for its derivative, which cannot be worked out yet.');
    if (!isGivenAlone(given))
      return failed(`${primed(given.name, given.order)} is not given by a derivative alone.`);
    const { name, variable, starts } = given;
    if (order >= given.order)
      return failed(`${primed(name, order)} is no function behind ${primed(name, given.order)}.`);
    if (!starts) {
      const wanted = Array.from({ length: given.order }, (_, k) => primed(name, k)).join(' and ');
      return failed(
        `Many functions have this derivative: give start values for ${wanted}, in the card of ${primed(name, given.order)}.`,
      );
    }
    try {
      const key = JSON.stringify([given.body, starts, order, bodiesBehind(given)]);
      const isSame = previous !== undefined && madeFrom.get(previous.program) === key;
      const body = isSame
        ? previous.body
        : fromDerivative(given.body, variable, starts.at, starts.values.slice(order));
      const program = isSame ? previous.program : compile(body, variable, given.functions);
      madeFrom.set(program, key);
      const head = `${latexFunction(name, order)}(${latexName(variable)})`;
      const isKnown = !holdsIntegral(body);
      const text = isKnown ? `${head} = ${printLatex(body)}` : head;
      const unit = Array.from({ length: given.order - order }).reduce<CurveResult['unit']>(
        (product) => times(product, context.xUnit),
        given.unit,
      );
      return worked({
        name,
        order,
        family: given.family,
        variable,
        body,
        program,
        functions: given.functions,
        ...parameterValues(program.parameters, context),
        latex: text,
        lines: [[latex(text)]],
        sentence: `By integrating ${primed(name, given.order)} from the start values.`,
        tier,
        unit,
      });
    } catch (error) {
      if (error instanceof TooLarge) return failed('This is too large to be worked out.');
      throw error;
    }
  },

  marks: (id, _entry, result, tier) => (result.tier === tier.id ? [curveMark(id, result, tier)] : []),
};

/** Which derivative a program was made from, so that a moving slider compiles nothing. */
const madeFrom = new WeakMap<object, string>();

/** The formulas of the functions that a derivative is made of. */
const bodiesBehind = ({ name, functions }: CurveResult): unknown[] =>
  [...functions].flatMap(([key, { body }]) => (key === name ? [] : [[key, body]]));

const holdsIntegral = (node: Expression): boolean =>
  node.kind === 'integral' || tree.children(node).some(holdsIntegral);
