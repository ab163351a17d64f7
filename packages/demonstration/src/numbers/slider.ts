import { rational, type Rational } from '@yperkine/core';
import { settingText, settingValue } from './setting.ts';

const places = 15;

export interface SliderScale {
  readonly from: Rational;
  readonly to: Rational;
  readonly step: Rational;
}

export type SliderProblem = 'limitsReversed' | 'stepNotPositive';

/** Limits and step of a parameter, as they are typed. */
export interface SliderSettings {
  readonly from: string;
  readonly to: string;
  readonly step: string;
}

/** The scale of a parameter's slider as exact numbers, or what is wrong with its settings. */
export function sliderScale(settings: SliderSettings): SliderScale | SliderProblem {
  const from = rational.parseDecimal(settings.from) ?? rational.zero;
  const to = rational.parseDecimal(settings.to) ?? rational.one;
  const step = rational.parseDecimal(settings.step) ?? rational.one;
  if (rational.compare(from, to) >= 0) return 'limitsReversed';
  if (rational.compare(step, rational.zero) <= 0) return 'stepNotPositive';
  return { from, to, step };
}

/** Positions of a slider on which each doubling has the same room. */
export const doublingPositions = 1000;

/** The value at a position of such a slider, from its lower limit (above 0) to its upper one. */
export function valueAtDoubling(position: number, scale: SliderScale): string {
  const [from, to] = [rational.toNumber(scale.from), rational.toNumber(scale.to)];
  return nearestPosition(from * (to / from) ** (position / doublingPositions), scale);
}

/** The position of a value on such a slider. */
export function doublingOf(value: number, { from, to }: SliderScale): number {
  const [low, high] = [rational.toNumber(from), rational.toNumber(to)];
  const share = Math.log(Math.max(value, low) / low) / Math.log(high / low);
  return Math.min(doublingPositions, Math.round(share * doublingPositions));
}

/** The position start + k·step nearest to a value, inside the limits, as decimal text. */
export function nearestPosition(value: number, { from, to, step }: SliderScale): string {
  const wanted = Number.isFinite(value) ? rational.fromDouble(value) : from;
  const half = rational.rational(1, 2);
  const k = rational.floor(rational.add(rational.divide(rational.subtract(wanted, from), step), half));
  const position = rational.add(from, rational.multiply(rational.rational(k), step));
  return decimalText(clamped(position, from, to));
}

/** The value moved by so many steps, inside the limits. */
export function stepped(value: string | number, steps: number, scale: SliderScale): string {
  const start = typeof value === 'string' ? settingValue(value) : rational.fromDouble(value);
  const distance = rational.multiply(rational.rational(steps), scale.step);
  return settingText(clamped(rational.add(start ?? scale.from, distance), scale.from, scale.to));
}

function clamped(r: Rational, from: Rational, to: Rational): Rational {
  if (rational.compare(r, from) < 0) return from;
  return rational.compare(r, to) > 0 ? to : r;
}

/** A number as the text of a setting, which `parseDecimal` reads again. */
export function decimalText(r: Rational): string {
  return rational.toDecimal(r, places) ?? writtenDouble(rational.toNumber(r));
}

/** A double without the dust of binary fractions: the exact decimal of so many significant digits next to it. */
export function nearestDecimal(value: number, digits = 12): Rational {
  return (
    rational.parseDecimal(writtenDouble(Number(value.toPrecision(digits)))) ?? rational.fromDouble(value)
  );
}

/** The multiple of a round step next to a number, as an exact decimal. */
export const nearestMultiple = (value: number, step: number): Rational =>
  nearestDecimal(Math.round(value / step) * step);

/** Powers of ten are written 1E-7: a small e is Euler's number. */
const writtenDouble = (value: number): string => String(value).toUpperCase();

/** A round step that divides a range into about a thousand positions: 0.01 for −5 to 5. */
export function fineStep(from: number, to: number): string {
  const exponent = Math.round(Math.log10((to - from) / 1000));
  return exponent >= 0 ? `1${'0'.repeat(exponent)}` : `0.${'0'.repeat(-exponent - 1)}1`;
}
