import { derivativesAt, knownNumber, quotientTable, type QuotientRow } from '@yperkine/core';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { toneOf } from '../../fields/tone.ts';
import { primed } from '../curve.ts';
import type { Place } from '../point/point.ts';
import { shownValue } from '../parameter/result.ts';
import type { StudyTable } from '../study.ts';

/** Rows of the table in school, from h = 1 to 0.001, and of the one that goes on until the digits run out. */
const rowCounts = { school: 4, tooSmall: 16 } as const;

/** Difference quotients for ever smaller h, forward, backward and symmetric, and the error of the forward one. */
export function quotients(
  { curve, at }: Place,
  reach: keyof typeof rowCounts,
  rule: RoundingRule,
): StudyTable {
  const a = at.value.value;
  const rows = rowCounts[reach];
  const of = (kind: 'forward' | 'backward' | 'symmetric') =>
    quotientTable(curve.program, a, kind, rows, curve.parameters);
  const [forward, backward, symmetric] = [of('forward'), of('backward'), of('symmetric')];
  const written = (value: number): string => format(knownNumber(value), rule).text;
  const [, slope = NaN] = derivativesAt(curve.program, a, 1, curve.parameters);
  const body = forward.map((row, i) => {
    const slopes = [row.slope, backward[i]?.slope ?? NaN, symmetric[i]?.slope ?? NaN];
    return {
      cells: [stepText(i), ...slopes.map(written), errorText(row.error, rule)],
      numbers: [null, ...[...slopes, row.error].map((value) => knownNumber(value))],
      isDoubtful: row.isRounding,
    };
  });
  const goal = { cells: ['→ 0', written(slope), written(slope), written(slope), '0'], isGoal: true };
  return {
    caption: `Difference quotients of ${primed(curve.name, curve.order)} at ${curve.variable} = ${shownValue(at, rule)}`,
    goalTone: toneOf(curve.order + 1, curve.family),
    head: ['h', 'forward', 'backward', 'symmetric', 'error'],
    rows: Number.isFinite(slope) ? [...body, goal] : body,
    ...noteOn(forward, reach),
  };
}

/** What the forward quotient is off by: two digits say enough. */
function errorText(error: number, rule: RoundingRule): string {
  const isSmall = error !== 0 && Math.abs(error) < 0.5 * 10 ** -rule.decimals;
  return format(knownNumber(error), isSmall ? { ...rule, decimals: 1 } : rule).text;
}

const stepText = (zeros: number): string =>
  zeros === 0
    ? '1'
    : zeros < 5
      ? `0.${'0'.repeat(zeros - 1)}1`
      : `10⁻${[...String(zeros)].map((d) => '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(d)]).join('')}`;

function noteOn(forward: readonly QuotientRow[], reach: keyof typeof rowCounts): { note?: string } {
  if (reach !== 'tooSmall') return {};
  const errors = forward.map(({ error }) => Math.abs(error));
  const best = errors.indexOf(Math.min(...errors.filter((error) => !Number.isNaN(error))));
  if (best < 0 || best === forward.length - 1) return {};
  return {
    note: `From h = ${stepText(best + 1)} on the quotient gets worse again: two nearly equal values are subtracted, and their last digits are rounding.`,
  };
}
