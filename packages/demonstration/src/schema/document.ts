import { z } from 'zod';
import { entryKinds } from '../entries/table.ts';
import { looksSchema, usualLooks } from '../fields/looks.ts';
import { stepSchema } from '../fields/step.ts';
import { finite, idSchema, limits, rangeSchema, unitSchema, type Id } from '../fields/fields.ts';

export * from '../fields/fields.ts';
export * from '../fields/look.ts';
export * from '../fields/looks.ts';
export * from '../fields/step.ts';

export type EntryKindName = keyof typeof entryKinds;
type EntriesByKind = { [K in EntryKindName]: z.infer<(typeof entryKinds)[K]['schema']> };
export type EntryOf<K extends EntryKindName> = EntriesByKind[K];
export type Entry = EntriesByKind[EntryKindName];

type EntrySchemas = [z.ZodObject<{ kind: z.ZodLiteral<EntryKindName> }>];
/** Of any kind in the table. */
export const entrySchema = z.discriminatedUnion(
  'kind',
  Object.values(entryKinds).map(({ schema }) => schema) as unknown as EntrySchemas,
) as unknown as z.ZodType<Entry>;

export const tierSchema = z.strictObject({
  order: finite,
  y: rangeSchema,
  /** The window that restoring the start gives back. */
  startY: rangeSchema,
  /** Distance of the tick numbers; null lets the program choose. */
  yTicks: finite.positive().nullable(),
  /** The title of its axis; empty for what its curves say by themselves. */
  title: z.string().max(limits.title),
});

export type Tier = z.infer<typeof tierSchema>;

/** A tier at its place in the stack, with a window for its heights. */
export const newTier = (order: number, y: Tier['y']): Tier => ({
  order,
  y,
  startY: y,
  yTicks: null,
  title: '',
});

export const currentVersion = 10;

export const documentSchema = z.strictObject({
  format: z.literal('yperkine-demonstration'),
  version: z.literal(currentVersion),
  title: z.string().max(limits.title),
  /** Decimal places of results. */
  decimals: z.int().min(0).max(12),
  /** What sin, cos and their kin take, and what their inverses give, in formulas without a degree sign. */
  angles: z.enum(['radians', 'degrees']),
  x: rangeSchema,
  /** The window along x that restoring the start gives back. */
  startX: rangeSchema,
  xTicks: finite.positive().nullable(),
  /** The x-limits were typed: Fit leaves them and chooses the heights alone. */
  xTyped: z.boolean(),
  /** The title of the x-axis, empty for the variable alone, and its unit. */
  xTitle: z.string().max(limits.title),
  xUnit: unitSchema,
  looks: looksSchema,
  entries: z
    .record(idSchema, entrySchema)
    .refine((entries) => Object.keys(entries).length <= limits.entries, { message: 'too many entries' }),
  tiers: z
    .record(idSchema, tierSchema)
    .refine((tiers) => Object.keys(tiers).length <= limits.tiers, { message: 'too many tiers' }),
  steps: z
    .record(idSchema, stepSchema)
    .refine((steps) => Object.keys(steps).length <= limits.steps, { message: 'too many steps' }),
});

export type Document = z.infer<typeof documentSchema>;

export const firstTier: Id = 'tier-f';

export function emptyDocument(title = 'Untitled demonstration'): Document {
  return {
    format: 'yperkine-demonstration',
    version: currentVersion,
    title,
    decimals: 3,
    angles: 'radians',
    x: { from: -5, to: 5 },
    startX: { from: -5, to: 5 },
    xTicks: null,
    xTyped: false,
    xTitle: '',
    xUnit: '',
    looks: usualLooks,
    entries: {},
    tiers: { [firstTier]: newTier(1, { from: -5, to: 5 }) },
    steps: {},
  };
}

/** The curve and the parameter that a study stands at; null for an entry that stands at no place. */
export function placeOfStudy(entry: Entry): { readonly on: Id; readonly parameter: Id } | null {
  return 'on' in entry && 'parameter' in entry ? entry : null;
}

const ordered = new WeakMap<object, readonly (readonly [Id, unknown])[]>();

/**
 * Pairs of id and value in their order; equal orders are settled by id, so that every reader agrees. Maps never change,
 * so each is put in order once.
 */
export function inOrder<T extends { readonly order: number }>(
  map: Readonly<Record<Id, T>>,
): readonly (readonly [Id, T])[] {
  const known = ordered.get(map);
  if (known) return known as readonly (readonly [Id, T])[];
  const pairs = Object.entries(map).sort(([idA, a], [idB, b]) => a.order - b.order || (idA < idB ? -1 : 1));
  ordered.set(map, pairs);
  return pairs;
}

/** The parameters that have a lane in the deck, in order. */
export const slidersOf = ({ entries }: Document): (readonly [Id, Entry])[] =>
  inOrder(entries).filter(([, entry]) => entry.kind === 'parameter' && entry.moves === 'slider');

/** An order key behind everything that is there. */
export function lastOrder(map: Readonly<Record<Id, { readonly order: number }>>): number {
  return Math.max(0, ...Object.values(map).map(({ order }) => order)) + 1;
}
