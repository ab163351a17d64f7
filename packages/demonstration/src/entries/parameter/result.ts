import type { KnownNumber } from '@yperkine/core';
import type { SliderScale } from '../../numbers/slider.ts';
import type { Unit } from '../../units/unit.ts';

/** What comes out of a parameter. */
export interface ParameterResult {
  readonly name: string;
  readonly value: KnownNumber;
  /** The value as it is shown: the digits of a setting, or a rounded number while it moves. */
  readonly text: string;
  readonly scale: SliderScale;
  readonly unit: Unit;
}
