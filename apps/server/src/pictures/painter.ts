import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { Order, Painted } from './painting.ts';

/** The thread's program as it was built: beside the server's, or, where that runs from its sources, where it would be. */
const program = new URL(
  import.meta.url.endsWith('.ts') ? '../../dist/painter.worker.js' : './painter.worker.js',
  import.meta.url,
);

/** The id of a thread that has ended. */
const ended = -1;

export interface PainterLimits {
  /** Milliseconds that one picture may take. */
  readonly time: number;
  /** Megabytes that a thread may fill. */
  readonly memory: number;
  /** Pictures of one person that may wait. */
  readonly waiting: number;
}

export const usualLimits: PainterLimits = { time: 3000, memory: 256, waiting: 60 };

/** What is to be painted when its turn comes: the document as it is then. */
export type Fetch = () => Promise<{ readonly version: number; readonly text: string } | null>;

export interface Found {
  readonly version: number;
  /** Null where it took too much time or memory, or cannot be read. */
  readonly pictures: Painted['pictures'];
}

interface Job {
  readonly id: string;
  readonly fetch: Fetch;
  readonly settle: (found: Found | null) => void;
  readonly fail: (error: unknown) => void;
  readonly promise: Promise<Found | null>;
}

/**
 * Paints small pictures in a thread, one at a time, each person's in turn, so that nobody's pictures hold up the
 * server or the pictures of others. A picture that takes too long, or too much memory, is given up with its thread.
 */
export class Painter {
  /** Tells pictures of this program from those of another: the digest of the program. */
  readonly version = createHash('sha256').update(readFileSync(program)).digest('base64url').slice(0, 22);
  private thread: Worker | null = null;
  private inHand: Job | null = null;
  private isClosed = false;
  private count = 0;
  /** By person, in the order of their turns. */
  private readonly queues = new Map<string, Job[]>();

  constructor(private readonly limits: PainterLimits = usualLimits) {}

  /** @returns null where the demonstration is gone, or too many of the person's wait already */
  paint(accountId: string, id: string, fetch: Fetch): Promise<Found | null> {
    const queue = this.queues.get(accountId) ?? [];
    const same = [...queue, ...(this.inHand ? [this.inHand] : [])].find((job) => job.id === id);
    if (same) return same.promise;
    if (this.isClosed || queue.length >= this.limits.waiting) return Promise.resolve(null);
    const { promise, resolve, reject } = withResolvers<Found | null>();
    this.queues.set(accountId, [...queue, { id, fetch, settle: resolve, fail: reject, promise }]);
    void this.next();
    return promise;
  }

  async close(): Promise<void> {
    this.isClosed = true;
    for (const job of [...this.queues.values()].flat()) job.settle(null);
    this.queues.clear();
    await this.thread?.terminate();
    this.thread = null;
  }

  private async next(): Promise<void> {
    if (this.inHand) return;
    const [turn] = this.queues;
    if (!turn) return;
    const [accountId, [job, ...later]] = turn;
    // Whoever was served goes behind the others.
    this.queues.delete(accountId);
    if (later.length > 0) this.queues.set(accountId, later);
    if (!job) return void this.next();
    this.inHand = job;
    try {
      const fetched = await job.fetch();
      job.settle(fetched && { version: fetched.version, pictures: await this.paintInThread(fetched.text) });
    } catch (error) {
      job.fail(error);
    }
    this.inHand = null;
    void this.next();
  }

  private async paintInThread(text: string): Promise<Painted['pictures']> {
    const thread = await this.readyThread();
    if (!thread) return null;
    return new Promise((resolve) => {
      const number = ++this.count;
      const done = (pictures: Painted['pictures']) => {
        clearTimeout(timer);
        thread.off('message', onPainted).off('error', giveUp).off('exit', giveUp);
        // Only while it paints does it keep the process alive.
        thread.unref();
        resolve(pictures);
      };
      const onPainted = (painted: Painted) => painted.number === number && done(painted.pictures);
      const giveUp = () => {
        done(null);
        if (this.thread === thread) this.thread = null;
        void thread.terminate();
      };
      const timer = setTimeout(giveUp, this.limits.time);
      thread.on('message', onPainted).on('error', giveUp).on('exit', giveUp);
      thread.ref();
      thread.postMessage({ number, text } satisfies Order);
    });
  }

  /** The thread, once its program is loaded: that is not counted as time for a picture. */
  private async readyThread(): Promise<Worker | null> {
    if (this.thread && this.thread.threadId !== ended) return this.thread;
    if (this.isClosed) return null;
    const { memory } = this.limits;
    const thread = new Worker(fileURLToPath(program), {
      resourceLimits: { maxOldGenerationSizeMb: memory, maxYoungGenerationSizeMb: 32, stackSizeMb: 4 },
    });
    // A thread that breaks down while it rests must not end the server.
    thread.on('error', () => undefined);
    await new Promise((resolve, reject) => {
      thread.once('message', resolve);
      thread.once('error', reject);
      thread.once('exit', () => reject(new Error('the thread that paints pictures ended')));
    });
    this.thread = thread;
    return thread;
  }
}

function withResolvers<T>(): {
  promise: Promise<T>;
  resolve: (value: T) => void;
  reject: (error: unknown) => void;
} {
  let resolve: (value: T) => void = () => undefined;
  let reject: (error: unknown) => void = () => undefined;
  const promise = new Promise<T>((yes, no) => {
    resolve = yes;
    reject = no;
  });
  return { promise, resolve, reject };
}
