import type { KnownNumber } from '@yperkine/core';
import { z } from 'zod';
import { format } from '../../numbers/format.ts';
import { latex, live, liveNumber } from '../../numbers/line.ts';
import { common, idSchema, typedSchema } from '../../fields/fields.ts';
import { idsInText, typedValue, type FormulaValue } from '../formulaValue.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';

const markerSchema = z.strictObject({
  ...common,
  kind: z.literal('marker'),
  /** Formulas of its two coordinates, such as t and h(t). */
  x: typedSchema,
  y: typedSchema,
  tier: idSchema,
});
export type MarkerEntry = z.infer<typeof markerSchema>;

export interface MarkerResult {
  readonly x: KnownNumber;
  readonly y: KnownNumber;
  /** Both with the exact forms that they are written in. */
  readonly written: readonly [FormulaValue, FormulaValue];
}

/** A point whose coordinates are formulas: it goes where they go. */
export const markerKind: EntryKind<MarkerEntry, MarkerResult> = {
  schema: markerSchema,
  defaults: {},
  standsOn: () => [],
  dependsOn: ({ x, y }, directory) => [x, y].flatMap((text) => idsInText(text, directory)),
  head: ({ x, y }) => ({ heading: `Marker at (${x}, ${y})`, tone: 'f1' }),

  workOut(entry, context) {
    const across = typedValue(entry.x, context);
    if (!across.ok) return across;
    const up = typedValue(entry.y, context);
    if (!up.ok) return up;
    const written = [across.result, up.result] as const;
    return worked({ x: written[0].value, y: written[1].value, written });
  },

  say({ x, y, written: [across, up] }, _entry, { rule }) {
    const number = ({ value, form }: FormulaValue) => liveNumber(format(value, rule).text, value, form);
    const isThere = Number.isFinite(x.value) && Number.isFinite(y.value);
    return {
      lines: [[latex('('), number(across), live(', '), number(up), latex(')')]],
      sentence: isThere ? '' : 'The marker has no place just now.',
    };
  },

  results: ({ x, y }) => [
    { key: 'x', label: 'first coordinate', number: x, unit: new Map() },
    { key: 'y', label: 'second coordinate', number: y, unit: new Map() },
  ],

  places: ({ x, y }, { tier }) => [{ key: 'marker', label: 'the marker', x: x.value, y: y.value, tier }],

  marks(id, entry, { x, y }, tier) {
    if (entry.tier !== tier.id || !Number.isFinite(x.value) || !Number.isFinite(y.value)) return [];
    return [{ kind: 'dot', entry: id, x: tier.toX(x.value), y: tier.toY(y.value), tone: 'f1', size: 8 }];
  },
};
