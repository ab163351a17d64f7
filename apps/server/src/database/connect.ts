import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { Sequelize } from 'sequelize';
import type { Logger } from 'pino';
import { databaseFailure } from './failure.ts';
import { defineModels } from './models.ts';

export interface Database {
  readonly sequelize: Sequelize;
  /** Plain connections, for the session store, the rate limits, and what every opening and saving asks. */
  readonly pool: pg.Pool;
  close(): Promise<void>;
}

/** How long each step may take, in milliseconds, so that a database that hangs is told from one that works. */
const patience = {
  connectionTimeoutMillis: 5000,
  lock_timeout: 3000,
  statement_timeout: 5000,
  idle_in_transaction_session_timeout: 10_000,
  /** For a connection on which nothing comes back at all. */
  query_timeout: 7000,
} as const;

/**
 * Whether a connection that rests in the pool can be used. One that gave up waiting for an answer still waits for it,
 * and everything behind it would wait too.
 */
const isAtRest = (client: object): boolean => (client as { readyForQuery?: boolean }).readyForQuery === true;

/** Milliseconds between two tries to reach a database. */
const betweenTries = 500;

/**
 * Does some work with a database that may not be there yet, as one that is started beside the server: tries it again
 * while it cannot be reached.
 * @param longest milliseconds after which no new try begins
 * @throws what the work throws for another reason, at once, and what it threw last
 */
export async function onceReachable(work: () => Promise<void>, longest: number): Promise<void> {
  const until = Date.now() + longest;
  for (;;) {
    try {
      return await work();
    } catch (error) {
      if (databaseFailure(error) !== 'away' || Date.now() >= until) throw error;
    }
    await wait(betweenTries);
  }
}

interface ConnectOptions {
  /** Migrations may take as long as they need. */
  readonly isPatient?: boolean;
}

/** Opens connections lazily: the server starts even while the database is away, and recovers with it. */
export function connect(url: string, logger: Logger, { isPatient = false }: ConnectOptions = {}): Database {
  const { connectionTimeoutMillis } = patience;
  const waits = isPatient ? { connectionTimeoutMillis } : patience;
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 4, acquire: connectionTimeoutMillis, validate: isAtRest },
    dialectOptions: { ...waits, keepAlive: true },
  });
  defineModels(sequelize);
  const pool = new pg.Pool({ connectionString: url, max: 8, ...waits, keepAlive: true });
  // Without a listener a dying database would end the process.
  pool.on('error', (error) => logger.warn({ err: error }, 'a database connection was lost'));
  return {
    sequelize,
    pool,
    close: async () => {
      await Promise.allSettled([sequelize.close(), pool.end()]);
    },
  };
}
