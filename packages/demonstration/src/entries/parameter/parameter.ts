import { isReserved, knownNumber, rational, type KnownNumber } from '@yperkine/core';
import { z } from 'zod';
import { settingValue } from '../../numbers/setting.ts';
import { readUnit, type Unit } from '../../units/unit.ts';
import { common, decimalSchema, settingSchema, unitSchema } from '../../fields/fields.ts';
import { nearestPosition, sliderScale, type SliderScale } from '../../numbers/slider.ts';
import type { EntryKind } from '../kind.ts';
import type { ParameterResult } from './result.ts';
import { failed, worked } from '../outcome.ts';

const repeatSchema = z.enum(['once', 'overAndOver', 'thereAndBack']);
export type Repeat = z.infer<typeof repeatSchema>;

const parameterSchema = z.strictObject({
  ...common,
  kind: z.literal('parameter'),
  name: z.string().min(1).max(60),
  value: settingSchema,
  /** The value that restoring the start gives back. */
  start: settingSchema,
  from: decimalSchema,
  to: decimalSchema,
  step: decimalSchema,
  /** Evenly along the slider, or with as much room for each doubling as for the next: small numbers get more of it. */
  spread: z.enum(['even', 'doubling']),
  /** Whether its pace is given as seconds a run or as units a second. */
  pace: z.enum(['seconds', 'speed']),
  /** Seconds that one run from limit to limit takes. */
  seconds: decimalSchema,
  /** Units that it goes on in a second. */
  speed: decimalSchema,
  repeat: repeatSchema,
  /** Smoothly, or from step to step. */
  motion: z.enum(['smooth', 'steps']),
  /** Seconds that it rests at each step. */
  pause: decimalSchema,
  /** What students may do with its lane. */
  students: z.enum(['move', 'see', 'nothing']),
  unit: unitSchema,
  /** Whether it takes whole numbers only. */
  whole: z.boolean(),
  /** By a slider in the deck, by its point on the curve alone, or not at all. */
  moves: z.enum(['slider', 'free', 'fixed']),
});
export type ParameterEntry = z.infer<typeof parameterSchema>;

const scaleProblems = {
  limitsReversed: 'The left limit must be smaller than the right one.',
  stepNotPositive: 'The step must be greater than zero.',
} as const;

/** A number with a slider. Its value is exact while it stands on typed digits, a float while it moves. */
export const parameterKind: EntryKind<ParameterEntry, ParameterResult> = {
  schema: parameterSchema,
  defaults: ({ value = '0' }) => ({
    start: value,
    from: '-5',
    to: '5',
    step: '0.1',
    spread: 'even',
    pace: 'seconds',
    seconds: '8',
    speed: '1',
    repeat: 'thereAndBack',
    motion: 'smooth',
    pause: '1',
    students: 'move',
    unit: '',
    whole: false,
    moves: 'slider',
  }),
  standsOn: () => [],
  number: ({ value }) => value,
  unit: ({ unit }) => unit,
  defines: ({ name }) => ({ name, isFunction: false }),
  head: ({ name }) => ({ heading: `Slider ${name}`, tone: 'ink' }),

  workOut(entry, { staged }) {
    if (isReserved(entry.name))
      return failed(`“${entry.name}” already has a meaning; please choose another name.`);
    const { scale, unit } = settingsOf(entry);
    if (typeof scale === 'string') return failed(scaleProblems[scale]);
    const shown = staged ?? entry.value;
    if (typeof shown === 'number') {
      const value = inMotion(shown, entry, scale);
      return worked({ name: entry.name, value, setting: null, scale, unit });
    }
    const exact = settingValue(shown);
    if (entry.whole && !(exact && rational.isInteger(exact))) {
      return failed(`${entry.name} takes whole numbers only, and ${shown.replace('-', '−')} is none.`);
    }
    const value = knownNumber(exact ? rational.toNumber(exact) : NaN, exact);
    return worked({ name: entry.name, value, setting: shown, scale, unit });
  },

  marks: () => [],
};

interface Settings {
  readonly scale: ReturnType<typeof sliderScale>;
  readonly unit: Unit;
}
const read = new WeakMap<ParameterEntry, Settings>();

/** What stays the same while the value moves, as the same object. */
function settingsOf(entry: ParameterEntry): Settings {
  const known = read.get(entry);
  if (known) return known;
  const settings = { scale: sliderScale(entry), unit: readUnit(entry.unit) };
  read.set(entry, settings);
  return settings;
}

/** A value that motion has reached: a slider of whole numbers goes from one to the next, one of steps from step to step. */
function inMotion(shown: number, { whole, motion }: ParameterEntry, scale: SliderScale): KnownNumber {
  if (whole) return wholeNumber(Math.round(shown));
  if (motion !== 'steps') return knownNumber(shown);
  const step = rational.parseDecimal(nearestPosition(shown, scale));
  // Between two steps lies only the value that a run began at.
  const isStep =
    step !== null && Math.abs(rational.toNumber(step) - shown) < 1e-9 * Math.max(1, Math.abs(shown));
  return isStep ? knownNumber(rational.toNumber(step), step) : knownNumber(shown);
}

const wholeNumber = (value: number): KnownNumber => knownNumber(value, rational.rational(value));
