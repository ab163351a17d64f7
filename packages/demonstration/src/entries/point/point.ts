import {
  evaluateAt,
  exactValue,
  knownNumber,
  latexFunction,
  meetsZeroToZero,
  type KnownNumber,
  type Rational,
} from '@yperkine/core';
import { exactTextOf } from '../../numbers/exactText.ts';
import { withUnit } from '../../units/unit.ts';
import { equalsResult, latex, live, unitPart } from '../../numbers/line.ts';
import { format } from '../../numbers/format.ts';
import { toneOf } from '../../fields/tone.ts';
import { atPlace } from '../../fields/fields.ts';
import { z } from 'zod';
import { zeroToZero } from '../formulaValue.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { waiting, worked } from '../outcome.ts';
import { primed, type CurveResult } from '../curve.ts';
import { shownValue, type ParameterResult } from '../parameter/result.ts';

const pointSchema = z.strictObject({ ...atPlace, kind: z.literal('point') });
export type PointEntry = z.infer<typeof pointSchema>;

export interface PointResult extends Place {
  readonly y: KnownNumber;
}

/** A point that sits on a curve at the value of a parameter: the point and the slider are the same thing. */
export const pointKind: EntryKind<PointEntry, PointResult> = {
  schema: pointSchema,
  defaults: {},
  standsOn: (entry) => [entry.on, entry.parameter],
  head: (_entry, result) => ({
    heading: result ? `Point on ${placeWords(result)}` : 'Point on the curve',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut(entry, context) {
    const place = placeOn(entry, context);
    if (typeof place === 'string') return waiting(place);
    const { curve, at } = place;
    const y = valueOn(curve, at);
    return worked({ curve, at, y });
  },

  say({ curve, at, y }, _entry, { rule, xUnit }) {
    const name = latexFunction(curve.name, curve.order);
    const place = shownValue(at, rule);
    const form = at.value.exact && exactTextOf(curve.body, exactValues(curve, at.value.exact), y);
    const line = [
      latex(`${name}(`),
      live(place),
      latex(')'),
      ...equalsResult(y, rule, form),
      ...unitPart(curve.unit),
    ];
    const isConvention = at.value.exact && meetsZeroToZero(curve.body, exactValues(curve, at.value.exact));
    const sentence = Number.isFinite(y.value)
      ? `The point lies on the curve at ${curve.variable} = ${withUnit(place, xUnit)}, at the height ${withUnit(format(y, rule).text, curve.unit)}.${isConvention ? ` ${zeroToZero}` : ''}`
      : `${primed(curve.name, curve.order)} has no value at ${curve.variable} = ${place}.`;
    return { lines: [line], sentence };
  },

  results: ({ curve, y }) => [{ key: 'height', label: 'height', number: y, unit: curve.unit }],

  places: ({ curve, at, y }) => [
    { key: 'point', label: 'the point', x: at.value.value, y: y.value, tier: curve.tier },
  ],

  marks(id, entry, result, tier) {
    if (result.curve.tier !== tier.id || !Number.isFinite(result.y.value)) return [];
    const [x, y] = [tier.toX(result.at.value.value), tier.toY(result.y.value)];
    return [
      {
        kind: 'point',
        entry: id,
        x,
        y,
        tone: toneOf(result.curve.order, result.curve.family),
        parameter: entry.parameter,
      },
      {
        kind: 'label',
        x,
        y,
        tone: toneOf(result.curve.order, result.curve.family),
        text: `(${format(result.at.value, tier.rule).text}, ${format(result.y, tier.rule).text})`,
      },
    ];
  },
};

export interface Place {
  readonly curve: CurveResult;
  readonly at: ParameterResult;
}

/** The curve and the parameter that a study refers to, or the sentence that says what is missing. */
export function placeOn(entry: { on: string; parameter: string }, context: WorkContext): Place | string {
  const curve = context.curve(entry.on);
  if (!curve) return 'This waits for its function, which cannot be worked out yet.';
  const at = context.parameter(entry.parameter);
  if (!at) return 'This waits for its slider, which cannot be worked out yet.';
  return { curve, at };
}

/** "f′ at x = a", for headings. */
export const placeWords = ({ curve, at }: Place): string =>
  `${primed(curve.name, curve.order)} at ${curve.variable} = ${at.name}`;

/** The exact values of all names of a curve's formula, as far as they are known. */
export const exactValues = (curve: CurveResult, at: Rational): ReadonlyMap<string, Rational> =>
  new Map([...curve.exactParameters, [curve.variable, at]]);

/** The value of a curve at a parameter, exact where rational arithmetic reaches. */
export function valueOn(curve: CurveResult, at: ParameterResult) {
  const exactAt = at.value.exact;
  const exact = exactAt && exactValue(curve.body, exactValues(curve, exactAt));
  const value = evaluateAt(curve.program, at.value.value, curve.parameters);
  return knownNumber(value, Number.isNaN(value) ? null : exact);
}
