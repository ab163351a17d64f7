import pg from 'pg';
import { Sequelize } from 'sequelize';
import type { Logger } from 'pino';
import { defineModels } from './models.ts';

export interface Database {
  readonly sequelize: Sequelize;
  /** Plain connections for the session store and the rate limits. */
  readonly pool: pg.Pool;
  close(): Promise<void>;
}

const connectTimeout = 5000;

/** Opens connections lazily: the server starts even while the database is away, and recovers with it. */
export function connect(url: string, logger: Logger): Database {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 8, acquire: connectTimeout },
    dialectOptions: { connectionTimeoutMillis: connectTimeout },
  });
  defineModels(sequelize);
  const pool = new pg.Pool({ connectionString: url, max: 4, connectionTimeoutMillis: connectTimeout });
  // Without a listener a dying database would end the process.
  pool.on('error', (error) => logger.warn({ error: error.message }, 'a database connection was lost'));
  return {
    sequelize,
    pool,
    close: async () => {
      await Promise.allSettled([sequelize.close(), pool.end()]);
    },
  };
}
