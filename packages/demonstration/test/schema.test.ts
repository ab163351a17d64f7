import { describe, expect, test } from '@jest/globals';
import {
  currentVersion,
  documentSchema,
  emptyDocument,
  emptyStage,
  entryKinds,
  migrated,
  migrations,
  openDocument,
  resolve,
  usualLook,
  usualLooks,
  type Document,
  type Migration,
  answersNow,
} from '../src/index.ts';
import { frozenSample } from './sample.ts';

describe('stored documents', () => {
  test.each(Array.from({ length: currentVersion }, (_, i) => i + 1))(
    'the frozen sample of version %i opens',
    (version) => {
      const opened = openDocument(frozenSample(version));
      expect(opened).toMatchObject({ ok: true, document: { version: currentVersion } });
    },
  );

  test('every version before the current one has a migration', () => {
    expect(Object.keys(migrations).map(Number)).toEqual(
      Array.from({ length: currentVersion - 1 }, (_, i) => i + 1),
    );
  });

  test('version 2 shows what version 1 showed: every entry, functions in the first colour, whole tangents', () => {
    const opened = openDocument(frozenSample(1));
    if (!opened.ok) throw new Error(opened.reason);
    const { entries } = opened.document;
    expect(Object.values(entries).map(({ hidden }) => hidden)).toEqual(Object.keys(entries).map(() => false));
    expect(entries.given).toMatchObject({ family: 0 });
    expect(entries.tangent).toMatchObject({ triangle: true, base: '1', reach: 'line', pointSlope: false });
    const { entries: before } = frozenSample(1) as { entries: Record<string, object> };
    for (const [id, entry] of Object.entries(before)) expect(entries[id]).toMatchObject(entry);
  });

  test('version 3 shows what version 2 showed: no units, no titles, sliders of any number, windows that stay', () => {
    const opened = openDocument(frozenSample(2));
    if (!opened.ok) throw new Error(opened.reason);
    const { entries, tiers, xTitle, xUnit } = opened.document;
    expect([xTitle, xUnit]).toEqual(['', '']);
    expect(Object.values(tiers).map(({ title }) => title)).toEqual(['', '']);
    expect(entries.given).toMatchObject({ unit: '' });
    expect(entries.a).toMatchObject({ unit: '', whole: false, moves: 'slider' });
    expect(Object.values(entries).find(({ kind }) => kind === 'secant')).toMatchObject({
      windowFollows: false,
    });
    const { entries: before } = frozenSample(2) as { entries: Record<string, object> };
    for (const [id, entry] of Object.entries(before)) expect(entries[id]).toMatchObject(entry);
  });

  test('version 4 shows what version 3 showed: usual looks, no conditions, and what stood there is the start', () => {
    const before = frozenSample(3) as Document;
    const opened = openDocument(before);
    if (!opened.ok) throw new Error(opened.reason);
    const { entries, tiers, startX, looks } = opened.document;
    expect(startX).toEqual(before.x);
    expect(Object.values(tiers).map(({ startY }) => startY)).toEqual(
      Object.values(before.tiers).map(({ y }) => y),
    );
    expect(looks).toEqual(usualLooks);
    const usual = { shownWhen: '', look: usualLook };
    for (const [id, entry] of Object.entries(before.entries))
      expect(entries[id]).toMatchObject({ ...entry, ...usual });
    expect(entries.a).toMatchObject({ start: '3.4', pace: 'seconds', motion: 'smooth', students: 'move' });
    const through = Object.values(entries).find(({ kind }) => kind === 'throughPoints');
    expect(through).toMatchObject({ start: (through as { points: string }).points });
  });

  test('every version from 5 on shows what version 4 showed, sliders spread evenly, without steps, asymptotes with the breaks, radians', () => {
    for (let version = 4; version < currentVersion; version++) {
      const before = frozenSample(version) as Document;
      const opened = openDocument(before);
      const entries = Object.entries(before.entries).map(([id, entry]) => [
        id,
        entry.kind === 'parameter' && version < 6
          ? { ...entry, spread: 'even' }
          : entry.kind === 'keyPoints'
            ? {
                ...entry,
                ...(version < 9 ? { proof: null } : {}),
                ...(version < 8 && entry.shows.includes('breaks')
                  ? { shows: [...entry.shows, 'asymptotes'] }
                  : {}),
              }
            : entry,
      ]);
      const expected = {
        ...before,
        version: currentVersion,
        angles: 'radians',
        entries: Object.fromEntries(entries),
        steps: before.steps ?? {},
      };
      expect(opened.ok && opened.document).toEqual(expected);
    }
  });

  test('a document is brought up one version at a time, in order', () => {
    const steps: Record<number, Migration> = {
      1: (document) => ({ ...document, trail: [...(document.trail as string[]), 'one'] }),
      2: (document) => ({ ...document, trail: [...(document.trail as string[]), 'two'] }),
    };
    expect(migrated({ version: 1, trail: [] }, 3, steps)).toEqual({ version: 3, trail: ['one', 'two'] });
    expect(migrated({ version: 2, trail: [] }, 3, steps)).toEqual({ version: 3, trail: ['two'] });
    expect(migrated({ version: 3, trail: [] }, 3, steps)).toEqual({ version: 3, trail: [] });
    expect(migrated({ version: 1, trail: [] }, 4, steps)).toBeNull();
  });

  test('a document survives being written and opened again', () => {
    const opened = openDocument(JSON.parse(JSON.stringify(frozenSample(currentVersion))));
    expect(opened.ok && opened.document).toEqual(frozenSample(currentVersion));
  });

  test('what is not a demonstration, is too new or damaged is refused with a reason', () => {
    expect(openDocument({ hello: 1 })).toEqual({ ok: false, reason: 'notADemonstration' });
    expect(openDocument(null)).toEqual({ ok: false, reason: 'notADemonstration' });
    expect(openDocument({ ...emptyDocument(), version: currentVersion + 1 })).toEqual({
      ok: false,
      reason: 'tooNew',
    });
    expect(openDocument({ ...emptyDocument(), entries: 7 })).toEqual({ ok: false, reason: 'damaged' });
  });

  test.each([
    ['an empty range', { x: { from: 2, to: 2 } }],
    ['an infinite limit', { x: { from: 0, to: Infinity } }],
    ['an unknown field', { colour: 'red' }],
    ['a title that is too long', { title: 'x'.repeat(201) }],
  ])('%s is not a valid document', (_what, wrong) => {
    expect(documentSchema.safeParse({ ...emptyDocument(), ...wrong }).success).toBe(false);
  });
});

test('the newest frozen sample holds every kind of entry, and each can be worked out', () => {
  const opened = openDocument(frozenSample(currentVersion));
  if (!opened.ok) throw new Error(opened.reason);
  const kinds = new Set(Object.values(opened.document.entries).map(({ kind }) => kind));
  expect([...kinds].sort()).toEqual(Object.keys(entryKinds).sort());
  const { entries } = resolve(opened.document, emptyStage, undefined, answersNow());
  expect([...entries.values()].flatMap(({ id, outcome }) => (outcome.ok ? [] : [id]))).toEqual([]);
});
