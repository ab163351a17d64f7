import { setTimeout as wait } from 'node:timers/promises';
import type { Saved, Stale } from '@yperkine/protocol';
import { currentVersion, makeEntry, type Change, type Entry } from '@yperkine/demonstration';

const password = 'a long enough one';
const rest = 20;
const patience = 10_000;
const places = 50;

/** An account of its own. @returns the cookie of its session */
export async function signUp(address: string, name: string): Promise<string> {
  const response = await fetch(`${address}/api/accounts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name, email: `${name}@tarn-valley.example`, password }),
  });
  if (response.status !== 201) throw new Error(await response.text());
  return response.headers.getSetCookie()[0]?.split(';')[0] ?? '';
}

/**
 * Saves one change after another, each until it is acknowledged, as the page does: what got no answer is sent again
 * as it was.
 */
export class Writer {
  readonly acknowledged: string[] = [];
  /** Answers that no fault of the server or the database explains. */
  readonly strange: string[] = [];
  private base = 0;
  private isStopped = false;
  private readonly running: Promise<void>;

  constructor(
    private readonly demonstration: string,
    private readonly cookie: string,
    private readonly name: string,
  ) {
    this.running = this.write();
  }

  /** Ends it after the change in hand is acknowledged. */
  stop(): Promise<void> {
    this.isStopped = true;
    return this.running;
  }

  /** Waits until it has saved something since now. */
  async oneMore(): Promise<void> {
    const before = this.acknowledged.length;
    while (this.acknowledged.length === before) await wait(rest);
  }

  private async write(): Promise<void> {
    for (let count = 0; !this.isStopped; count++) await this.acknowledge(this.change(count));
  }

  /** One of fifty headings of its own says the number of the change. */
  private change(count: number): Change {
    const heading = (at: number): Entry | null =>
      at < 0 ? null : makeEntry('heading', { order: at % places, title: `${this.name} ${at}` });
    const id = `${this.name}${count % places}`;
    return {
      id: `${this.name}-${count}`,
      edits: [{ at: 'entries', id, old: heading(count - places), new: heading(count) }],
    };
  }

  private async acknowledge(change: Change): Promise<void> {
    for (;;) {
      const answer = await this.send(change).catch(() => null);
      const body = answer && ((await answer.json().catch(() => null)) as Partial<Saved & Stale> | null);
      const isStale = answer?.status === 409;
      // Another wrote in between: its changes are taken in, and this one is sent upon them, if it is not among them.
      if (body?.version !== undefined) this.base = body.version;
      const isThere = isStale
        ? body?.since?.some(({ id }) => id === change.id)
        : answer?.status === 200 && body !== null;
      if (isThere) {
        this.acknowledged.push(change.id);
        return;
      }
      if (answer && ![200, 409, 503].includes(answer.status)) {
        this.strange.push(`${answer.status} ${JSON.stringify(body)}`);
        return;
      }
      if (!isStale) await wait(rest);
    }
  }

  private send(change: Change): Promise<Response> {
    return fetch(`${this.demonstration}/changes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie: this.cookie },
      body: JSON.stringify({ base: this.base, format: currentVersion, changes: [change] }),
      signal: AbortSignal.timeout(patience),
    });
  }
}
