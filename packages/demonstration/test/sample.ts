import { certified } from '@yperkine/core/certificate';
import { readFileSync } from 'node:fs';
import {
  accept,
  answersNow,
  buildScene,
  documentSchema,
  emptyDocument,
  emptyStage,
  makeEntry,
  newTier,
  plainText,
  resolve,
  type Change,
  type Document,
  type Edit,
  type Entry,
  type Id,
  type Mark,
  type MarkOf,
  type Scene,
  type Stage,
  saidOf,
  type Outcome,
  type Resolution,
  type Said,
} from '../src/index.ts';

export const slider = (
  order: number,
  name: string,
  value: string,
  more: Partial<Extract<Entry, { kind: 'parameter' }>> = {},
): Entry => makeEntry('parameter', { order, name, value, repeat: 'once', ...more });

export const given = (order: number, text: string, tier = 'tier-f'): Entry =>
  makeEntry('function', { order, text, tier });

/** f with a point, a tangent and f′ in a second tier, all at x = a. */
export function tangentDocument(text = 'f(x) = 3x^2 - 5x - 2', at = '1'): Document {
  return documentSchema.parse({
    ...emptyDocument('Sample'),
    x: { from: -2, to: 3.5 },
    entries: {
      f: given(1, text),
      a: slider(2, 'a', at),
      p: makeEntry('point', { order: 3, on: 'f', parameter: 'a' }),
      t: makeEntry('tangent', { order: 4, on: 'f', parameter: 'a' }),
      d: makeEntry('derivative', { order: 5, of: 'f', tier: 'slope' }),
    },
    tiers: {
      'tier-f': newTier(1, { from: -6, to: 8 }),
      slope: newTier(2, { from: -20, to: 20 }),
    },
  } satisfies Document);
}

export const setField = (id: Id, field: string, old: unknown, value: unknown): Edit => ({
  at: 'field',
  of: 'entries',
  id,
  field,
  old,
  new: value,
});

export const frozenSample = (version: number): unknown =>
  JSON.parse(readFileSync(new URL(`../src/schema/samples/v${version}.json`, import.meta.url), 'utf8'));

/** A document of two tiers with the given entries. */
export const documentWith = (entries: Document['entries']): Document => ({
  ...emptyDocument(),
  entries,
  tiers: { 'tier-f': newTier(1, { from: -5, to: 5 }), slope: newTier(2, { from: -5, to: 5 }) },
});

/** What came out of an entry, with what it says of that. */
export function toldIn<R = object>(resolution: Resolution, id: Id): Outcome<R & Said> | undefined {
  const outcome = resolution.entries.get(id)?.outcome;
  if (!outcome?.ok) return outcome;
  return { ...outcome, result: { ...(outcome.result as R), ...(saidOf(resolution, id) as Said) } };
}

export const outcomeOf = (document: Document, id: Id, stage: Stage = emptyStage) =>
  toldIn(resolve(document, stage, undefined, answersNow(certified)), id);

/** What came out of an entry. @throws with the entry's own sentence where nothing did */
export function resultOf<T>(document: Document, id: Id, stage: Stage = emptyStage): T & Said {
  const outcome = outcomeOf(document, id, stage);
  if (!outcome?.ok) throw new Error(outcome?.problem.message);
  return outcome.result as T & Said;
}

export const sceneOf = (document: Document): Scene =>
  buildScene({
    document,
    stage: emptyStage,
    resolution: resolve(document, emptyStage, undefined, answersNow(certified)),
    size: { width: 800, height: 500, density: 1, furniture: true },
    here: null,
  });

/** A function f, with an entry that asks something of it. */
export const withStudy = (text: string, entry: Entry, more: Record<string, Entry> = {}): Document =>
  documentWith({ f: given(1, text), study: entry, ...more });

export const linesOf = (document: Document, id = 'study'): string[] =>
  resultOf<Said>(document, id).lines.map(plainText);
export const sentenceOf = (document: Document, id = 'study'): string => resultOf<Said>(document, id).sentence;
export const problemOf = (document: Document, id = 'study'): string => {
  const outcome = outcomeOf(document, id);
  return outcome?.ok === false ? outcome.problem.message : '';
};
export const marksOf = (scene: Scene, id = 'study'): Mark[] =>
  scene.tiers.flatMap(({ marks }) => marks.filter((mark) => 'entry' in mark && mark.entry === id));
export const ofKind = <K extends Mark['kind']>(marks: readonly Mark[], kind: K): MarkOf<K>[] =>
  marks.filter((mark): mark is MarkOf<K> => mark.kind === kind);

/** The document after a change, or null where it does not take it. */
export function accepted(document: Document, change: Change): Document | null {
  const result = accept(document, change);
  return result.ok ? result.document : null;
}
