import { z } from 'zod';

/** A number, or an infinity by name. */
const place = z.union([z.number(), z.enum(['Infinity', '-Infinity'])]).transform(Number);
const interval = z
  .tuple([z.number(), z.number()])
  .refine(([a, b]) => a < b, 'the interval "on" goes from a smaller to a larger number');
/** Bounds in either direction. */
const bounds = z.tuple([z.number(), z.number()]).refine(([a, b]) => a !== b, 'the two bounds "on" differ');
const order = z.int().min(0).max(10).default(0);
/** Whether the answer is to come with what a second program accepts of it. */
const certificate = z.boolean().default(false);
const shared = {
  f: z.string(),
  parameters: z.record(z.string(), z.number()).default({}),
};

/** What may be asked, one question a line. */
export const questionSchema = z.discriminatedUnion('ask', [
  z.object({ ask: z.literal('value'), at: z.array(z.number()).max(100_000), ...shared }),
  z.object({
    ask: z.literal('derivative'),
    order: z.int().min(1).max(10).default(1),
    at: z.array(z.number()).max(100_000).default([]),
    ...shared,
  }),
  z.object({ ask: z.literal('keyPoints'), on: interval, order, certificate, ...shared }),
  z.object({ ask: z.literal('signs'), on: interval, order, certificate, ...shared }),
  z.object({
    ask: z.literal('solve'),
    equals: z.union([z.string(), z.number().transform(String)]),
    on: interval,
    order,
    certificate,
    ...shared,
  }),
  z.object({ ask: z.literal('tangent'), at: z.number(), ...shared }),
  z.object({
    ask: z.literal('secant'),
    at: z.number(),
    h: z.number(),
    kind: z.enum(['forward', 'backward', 'symmetric']).default('forward'),
    ...shared,
  }),
  z.object({
    ask: z.literal('limit'),
    at: place,
    side: z.enum(['left', 'right', 'both']).default('both'),
    certificate,
    ...shared,
  }),
  z.object({
    ask: z.literal('sum'),
    on: bounds,
    n: z.int().min(1).max(100_000),
    rule: z.union([
      z.enum(['left', 'right', 'midpoint', 'trapezoid', 'simpson', 'lower', 'upper']),
      z.strictObject({ fraction: z.number().min(0).max(1) }),
    ]),
    certificate,
    ...shared,
  }),
  z.object({
    ask: z.literal('integral'),
    on: z.tuple([place, place]),
    /** The area between curve and axis, without signs. */
    total: z.boolean().default(false),
    certificate,
    ...shared,
  }),
  z.object({ ask: z.literal('read'), text: z.string(), parameters: shared.parameters }),
]);

export type Question = z.infer<typeof questionSchema>;
export type QuestionAbout<Kind extends Question['ask']> = Extract<Question, { ask: Kind }>;
