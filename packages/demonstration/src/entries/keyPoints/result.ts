import type { AnswerTo, Asymptote } from '@yperkine/core';
import { z } from 'zod';
import { onInterval, type TypedInterval } from '../asking.ts';
import type { CurveResult } from '../curve.ts';
import { allGroups, type FoundPoint } from './kinds.ts';

export const keyPointsSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('keyPoints'),
  /** The kinds that are shown. */
  shows: z.array(z.enum(allGroups)).max(allGroups.length),
  /** Whether each point has its coordinates beside it. */
  labels: z.boolean(),
  /**
   * Of which derivative the proof is laid under the curve: 0 shows why there are no other zeros, 1 why no other highs and
   * lows, 2 why no other changes of bend; null for none.
   */
  proof: z.int().min(0).max(2).nullable(),
});
export type KeyPointsEntry = z.infer<typeof keyPointsSchema>;

export interface KeyPointsResult {
  readonly curve: CurveResult;
  readonly interval: TypedInterval;
  readonly points: readonly FoundPoint[];
  /** Level and slanting ones. */
  readonly asymptotes: readonly Asymptote[];
  /** How sure it is that these are all, and why. */
  readonly answer: AnswerTo['keyPoints'];
}
