import { rational } from '@yperkine/core';
import { settingValue } from '../numbers/setting.ts';
import { z } from 'zod';
import { lookSchema } from './look.ts';

/** Limits that keep any stored document small enough to be worked out at once. */
export const limits = {
  entries: 500,
  tiers: 20,
  steps: 100,
  text: 10_000,
  data: 600_000,
  title: 200,
  unit: 40,
  condition: 400,
  /** Bytes of a whole document as JSON in UTF-8. */
  bytes: 5_000_000,
} as const;

/** A permanent id. Maps are plain objects, so what every object inherits (`constructor`, `__proto__`) is no id. */
export const idSchema = z
  .string()
  .regex(/^[\w-]{1,40}$/)
  .refine((id) => !(id in Object.prototype), { message: 'not an id' });
export type Id = string;

export const finite = z.number().finite();

/** A number kept as the digits that were typed, so that 0.1 stays one tenth. */
export const decimalSchema = z
  .string()
  .max(60)
  .refine((text) => rational.parseDecimal(text) !== null, { message: 'not a decimal number' });

/** A number as it is typed for a slider: a decimal, or a fraction such as 4/3. */
export const settingSchema = z
  .string()
  .max(60)
  .refine((text) => settingValue(text) !== null, { message: 'neither a decimal number nor a fraction' });

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
  /** The condition under which it is shown, as typed; empty for always. */
  shownWhen: z.string().max(limits.condition),
  look: lookSchema,
};

/** What a study of a curve at a place has: the curve and the parameter that says where. */
export const atPlace = { ...common, on: idSchema, parameter: idSchema };

/** Where something stands that can be laid on the graphs. */
export const standingSchema = z.discriminatedUnion('at', [
  /** In the working alone. */
  z.strictObject({ at: z.literal('page') }),
  /** Pinned to the screen: shares of the room that is left beside it, 0 at the left or top and 1 at the right or bottom. */
  z.strictObject({ at: z.literal('screen'), x: finite.min(0).max(1), y: finite.min(0).max(1) }),
  /** Pinned to a place of a tier, by its upper left corner. */
  z.strictObject({ at: z.literal('graph'), tier: idSchema, x: finite, y: finite }),
]);
export type Standing = z.infer<typeof standingSchema>;

/** How large the text of something on the graphs is. */
export const textSizeSchema = z.enum(['small', 'medium', 'large', 'title']);
export type TextSize = z.infer<typeof textSizeSchema>;
