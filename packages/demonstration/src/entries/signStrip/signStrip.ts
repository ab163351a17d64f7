import { latexFunction, latexName, type AnswerTo } from '@yperkine/core';
import { z } from 'zod';
import type { RoundingRule } from '../../numbers/format.ts';
import { latex, live, words, type Line } from '../../numbers/line.ts';
import type { StripPart } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import { idSchema } from '../../fields/fields.ts';
import {
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
import { worked } from '../outcome.ts';
import { shortPlace, type ProvedPlace } from '../provedPlaces.ts';

const signStripSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('signStrip'),
  /** Which derivative of the curve has these signs; 0 for the curve itself. */
  degree: z.int().min(0).max(3),
  /** The tier under which it stands; null for that of its curve. */
  under: idSchema.nullable(),
});
export type SignStripEntry = z.infer<typeof signStripSchema>;

type Told = AnswerTo['signs'];

export interface SignStripResult {
  readonly curve: CurveResult;
  readonly told: Told;
  readonly interval: TypedInterval;
}

/** Where a function or one of its derivatives is positive, negative or zero, and what that says. */
export const signStripKind: EntryKind<SignStripEntry, SignStripResult> = {
  schema: signStripSchema,
  defaults: { degree: 1, under: null },
  ...intervalStudy,
  head: ({ degree }, result) => ({
    heading: result ? `Signs of ${primed(result.curve.name, result.curve.order + degree)}` : 'Signs',
    tone: result ? toneOf(result.curve.order + degree, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context) =>
    studied(entry, context, ({ curve, interval, asked }) =>
      withAnswer(context, { ask: 'signs', order: entry.degree, ...asked }, (told) =>
        worked({ curve, told, interval }),
      ),
    ),

  say: ({ curve, told, interval }, { degree }, { rule }) => ({
    lines: linesOf(told, curve, degree, rule),
    sentence: `${overTyped(curve.variable, interval)}: ${certaintySentence(told, rule)}`,
    certainty: completeness(told.complete),
  }),

  marks(id, { degree, under }, { curve, told }, tier) {
    if ((under ?? curve.tier) !== tier.id) return [];
    const parts = told.intervals.map((stretch): StripPart => ({
      x0: tier.toX(stretch.from.value),
      x1: tier.toX(stretch.to.value),
      sign: stretch.sign,
      ...meaningOf(stretch, curve, degree, tier.rule),
    }));
    const inside = told.ends.slice(1, -1);
    const meetings = inside.map(({ place, value }) => ({ x: tier.toX(place.value), isZero: value === 0 }));
    const order = curve.order + degree;
    const tone = toneOf(order, curve.family);
    return [{ kind: 'strip', entry: id, tone, title: primed(curve.name, order), top: 0, parts, meetings }];
  },
};

type Stretch = Told['intervals'][number];

/** What a sign says: of f itself, of the slope, of the bend, of the bend's own slope. */
const sayings: readonly (readonly [string, string, string])[] = [
  ['negative', 'zero', 'positive'],
  ['falling ↘', 'level →', 'rising ↗'],
  ['bends down (concave down)', 'straight', 'bends up (concave up)'],
  ['bend falling', 'bend constant', 'bend rising'],
];
const verbs: readonly (readonly [string, string, string])[] = [
  ['lies under the axis', 'lies on the axis', 'lies over the axis'],
  ['falls', 'is level', 'rises'],
  ['bends down (concave down)', 'is straight', 'bends up (concave up)'],
];
const signWords = ['negative', 'zero', 'positive'] as const;

function meaningOf({ from, to, sign }: Stretch, curve: CurveResult, degree: number, rule: RoundingRule) {
  const order = curve.order + degree;
  const shower = primed(curve.name, order);
  const where = `for ${curve.variable} from ${shortPlace(from, rule)} to ${shortPlace(to, rule)}`;
  // At most two orders lie between what is said and what shows it: f‴ speaks of f′, which bends.
  const about = Math.min(order, 2);
  const subject = primed(curve.name, order - about);
  const verb = verbs[about]?.[sign + 1] ?? '';
  const word = sayings[Math.min(order, 3)]?.[sign + 1] ?? '';
  const sentence = `${subject} ${verb} ${where}, because ${shower} is ${signWords[sign + 1] ?? ''} there.`;
  return { word, sentence };
}

const relations = ['<', '=', '>'] as const;

/** f′(x) > 0 on (0, 1) ∪ (3, 4), for each sign that there is. */
function linesOf(told: Told, curve: CurveResult, degree: number, rule: RoundingRule): Line[] {
  const head = `${latexFunction(curve.name, curve.order + degree)}(${latexName(curve.variable)})`;
  const zeros = told.ends.filter(({ value }) => value === 0).map(({ place }) => shortPlace(place, rule));
  return ([1, 0, -1] as const).flatMap((sign): Line[] => {
    const stretches = told.intervals.filter((stretch) => stretch.sign === sign);
    const texts = stretches.map((stretch) => intervalText(stretch, told, degree, rule));
    if (sign !== 0) {
      if (texts.length === 0) return [];
      return [[latex(`${head} ${relations[sign + 1] as string} 0`), words(' on '), live(texts.join(' ∪ '))]];
    }
    const loose = zeros.length > 0 ? `${curve.variable} = ${zeros.join(', ')}` : '';
    const all = [loose, texts.join(' ∪ ')].filter((text) => text !== '').join(' and on ');
    return all === '' ? [] : [[latex(`${head} = 0`), words(loose === '' ? ' on ' : ' at '), live(all)]];
  });
}

/** An end belongs to a stretch of f itself where f has that sign there, too; derivatives are read on open intervals. */
function intervalText(
  { from, to, sign }: Stretch,
  { ends }: Told,
  degree: number,
  rule: RoundingRule,
): string {
  const belongs = (place: ProvedPlace): boolean => {
    const end = ends.find((other) => other.place.value === place.value);
    return degree === 0 && end?.value !== null && end !== undefined && Math.sign(end.value) === sign;
  };
  const [left, right] = [belongs(from) ? '[' : '(', belongs(to) ? ']' : ')'];
  return `${left}${shortPlace(from, rule)}, ${shortPlace(to, rule)}${right}`;
}
