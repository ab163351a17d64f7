import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { z } from 'zod';
import {
  answersNow,
  applyChange,
  buildScene,
  currentVersion,
  documentSchema,
  emptyStage,
  entryKinds,
  makeEntry,
  headOfEntry,
  invert,
  isShown,
  openDocument,
  resolve,
  resultsOf,
  saidOf,
  stagedInterval,
  usualLook,
  type Change,
  type Document,
  type Edit,
  type Entry,
  type EntryKindName,
  type Resolution,
  type Scene,
  type Stage,
} from '../src/index.ts';
import { cases } from '../../../tests/cases.ts';
import { frozenSample } from './sample.ts';

const opened = openDocument(frozenSample(currentVersion));
if (!opened.ok) throw new Error('the sample cannot be opened');

/** What stands in fields of the sample, by their names: plausible values for any other entry. */
const pool = new Map<string, unknown[]>();
for (const entry of Object.values(opened.document.entries)) {
  for (const [field, value] of Object.entries(entry)) pool.set(field, [...(pool.get(field) ?? []), value]);
}

/** An entry of a kind, with the fields that others have; a field that none has refers to a slider. */
function exampleOf(kind: EntryKindName, name: string): Entry {
  const { schema, defaults } = entryKinds[kind] as unknown as { schema: z.ZodObject; defaults: object };
  const [slider] = Object.entries(opened.ok ? opened.document.entries : {}).find(
    ([, entry]) => entry.kind === 'parameter',
  ) as [string, Entry];
  const own = Object.keys(schema.shape).filter((field) => field !== 'kind' && !(field in defaults));
  const fields = own.map((field) => [field, pool.get(field)?.[0] ?? slider]);
  return makeEntry(kind, { ...Object.fromEntries(fields), ...('name' in schema.shape ? { name } : {}) });
}

/** A demonstration in which every kind of entry stands: kinds that are younger than the sample by its fields. */
const there = new Set(Object.values(opened.document.entries).map(({ kind }) => kind));
const younger = (Object.keys(entryKinds) as EntryKindName[]).filter((kind) => !there.has(kind));
const sample: Document = {
  ...opened.document,
  entries: {
    ...opened.document.entries,
    ...Object.fromEntries(younger.map((kind, i) => [`younger${i}`, exampleOf(kind, `z_${i}`)])),
  },
};

const answers = answersNow();
const size = { width: 480, height: 400, density: 0.5, furniture: true } as const;

interface Shown {
  readonly document: Document;
  readonly stage: Stage;
}

interface WorkedOut {
  readonly resolution: Resolution;
  readonly scene: Scene;
}

function workedOut({ document, stage }: Shown, before?: WorkedOut): WorkedOut {
  const resolution = resolve(document, stage, before?.resolution, answers);
  return { resolution, scene: buildScene({ document, stage, resolution, size, here: null }, before?.scene) };
}

/** All that a person is told, and all that is drawn. */
function toldBy({ resolution, scene }: WorkedOut): unknown {
  const entries = [...resolution.entries].map(([id, resolved]) => {
    const { outcome } = resolved;
    const results = resultsOf(resolution, id).map(({ key, label, number }) => [key, label, number.value]);
    const problem = outcome.ok ? null : outcome.problem;
    const isOnGraphs = isShown(resolution, id);
    return {
      id,
      head: headOfEntry(resolved),
      said: saidOf(resolution, id),
      results,
      problem,
      isOnGraphs,
    };
  });
  const { tiers, xTicks, xTitle, handles, vertices, bounds, slides } = scene;
  const drawn = tiers.map(({ marks, labels, yTicks }) => ({ marks, labels, yTicks }));
  return { entries, drawn, xTicks, xTitle, handles, vertices, bounds, slides };
}

pool.set('look', [
  { ...usualLook, tone: 'g' },
  { ...usualLook, tone: '#336699', layer: 1, label: 'value' },
  { ...usualLook, line: 'dashed', weight: 4, point: 'ring', label: 'name' },
  { ...usualLook, label: 'text', text: 'here', layer: -1 },
]);
pool.set('names', [{}, { slope: 'm' }, { value: 'q', x: 'p' }]);
const typed = [
  'x^2 - 3',
  'f(t)/2',
  '2a + 1',
  'sin t',
  '1/t',
  'g(t) - f(t)',
  'sqrt(t - 2)',
  't^',
  '',
  'k',
  '0.5',
];

const isLeftAlone = (field: string): boolean => field === 'kind' || field === 'points' || field === 'table';

/** One more action of a person, chosen by four numbers; null where it leads to nothing that can be stored. */
function nextEdit(document: Document, [what, which, field, value]: readonly number[]): Edit | null {
  const at = <T>(list: readonly T[], i = 0): T | undefined => list[i % list.length];
  const ids = Object.keys(document.entries);
  const id = at(ids, which);
  const entry = id === undefined ? undefined : document.entries[id];
  if (!id || !entry) return null;
  switch ((what ?? 0) % 8) {
    case 0: {
      const changes = [
        ['decimals', (value ?? 0) % 7],
        ['angles', document.angles === 'radians' ? 'degrees' : 'radians'],
        ['xUnit', at(['h', 'min', '', 'm'], value)],
        ['x', { from: -((value ?? 0) % 5), to: 6 + ((value ?? 0) % 9) }],
        ['looks', { ...document.looks, decimalMark: document.looks.decimalMark === '.' ? ',' : '.' }],
        ['xTitle', at(['time', ''], value)],
      ] as const;
      const [name, next] = changes[(field ?? 0) % changes.length] as (typeof changes)[number];
      return { at: 'document', field: name, old: document[name], new: next };
    }
    case 1:
      return { at: 'entries', id, old: entry, new: null };
    case 2: {
      const copy = `copy${ids.length}`;
      return document.entries[copy]
        ? null
        : { at: 'entries', id: copy, old: null, new: { ...entry, order: 200 } };
    }
    default: {
      const name = at(
        Object.keys(entry).filter((key) => !isLeftAlone(key)),
        field,
      );
      if (name === undefined) return null;
      const old = (entry as unknown as Record<string, unknown>)[name];
      const others = pool.get(name) ?? [];
      const next =
        typeof old === 'boolean' ? !old : at([...others, ...(typeof old === 'string' ? typed : [])], value);
      return { at: 'field', of: 'entries', id, field: name, old, new: next };
    }
  }
}

/** What is dragged: the value of a slider, the interval of a study, points, a partition, a height. */
const dragged: Readonly<Partial<Record<Entry['kind'], (to: number) => string>>> = {
  throughPoints: (to) => `0 0; 2 ${to}; 5 1`,
  nearest: (to) => `${to} 1`,
  sum: (to) => `1, ${to + 1}, 11`,
  averageValue: String,
  parameter: String,
};

/** What is on the stage after one more movement. */
function nextStage({ document, stage }: Shown, [which = 0, value = 0]: readonly number[]): Stage {
  const movable = Object.entries(document.entries).filter(
    ([, entry]) => entry.kind in dragged || 'from' in entry,
  );
  const [id, entry] = movable[which % Math.max(1, movable.length)] ?? [];
  if (!id || !entry || value % 5 === 0) return emptyStage;
  const to = (value % 90) / 10;
  const staged = (value % 2 && dragged[entry.kind]?.(to)) || stagedInterval('0', String(to + 0.5));
  const values = { ...stage.values, [id]: entry.kind === 'parameter' ? String(to) : staged };
  return { ...stage, values, x: value % 7 === 0 ? { from: 1, to: 8 } : stage.x };
}

function* walked(moves: readonly (readonly number[])[]): Generator<Shown> {
  let shown: Shown = { document: sample, stage: emptyStage };
  const done: Change[] = [];
  yield shown;
  for (const [kind = 0, ...numbers] of moves) {
    const { document } = shown;
    if (kind % 6 === 0) shown = { document, stage: nextStage(shown, numbers) };
    else {
      const last = kind % 6 === 1 ? done.pop() : undefined;
      const edit = last ? null : nextEdit(document, numbers);
      const change = last ? invert(last, 'back') : edit && { id: 'on', edits: [edit] };
      if (!change) continue;
      const next = documentSchema.safeParse(applyChange(document, change));
      if (!next.success) continue;
      if (!last) done.push(change);
      shown = { ...shown, document: applyChange(document, change) };
    }
    yield shown;
  }
}

describe('what is worked out in steps equals what is worked out afresh', () => {
  test('every kind of entry stands in the sample', () => {
    const kinds = Object.values(sample.entries).map(({ kind }) => kind);
    expect(new Set(kinds)).toEqual(new Set(Object.keys(entryKinds)));
    expect(documentSchema.safeParse(sample).success).toBe(true);
  });

  test('other decimals, another look, another place in the working, hiding, a condition: nothing is worked out', () => {
    const before = workedOut({ document: sample, stage: emptyStage });
    const workedOutBy = (edits: readonly Edit[]): readonly string[] => {
      const document = applyChange(sample, { id: 'on', edits: [...edits] });
      return resolve(document, emptyStage, before.resolution, answers).workedOut;
    };
    expect(workedOutBy([{ at: 'document', field: 'decimals', old: sample.decimals, new: 1 }])).toEqual([]);
    for (const [id, entry] of Object.entries(sample.entries)) {
      const set = (field: 'look' | 'order' | 'hidden' | 'shownWhen', value: unknown): Edit => ({
        at: 'field',
        of: 'entries',
        id,
        field,
        old: entry[field],
        new: value,
      });
      expect(workedOutBy([set('look', { ...entry.look, tone: '#336699', layer: 1 })])).toEqual([]);
      expect(workedOutBy([set('order', 500)])).toEqual([]);
      expect(workedOutBy([set('hidden', !entry.hidden)])).toEqual([]);
      expect(workedOutBy([set('shownWhen', '1 < 2')])).toEqual([]);
    }
  });

  test('after any edits, movements of sliders and windows, and undoing: headings, lines, sentences, tables and marks', () => {
    const moves = fc.array(fc.array(fc.nat(1000), { minLength: 5, maxLength: 5 }), { maxLength: 10 });
    fc.assert(
      fc.property(moves, (list) => {
        let before: WorkedOut | undefined;
        for (const shown of walked(list)) {
          const inSteps = workedOut(shown, before);
          expect(toldBy(inSteps)).toEqual(toldBy(workedOut(shown)));
          before = inSteps;
        }
      }),
      { seed: 20261202, numRuns: cases(8, 300) },
    );
  });
});
