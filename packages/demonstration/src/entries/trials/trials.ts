import { knownNumber, rational, type KnownNumber } from '@yperkine/core';
import { settingValue } from '../../numbers/setting.ts';
import { z } from 'zod';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { common, idSchema, typedSchema } from '../../fields/fields.ts';
import { decimalText, nearestDecimal } from '../../numbers/slider.ts';
import { unreadable } from '../formula.ts';
import { idsInText, readFormula, typedValue } from '../formulaValue.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { failed, worked } from '../outcome.ts';
import { splitList } from '../valueTable/valueTable.ts';

export const mostTrials = 500;
const mostColumns = 8;

const trialsSchema = z.strictObject({
  ...common,
  kind: z.literal('trials'),
  /** Formulas of the columns, with semicolons between: the parameters and the results that are kept. */
  columns: typedSchema,
  /** One kept trial a row, its numbers as decimals; an empty one had no value. */
  rows: z.array(z.array(z.string().max(60)).max(mostColumns)).max(mostTrials),
  /** Which columns are drawn against each other as points; null for none. */
  plot: z
    .strictObject({
      across: z
        .int()
        .min(0)
        .max(mostColumns - 1),
      up: z
        .int()
        .min(0)
        .max(mostColumns - 1),
    })
    .nullable(),
  tier: idSchema,
});
export type TrialsEntry = z.infer<typeof trialsSchema>;

export interface TrialsResult {
  /** What each column comes to just now: the next row, as it would be kept. */
  readonly now: readonly string[];
  readonly heads: readonly string[];
}

/** A table of trials that were kept: what the parameters were, and what came of it. */
export const trialsKind: EntryKind<TrialsEntry, TrialsResult> = {
  schema: trialsSchema,
  defaults: { rows: [], plot: null },
  standsOn: () => [],
  dependsOn: ({ columns }, directory) => splitList(columns).flatMap((text) => idsInText(text, directory)),
  head: () => ({ heading: 'Trials', tone: 'ink' }),

  workOut(entry, context) {
    const texts = splitList(entry.columns);
    if (texts.length === 0) return failed('Type what a trial keeps, such as a; f(a).');
    if (texts.length > mostColumns) return failed(`A table of trials has at most ${mostColumns} columns.`);
    const now: string[] = [];
    for (const text of texts) {
      const reading = readFormula(text, context.directory);
      if (!reading.ok) return unreadable(reading.problem);
      now.push(keptText(text, context));
    }
    return worked({ now, heads: texts });
  },

  say({ heads }, entry, { rule }) {
    const rows = entry.rows.map((row, i) => {
      const numbers = heads.map((_, column) => numberOf(row[column]));
      return {
        cells: [String(i + 1), ...numbers.map((number) => cellText(number, rule))],
        numbers: [null, ...numbers],
      };
    });
    const sentence = rows.length === 0 ? 'Press “Keep this trial” in the deck to write a row.' : '';
    const table = { caption: 'Trials', head: ['trial', ...heads], rows };
    return { lines: [], sentence, ...(rows.length > 0 ? { table } : {}) };
  },

  marks(_id, { rows, plot, tier: own }, _result, tier) {
    if (plot === null || own !== tier.id) return [];
    const points = rows.flatMap((row) => {
      const [x, y] = [numberOf(row[plot.across]), numberOf(row[plot.up])];
      return x && y ? [tier.toX(x.value), tier.toY(y.value)] : [];
    });
    return points.length > 0 ? [{ kind: 'dots', points, tone: 'ink', size: 5, shape: 'diamond' }] : [];
  },
};

/** A value as it is kept: its exact decimal, or all digits that a double has. */
function keptText(text: string, context: WorkContext): string {
  const outcome = typedValue(text, context);
  const value = outcome.ok ? outcome.result.value : null;
  if (!value || !Number.isFinite(value.value)) return '';
  return (value.exact && rational.toDecimal(value.exact, 30)) ?? decimalText(nearestDecimal(value.value, 15));
}

function numberOf(text: string | undefined): KnownNumber | null {
  const exact = text ? settingValue(text) : null;
  return exact && knownNumber(rational.toNumber(exact), exact);
}

const cellText = (number: KnownNumber | null, rule: RoundingRule): string =>
  number ? format(number, rule).text : '–';
