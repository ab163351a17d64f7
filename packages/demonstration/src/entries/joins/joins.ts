import {
  closedFormula,
  exactValue,
  knownNumber,
  tree,
  type Expression,
  type ToldJoin,
  type ToldValues,
} from '@yperkine/core';
import { z } from 'zod';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { words, type Line } from '../../numbers/line.ts';
import { settingText } from '../../numbers/setting.ts';
import type { Mark } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import type { PointShape } from '../../fields/look.ts';
import { intervalStudy, onInterval, overTyped, studied, withAnswer, type TypedInterval } from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { failed, worked } from '../outcome.ts';
import { shortPlace } from '../provedPlaces.ts';
import type { StudyTable } from '../study.ts';

const joinsSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('joins'),
  /** The parameter of which it is asked which value would mend the joins; empty for none. */
  constant: z.string().max(60),
});
export type JoinsEntry = z.infer<typeof joinsSchema>;

/** A value of the constant that makes a join smooth, or continuous where none does that. */
interface Mend {
  readonly constant: string;
  /** As the text of a slider. */
  readonly value: string;
}

export interface JoinsResult {
  readonly curve: CurveResult;
  readonly joins: readonly ToldJoin[];
  /** The fractions and whole numbers that mend a join, each once. */
  readonly mends: readonly Mend[];
  readonly interval: TypedInterval;
}

/** What a function does where its pieces meet: values and slopes from both sides, and what would mend them. */
export const joinsKind: EntryKind<JoinsEntry, JoinsResult> = {
  schema: joinsSchema,
  defaults: { constant: '' },
  ...intervalStudy,
  head: (_entry, result) => ({
    heading: result ? `Joins of ${primed(result.curve.name, result.curve.order)}` : 'Joins',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context) =>
    studied(entry, context, ({ curve, interval, asked, values }) => {
      const { constant } = entry;
      if (constant !== '' && !values.has(constant)) {
        return failed(`${primed(curve.name, curve.order)} does not depend on a number ${constant}.`);
      }
      const mend = constant === '' ? null : { constant, body: openFor(constant, curve, values) };
      return withAnswer(context, { ask: 'joins', ...asked, mend }, ({ joins }) =>
        worked({
          curve,
          joins,
          mends: mendsOf(joins, constant),
          interval,
        }),
      );
    }),

  say: ({ curve, joins, interval }, { constant }, { rule }) => ({
    lines: joins.flatMap((join) => linesOf(join, curve, constant, rule)),
    sentence: sentenceOf(joins, curve, interval),
    ...(joins.length > 0 ? { table: tableOf(joins, curve, rule) } : {}),
  }),

  places: ({ curve, joins }) =>
    joins.flatMap(({ place, value }, i) =>
      value === null
        ? []
        : [{ key: `join ${i}`, label: `join ${i + 1}`, x: place.value, y: value, tier: curve.tier }],
    ),

  marks(id, _entry, { curve, joins }, tier) {
    if (curve.tier !== tier.id) return [];
    return joins.flatMap((join): Mark[] => {
      const { value, left, right, isContinuous } = join;
      const ends = [left.value, right.value].filter((height) => height !== null && height !== value);
      const y = value ?? ends[0] ?? null;
      if (y === null) return [];
      const x = tier.toX(join.place.value);
      const dot = (height: number, shape?: PointShape): Mark => ({
        kind: 'dot',
        entry: id,
        x,
        y: tier.toY(height),
        tone: 'ink',
        ...(shape ? { shape } : {}),
      });
      // What an end of a piece does not reach is open, the value filled.
      const open = isContinuous ? [] : ends.map((height) => dot(height as number, 'ring'));
      const own = value === null ? [] : [dot(value, isContinuous ? 'diamond' : undefined)];
      return [...open, ...own, { kind: 'label', x, y: tier.toY(y), tone: 'ink', text: wordFor(join) }];
    });
  },
};

/** The formula with one parameter left as it is. */
function openFor(constant: string, curve: CurveResult, values: ReadonlyMap<string, number>): Expression {
  const others = new Map([...values].filter(([name]) => name !== constant));
  return closedFormula(curve.body, others, curve.functions);
}

/** What a join is, in a word. */
const wordFor = ({ isContinuous, isDifferentiable, left, right }: ToldJoin): string => {
  if (isDifferentiable) return 'smooth';
  if (isContinuous) return 'corner';
  return left.value !== null && left.value === right.value ? 'hole' : 'jump';
};

const textOf = (value: number | null, rule: RoundingRule): string =>
  value === null ? '–' : format(knownNumber(value), rule).text;

function linesOf(
  join: ToldJoin,
  { variable, name, order }: CurveResult,
  constant: string,
  rule: RoundingRule,
): Line[] {
  const at = `At ${variable} = ${shortPlace(join.place, rule)}`;
  const { left, right, isContinuous, isDifferentiable, isTwiceDifferentiable } = join;
  const f = primed(name, order);
  const both = (a: number | null, b: number | null): string =>
    `${textOf(a, rule)} from the left, ${textOf(b, rule)} from the right`;
  const says = isTwiceDifferentiable
    ? `${f} is smooth, and its bend goes on, too`
    : isDifferentiable
      ? `${f} is smooth; its bend changes at once`
      : isContinuous
        ? `${f} has a corner: its slope is ${both(left.slope, right.slope)}`
        : `${f} is not continuous: its value is ${both(left.value, right.value)}`;
  return [[words(`${at}, ${says}.`)], ...mendingLine(join, constant, rule)];
}

/** "Every k makes it continuous at 2; k = 4 makes it smooth." */
function mendingLine({ place, mending }: ToldJoin, constant: string, rule: RoundingRule): Line[] {
  if (constant === '') return [];
  const at = shortPlace(place, rule);
  if (!mending)
    return [[words(`No value of ${constant} can be worked out that would mend the join at ${at}.`)]];
  const { continuous, smooth } = mending;
  const [begin = '', ...rest] = `${subjectOf(continuous, constant, rule)} it continuous at ${at}`;
  const first = continuous.values.length > 0 ? begin + rest.join('') : begin.toUpperCase() + rest.join('');
  if (!continuous.isEvery && continuous.values.length === 0) return [[words(`${first}.`)]];
  const isBoth = smooth.isEvery === continuous.isEvery && smooth.values.length === continuous.values.length;
  const also = isBoth ? ', and smooth' : `; ${subjectOf(smooth, constant, rule)} it smooth`;
  return [[words(`${first}${also}.`)]];
}

function mendsOf(joins: readonly ToldJoin[], constant: string): Mend[] {
  const found = joins.flatMap(({ mending }) => {
    const { smooth, continuous } = mending ?? {};
    const values = smooth?.values.length ? smooth.values : (continuous?.values ?? []);
    return values.flatMap(({ exact }) => {
      const value = exact && exactValue(exact, new Map());
      return value ? [settingText(value)] : [];
    });
  });
  return [...new Set(found)].map((value) => ({ constant, value }));
}

/** "k = 2 makes", "every k makes", "no k makes", or that none was found. */
function subjectOf(
  { isEvery, values, isComplete }: ToldValues,
  constant: string,
  rule: RoundingRule,
): string {
  if (isEvery) return `every ${constant} makes`;
  if (values.length > 0)
    return `${constant} = ${values.map((value) => shortPlace(value, rule)).join(' or ')} makes`;
  return isComplete ? `no ${constant} makes` : `no ${constant} was found that makes`;
}

function sentenceOf(joins: readonly ToldJoin[], curve: CurveResult, interval: TypedInterval): string {
  const where = overTyped(curve.variable, interval);
  if (joins.length === 0) return `${where} no pieces of ${primed(curve.name, curve.order)} meet.`;
  const rough = joins.filter(({ isDifferentiable }) => !isDifferentiable).length;
  const count = joins.length === 1 ? 'one join' : `${joins.length} joins`;
  if (rough === 0) return `${where} there ${joins.length === 1 ? 'is' : 'are'} ${count}, smooth everywhere.`;
  if (joins.length === 1) return `${where} there is one join; it is not smooth.`;
  return `${where} there are ${count}; ${rough} ${rough === 1 ? 'is' : 'are'} not smooth.`;
}

function tableOf(joins: readonly ToldJoin[], curve: CurveResult, rule: RoundingRule): StudyTable {
  return {
    caption: `Joins of ${primed(curve.name, curve.order)}`,
    head: [curve.variable, 'side', 'value', 'slope'],
    wordColumns: [1],
    rows: joins.flatMap(({ place, left, right }) =>
      (['left', 'right'] as const).map((side) => {
        const { value, slope } = side === 'left' ? left : right;
        const x = knownNumber(place.value, place.exact && exactValue(place.exact, new Map()));
        return {
          cells: [format(x, rule).text, side, textOf(value, rule), textOf(slope, rule)],
          numbers: [x, null, ...[value, slope].map((one) => (one === null ? null : knownNumber(one)))],
          ...(side === 'left' ? { place: { x: place.value, y: value } } : {}),
        };
      }),
    ),
  };
}

/** Whether a formula is in pieces, so that joins are worth asking for. */
export const isInPieces = (body: Expression): boolean =>
  body.kind === 'piecewise' || tree.children(body).some(isInPieces);
