import type { KnownNumber } from '@yperkine/core';
import { format, formatSetting, formatTidily, type RoundingRule } from '../../numbers/format.ts';
import type { SliderScale } from '../../numbers/slider.ts';
import type { Unit } from '../../units/unit.ts';

/** What comes out of a parameter. */
export interface ParameterResult {
  readonly name: string;
  readonly value: KnownNumber;
  /** The digits of its setting as they were typed; null while it moves. */
  readonly setting: string | null;
  readonly scale: SliderScale;
  readonly unit: Unit;
}

/** The value as it is shown: the digits of a setting, or a rounded number while it moves. */
export function shownValue({ value, setting }: ParameterResult, rule: RoundingRule): string {
  if (setting !== null) return formatSetting(setting, rule);
  return (value.exact ? formatTidily(value, rule) : format(value, rule)).text;
}
