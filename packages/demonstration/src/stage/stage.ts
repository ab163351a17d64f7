import type { Range } from '@yperkine/core';
import type { Id } from '../schema/document.ts';

/**
 * What is shown just now, as far as it differs from the document: values of parameters and windows
 * while something is dragged or plays. A text is an exact decimal; a number comes from motion.
 */
export interface Stage {
  readonly values: Readonly<Record<Id, string | number>>;
  readonly x: Range | null;
  readonly y: Readonly<Record<Id, Range>>;
}

export const emptyStage: Stage = { values: {}, x: null, y: {} };

export const withValue = (stage: Stage, id: Id, value: string | number): Stage =>
  stage.values[id] === value ? stage : { ...stage, values: { ...stage.values, [id]: value } };

export function withoutValue(stage: Stage, id: Id): Stage {
  if (!(id in stage.values)) return stage;
  const { [id]: _gone, ...values } = stage.values;
  return { ...stage, values };
}
