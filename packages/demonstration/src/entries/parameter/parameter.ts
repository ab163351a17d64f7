import { isReserved, knownNumber, rational } from '@yperkine/core';
import { format, formatSetting } from '../../numbers/format.ts';
import { sliderScale } from '../../stage/slider.ts';
import type { EntryKind } from '../kind.ts';
import { failed, worked } from '../outcome.ts';

const scaleProblems = {
  limitsReversed: 'The left limit must be smaller than the right one.',
  stepNotPositive: 'The step must be greater than zero.',
} as const;

/** A number with a slider. Its value is exact while it stands on typed digits, a float while it moves. */
export const parameterKind: EntryKind<'parameter'> = {
  dependsOn: () => [],

  workOut(entry, { staged, rule }) {
    if (isReserved(entry.name))
      return failed(`“${entry.name}” already has a meaning; please choose another name.`);
    const scale = sliderScale(entry);
    if (typeof scale === 'string') return failed(scaleProblems[scale]);
    const shown = staged ?? entry.value;
    if (typeof shown === 'number') {
      const value = knownNumber(shown);
      return worked({ name: entry.name, value, text: format(value, rule).text, scale });
    }
    const value = knownNumber(Number(shown), rational.parseDecimal(shown));
    return worked({ name: entry.name, value, text: formatSetting(shown, rule), scale });
  },

  marks: () => [],
};
