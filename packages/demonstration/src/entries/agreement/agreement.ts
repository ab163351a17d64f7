import { closedFormula, evaluateAt, latexFunction, latexName, type ToldSolutions } from '@yperkine/core';
import { z } from 'zod';
import { latex, type Line } from '../../numbers/line.ts';
import type { RoundingRule } from '../../numbers/format.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, decimalSchema, idSchema } from '../../fields/fields.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import {
  countedPlaces,
  intervalText,
  overInterval,
  parameterMap,
  placeResults,
  placeParts,
  unknownNumber,
} from '../provedPlaces.ts';
import { guarded, withAnswer } from '../asking.ts';

const agreementSchema = z.strictObject({
  ...common,
  kind: z.literal('agreement'),
  on: idSchema,
  /** The curve that it is compared with. */
  with: idSchema,
  from: decimalSchema,
  to: decimalSchema,
});
export type AgreementEntry = z.infer<typeof agreementSchema>;

export interface AgreementResult {
  readonly curve: CurveResult;
  readonly other: CurveResult;
  readonly found: ToldSolutions;
}

/** Where two curves agree: a derivative worked out by hand with the computed one, everywhere or at single places. */
export const agreementKind: EntryKind<AgreementEntry, AgreementResult> = {
  schema: agreementSchema,
  defaults: {},
  standsOn: (entry) => [entry.on, entry.with],
  head: (_entry, result) => ({
    heading: result
      ? `Where do ${nameOf(result.curve)} and ${nameOf(result.other)} agree?`
      : 'Where do two functions agree?',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut(entry, context) {
    const [curve, other] = [context.curve(entry.on), context.curve(entry.with)];
    if (!curve || !other) return waiting('This waits for its functions, which cannot be worked out yet.');
    const [from, to] = [Number(entry.from), Number(entry.to)];
    if (!(from < to)) return failed('The interval goes from a smaller to a larger number.');
    if (curve.variable !== other.variable) {
      return failed(
        `${nameOf(curve)} and ${nameOf(other)} have different variables, ${curve.variable} and ${other.variable}.`,
      );
    }
    return guarded(() => {
      const [left, right] = [curve, other].map((one) => {
        const values = parameterMap(one, context);
        return values && closedFormula(one.body, values, one.functions);
      });
      if (!left || !right) return waiting(unknownNumber);
      const asked = { ask: 'solve', variable: curve.variable, interval: [from, to], order: 0 } as const;
      return withAnswer(context, { ...asked, body: left, equals: right }, (found) => {
        return worked({ curve, other, found });
      });
    });
  },

  say: (result, entry, { rule }) => ({
    lines: linesOf(result, rule),
    sentence: sentenceOf(result, entry, rule),
  }),

  results: ({ found }, xUnit) => placeResults(found.solutions, xUnit),

  marks(_id, _entry, { curve, found }, tier) {
    if (curve.tier !== tier.id) return [];
    const tone = toneOf(curve.order, curve.family);
    return found.solutions.flatMap(({ value: x }) => {
      const y = evaluateAt(curve.program, x, curve.parameters);
      return Number.isFinite(y) ? [{ kind: 'dot' as const, x: tier.toX(x), y: tier.toY(y), tone }] : [];
    });
  },
};

const nameOf = ({ name, order }: CurveResult): string => primed(name, order);

/** The question f′(x) = g(x), and under it the single places, exact where they are proved to be. */
function linesOf({ curve, other, found }: AgreementResult, rule: RoundingRule): Line[] {
  const x = latexName(curve.variable);
  const [left, right] = [curve, other].map(({ name, order }) => `${latexFunction(name, order)}(${x})`);
  const isOne = found.complete && found.everywhere.length === 1 && found.solutions.length === 0;
  if (isOne) return [[latex(`${left ?? ''} = ${right ?? ''}`)]];
  const places = found.solutions.map((place) => [latex(x), ...placeParts(place, rule)]);
  return [[latex(`${left ?? ''} = ${right ?? ''}\\,?`)], ...places];
}

function sentenceOf(
  { curve, other, found }: AgreementResult,
  entry: AgreementEntry,
  rule: RoundingRule,
): string {
  const where = overInterval(curve.variable, entry);
  const both = `${nameOf(curve)} and ${nameOf(other)}`;
  const [first] = found.everywhere;
  const count = found.solutions.length;
  const isWhole =
    found.complete &&
    found.everywhere.length === 1 &&
    first?.from.value === Number(entry.from) &&
    first.to.value === Number(entry.to) &&
    first.includesFrom &&
    first.includesTo;
  if (isWhole) return `${where}, ${both} agree everywhere (proved).`;
  if (found.complete && count === 0 && !first) return `${where}, ${both} agree nowhere (proved).`;
  const stretches = found.everywhere.map((stretch) => `on ${intervalText(stretch, rule)}`).join(' and ');
  const places = [stretches, count > 0 || stretches === '' ? countedPlaces(count) : '']
    .filter((part) => part !== '')
    .join(' and ');
  return found.complete
    ? `${where}, ${both} agree ${places}, and nowhere else (proved).`
    : `${where}, ${both} agree ${places} that could be proved; others may have been missed.`;
}
