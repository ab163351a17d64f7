import { rational } from '@yperkine/core';
import { z } from 'zod';

/** Limits that keep any stored document small enough to be worked out at once. */
export const limits = { entries: 500, tiers: 20, text: 10_000, data: 600_000, title: 200, unit: 40 } as const;

export const idSchema = z.string().regex(/^[\w-]{1,40}$/);
export type Id = string;

export const finite = z.number().finite();

/** A number kept as the digits that were typed, so that 0.1 stays one tenth. */
export const decimalSchema = z
  .string()
  .max(60)
  .refine((text) => rational.parseDecimal(text) !== null, { message: 'not a decimal number' });

export const rangeSchema = z
  .strictObject({ from: finite, to: finite })
  .refine(({ from, to }) => to > from, { message: 'a range runs from left to right' });

/** Text that is kept as typed even while it cannot be read. */
export const typedSchema = z.string().max(limits.text);

/** A unit of measurement as it is typed; empty for a bare number. */
export const unitSchema = z.string().max(limits.unit);

/** What every entry has. */
export const common = {
  /** Its place in the working. */
  order: finite,
  /** Whether its marks are left out of the graphs; its card stays. */
  hidden: z.boolean(),
  /** Names that its results have been given, by which result it is. */
  names: z.record(z.string().max(20), z.string().min(1).max(60)),
};

/** What a study of a curve at a place has: the curve and the parameter that says where. */
export const atPlace = { ...common, on: idSchema, parameter: idSchema };
