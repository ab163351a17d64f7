import { evaluateAt, findingSentence, latexName, type AnswerTo } from '@yperkine/core';
import { z } from 'zod';
import { latex, live, words, type Part } from '../../numbers/line.ts';
import type { Mark } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import {
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
import { shortPlace, type KnownPlace } from '../provedPlaces.ts';

const readingSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('reading'),
  /** Whether it is read about f, about f′, or about both. */
  about: z.enum(['both', 'function', 'slope']),
});
export type ReadingEntry = z.infer<typeof readingSchema>;

type Finding = AnswerTo['reading']['findings'][number];

export interface ReadingResult {
  readonly curve: CurveResult;
  readonly findings: readonly Finding[];
  readonly isComplete: boolean;
  readonly interval: TypedInterval;
}

/** Where f rises, bends, has extrema and inflections, read off the graph of f′ or f″, each with its reason. */
export const readingKind: EntryKind<ReadingEntry, ReadingResult> = {
  schema: readingSchema,
  defaults: { about: 'both' },
  ...intervalStudy,
  head: (_entry, result) => ({
    heading: result
      ? `${result.curve.name} read from ${primed(result.curve.name, result.curve.order)}`
      : 'Reading f from its derivative',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context) =>
    studied(entry, context, ({ curve, interval, asked }) => {
      const { order, name } = curve;
      if (order < 1 || order > 3) {
        return failed(
          `This reads the graph of a derivative: give or draw ${name}′, ${name}″ or ${name}‴ first.`,
        );
      }
      const question = { ask: 'reading', order: order as 1 | 2 | 3, ...asked } as const;
      return withAnswer(context, question, (told) => {
        const wanted = { both: [0, 1], function: [0], slope: [1] }[entry.about];
        const findings = told.findings.filter(({ of }) => wanted.includes(of));
        return worked({ curve, findings, isComplete: told.complete, interval });
      });
    }),

  say({ curve: { name, variable }, findings, isComplete, interval }, _entry, { rule }) {
    const write = (number: KnownPlace): string => shortPlace(number, rule);
    const stretch = ({ from, to }: { from: KnownPlace; to: KnownPlace }): Part[] => [
      latex(`\\;${latexName(variable)} \\in`),
      live(` (${write(from)}, ${write(to)})`),
    ];
    return {
      lines: findings.map((finding) => [
        words(findingSentence(finding, name, variable, write)),
        ...(finding.kind === 'stretch' ? stretch(finding) : []),
      ]),
      sentence: sentenceOf(isComplete, findings.length, overTyped(variable, interval)),
      certainty: completeness(isComplete),
    };
  },

  places: ({ curve, findings }) =>
    featuresOf(findings).map(({ at }, i) => ({
      key: `feature ${i}`,
      label: `feature ${i + 1}`,
      x: at.value,
      y: evaluateAt(curve.program, at.value, curve.parameters),
      tier: curve.tier,
    })),

  marks(id, _entry, { curve, findings }, tier) {
    if (curve.tier !== tier.id) return [];
    const features = featuresOf(findings);
    return features.flatMap((feature): Mark[] => {
      const y = evaluateAt(curve.program, feature.at.value, curve.parameters);
      if (!Number.isFinite(y)) return [];
      const tone = toneOf(feature.of, curve.family);
      const place = { x: tier.toX(feature.at.value), y: tier.toY(y), tone };
      const dot: Mark = { kind: 'dot', entry: id, ...place, shape: shapes[feature.feature] };
      if (features.length > mostLabels) return [dot];
      return [dot, { kind: 'label', ...place, text: labelOf(feature, curve), isSpare: true }];
    });
  },
};

type FeatureFinding = Extract<Finding, { kind: 'feature' }>;

const featuresOf = (findings: readonly Finding[]): FeatureFinding[] =>
  findings.filter((finding): finding is FeatureFinding => finding.kind === 'feature');

const shapes = { maximum: 'disc', minimum: 'disc', inflection: 'diamond' } as const;
const shortWords = { maximum: 'local maximum', minimum: 'local minimum', inflection: 'inflection' } as const;

/** With more features than these their labels would cover the curve; the sentences name them all the same. */
const mostLabels = 8;

/** "f′ local minimum": what there is to be read at a place. */
const labelOf = ({ feature, of }: FeatureFinding, { name }: CurveResult): string =>
  `${primed(name, of)} ${shortWords[feature]}`;

function sentenceOf(isComplete: boolean, count: number, where: string): string {
  if (count === 0) return `${where} there is nothing to be read.`;
  return isComplete
    ? `${where} that is all; it is proved.`
    : `${where} this is what could be proved; there may be more.`;
}
