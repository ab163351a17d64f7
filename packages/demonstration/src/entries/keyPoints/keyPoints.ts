import { evaluateAt, exactValue, knownNumber, type Expression } from '@yperkine/core';
import { z } from 'zod';
import { exactText } from '../../numbers/exactText.ts';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { words } from '../../numbers/line.ts';
import type { Mark } from '../../scene/mark.ts';
import { dashes, toneOf } from '../../scene/tone.ts';
import type { TierView } from '../../scene/view.ts';
import type { PointShape } from '../../schema/look.ts';
import { unitText, type Unit } from '../../units/unit.ts';
import {
  asWritten,
  certaintySentence,
  completeness,
  intervalStudy,
  onInterval,
  overTyped,
  studied,
  withAnswer,
  type TypedInterval,
} from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { failed, worked } from '../outcome.ts';
import type { StudyResult, StudyTable } from '../study.ts';
import { allGroups, groupOf, kindWords, type FoundPoint } from './kinds.ts';

export const keyPointsSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('keyPoints'),
  /** The kinds that are shown. */
  shows: z.array(z.enum(allGroups)).max(allGroups.length),
  /** Whether each point has its coordinates beside it. */
  labels: z.boolean(),
});
export type KeyPointsEntry = z.infer<typeof keyPointsSchema>;

export interface KeyPointsResult extends StudyResult {
  readonly curve: CurveResult;
  readonly interval: TypedInterval;
  readonly points: readonly FoundPoint[];
}

/** End points, zeros, extrema, inflections and breaks of a curve on an interval, with the word whether that is all. */
export const keyPointsKind: EntryKind<KeyPointsEntry, KeyPointsResult> = {
  schema: keyPointsSchema,
  defaults: { shows: allGroups, labels: true },
  ...intervalStudy,
  head: (_entry, result) => ({
    heading: result
      ? `Key points of ${primed(result.curve.name, result.curve.order)} on [${asWritten(result.interval.texts.from)}, ${asWritten(result.interval.texts.to)}]`
      : 'Key points',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context) =>
    studied(entry, context, ({ curve, interval, asked }) =>
      withAnswer(context, { ask: 'keyPoints', order: 0, ...asked }, (answer) => {
        const where = overTyped(curve.variable, interval);
        const { points } = answer;
        if (points.length === 0 && isNowhere(curve, interval)) {
          return failed(`${where}, ${nameOf(curve)} has no value anywhere.`);
        }
        const shown = points.filter((point) => entry.shows.includes(groupOf(point)));
        return worked({
          curve,
          interval,
          points,
          lines: shown.length === 0 ? [[words('Nothing of the kinds that are chosen.')]] : [],
          sentence: `${where}: ${certaintySentence(answer, context.rule, searchedThere)}`,
          certainty: completeness(answer.complete, 'found by search'),
          ...(shown.length > 0 ? { table: tableOf(shown, points, curve, context.rule, context.xUnit) } : {}),
        });
      }),
    ),

  results: ({ points, curve }, xUnit) =>
    points.flatMap((point, i) => {
      const label = `${kindWords(point, points)} ${i + 1}`;
      const x = {
        key: `x${i + 1}`,
        label: `${label}: ${curve.variable}`,
        number: knownX(point),
        unit: xUnit,
      };
      const y = { key: `y${i + 1}`, label: `${label}: height`, number: knownY(point), unit: curve.unit };
      return point.y === null ? [x] : [x, y];
    }),

  places: ({ curve, points }) =>
    points.flatMap(({ x, y }, i) =>
      y === null ? [] : [{ key: `point ${i}`, label: `point ${i + 1}`, x, y, tier: curve.tier }],
    ),

  marks(id, { shows, labels }, { curve, interval, points }, tier) {
    if (curve.tier !== tier.id) return [];
    const tone = toneOf(curve.order, curve.family);
    const [x0, x1] = [tier.toX(interval.from), tier.toX(interval.to)];
    const shown = points.filter((point) => shows.includes(groupOf(point)));
    return [
      { kind: 'span', entry: id, x0, x1, y: tier.frame.top + tier.frame.height, tone },
      ...shown.flatMap((point) => marksOf(id, point, curve, tier, labels)),
    ];
  },
};

const nameOf = ({ name, order }: CurveResult): string => primed(name, order);

const exactly = (value: number, exact: Expression | null) =>
  knownNumber(value, exact && exactValue(exact, new Map()));
const knownX = ({ x, exact }: FoundPoint) => exactly(x, exact);
const knownY = ({ y, exactY }: FoundPoint) => exactly(y ?? NaN, exactY);

/** Places at which an empty list is checked for there being a function at all. */
const probes = 200;

function isNowhere(curve: CurveResult, { from, to }: TypedInterval): boolean {
  return Array.from({ length: probes + 1 }, (_, i) => from + ((to - from) * i) / probes).every((x) =>
    Number.isNaN(evaluateAt(curve.program, x, curve.parameters)),
  );
}

const searchedThere = '; what is listed there was found by search';

/** Rows that a table is read with. */
const mostRows = 200;

function tableOf(
  shown: readonly FoundPoint[],
  all: readonly FoundPoint[],
  curve: CurveResult,
  rule: RoundingRule,
  xUnit: Unit,
): StudyTable {
  const inUnit = (heading: string, unit: Unit): string =>
    unit.size === 0 ? heading : `${heading} in ${unitText(unit)}`;
  const rows = shown.slice(0, mostRows).map((point) => {
    const [x, y] = [knownX(point), knownY(point)];
    return {
      cells: [
        kindWords(point, all) + (point.proved ? '' : ' (by search)'),
        format(x, rule).text,
        point.y === null ? '–' : format(y, rule).text,
        exactPlaceText(point),
      ],
      numbers: [null, x, point.y === null ? null : y, null],
      place: { x: point.x, y: point.y },
      isGoal: point.absolute === true,
      isDoubtful: !point.proved,
    };
  });
  return {
    caption: `Key points of ${nameOf(curve)}`,
    head: [
      'kind',
      inUnit(curve.variable, xUnit),
      inUnit(`${nameOf(curve)}(${curve.variable})`, curve.unit),
      'exact',
    ],
    wordColumns: [0],
    rows,
    ...(shown.length > mostRows ? { note: `These are the first ${mostRows} of ${shown.length}.` } : {}),
  };
}

/** (π/2, 1), or the first coordinate alone where the other is known by its digits only. */
function exactPlaceText({ exact, exactY }: FoundPoint): string {
  const [x, y] = [exact && exactText(exact), exactY && exactText(exactY)];
  if (x === null) return '–';
  return y === null ? `(${x}, …)` : `(${x}, ${y})`;
}

const shapes: Partial<Record<FoundPoint['kind'], PointShape>> = {
  endpoint: 'square',
  inflection: 'diamond',
  zero: 'ring',
  hole: 'ring',
};

function marksOf(
  id: string,
  { kind, x, y }: FoundPoint,
  curve: CurveResult,
  tier: TierView,
  hasLabel: boolean,
): Mark[] {
  const tone = toneOf(curve.order, curve.family);
  const px = tier.toX(x);
  if (kind === 'pole') {
    const { top, height } = tier.frame;
    const ends = { x0: px, y0: top, x1: px, y1: top + height };
    return [{ kind: 'line', entry: id, ...ends, tone: 'quiet', weight: 1.25, dash: dashes.dashed }];
  }
  if (y === null) return [];
  const place = { x: px, y: tier.toY(y), tone };
  const shape = shapes[kind];
  const dot: Mark = { kind: 'dot', entry: id, ...place, ...(shape ? { shape } : {}) };
  const text = `(${format(knownNumber(x), tier.rule).text}, ${format(knownNumber(y), tier.rule).text})`;
  return hasLabel ? [dot, { kind: 'label', ...place, text }] : [dot];
}
