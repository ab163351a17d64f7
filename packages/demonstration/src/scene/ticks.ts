import type { Range } from '@yperkine/core';
import { tickIncrement, ticks as niceTicks } from 'd3-array';

export interface Tick {
  readonly value: number;
  readonly text: string;
}

/** Ticks that an axis may have, however fine the typed spacing. */
const mostTicks = 200;

/** A round distance that divides a range into about so many parts. */
export function roundStep({ from, to }: Range, count: number): number {
  const increment = tickIncrement(from, to, count);
  return increment < 0 ? -1 / increment : increment;
}

/**
 * The ticks of an axis.
 * @param spacing the typed distance of ticks, or null for round distances
 * @param room how many ticks there is room for
 */
export function ticksOf(range: Range, spacing: number | null, room: number): Tick[] {
  const count = Math.max(2, Math.floor(room));
  const isTyped = spacing !== null && (range.to - range.from) / spacing <= mostTicks;
  const values = isTyped ? multiples(range, spacing) : niceTicks(range.from, range.to, count);
  const step = isTyped ? spacing : stepOf(range, count);
  return values.map((value) => ({ value, text: tickText(value, step) }));
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
