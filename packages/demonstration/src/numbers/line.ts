import { latexName, type KnownNumber } from '@yperkine/core';
import { unitText, type Unit } from '../units/unit.ts';
import { format, formatTidily, relation, type FormattedNumber, type RoundingRule } from './format.ts';

/** A piece of a typeset line: LaTeX that stays as it is, a live number put in as text, or words. */
export type Part =
  | { readonly kind: 'latex'; readonly latex: string }
  | {
      readonly kind: 'number';
      readonly text: string;
      /** What is behind the text, where it can be opened to full digits and its exact form. */
      readonly of?: NumberInFull;
    }
  | { readonly kind: 'words'; readonly text: string };
export type Line = readonly Part[];

/** What is behind a number. */
export interface NumberInFull {
  readonly number: KnownNumber;
  /** Its exact form as text, where one is proved. */
  readonly form: string | null;
  /** Between which it lies, proved, where that is known. */
  readonly bounds?: Bounds | null;
}
export type Bounds = readonly [low: number, high: number];

export const latex = (text: string): Part => ({ kind: 'latex', latex: text });
export const live = (text: string): Part => ({ kind: 'number', text });
/** A live number that can be opened. */
export const liveNumber = (
  text: string,
  number: KnownNumber,
  form: string | null = null,
  bounds: Bounds | null = null,
): Part => ({
  kind: 'number',
  text,
  of: bounds ? { number, form, bounds } : { number, form },
});
export const words = (text: string): Part => ({ kind: 'words', text });

/** A unit behind a number, or nothing for a bare one. */
export const unitPart = (unit: Unit): Part[] => (unit.size === 0 ? [] : [live(` ${unitText(unit)}`)]);

/** What y and x of an equation between numbers are counted in, as such an equation has to say (NIST SP 811, 7.11). */
export function countedIn(ofY: Unit, variable: string, ofX: Unit): Part[] {
  const told = [['y', ofY] as const, [variable, ofX] as const].filter(([, unit]) => unit.size > 0);
  return told.length === 0
    ? []
    : [words(` (${told.map(([letter, unit]) => `${letter} in ${unitText(unit)}`).join(', ')})`)];
}

/** The relation as a live part: it changes between = and ≈ while a number moves, and nothing is typeset again. */
export const liveRelation = (isExact: boolean): Part => live(` ${relation(isExact)} `);

/**
 * `= 4.250`, `≈ 0.333` or `= 1/3 ≈ 0.333`, as the end of a statement; no sign before what is no number.
 * @param form the number's exact form as text, where one is proved
 * @param bounds between which it is proved to lie
 */
export function equalsResult(
  number: KnownNumber,
  rule: RoundingRule,
  form: string | null = null,
  bounds: Bounds | null = null,
): Part[] {
  const { text, isExact } = format(number, rule);
  if (Number.isNaN(number.value)) return [live(' '), live(text)];
  const before = form !== null && !isExact ? live(` = ${form} ≈ `) : liveRelation(isExact);
  return [before, liveNumber(text, number, form, bounds)];
}

export interface LineEquation {
  readonly line: Line;
  /** The same as plain text, for labels and screen readers. */
  readonly text: string;
}

/**
 * y = slope·x + intercept as a person writes it: no 1x, no + −3, no + 0; a slope of 0 leaves y = 4.
 * Slope and intercept count as 1 or 0 only where that is proved.
 */
export function lineEquation(
  slope: KnownNumber,
  intercept: KnownNumber,
  variable: string,
  rule: RoundingRule,
): LineEquation {
  const m = formatTidily(slope, rule);
  const c = formatTidily(intercept, rule);
  const hasSlope = !isExactly(m, '0');
  const hasIntercept = !isExactly(c, '0') || !hasSlope;
  const isExact = (!hasSlope || m.isExact) && (!hasIntercept || c.isExact);
  const coefficient = isExactly(m, '1') ? '' : isExactly(m, '−1') ? '−' : m.text;
  const constant = hasIntercept ? (hasSlope ? signed(c.text) : c.text) : '';
  const line: Part[] = [latex('y'), liveRelation(isExact)];
  // An empty coefficient keeps its place, so that the parts around it stay what they are.
  if (hasSlope) line.push(liveNumber(coefficient, slope), latex(latexName(variable)));
  if (constant !== '') line.push(liveNumber(constant, intercept));
  const text = `y ${relation(isExact)} ${hasSlope ? coefficient + variable : ''}${constant}`;
  return { line, text };
}

const isExactly = (number: FormattedNumber, text: string): boolean => number.isExact && number.text === text;

const signed = (text: string): string => (text.startsWith('−') ? ` − ${text.slice(1)}` : ` + ${text}`);

/** A line as plain text, for labels and tests. */
export function plainText(line: Line): string {
  return line
    .map((part) => (part.kind === 'latex' ? part.latex : part.text))
    .join('')
    .replace(/ +/g, ' ')
    .trim();
}
