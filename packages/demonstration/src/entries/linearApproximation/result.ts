import type { AnswerTo, KnownNumber, Tangent } from '@yperkine/core';
import type { TypedInterval } from '../asking.ts';
import type { CurveResult } from '../curve.ts';
import type { ParameterResult } from '../parameter/result.ts';

export type Stretch = AnswerTo['holds']['stretches'][number];
export type SlopedTangent = Extract<Tangent, { kind: 'line' }>;

/** The approximation as a curve, and how far it is from its function. */
export interface LinearApproximationResult extends CurveResult {
  readonly of: CurveResult;
  readonly at: ParameterResult;
  readonly beside: ParameterResult;
  /** The line that touches; null where there is none, and the approximation has no values. */
  readonly tangent: SlopedTangent | null;
  /** Why there is none, in one sentence; empty where there is one. */
  readonly whyNone: string;
  /** f − L as a curve of its own. */
  readonly difference: CurveResult;
  /** f − L where they are compared; NaN where f has no value there. */
  readonly off: KnownNumber;
  readonly tolerance: KnownNumber;
  readonly interval: TypedInterval;
  /** The part around a on which it is good enough; null where none is known. */
  readonly good: Stretch | null;
  /** Whether it is still being looked for: what was known of another tangent is not told of this one. */
  readonly isSought: boolean;
  /** Whether that part is proved to be the whole of it, as far as the interval goes. */
  readonly isProved: boolean;
  readonly madeFrom: readonly unknown[];
}
