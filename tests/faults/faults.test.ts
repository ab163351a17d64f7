import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomBytes, randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import type { Stale } from '@yperkine/protocol';
import pg from 'pg';
import { Random } from '../../packages/core/fuzz/inputs.ts';
import { serverFile } from '../../scripts/setup/build.mjs';
import { freePort, startPostgres } from '../../scripts/setup/postgres.mjs';
import { startServer } from '../../scripts/setup/server.mjs';
import { cases } from '../cases.ts';
import { descendants, kill, statusOf } from '../processes.ts';
import { signUp, Writer } from './writer.ts';

/** The built server and its database are ended without warning, again and again, while people save. */

const kills = cases(6, 120);
const secret = randomBytes(32).toString('base64url');
const database = `faults_${randomUUID().replaceAll('-', '')}`;
let postgres: Awaited<ReturnType<typeof startPostgres>>;
let settings: Parameters<typeof startServer>[0];
let server: Awaited<ReturnType<typeof startServer>>;

beforeAll(async () => {
  postgres = await startPostgres('faults-postgres', { durable: true });
  await onAdmin(`CREATE DATABASE ${database}`);
  const databaseUrl = postgres.url(database);
  settings = { port: await freePort(), databaseUrl, secret, demo: false, quiet: true };
  server = await startServer(settings);
}, 120_000);

afterAll(async () => {
  server.stop();
  await server.ended;
  await onAdmin(`DROP DATABASE ${database} WITH (FORCE)`);
  await postgres.stop();
});

async function onAdmin(statement: string): Promise<void> {
  const admin = new pg.Client({ connectionString: postgres.url('postgres') });
  await admin.connect();
  await admin.query(statement);
  await admin.end();
}

async function killServer(random: Random): Promise<void> {
  const { child, ended } = server;
  kill(child.pid ?? 0);
  await ended;
  // Now and then the next one is ended before it answers.
  if (random.below(4) === 0) {
    const early = startServer(settings).then(
      () => undefined,
      () => undefined,
    );
    await wait(random.below(800));
    descendants(process.pid)
      .filter((pid) => statusOf(pid)?.command.includes(serverFile))
      .forEach(kill);
    await early;
  }
  server = await startServer(settings);
}

async function killDatabase(): Promise<void> {
  const main = postgres.processId();
  if (main === undefined) throw new Error('the database does not run');
  for (const pid of descendants(main)) kill(pid);
  for (let tries = 0; tries < 20; tries++) {
    if (await postgres.restart()) return;
    await wait(500);
  }
  throw new Error('the database does not start again');
}

async function untilHealthy(): Promise<void> {
  for (let tries = 0; tries < 300; tries++) {
    const response = await fetch(`${server.address}/api/health`).catch(() => null);
    if (response?.ok) return;
    await wait(100);
  }
  throw new Error('the server does not heal');
}

test(
  'no acknowledged save is lost, none is there twice, and nobody gets in, however often server and database are killed',
  async () => {
    const random = new Random(20261128);
    const { address } = server;
    const [first, second] = [await signUp(address, 'sluice'), await signUp(address, 'mill')];
    const make = async (cookie: string): Promise<string> => {
      const made = await fetch(`${address}/api/demonstrations`, { method: 'POST', headers: { cookie } });
      const { id } = (await made.json()) as { id: string };
      return `${address}/api/demonstrations/${id}`;
    };
    const [alone, shared] = [await make(first), await make(second)];
    const writers = [
      { of: alone, cookie: first, writer: new Writer(alone, first, 'a') },
      { of: shared, cookie: second, writer: new Writer(shared, second, 'b') },
      { of: shared, cookie: second, writer: new Writer(shared, second, 'c') },
    ];
    for (let i = 0; i < kills; i++) {
      // On any machine, each has saved something since the last fault.
      await Promise.all(writers.map(({ writer }) => writer.oneMore()));
      await wait(random.below(400));
      await (i % 4 === 3 ? killDatabase() : killServer(random));
      await untilHealthy();
      // Sessions outlive the fault, and open no more than before.
      const status = async (url: string, cookie: string) =>
        (await fetch(url, { headers: cookie ? { cookie } : {} })).status;
      expect([await status(alone, first), await status(alone, second), await status(alone, '')]).toEqual([
        200, 404, 401,
      ]);
    }
    for (const { writer } of writers) await writer.stop();
    for (const { of, cookie, writer } of writers) {
      const kept = (await (await fetch(`${of}/changes?since=0`, { headers: { cookie } })).json()) as Stale;
      const its = new Set(writer.acknowledged);
      expect(writer.strange).toEqual([]);
      expect(kept.since.map(({ id }) => id).filter((id) => its.has(id))).toEqual(writer.acknowledged);
      expect(writer.acknowledged.length).toBeGreaterThanOrEqual(kills);
      expect(kept.version).toBe(kept.since.length);
    }
  },
  60_000 + kills * 20_000,
);
