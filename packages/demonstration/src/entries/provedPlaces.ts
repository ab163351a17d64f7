import { exactValue, knownNumber, type Expression, type Located, type LocatedHeld } from '@yperkine/core';
import { exactText } from '../numbers/exactText.ts';
import { format, type RoundingRule } from '../numbers/format.ts';
import { live, liveNumber, type Part } from '../numbers/line.ts';
import type { CurveResult } from './curve.ts';
import type { Unit } from '../units/unit.ts';
import type { NameableResult, WorkContext } from './kind.ts';

export type ProvedPlace = Located;
/** A number by its digits and, where it is known, as a formula. */
export interface KnownPlace {
  readonly value: number;
  readonly exact: Expression | null;
}

/** The values of a curve's parameters, and of further names, as far as they are known; null where one has no value. */
export function parameterMap(
  curve: CurveResult,
  context: WorkContext,
  names: readonly string[] = [],
): Map<string, number> | null {
  const values = new Map(curve.program.parameters.map((name, i) => [name, curve.parameters[i] ?? NaN]));
  for (const name of names) {
    const value = context.number(name)?.value;
    if (value !== undefined) values.set(name, value);
  }
  return [...values.values()].every(Number.isFinite) ? values : null;
}

export const unknownNumber = 'This waits for a number that has no value at present.';

/** `= 3/2 ≈ 1.500`, `= 2`, `≈ 0.739`: a place with its exact form where it is proved to be that. */
function placeText({ value, exact }: KnownPlace, rule: RoundingRule): string {
  const { text, isExact } = format({ value, exact: null }, rule);
  const form = exact && exactText(exact);
  if (form === null) return ` ${isExact ? '=' : '≈'} ${text}`;
  return form.includes('/') || /[√∛πe]|ln/.test(form) ? ` = ${form} ≈ ${text}` : ` = ${form}`;
}

/** 3/2 or 0.739: the shortest that is true, for sentences. */
export function shortPlace({ value, exact }: KnownPlace, rule: RoundingRule): string {
  return (exact && exactText(exact)) ?? format({ value, exact: null }, rule).text;
}

/** The same as parts of a line, of which the number can be opened. */
export function placeParts(place: KnownPlace, rule: RoundingRule): Part[] {
  const text = placeText(place, rule);
  const end = Math.max(text.lastIndexOf('='), text.lastIndexOf('≈')) + 2;
  const form = place.exact && exactText(place.exact);
  const number = knownNumber(place.value, place.exact && exactValue(place.exact, new Map()));
  return [live(text.slice(0, end)), liveNumber(text.slice(end), number, form)];
}

/** The places as results that can be named, each under its number. */
export const placeResults = (places: readonly ProvedPlace[], unit: Unit): NameableResult[] =>
  places.map(({ value, exact }, i) => ({
    key: `place${i + 1}`,
    label: places.length === 1 ? 'place' : `place ${i + 1}`,
    number: knownNumber(value, exact && exactValue(exact, new Map())),
    unit,
  }));

/** A stretch in interval notation: [2, 3), or {2} for a single place. */
export function intervalText(
  { from, to, includesFrom, includesTo }: LocatedHeld,
  rule: RoundingRule,
): string {
  const [a, b] = [shortPlace(from, rule), shortPlace(to, rule)];
  if (from.value === to.value) return `{${a}}`;
  return `${includesFrom ? '[' : '('}${a}, ${b}${includesTo ? ']' : ')'}`;
}

/** "nowhere", "at one place", "at 3 places". */
export const countedPlaces = (count: number): string =>
  count === 0 ? 'nowhere' : count === 1 ? 'at one place' : `at ${count} places`;

/** "For t from 0 to 12", for sentences about an interval. */
export const overInterval = (variable: string, { from, to }: { from: string; to: string }): string =>
  `For ${variable} from ${from} to ${to}`.replaceAll('-', '−');
