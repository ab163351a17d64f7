import { knownNumber, rational, type KnownNumber } from '@yperkine/core';
import { z } from 'zod';
import { common, limits } from '../../fields/fields.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';

const revealSchema = z.strictObject({
  ...common,
  kind: z.literal('reveal'),
  /** The name by which conditions ask for it. */
  name: z.string().min(1).max(60),
  /** What its switch says; empty for the name. */
  title: z.string().max(limits.title),
  switchedOn: z.boolean(),
  /** What restoring the start gives back. */
  start: z.boolean(),
});
export type RevealEntry = z.infer<typeof revealSchema>;

export interface RevealResult {
  readonly name: string;
  readonly value: KnownNumber;
}

const [off, on] = [0, 1].map((value) => knownNumber(value, rational.rational(value))) as [
  KnownNumber,
  KnownNumber,
];

/** A named switch that conditions ask for; in a formula it is 1 or 0. */
export const revealKind: EntryKind<RevealEntry, RevealResult> = {
  schema: revealSchema,
  defaults: ({ switchedOn = false }) => ({ title: '', switchedOn, start: switchedOn }),
  standsOn: () => [],
  defines: ({ name }) => ({ name, isFunction: false, isTruth: true }),
  head: ({ name, title }) => ({ heading: `Reveal ${title || name}`, tone: 'ink' }),
  number: ({ value }) => value,
  workOut: (entry) => worked({ name: entry.name, value: entry.switchedOn ? on : off }),
  marks: () => [],
};
