import { randomUUID } from 'node:crypto';
import pg from 'pg';
import request from 'supertest';
import { createApp } from '../src/app.ts';
import { readConfig } from '../src/config.ts';
import { connect, type Database } from '../src/database/connect.ts';
import { putInDemo } from '../src/database/demo.ts';
import { createLogger } from '../src/log.ts';
import type { Painter } from '../src/pictures/painter.ts';

/** A server of its own on a database cloned from the migrated template. */
export async function testServer({
  demo = true,
  painter,
  environment = {},
}: { demo?: boolean; painter?: Painter; environment?: Record<string, string> } = {}) {
  const admin = process.env.TEST_DATABASE_URL;
  if (!admin) throw new Error('TEST_DATABASE_URL is not set: run the tests through npm test');
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await onAdmin(admin, `CREATE DATABASE ${name} TEMPLATE template`);
  const url = new URL(admin);
  url.pathname = `/${name}`;
  const config = readConfig({
    DATABASE_URL: url.href,
    SESSION_SECRET: randomUUID() + randomUUID(),
    DEMO: demo ? '1' : '0',
    ...environment,
  });
  const logger = createLogger('silent');
  const database = connect(url.href, logger);
  if (demo) await putInDemo();
  const { app, pictures, close } = createApp(config, database, logger, painter);
  return {
    app,
    pictures,
    database,
    url: url.href,
    /**
     * Notes the first word of every statement until it is stopped, but for news: they are gathered and
     * told a little later, so that those of an earlier request may fall into the time of this one.
     */
    statements: () => noting(database),
    /** A browser of its own, which keeps its cookie. */
    agent: () => request.agent(app),
    close: async () => {
      await close();
      await database.close();
      await onAdmin(admin, `DROP DATABASE ${name} WITH (FORCE)`);
    },
  };
}

async function onAdmin(admin: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  try {
    await client.query(sql);
  } finally {
    await client.end();
  }
}

function noting({ pool, sequelize }: Database): { stop: () => string[] } {
  const noted: string[] = [];
  const note = (text: string): void => {
    if (!text.includes('pg_notify')) noted.push(/\w+/.exec(text)?.[0] ?? '');
  };
  const ask = pool.query.bind(pool) as (...all: unknown[]) => unknown;
  pool.query = ((first: string | { text: string }, ...rest: unknown[]) => {
    note(typeof first === 'string' ? first : first.text);
    return ask(first, ...rest);
  }) as typeof pool.query;
  sequelize.addHook('beforeQuery', 'note', (_options, query) =>
    note((query as unknown as { sql: string }).sql),
  );
  return {
    stop: () => {
      pool.query = ask as typeof pool.query;
      sequelize.removeHook('beforeQuery', 'note');
      return noted;
    },
  };
}
