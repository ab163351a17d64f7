import { z } from 'zod';
import { colourRoles, type Tone } from './tone.ts';

const finite = z.number().finite();

/** A colour role of the theme, or a colour of one's own as #rrggbb. */
const toneSchema = z
  .string()
  .refine((tone) => (colourRoles as readonly string[]).includes(tone) || /^#[0-9a-f]{6}$/.test(tone), {
    message: 'neither a colour role nor #rrggbb',
  }) as unknown as z.ZodType<Tone>;

const pointShapes = ['disc', 'ring', 'square', 'diamond', 'cross'] as const;
export type PointShape = (typeof pointShapes)[number];

/** How the marks of an entry look; null leaves it to the kind of entry and the order of its function. */
export const lookSchema = z.strictObject({
  tone: toneSchema.nullable(),
  line: z.enum(['whole', 'dashed', 'dotted']).nullable(),
  /** Width of lines in pixels. */
  weight: finite.min(0.5).max(12).nullable(),
  point: z.enum(pointShapes).nullable(),
  /** Radius of points in pixels. */
  size: finite.min(2).max(20).nullable(),
  label: z.enum(['none', 'name', 'value', 'text']).nullable(),
  /** The words of a label of one's own. */
  text: z.string().max(200),
  /** Marks of a higher layer lie over those of a lower one. */
  layer: z.int().min(-2).max(2),
});
export type Look = z.infer<typeof lookSchema>;

export const usualLook: Look = {
  tone: null,
  line: null,
  weight: null,
  point: null,
  size: null,
  label: null,
  text: '',
  layer: 0,
};
