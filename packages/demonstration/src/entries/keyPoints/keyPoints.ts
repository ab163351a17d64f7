import { evaluateAt } from '@yperkine/core';
import type { RoundingRule } from '../../numbers/format.ts';
import type { Mark } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import type { TierView } from '../../marks/view.ts';
import type { Id } from '../../fields/fields.ts';
import {
  asWritten,
  completeness,
  intervalStudy,
  overTyped,
  studied,
  withAnswer,
  type TypedInterval,
} from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { failed, worked } from '../outcome.ts';
import { knownX, knownY, linesOf, sentenceOf, tableOf } from './inWords.ts';
import { allGroups, groupOf, kindWords, type FoundPoint } from './kinds.ts';
import { asymptoteMark, isOnFilled, marksOf } from './marks.ts';
import { keyPointsSchema, type KeyPointsEntry, type KeyPointsResult } from './result.ts';
import { proofOf, stripOf, type Proof } from './proof.ts';

/** End points, zeros, extrema, inflections and breaks of a curve on an interval, with the word whether that is all. */
export const keyPointsKind: EntryKind<KeyPointsEntry, KeyPointsResult> = {
  schema: keyPointsSchema,
  defaults: { shows: allGroups, labels: true, proof: null },
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
        const { points } = answer;
        const { asymptotes } = answer.asymptotes;
        if (points.length === 0 && isNowhere(curve, interval)) {
          return failed(`${overTyped(curve.variable, interval)}, ${nameOf(curve)} has no value anywhere.`);
        }
        return worked({ curve, interval, points, asymptotes, answer });
      }),
    ),

  say(result, entry, { rule, xUnit }) {
    const { curve, answer } = result;
    const shown = shownOf(result, entry);
    return {
      lines: linesOf(entry, shown, result, rule),
      sentence: sentenceOf(result, entry, shownProof(result, entry, rule), rule),
      certainty: completeness(answer.complete, 'found by search'),
      ...(shown.length > 0 ? { table: tableOf(shown, curve, rule, xUnit) } : {}),
    };
  },

  results: ({ points, curve }, xUnit) =>
    points.flatMap((point, i) => {
      const label = `${kindWords(point)} ${i + 1}`;
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

  marks(id, entry, result, tier) {
    const { curve, interval, points, asymptotes } = result;
    const { shows, labels } = entry;
    if (curve.tier !== tier.id) return [];
    const tone = toneOf(curve.order, curve.family);
    const [x0, x1] = [tier.toX(interval.from), tier.toX(interval.to)];
    const shown = shownOf(result, entry);
    const proof = shownProof(result, entry, tier.rule);
    return [
      { kind: 'span', entry: id, x0, x1, y: tier.frame.top + tier.frame.height, tone },
      ...(proof ? [proofMark(id, proof, curve, tier)] : []),
      ...(shows.includes('asymptotes') ? asymptotes : []).map((line) => asymptoteMark(id, line, tier)),
      ...shown.flatMap((point) => {
        const hasLabel = labels && isLabelled(point, shown);
        return marksOf(id, point, curve, tier, { hasLabel, isFilled: isOnFilled(point, points) });
      }),
    ];
  },
};

/** The points of the kinds that were chosen. */
const shownOf = ({ points }: KeyPointsResult, { shows }: KeyPointsEntry): FoundPoint[] =>
  points.filter((point) => shows.includes(groupOf(point)));

/** Why the list is complete, where that is laid under the curve; null too while it is being looked at. */
function shownProof(
  { answer: { certificate }, curve }: KeyPointsResult,
  { proof }: KeyPointsEntry,
  rule: RoundingRule,
): Proof | null {
  return proof === null || !certificate ? null : proofOf(certificate, proof, curve, rule);
}

function proofMark(id: Id, proof: Proof, curve: CurveResult, tier: TierView): Mark {
  const order = curve.order + proof.above;
  const [title, tone] = [primed(curve.name, order), toneOf(order, curve.family)];
  return {
    kind: 'strip',
    entry: id,
    tone,
    title,
    top: 0,
    parts: stripOf(proof, (x) => tier.toX(x)),
    meetings: [],
  };
}

const nameOf = ({ name, order }: CurveResult): string => primed(name, order);

/** Places at which an empty list is checked for there being a function at all. */
const probes = 200;

function isNowhere(curve: CurveResult, { from, to }: TypedInterval): boolean {
  return Array.from({ length: probes + 1 }, (_, i) => from + ((to - from) * i) / probes).every((x) =>
    Number.isNaN(evaluateAt(curve.program, x, curve.parameters)),
  );
}

/** Of several key points at one place one is labelled: a jump, which tells most, or else the first. */
function isLabelled(point: FoundPoint, shown: readonly FoundPoint[]): boolean {
  const there = shown.filter(({ x, y, kind }) => x === point.x && (y === point.y || kind === 'jump'));
  return (there.find(({ kind }) => kind === 'jump') ?? there[0]) === point;
}
