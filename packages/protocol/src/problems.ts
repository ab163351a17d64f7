import { z } from 'zod';

export const errorSchema = z.object({
  error: z.object({
    code: z.string(),
    /** One plain sentence for the person. */
    message: z.string(),
    /** The field of the request that is meant, where there is one. */
    field: z.string().optional(),
  }),
});
export type ErrorBody = z.infer<typeof errorSchema>;

export const healthSchema = z.object({ status: z.enum(['ok', 'readOnly', 'unavailable']) });
