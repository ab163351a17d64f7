import {
  changeSchema,
  documentSchema,
  migratedChange,
  openDocument,
  type Change,
  type Document,
} from '@yperkine/demonstration';
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

const prefix = (demonstration: string) => `yperkine/pending/${demonstration}/`;
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

/** Keeps this window's unsaved changes where a crash or a closed window does not take them away. */
export function keepPending(demonstration: string, windowId: string, pending: Pending | null): boolean {
  const key = prefix(demonstration) + windowId;
  try {
    if (pending) localStorage.setItem(key, JSON.stringify(pending));
    else localStorage.removeItem(key);
    return true;
  } catch {
    // The browser's storage is full or forbidden; the changes stay in memory and go to the server.
    return false;
  }
}

/** Unsaved changes of this window, or of one that was closed before it could save; null if there are none. */
export async function findPending(demonstration: string, windowId: string): Promise<Pending | null> {
  const own = prefix(demonstration) + windowId;
  const keys = Object.keys(localStorage).filter((key) => key.startsWith(prefix(demonstration)));
  for (const key of [own, ...keys.filter((other) => other !== own)]) {
    const isOthers = key !== own && (await isOpen(key.slice(prefix(demonstration).length)));
    const found = isOthers ? null : readPending(key);
    if (!found) continue;
    if (key !== own && keepPending(demonstration, windowId, found)) localStorage.removeItem(key);
    return found;
  }
  return null;
}

function readPending(key: string): Pending | null {
  const text = localStorage.getItem(key);
  if (text === null) return null;
  try {
    const parsed = pendingSchema.safeParse(upToDate(storedSchema.parse(JSON.parse(text))));
    return parsed.success && parsed.data.changes.length > 0 ? parsed.data : null;
  } catch {
    return null;
  }
}
