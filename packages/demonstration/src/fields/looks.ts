import { z } from 'zod';

/** How the texts of one sort are set: in the interface's face or the mathematics', small to very large. */
const typeSchema = z.strictObject({
  face: z.enum(['plain', 'mathematics']),
  size: z.enum(['small', 'medium', 'large', 'veryLarge']),
});
export type TypeLook = z.infer<typeof typeSchema>;

/** How the whole demonstration looks. */
export const looksSchema = z.strictObject({
  /** Paper or slate for everybody, or what each viewer has chosen. */
  backdrop: z.enum(['viewer', 'paper', 'slate']),
  grid: z.boolean(),
  axes: z.boolean(),
  /** Whether the axes are numbered. */
  numbers: z.boolean(),
  /** The scale along x in multiples of π. */
  piScale: z.boolean(),
  /** One unit takes as many pixels upward as along x. */
  sameScale: z.boolean(),
  /** The corner of each tier in which a list says which line is which. */
  key: z.enum(['none', 'topRight', 'topLeft', 'bottomRight', 'bottomLeft']),
  decimalMark: z.enum(['.', ',']),
  titles: typeSchema,
  tickNumbers: typeSchema,
});
export type Looks = z.infer<typeof looksSchema>;

export const usualLooks: Looks = {
  backdrop: 'viewer',
  grid: true,
  axes: true,
  numbers: true,
  piScale: false,
  sameScale: false,
  key: 'none',
  decimalMark: '.',
  titles: { face: 'plain', size: 'medium' },
  tickNumbers: { face: 'plain', size: 'medium' },
};

/** Pixels of titles and of tick numbers. */
export const titlePixels = { small: 12.5, medium: 14, large: 17, veryLarge: 22 } as const;
export const tickPixels = { small: 11.5, medium: 13, large: 16, veryLarge: 20 } as const;
