import {
  closedFormula,
  compile,
  evaluateAt,
  latexFunction,
  latexName,
  printLatex,
  readExpression,
  tree,
  type ToldSolutions,
  type Expression,
} from '@yperkine/core';
import { z } from 'zod';
import type { RoundingRule } from '../../numbers/format.ts';
import { latex, live, type Line } from '../../numbers/line.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, decimalSchema, idSchema, typedSchema } from '../../fields/fields.ts';
import { primed, type CurveResult } from '../curve.ts';
import { idsMentioned, unreadable } from '../formula.ts';
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
import { guarded, noFunction, withAnswer } from '../asking.ts';

const slopeEqualsSchema = z.strictObject({
  ...common,
  kind: z.literal('slopeEquals'),
  on: idSchema,
  /** The slope that is looked for: a number or a formula of parameters. */
  level: typedSchema,
  from: decimalSchema,
  to: decimalSchema,
});
export type SlopeEqualsEntry = z.infer<typeof slopeEqualsSchema>;

export interface SlopeEqualsResult {
  readonly curve: CurveResult;
  readonly found: ToldSolutions;
  readonly slope: number;
  /** The slope that was asked for, as it was typed. */
  readonly level: Expression;
}

/** Every place of an interval at which the slope of a curve is a given number, with the proof that there is no other. */
export const slopeEqualsKind: EntryKind<SlopeEqualsEntry, SlopeEqualsResult> = {
  schema: slopeEqualsSchema,
  defaults: { level: '0' },
  standsOn: (entry) => [entry.on],
  dependsOn: (entry, directory) => {
    const reading = readExpression(entry.level, directory.scope);
    return [entry.on, ...(reading.ok ? idsMentioned(reading.value, directory) : [])];
  },
  head: (entry, result) => ({
    heading: result
      ? `Where is ${primed(result.curve.name, result.curve.order + 1)} equal to ${entry.level}?`
      : 'Where is the slope k?',
    tone: result ? toneOf(result.curve.order + 1, result.curve.family) : 'quiet',
  }),

  workOut(entry, context) {
    const curve = context.curve(entry.on);
    if (!curve) return waiting(noFunction);
    const [from, to] = [Number(entry.from), Number(entry.to)];
    if (!(from < to)) return failed('The interval goes from a smaller to a larger number.');
    const reading = readExpression(entry.level, context.directory.scope);
    if (!reading.ok) return unreadable(reading.problem);
    const values = parameterMap(curve, context, [...tree.mentioned(reading.value).names]);
    if (!values) return waiting(unknownNumber);
    return guarded(() => {
      const level = closedFormula(reading.value, values);
      const body = closedFormula(curve.body, values, curve.functions);
      const asked = { ask: 'solve', variable: curve.variable, interval: [from, to], order: 1 } as const;
      return withAnswer(context, { ...asked, body, equals: level }, (found) => {
        return worked({ curve, found, slope: evaluateAt(compile(level, ''), 0), level: reading.value });
      });
    });
  },

  say: (result, entry, { rule }) => ({
    lines: linesOf(result, rule),
    sentence: sentenceOf(result, entry, rule),
  }),

  results: ({ found }, xUnit) => placeResults(found.solutions, xUnit),

  places: ({ curve, found }) =>
    found.solutions.map(({ value }, i) => ({
      key: `place ${i}`,
      label: `place ${i + 1}`,
      x: value,
      y: evaluateAt(curve.program, value, curve.parameters),
      tier: curve.tier,
    })),

  marks(id, _entry, { curve, found, slope }, tier) {
    if (curve.tier !== tier.id) return [];
    return found.solutions.flatMap(({ value: x }) => {
      const y = evaluateAt(curve.program, x, curve.parameters);
      if (!Number.isFinite(y)) return [];
      const tone = toneOf(curve.order + 1, curve.family);
      const [px, py] = [tier.toX(x), tier.toY(y)];
      const [dx, dy] = [tier.pixelsPerX, -slope * tier.pixelsPerY];
      const scale = pieceReach / Math.hypot(dx, dy);
      const ends = { x0: px - dx * scale, y0: py - dy * scale, x1: px + dx * scale, y1: py + dy * scale };
      return [
        { kind: 'line' as const, entry: id, ...ends, tone, weight: 2.5, dash: [] },
        { kind: 'dot' as const, x: px, y: py, tone: toneOf(curve.order, curve.family) },
      ];
    });
  },
};

/** Pixels of the piece of tangent on either side of a place that was found. */
const pieceReach = 44;

/** The line f′(x) = k, and under it the places, exact where they are proved to be. */
function linesOf({ curve, found, level }: SlopeEqualsResult, rule: RoundingRule): Line[] {
  const x = latexName(curve.variable);
  const question = latex(`${latexFunction(curve.name, curve.order + 1)}(${x}) = ${printLatex(level)}`);
  const places = found.solutions.map((place) => [latex(x), ...placeParts(place, rule)]);
  const stretches = found.everywhere.map((stretch): Line => [
    latex(`${x} \\in`),
    live(` ${intervalText(stretch, rule)}`),
  ]);
  return [[question], ...stretches, ...places];
}

function sentenceOf(
  { curve, found }: SlopeEqualsResult,
  { from, to, level }: SlopeEqualsEntry,
  rule: RoundingRule,
): string {
  const where = overInterval(curve.variable, { from, to });
  const slope = `the slope of ${primed(curve.name, curve.order)} is ${level}`.replaceAll('-', '−');
  if (found.everywhere.length > 0) {
    const stretches = found.everywhere.map((stretch) => intervalText(stretch, rule)).join(' and ');
    return `${where}, ${slope} on ${stretches}.`;
  }
  if (found.complete && found.solutions.length === 0) return `${where}, ${slope} nowhere (proved).`;
  const places = countedPlaces(found.solutions.length);
  return found.complete
    ? `${where}, ${slope} ${places}, and nowhere else (proved).`
    : `${where}, ${slope} ${places} that could be proved; others may have been missed.`;
}
