import { beforeEach, describe, expect, test } from '@jest/globals';
import { emptyDocument, type Change } from '@yperkine/demonstration';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { createStore, type UseStore } from 'idb-keyval';
import { claimWindowId, Keeper, type Pending } from '../src/state/pending.ts';

/** The browser's storage, as far as it is used. */
class FakeStorage {
  [key: string]: unknown;
  getItem(key: string): string | null {
    return typeof this[key] === 'string' ? (this[key] as string) : null;
  }
  setItem(key: string, value: string): void {
    this[key] = value;
  }
  removeItem(key: string): void {
    Reflect.deleteProperty(this, key);
  }
}

/** Locks that are held until the test lets them go, as a closing window does. */
class FakeLocks {
  readonly names = new Set<string>();
  request(name: string, _options: unknown, callback: (lock: object | null) => unknown): Promise<void> {
    const isFree = !this.names.has(name);
    if (isFree) this.names.add(name);
    callback(isFree ? {} : null);
    return Promise.resolve();
  }
  query(): Promise<{ held: { name: string }[] }> {
    return Promise.resolve({ held: [...this.names].map((name) => ({ name })) });
  }
}

let local: FakeStorage;
/** What the keepers were told of whether the browser keeps it. */
let kept: boolean[];
const keeper = (demonstration: string, windowId: string) =>
  new Keeper(demonstration, windowId, (isKept) => kept.push(isKept), shelf);
const keepPending = (demonstration: string, windowId: string, unsaved: Pending | null) =>
  keeper(demonstration, windowId).replace(unsaved);
const findPending = (demonstration: string, windowId: string) => keeper(demonstration, windowId).find();
let shelf: UseStore;
let count = 0;
let locks: FakeLocks;
const define = (name: string, value: unknown) =>
  Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });

beforeEach(() => {
  local = new FakeStorage();
  locks = new FakeLocks();
  kept = [];
  define('indexedDB', new IDBFactory());
  define('IDBKeyRange', IDBKeyRange);
  shelf = createStore(`database ${++count}`, 'unsaved');
  define('localStorage', local);
  define('sessionStorage', new FakeStorage());
  define('navigator', { locks });
});

const change: Change = { id: 'c1', edits: [{ at: 'document', field: 'title', old: '', new: 'Kept' }] };
const pending: Pending = { base: 3, baseDocument: emptyDocument(''), changes: [change] };

describe('changes that the server has not acknowledged', () => {
  test('are found again by the same window after a reload', async () => {
    await keepPending('d', 'w1', pending);
    expect(await findPending('d', 'w1')).toEqual(pending);
    await keepPending('d', 'w1', null);
    expect(await findPending('d', 'w1')).toBeNull();
  });

  test('of a window that was closed are taken over by the next one', async () => {
    await keepPending('d', 'closed', pending);
    expect(await findPending('d', 'w2')).toEqual(pending);
    // They are this window's own now: a third one does not send them again.
    locks.names.add('yperkine/window/w2');
    expect(await findPending('d', 'w3')).toBeNull();
    expect(await findPending('d', 'w2')).toEqual(pending);
  });

  test('of a window that is still open are left to it', async () => {
    locks.names.add('yperkine/window/open');
    await keepPending('d', 'open', pending);
    expect(await findPending('d', 'w2')).toBeNull();
  });

  test('of another demonstration are not mixed up', async () => {
    await keepPending('other', 'w1', pending);
    expect(await findPending('d', 'w1')).toBeNull();
  });

  test('changes that an older version of the program kept are taken up, nothing of them lost', async () => {
    const old = {
      kind: 'function',
      order: 1,
      text: 'f(x) = x^2',
      tier: 'tier-f',
      hidden: false,
      family: 0,
    };
    const { xTitle: _title, xUnit: _unit, ...rest } = emptyDocument('');
    const tiers = { 'tier-f': { order: 1, y: { from: -5, to: 5 }, yTicks: null } };
    const stored = {
      base: 3,
      baseDocument: { ...rest, version: 2, tiers },
      changes: [
        {
          id: 'c1',
          edits: [
            { at: 'entries', id: 'f', old: null, new: old },
            { at: 'document', field: 'title', old: '', new: 'Kept' },
          ],
        },
      ],
    };
    local.setItem('yperkine/pending/d/w1', JSON.stringify(stored));
    const found = await findPending('d', 'w1');
    expect(found?.baseDocument).toEqual(emptyDocument(''));
    expect(found?.changes).toMatchObject([
      { id: 'c1', edits: [{ new: { ...old, unit: '', names: {} } }, { new: 'Kept' }] },
    ]);
  });

  test('that cannot be read do no harm', async () => {
    local.setItem('yperkine/pending/d/w1', '{"base":');
    local.setItem('yperkine/pending/d/w0', '{"base":1,"changes":[]}');
    expect(await findPending('d', 'w1')).toBeNull();
  });

  test('come one by one, and are found in their order', async () => {
    const own = keeper('d', 'w1');
    await own.replace(pending);
    for (let i = 2; i <= 12; i++) await own.append({ ...change, id: `c${i}` });
    const again = keeper('d', 'w1');
    const found = await again.find();
    expect(found?.changes.map(({ id }) => id)).toEqual(Array.from({ length: 12 }, (_, i) => `c${i + 1}`));
    await again.append({ ...change, id: 'c13' });
    expect((await findPending('d', 'w1'))?.changes).toHaveLength(13);
    await again.replace({ ...pending, changes: [change] });
    expect(await findPending('d', 'w1')).toEqual(pending);
  });

  test('a browser that keeps nothing is told of, and is no reason to stop', async () => {
    shelf = () => Promise.reject(new Error('forbidden'));
    await keepPending('d', 'w1', pending);
    expect(await findPending('d', 'w1')).toBeNull();
    expect(kept).toEqual([false, false]);
  });
});

describe('the id of a window', () => {
  test('survives a reload, and a duplicated window gets its own', async () => {
    const first = await claimWindowId();
    // A reload lets the lock go and claims the same id again.
    locks.names.clear();
    expect(await claimWindowId()).toBe(first);
    // A duplicate has the same stored id while the first window still holds its lock.
    expect(await claimWindowId()).not.toBe(first);
  });
});
