import { rational, type Range, type Rational } from '@yperkine/core';
import { tickIncrement, ticks as niceTicks } from 'd3-array';

export interface Tick {
  readonly value: number;
  readonly text: string;
  /** The same typeset, where it is more than a decimal. */
  readonly latex?: string;
}

/** Ticks that an axis may have, however fine the typed spacing. */
const mostTicks = 200;

/** A round distance that divides a range into about so many parts. */
export function roundStep({ from, to }: Range, count: number): number {
  const increment = tickIncrement(from, to, count);
  return increment < 0 ? -1 / increment : increment;
}

/** How an axis is numbered. */
export interface Numbering {
  /** The typed distance of ticks, or null for round distances; on a scale of π in multiples of it. */
  readonly spacing: number | null;
  readonly decimalMark?: '.' | ',';
  readonly piScale?: boolean;
}

const known = new Map<string, readonly Tick[]>();
const mostKnown = 100;

/**
 * The ticks of an axis; the same ones for the same question, so that a picture can be seen to stand still.
 * @param room how many ticks there is room for
 */
export function ticksOf(range: Range, numbering: Numbering, room: number): readonly Tick[] {
  const key = JSON.stringify([range.from, range.to, numbering, room]);
  const before = known.get(key);
  if (before) return before;
  if (known.size >= mostKnown) known.clear();
  const ticks = findTicks(range, numbering, room);
  known.set(key, ticks);
  return ticks;
}

function findTicks(range: Range, numbering: Numbering, room: number): readonly Tick[] {
  const { spacing, decimalMark = '.', piScale = false } = numbering;
  const count = Math.max(2, Math.floor(room));
  if (piScale) return piTicks(range, spacing, count);
  const isTyped = spacing !== null && (range.to - range.from) / spacing <= mostTicks;
  const values = isTyped ? multiples(range, spacing) : niceTicks(range.from, range.to, count);
  const step = isTyped ? spacing : stepOf(range, count);
  return values.map((value) => ({ value, text: tickText(value, step).replace('.', decimalMark) }));
}

/** Parts of π that a tick may be a multiple of, as numerator and denominator. */
const piSteps = [
  [1, 12],
  [1, 6],
  [1, 4],
  [1, 3],
  [1, 2],
  [1, 1],
  [2, 1],
  [4, 1],
  [5, 1],
] as const;

/** Ticks at multiples of a part of π; a window too wide or too narrow for them has round multiples. */
function piTicks({ from, to }: Range, spacing: number | null, count: number): Tick[] {
  const inPi = { from: from / Math.PI, to: to / Math.PI };
  const isTyped = spacing !== null && (inPi.to - inPi.from) / spacing <= mostTicks;
  const fits = piSteps.find(([p, q]) => ((inPi.to - inPi.from) * q) / p <= count);
  const isFine = fits === piSteps[0] && (inPi.to - inPi.from) * 12 < 2;
  const step = isTyped ? spacing : fits && !isFine ? fits[0] / fits[1] : stepOf(inPi, count);
  const first = Math.ceil(inPi.from / step - 1e-9);
  const last = Math.floor(inPi.to / step + 1e-9);
  const size = fraction(step);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => {
    const multiple = rational.multiply(rational.rational(first + i), size);
    return { value: rational.toNumber(multiple) * Math.PI, text: piText(multiple), latex: piLatex(multiple) };
  });
}

/** The step as a fraction: a twelfth is one of twelve, any other a decimal. */
function fraction(step: number): Rational {
  const twelfths = step * 12;
  return Math.abs(twelfths - Math.round(twelfths)) < 1e-9
    ? rational.rational(Math.round(twelfths), 12)
    : (rational.parseDecimal(String(Number(step.toPrecision(12))).toUpperCase()) ?? rational.one);
}

function piLatex({ numerator, denominator }: Rational): string {
  if (numerator === 0n) return '0';
  const size = numerator < 0n ? -numerator : numerator;
  const times = `${size === 1n ? '' : String(size)}\\pi`;
  const sign = numerator < 0n ? '-' : '';
  return denominator === 1n ? `${sign}${times}` : `${sign}\\frac{${times}}{${String(denominator)}}`;
}

function piText(multiple: Rational): string {
  const { numerator, denominator } = multiple;
  if (numerator === 0n) return '0';
  const size = numerator < 0n ? -numerator : numerator;
  const sign = numerator < 0n ? '−' : '';
  return `${sign}${size === 1n ? '' : String(size)}π${denominator === 1n ? '' : `/${String(denominator)}`}`;
}

function stepOf({ from, to }: Range, count: number): number {
  const increment = tickIncrement(from, to, count);
  return increment > 0 ? increment : -1 / increment;
}

function multiples({ from, to }: Range, spacing: number): number[] {
  const first = Math.ceil(from / spacing - 1e-9);
  const last = Math.floor(to / spacing + 1e-9);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) =>
    Number(((first + i) * spacing).toPrecision(12)),
  );
}

function tickText(value: number, step: number): string {
  const magnitude = Math.max(Math.abs(value), step);
  if (magnitude >= 1e6 || step < 1e-6) return powerText(value);
  const places = Math.min(12, Math.max(0, (String(Number(step.toPrecision(10))).split('.')[1] ?? '').length));
  return value
    .toFixed(places)
    .replace(/^-(?=.*[1-9])/, '−')
    .replace(/^-/, '');
}

const superscripts: Readonly<Record<string, string>> = {
  '-': '⁻',
  '0': '⁰',
  '1': '¹',
  '2': '²',
  '3': '³',
  '4': '⁴',
  '5': '⁵',
  '6': '⁶',
  '7': '⁷',
  '8': '⁸',
  '9': '⁹',
};

function powerText(value: number): string {
  if (value === 0) return '0';
  const [mantissa = '', exponent = ''] = value.toExponential().split('e');
  const digits = Number(Number(mantissa).toPrecision(4)).toString().replace('-', '−');
  return `${digits}·10${[...exponent.replace('+', '')].map((c) => superscripts[c] ?? '').join('')}`;
}
