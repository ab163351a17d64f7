import { rational } from '@yperkine/core';
import { z } from 'zod';

/** Limits that keep any stored document small enough to be worked out at once. */
export const limits = { entries: 500, tiers: 20, text: 10_000, title: 200 } as const;

export const idSchema = z.string().regex(/^[\w-]{1,40}$/);
const finite = z.number().finite();

/** A number kept as the digits that were typed, so that 0.1 stays one tenth. */
export const decimalSchema = z
  .string()
  .max(60)
  .refine((text) => rational.parseDecimal(text) !== null, { message: 'not a decimal number' });

export const rangeSchema = z
  .strictObject({ from: finite, to: finite })
  .refine(({ from, to }) => to > from, { message: 'a range runs from left to right' });

const common = { order: finite };

export const functionSchema = z.strictObject({
  ...common,
  kind: z.literal('function'),
  /** The only copy of the formula, kept as typed even while it cannot be read. */
  text: z.string().max(limits.text),
  tier: idSchema,
});

export const repeatSchema = z.enum(['once', 'overAndOver', 'thereAndBack']);

export const parameterSchema = z.strictObject({
  ...common,
  kind: z.literal('parameter'),
  name: z.string().min(1).max(60),
  value: decimalSchema,
  from: decimalSchema,
  to: decimalSchema,
  step: decimalSchema,
  /** Seconds that one run from limit to limit takes. */
  seconds: decimalSchema,
  repeat: repeatSchema,
});

export const pointSchema = z.strictObject({
  ...common,
  kind: z.literal('point'),
  on: idSchema,
  parameter: idSchema,
});

export const tangentSchema = z.strictObject({
  ...common,
  kind: z.literal('tangent'),
  on: idSchema,
  parameter: idSchema,
  /** Whether the rise-over-run triangle is drawn. */
  triangle: z.boolean(),
});

export const derivativeSchema = z.strictObject({
  ...common,
  kind: z.literal('derivative'),
  of: idSchema,
  degree: z.int().min(1).max(8),
  tier: idSchema,
});

export const entrySchema = z.discriminatedUnion('kind', [
  functionSchema,
  parameterSchema,
  pointSchema,
  tangentSchema,
  derivativeSchema,
]);

export const tierSchema = z.strictObject({
  order: finite,
  y: rangeSchema,
  /** Distance of the tick numbers; null lets the program choose. */
  yTicks: finite.positive().nullable(),
});

export const currentVersion = 1;

export const documentSchema = z.strictObject({
  format: z.literal('yperkine-demonstration'),
  version: z.literal(currentVersion),
  title: z.string().max(limits.title),
  /** Decimal places of results. */
  decimals: z.int().min(0).max(12),
  x: rangeSchema,
  xTicks: finite.positive().nullable(),
  /** The x-limits were typed: Fit leaves them and chooses the heights alone. */
  xTyped: z.boolean(),
  entries: z
    .record(idSchema, entrySchema)
    .refine((entries) => Object.keys(entries).length <= limits.entries, { message: 'too many entries' }),
  tiers: z
    .record(idSchema, tierSchema)
    .refine((tiers) => Object.keys(tiers).length <= limits.tiers, { message: 'too many tiers' }),
});

export type Id = string;
export type Document = z.infer<typeof documentSchema>;
export type Entry = z.infer<typeof entrySchema>;
export type EntryKindName = Entry['kind'];
export type EntryOf<K extends EntryKindName> = Extract<Entry, { kind: K }>;
export type Repeat = z.infer<typeof repeatSchema>;

export const firstTier: Id = 'tier-f';

export function emptyDocument(title = 'Untitled demonstration'): Document {
  return {
    format: 'yperkine-demonstration',
    version: currentVersion,
    title,
    decimals: 3,
    x: { from: -5, to: 5 },
    xTicks: null,
    xTyped: false,
    entries: {},
    tiers: { [firstTier]: { order: 1, y: { from: -5, to: 5 }, yTicks: null } },
  };
}

/** Pairs of id and value in their order; equal orders are settled by id, so that every reader agrees. */
export function inOrder<T extends { readonly order: number }>(map: Readonly<Record<Id, T>>): [Id, T][] {
  return Object.entries(map).sort(([idA, a], [idB, b]) => a.order - b.order || (idA < idB ? -1 : 1));
}

/** An order key behind everything that is there. */
export function lastOrder(map: Readonly<Record<Id, { readonly order: number }>>): number {
  return Math.max(0, ...Object.values(map).map(({ order }) => order)) + 1;
}
