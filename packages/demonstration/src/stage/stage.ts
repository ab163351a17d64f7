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

/** The stage without what has been decided elsewhere: these values, and these windows. */
export function stageWithout(
  { values, x, y }: Stage,
  decided: Readonly<Record<Id, unknown>>,
  windows: Pick<Stage, 'y'> | null,
): Stage {
  const left = <T>(map: Readonly<Record<Id, T>>, gone: Readonly<Record<Id, unknown>>): Record<Id, T> =>
    Object.fromEntries(Object.entries(map).filter(([id]) => !(id in gone)));
  return { values: left(values, decided), x: windows ? null : x, y: left(y, windows?.y ?? {}) };
}

export function withoutValue(stage: Stage, id: Id): Stage {
  if (!(id in stage.values)) return stage;
  const { [id]: _gone, ...values } = stage.values;
  return { ...stage, values };
}
