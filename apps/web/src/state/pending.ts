import {
  changeSchema,
  documentSchema,
  migratedChange,
  openDocument,
  type Change,
  type Document,
} from '@yperkine/demonstration';
import { createStore, promisifyRequest, type UseStore } from 'idb-keyval';
import { nanoid } from 'nanoid';
import { z } from 'zod';

/** Changes that the server has not acknowledged, with the document and version they were made on. */
export interface Pending {
  readonly base: number;
  readonly baseDocument: Document;
  readonly changes: readonly Change[];
}

const pendingSchema = z.object({
  base: z.int(),
  baseDocument: documentSchema,
  changes: z.array(changeSchema),
});

const storedSchema = z.looseObject({
  baseDocument: z.looseObject({ version: z.int() }),
  changes: z.array(z.unknown()),
});

/** Changes that an older version of the program kept, as the present one writes them. */
function upToDate(stored: z.infer<typeof storedSchema>): unknown {
  const opened = openDocument(stored.baseDocument);
  if (!opened.ok) return stored;
  const changes = stored.changes.map((change) => migratedChange(change, stored.baseDocument.version));
  return { ...stored, baseDocument: opened.document, changes };
}

function readPending(stored: unknown): Pending | null {
  const loose = storedSchema.safeParse(stored);
  const parsed = loose.success ? pendingSchema.safeParse(upToDate(loose.data)) : null;
  return parsed?.success && parsed.data.changes.length > 0 ? parsed.data : null;
}

const lockName = (windowId: string) => `yperkine/window/${windowId}`;
const windowKey = 'yperkine/window';

/**
 * An id for this browser window that survives a reload. A duplicated window gets one of its own: the
 * lock tells whether the id is in use.
 */
export async function claimWindowId(): Promise<string> {
  const stored = sessionStorage.getItem(windowKey);
  if (stored && (await holdLock(stored))) return stored;
  const fresh = nanoid();
  await holdLock(fresh);
  sessionStorage.setItem(windowKey, fresh);
  return fresh;
}

/** Holds a lock until the window closes; false when another window has it. Without locks every id is taken as free. */
function holdLock(windowId: string): Promise<boolean> {
  if (!('locks' in navigator)) return Promise.resolve(true);
  return new Promise((resolve) => {
    void navigator.locks.request(lockName(windowId), { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      return lock === null ? undefined : new Promise(() => undefined);
    });
  });
}

async function isOpen(windowId: string): Promise<boolean> {
  if (!('locks' in navigator)) return false;
  const { held = [] } = await navigator.locks.query();
  return held.some(({ name }) => name === lockName(windowId));
}

/** Where a browser keeps what is not saved yet, for all demonstrations and windows. */
export function unsavedShelf(): UseStore {
  let shelf: UseStore | null = null;
  return async (mode, work) => {
    try {
      shelf ??= createStore('yperkine', 'unsaved');
      return await shelf(mode, work);
    } catch (error) {
      // A database that could not be opened may be there the next time.
      shelf = null;
      throw error;
    }
  };
}

const everythingOf = (...beginning: readonly string[]): IDBKeyRange =>
  // An array stands behind every text and number.
  IDBKeyRange.bound([...beginning], [...beginning, []]);

/** What this window keeps in the browser's own database, where a crash or a closed window does not take it away. */
export class Keeper {
  private count = 0;

  /**
   * @param onKept told after every try whether the browser keeps it
   * @param unsaved the browser's database
   */
  constructor(
    private readonly demonstration: string,
    private readonly windowId: string,
    private readonly onKept: (isKept: boolean) => void,
    private readonly unsaved: UseStore,
  ) {}

  /** Keeps one change more, behind the others. */
  append(change: Change): Promise<void> {
    return this.write((store) => {
      store.put(change, [this.demonstration, this.windowId, ++this.count]);
    });
  }

  /** Keeps just this, all or nothing; null for nothing. */
  replace(pending: Pending | null): Promise<void> {
    return this.write((store) => {
      store.delete(everythingOf(this.demonstration, this.windowId));
      if (pending) this.putAll(store, pending);
    });
  }

  private putAll(store: IDBObjectStore, { base, baseDocument, changes }: Pending): void {
    const own = [this.demonstration, this.windowId];
    store.put({ base, baseDocument }, [...own, 0]);
    for (const change of changes) store.put(change, [...own, ++this.count]);
  }

  private async write(work: (store: IDBObjectStore) => void): Promise<void> {
    try {
      await this.unsaved('readwrite', (store) => {
        work(store);
        return promisifyRequest(store.transaction);
      });
      this.onKept(true);
    } catch {
      // It is full or forbidden: the changes stay in memory and go to the server.
      this.onKept(false);
    }
  }

  /** Unsaved changes of this window, or of one that was closed before it could save, as its own; null if there are none. */
  async find(): Promise<Pending | null> {
    const windows = await this.windows();
    const mine = windows.get(this.windowId);
    const own = mine ? readPending(mine) : null;
    this.count = Math.max(0, mine?.last ?? 0);
    if (own) return own;
    for (const [id, stored] of windows) {
      if (id === this.windowId || (await isOpen(id))) continue;
      const found = readPending(stored);
      if (found) return this.takeOver(id, found);
    }
    return this.fromOlderProgram();
  }

  private async takeOver(windowId: string, found: Pending): Promise<Pending> {
    await this.write((store) => {
      store.delete(everythingOf(this.demonstration, windowId));
      this.putAll(store, found);
    });
    return found;
  }

  /** What all windows have kept of this demonstration. */
  private async windows(): Promise<Map<string, { changes: unknown[]; last: number }>> {
    const windows = new Map<string, { changes: unknown[]; last: number }>();
    try {
      const range = everythingOf(this.demonstration);
      const [keys, values] = await this.unsaved('readonly', (store) =>
        Promise.all([promisifyRequest(store.getAllKeys(range)), promisifyRequest(store.getAll(range))]),
      );
      keys.forEach((key, i) => {
        const [, id, place] = key as [string, string, number];
        const kept = windows.get(id) ?? { changes: [], last: 0 };
        if (place === 0) Object.assign(kept, values[i]);
        else kept.changes.push(values[i]);
        windows.set(id, { ...kept, last: place });
      });
    } catch {
      this.onKept(false);
    }
    return windows;
  }

  /** What the program kept before it used the browser's database. */
  private async fromOlderProgram(): Promise<Pending | null> {
    const prefix = `yperkine/pending/${this.demonstration}/`;
    for (const key of Object.keys(localStorage).filter((name) => name.startsWith(prefix))) {
      const id = key.slice(prefix.length);
      const found = id !== this.windowId && (await isOpen(id)) ? null : readText(localStorage.getItem(key));
      if (!found) continue;
      await this.replace(found);
      localStorage.removeItem(key);
      return found;
    }
    return null;
  }
}

function readText(text: string | null): Pending | null {
  try {
    return text === null ? null : readPending(JSON.parse(text));
  } catch {
    return null;
  }
}
