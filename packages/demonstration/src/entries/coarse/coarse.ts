import { evaluateAt, knownNumber, type AnswerTo } from '@yperkine/core';
import { z } from 'zod';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { words, type Line } from '../../numbers/line.ts';
import type { Mark } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import { typedSchema } from '../../fields/fields.ts';
import { asWritten, intervalStudy, onInterval, studied, withAnswer, type TypedInterval } from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import { idsInText, typedValue } from '../formulaValue.ts';
import type { FoundPoint } from '../keyPoints/kinds.ts';
import type { EntryKind } from '../kind.ts';
import { failed, worked } from '../outcome.ts';

const coarseSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('coarse'),
  /** Distance of the samples: a number or a formula of parameters. */
  step: typedSchema,
});
export type CoarseEntry = z.infer<typeof coarseSchema>;

interface Sample {
  readonly x: number;
  readonly y: number;
}

export interface CoarseResult {
  readonly curve: CurveResult;
  readonly samples: readonly Sample[];
  /** Key points that the joined samples do not show. */
  readonly lost: readonly FoundPoint[];
  /** Whether all key points are known. */
  readonly isComplete: boolean;
}

const mostSamples = 2000;

/** A curve as joined samples of a chosen step over the true one, with what that hides. */
export const coarseKind: EntryKind<CoarseEntry, CoarseResult> = {
  schema: coarseSchema,
  defaults: { step: '1' },
  standsOn: intervalStudy.standsOn,
  dependsOn: (entry, directory) => [
    ...intervalStudy.dependsOn(entry, directory),
    ...idsInText(entry.step, directory),
  ],
  head: (entry, result) => ({
    heading: result
      ? `${primed(result.curve.name, result.curve.order)} as joined dots, ${asWritten(entry.step)} apart`
      : 'What joined dots hide',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context) =>
    studied(entry, context, ({ curve, interval, asked }) => {
      const step = typedValue(entry.step, context);
      if (!step.ok) return step;
      const distance = step.result.value.value;
      if (!(distance > 0)) return failed('The dots are some distance apart: a number larger than 0.');
      if ((interval.to - interval.from) / distance > mostSamples) {
        return failed(`That would be more than ${mostSamples} dots; please take a larger step.`);
      }
      return withAnswer(context, { ask: 'keyPoints', order: 0, ...asked }, (told) => {
        const samples = samplesOf(curve, interval, distance);
        const lost = lostPoints(told, samples);
        return worked({ curve, samples, lost, isComplete: told.complete });
      });
    }),

  say: ({ lost, curve, isComplete, samples }, _entry, { rule }) => ({
    lines: linesOf(lost, curve, rule),
    sentence: sentenceOf(lost, isComplete, samples.length),
  }),

  marks(id, _entry, { curve, samples, lost }, tier) {
    if (curve.tier !== tier.id) return [];
    const runs: Float64Array[] = [];
    let run: number[] = [];
    const close = () => {
      if (run.length >= 4) runs.push(Float64Array.from(run));
      run = [];
    };
    for (const { x, y } of samples) {
      if (Number.isFinite(y)) run.push(tier.toX(x), tier.toY(y));
      else close();
    }
    close();
    const seen = samples.filter(({ y }) => Number.isFinite(y));
    const points = seen.flatMap(({ x, y }) => [tier.toX(x), tier.toY(y)]);
    return [
      { kind: 'track', entry: id, runs, tone: 'ink', dash: [], weight: 1.75 },
      { kind: 'dots', points, tone: 'ink' },
      ...lost.flatMap(({ x, y }): Mark[] =>
        y === null
          ? []
          : [
              {
                kind: 'dot',
                entry: id,
                x: tier.toX(x),
                y: tier.toY(y),
                tone: 'here',
                shape: 'ring',
                size: 9,
              },
            ],
      ),
    ];
  },
};

function samplesOf(curve: CurveResult, { from, to }: TypedInterval, step: number): Sample[] {
  const count = Math.floor((to - from) / step + 1e-9);
  const xs = Array.from({ length: count + 1 }, (_, i) => from + i * step);
  if ((xs.at(-1) as number) < to - step * 1e-9) xs.push(to);
  return xs.map((x) => ({ x, y: evaluateAt(curve.program, x, curve.parameters) }));
}

/** Which key points the joined samples do not show: there is no zero, turn or break where the curve has one. */
function lostPoints({ points }: AnswerTo['keyPoints'], samples: readonly Sample[]): FoundPoint[] {
  const near = ((samples.at(-1)?.x ?? 0) - (samples[0]?.x ?? 0)) * 1e-9;
  // Two zeros between the same dots leave no change of sign, and so do two turns.
  return points.filter((point) => {
    if (point.kind === 'endpoint' || point.kind === 'inflection') return false;
    const after = samples.findIndex(({ x }) => x >= point.x - near);
    const [a, b] = [samples[after - 1], samples[after]];
    if (!a || !b || Math.abs(b.x - point.x) <= near) return false;
    const beside = points.filter(({ kind, x }) => kind === point.kind && x > a.x && x < b.x).length;
    switch (point.kind) {
      case 'zero':
        return beside > 1 || !(a.y * b.y < 0);
      case 'maximum':
      case 'minimum':
        return beside > 1 || !isTurnBeside(samples, after, point.kind);
      default:
        return Number.isFinite(a.y) && Number.isFinite(b.y);
    }
  });
}

/** Whether one of the two dots around a place is a turn of the broken line. */
function isTurnBeside(samples: readonly Sample[], after: number, kind: 'maximum' | 'minimum'): boolean {
  const sign = kind === 'maximum' ? 1 : -1;
  return [after - 1, after].some((i) => {
    const [left, middle, right] = [samples[i - 1], samples[i], samples[i + 1]];
    // The first and the last dot are ends: they turn nowhere.
    if (!left || !middle || !right) return false;
    return sign * (middle.y - left.y) > 0 && sign * (middle.y - right.y) > 0;
  });
}

const kindNames: Readonly<Record<FoundPoint['kind'], string>> = {
  endpoint: 'an end point',
  openEnd: 'an open end',
  zero: 'a zero',
  maximum: 'a maximum',
  minimum: 'a minimum',
  inflection: 'an inflection point',
  pole: 'a pole',
  jump: 'a jump',
  hole: 'a hole',
  corner: 'a corner',
  cusp: 'a cusp',
};

/** More than these are counted, not named. */
const mostNamed = 12;

function linesOf(lost: readonly FoundPoint[], { variable }: CurveResult, rule: RoundingRule): Line[] {
  return lost
    .slice(0, mostNamed)
    .map(({ kind, x }) => [
      words(`hidden: ${kindNames[kind]} at ${variable} ≈ ${format(knownNumber(x), rule).text}`),
    ]);
}

function sentenceOf(lost: readonly FoundPoint[], isComplete: boolean, count: number): string {
  const among = isComplete ? '' : ' among those that are known';
  if (lost.length === 0) return `The ${count} joined dots hide no key point${among}.`;
  const number = lost.length === 1 ? 'one key point' : `${lost.length} key points`;
  return `The ${count} joined dots hide ${number}${among}: nothing between two dots is looked at.`;
}
