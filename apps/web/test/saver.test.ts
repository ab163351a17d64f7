import { describe, expect, test } from '@jest/globals';
import { applyAll, currentVersion, emptyDocument, type Change } from '@yperkine/demonstration';
import type { Save } from '@yperkine/protocol';
import { Refusal, ServerAway } from '../src/api/http.ts';
import type { Pending } from '../src/state/pending.ts';
import { Saver, type SaveState } from '../src/state/saver.ts';

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
      keep: (pending) => (kept = pending),
      schedule: (callback, after) => timers.push({ callback, after }),
    },
    0,
    emptyDocument(''),
  );
  const run = async () => {
    timers.splice(0).forEach(({ callback }) => callback());
    for (let i = 0; i < 10; i++) await Promise.resolve();
  };
  return { saver, sent, states, timers, stale, run, kept: () => kept };
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

  test('signed out is said, and tried again; a refusal is said, and not repeated', async () => {
    const signedOut = underTest([() => Promise.reject(new Refusal(401, 'Please sign in first.'))]);
    signedOut.saver.add(title('1', 'A'));
    await signedOut.run();
    expect(signedOut.states.at(-1)).toBe('signedOut');
    await signedOut.run();
    expect(signedOut.states.at(-1)).toBe('saved');
    const refused = underTest([() => Promise.reject(new Refusal(422, 'no'))]);
    refused.saver.add(title('1', 'A'));
    await refused.run();
    expect(refused.states.at(-1)).toBe('refused');
    expect(refused.timers).toEqual([]);
    expect(refused.kept()).not.toBeNull();
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
