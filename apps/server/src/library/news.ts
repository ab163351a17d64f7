import type pg from 'pg';
import { Client } from 'pg';
import type { Logger } from 'pino';
import { z } from 'zod';

const channel = 'demonstrations_saved';
/** Saves gather for a moment, so that telling of them costs one statement, however many there are. */
const gather = 40;
const firstWait = 500;
const longestWait = 10_000;

const tellingSchema = z.array(z.tuple([z.uuid(), z.int()]));
/** PostgreSQL takes 8000 bytes; each id and version takes about 50. */
const mostInOne = 120;

type Listener = (version: number) => void;

/**
 * Tells every open window, on whichever server it hangs, that a demonstration was saved. The database carries the news
 * (LISTEN and NOTIFY), on one connection a process that is made again when it is lost. News may get lost with it: who
 * listens asks for the present version at the beginning and after every gap.
 */
export class News {
  private readonly listeners = new Map<string, Set<Listener>>();
  private readonly gaps = new Set<() => void>();
  private readonly untold = new Map<string, number>();
  private telling: NodeJS.Timeout | null = null;
  private client: Client | null = null;
  private wait = firstWait;
  private isClosed = false;

  constructor(
    private readonly databaseUrl: string,
    private readonly pool: pg.Pool,
    private readonly logger: Logger,
  ) {}

  /** Says that a demonstration has a new version now. */
  tell(id: string, version: number): void {
    this.untold.set(id, version);
    this.telling ??= setTimeout(() => void this.tellAll(), gather);
  }

  private async tellAll(): Promise<void> {
    this.telling = null;
    const all = [...this.untold];
    this.untold.clear();
    for (let i = 0; i < all.length; i += mostInOne) {
      const payload = JSON.stringify(all.slice(i, i + mostInOne));
      await this.pool
        .query('SELECT pg_notify($1, $2)', [channel, payload])
        .catch((error: unknown) => this.logger.warn({ err: error }, 'a save could not be told to others'));
    }
  }

  /**
   * Calls back whenever a demonstration was saved, and `onGap` when news may have been lost.
   * @returns what ends it
   */
  listen(id: string, onSaved: Listener, onGap: () => void): () => void {
    const those = this.listeners.get(id) ?? new Set();
    this.listeners.set(id, those.add(onSaved));
    this.gaps.add(onGap);
    if (!this.client) void this.connect();
    return () => {
      those.delete(onSaved);
      this.gaps.delete(onGap);
      if (those.size === 0) this.listeners.delete(id);
    };
  }

  async close(): Promise<void> {
    this.isClosed = true;
    if (this.telling) clearTimeout(this.telling);
    await this.client?.end().catch(() => undefined);
  }

  private async connect(): Promise<void> {
    if (this.isClosed) return;
    const client = new Client({
      connectionString: this.databaseUrl,
      connectionTimeoutMillis: 5000,
      keepAlive: true,
    });
    this.client = client;
    client.on('notification', ({ payload }) => this.heard(payload ?? ''));
    client.on('error', () => undefined);
    client.once('end', () => this.lost(client));
    try {
      await client.connect();
      await client.query(`LISTEN ${channel}`);
      this.wait = firstWait;
      for (const onGap of this.gaps) onGap();
    } catch (error) {
      this.logger.warn({ err: error }, 'news of saves cannot be heard');
      this.lost(client);
    }
  }

  private lost(client: Client): void {
    if (this.client !== client || this.isClosed) return;
    this.client = null;
    void client.end().catch(() => undefined);
    setTimeout(() => {
      if (!this.client && this.listeners.size > 0) void this.connect();
    }, this.wait).unref();
    this.wait = Math.min(longestWait, this.wait * 2);
  }

  private heard(payload: string): void {
    const told = tellingSchema.safeParse(parsed(payload));
    if (!told.success) return;
    for (const [id, version] of told.data)
      for (const onSaved of this.listeners.get(id) ?? []) onSaved(version);
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
