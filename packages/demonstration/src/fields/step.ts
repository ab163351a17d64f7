import { z } from 'zod';
import { finite, idSchema, limits, rangeSchema, typedSchema } from './fields.ts';

/** Where everything that moves stands: values and points by entry, switched reveals by entry, windows. */
export const momentSchema = z.strictObject({
  values: z.record(idSchema, typedSchema),
  reveals: z.record(idSchema, z.boolean()),
  windows: z.strictObject({ x: rangeSchema, y: z.record(idSchema, rangeSchema) }),
});
export type Moment = z.infer<typeof momentSchema>;

const { values, reveals, windows } = momentSchema.shape;

/** One stop of a presentation. A part that is null, and an entry or tier that is not named, stays as it is. */
export const stepSchema = z.strictObject({
  order: finite,
  title: z.string().max(limits.title),
  values: values.nullable(),
  reveals: reveals.nullable(),
  windows: windows.nullable(),
  /** Whether the trails of moving points are taken away on arriving. */
  clearsTrails: z.boolean(),
});
export type Step = z.infer<typeof stepSchema>;
