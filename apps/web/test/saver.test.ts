import { describe, expect, test } from '@jest/globals';
import { applyAll, currentVersion, emptyDocument, type Change, type Document } from '@yperkine/demonstration';
import type { Save } from '@yperkine/protocol';
import { Refusal, ServerAway } from '../src/api/http.ts';
import type { Pending } from '../src/state/pending.ts';
import { Saver, sliceOf, type SaveState } from '../src/state/saver.ts';

const title = (id: string, next: string): Change => ({
  id,
  edits: [{ at: 'document', field: 'title', old: '', new: next }],
});

/** A saver whose clock and server are in the test's hands. */
function underTest(answers: (() => Promise<Awaited<ReturnType<Saver['options']['send']>>>)[] = []) {
  const sent: Save[] = [];
  const states: SaveState[] = [];
  const timers: { callback: () => void; after: number }[] = [];
  const stale: (readonly Change[])[] = [];
  const apart: { change: Change; document: Document; why: string }[] = [];
  let kept: Pending | null = null;
  const saver = new Saver(
    {
      send: (save) => {
        sent.push(save);
        const answer = answers.shift();
        const version = save.base + save.changes.length;
        return answer ? answer() : Promise.resolve({ saved: { version, changedAt: '2026-01-01T00:00:00Z' } });
      },
      onStale: (_saver, theirs) => stale.push(theirs),
      onState: (state) => states.push(state),
      onSetApart: (change, document, why) => apart.push({ change, document, why }),
      keep: {
        append: (change) => (kept = kept && { ...kept, changes: [...kept.changes, change] }),
        replace: (pending) => (kept = pending),
      },
      schedule: (callback, after) => timers.push({ callback, after }),
    },
    0,
    emptyDocument(''),
  );
  const run = async () => {
    timers.splice(0).forEach(({ callback }) => callback());
    for (let i = 0; i < 10; i++) await Promise.resolve();
  };
  return { saver, sent, states, timers, stale, apart, run, kept: () => kept };
}

describe('saving', () => {
  test('changes that come close together go in one request, in order, one request at a time', async () => {
    const { saver, sent, states, run } = underTest();
    saver.add(title('1', 'A'));
    saver.add(title('2', 'B'));
    await run();
    expect(sent.map(({ base, changes }) => [base, changes.map(({ id }) => id)])).toEqual([[0, ['1', '2']]]);
    saver.add(title('3', 'C'));
    await run();
    expect(sent[1]).toMatchObject({ base: 2 });
    expect(states.at(-1)).toBe('saved');
  });

  test('what is not acknowledged is kept, and let go once it is', async () => {
    const { saver, run, kept } = underTest();
    saver.add(title('1', 'A'));
    expect(kept()).toMatchObject({ base: 0, changes: [{ id: '1' }] });
    await run();
    expect(kept()).toBeNull();
    expect(saver.serverDocument.title).toBe('A');
  });

  test('while the server is away it waits longer and longer, and loses nothing', async () => {
    const away = () => Promise.reject(new ServerAway());
    const { saver, sent, states, timers, run } = underTest([away, away, away, away, away]);
    saver.add(title('1', 'A'));
    const waits: number[] = [];
    for (let i = 0; i < 5; i++) {
      await run();
      waits.push(timers[0]?.after ?? NaN);
    }
    expect(waits).toEqual([1000, 2000, 4000, 8000, 8000]);
    expect(states.at(-1)).toBe('away');
    saver.add(title('2', 'B'));
    await run();
    expect(sent.at(-1)?.changes.map(({ id }) => id)).toEqual(['1', '2']);
    expect(states.at(-1)).toBe('saved');
  });

  test('signed out is said, and tried again', async () => {
    const { saver, states, run } = underTest([
      () => Promise.reject(new Refusal(401, 'Please sign in first.')),
    ]);
    saver.add(title('1', 'A'));
    await run();
    expect(states.at(-1)).toBe('signedOut');
    await run();
    expect(states.at(-1)).toBe('saved');
  });

  test('a fault of the server is no absence: it is told as such, and tried again', async () => {
    const fault = () => Promise.reject(new Refusal(500, 'Something went wrong on the server.'));
    const { saver, states, timers, run } = underTest([fault, fault]);
    saver.add(title('1', 'A'));
    await run();
    expect(states.at(-1)).toBe('fault');
    saver.add(title('2', 'B'));
    await run();
    expect({ state: states.at(-1), waits: timers.map(({ after }) => after) }).toEqual({
      state: 'fault',
      waits: [2000],
    });
    await run();
    expect(states.at(-1)).toBe('saved');
  });

  test('what is refused for good is found and set apart, and everything after it is saved', async () => {
    const refuse = () => Promise.reject(new Refusal(422, 'This does not fit.'));
    // Together, then one by one: the second is the one.
    const accepted = (version: number) => () =>
      Promise.resolve({ saved: { version, changedAt: '2026-01-01T00:00:00Z' } });
    const { saver, sent, states, apart, run, kept } = underTest([refuse, accepted(1), refuse, accepted(2)]);
    const dependent: Change = {
      id: '4',
      edits: [{ at: 'field', of: 'entries', id: 'gone', field: 'text', old: '', new: 'x' }],
    };
    for (const change of [title('1', 'A'), title('2', 'B'), title('3', 'C'), dependent]) saver.add(change);
    for (let i = 0; i < 6; i++) await run();
    expect(sent.map(({ changes }) => changes.map(({ id }) => id))).toEqual([
      ['1', '2', '3', '4'],
      ['1'],
      ['2'],
      ['3'],
      ['4'],
    ]);
    expect(apart).toMatchObject([
      { change: { id: '2' }, why: 'This does not fit.', document: { title: 'C' } },
    ]);
    expect({ state: states.at(-1), kept: kept(), version: saver.serverVersion }).toEqual({
      state: 'saved',
      kept: null,
      version: 3,
    });
  });

  test('a newer server is not asked again; a busy one is', async () => {
    const newer = underTest([
      () => Promise.reject(new Refusal(409, 'Please reload.', undefined, 'newerVersion')),
    ]);
    newer.saver.add(title('1', 'A'));
    await newer.run();
    newer.saver.add(title('2', 'B'));
    newer.saver.retry();
    await newer.run();
    expect({
      states: newer.states.at(-1),
      sent: newer.sent.length,
      kept: newer.kept()?.changes.length,
    }).toEqual({
      states: 'otherVersion',
      sent: 1,
      kept: 2,
    });
    const busy = underTest([() => Promise.reject(new Refusal(429, 'Too many.'))]);
    busy.saver.add(title('1', 'A'));
    await busy.run();
    await busy.run();
    expect(busy.states.at(-1)).toBe('saved');
  });

  test('a long queue goes in slices, in order', async () => {
    const { saver, sent, states, run } = underTest([() => Promise.reject(new ServerAway())]);
    for (let i = 0; i < 1201; i++) saver.add(title(`${i}`, `T${i}`));
    for (let i = 0; i < 5; i++) await run();
    expect(sent.map(({ base, changes }) => [base, changes.length])).toEqual([
      [0, 500],
      [0, 500],
      [500, 500],
      [1000, 201],
    ]);
    expect(states.at(-1)).toBe('saved');
    // A million characters at most, but at least one change.
    const large = (id: string, size: number) => title(id, 'x'.repeat(size));
    expect(sliceOf([large('1', 600_000), large('2', 300_000), large('3', 200_000)])).toHaveLength(2);
    expect(sliceOf([large('1', 1_200_000), large('2', 1)])).toHaveLength(1);
    expect(sliceOf([])).toEqual([]);
  });

  test('what others saved is taken in only while nothing of one’s own waits', async () => {
    const theirs: Change = { id: 't', edits: [{ at: 'document', field: 'decimals', old: 3, new: 5 }] };
    const news = { version: 1, format: currentVersion, since: [theirs] };
    const { saver, stale, states, run } = underTest();
    saver.hear(news);
    expect(stale).toEqual([[theirs]]);
    saver.rebased(1, applyAll(saver.serverDocument, [theirs]), []);
    expect(states.at(-1)).toBe('saved');
    saver.hear(news);
    saver.add(title('1', 'A'));
    saver.hear({ ...news, version: 2 });
    expect(stale).toHaveLength(1);
    await run();
    expect(saver.serverVersion).toBe(2);
  });

  test('a stale save hands over what others did and goes on from there', async () => {
    const theirs: Change = { id: 't', edits: [{ at: 'document', field: 'decimals', old: 3, new: 5 }] };
    const { saver, sent, stale, run } = underTest([
      () => Promise.resolve({ stale: { version: 1, format: currentVersion, since: [theirs] } }),
    ]);
    saver.add(title('1', 'A'));
    await run();
    expect(stale).toEqual([[theirs]]);
    saver.rebased(saver.staleVersion, applyAll(saver.serverDocument, [theirs]), saver.waiting);
    await run();
    expect(sent[1]).toMatchObject({ base: 1, changes: [{ id: '1' }] });
    expect(saver.serverDocument).toMatchObject({ title: 'A', decimals: 5 });
  });

  test('a save that arrived although its answer was lost is not asked about', async () => {
    const mine = title('1', 'A');
    const { saver, stale, run } = underTest([
      () => Promise.resolve({ stale: { version: 1, format: currentVersion, since: [mine] } }),
    ]);
    saver.add(mine);
    await run();
    expect(stale).toHaveLength(1);
    expect(saver.waiting).toEqual([]);
  });
});
