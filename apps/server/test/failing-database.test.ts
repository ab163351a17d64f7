import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { rename, symlink, unlink } from 'node:fs/promises';
import { join } from 'node:path';
import { connect as connectTcp, createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import pg from 'pg';
import { createApp } from '../src/app.ts';
import { readConfig } from '../src/config.ts';
import { connect, onceReachable } from '../src/database/connect.ts';
import { databaseFailure } from '../src/database/failure.ts';
import { createLogger } from '../src/log.ts';
import request from 'supertest';
import { testServer } from './server.ts';

let server: Awaited<ReturnType<typeof testServer>>;
let agent: ReturnType<typeof server.agent>;
let id: string;
let admin: pg.Client;

beforeEach(async () => {
  server = await testServer();
  agent = server.agent();
  await agent.post('/api/session/demo').expect(200);
  id = String((await agent.post('/api/demonstrations').send({ title: 'One' }).expect(201)).body.id);
  admin = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL });
  await admin.connect();
});
afterEach(async () => {
  await admin.end();
  await server.close();
});

const name = () => new URL(server.url).pathname.slice(1);
/** Ends every connection to the database, so that the next ones meet its new settings. */
const cutOff = () =>
  admin.query('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1', [name()]);
let count = 0;
const save = (version: number, client = agent) =>
  client.post(`/api/demonstrations/${id}/changes`).send({
    base: version,
    changes: [{ id: `c${++count}`, edits: [{ at: 'document', field: 'title', old: '', new: `T${count}` }] }],
  });
/** Asks until it is answered by something else than 503, for a bounded number of times. */
async function untilHealed(ask: () => request.Test): Promise<number> {
  for (let i = 0; i < 40; i++) {
    const { status } = await ask();
    if (status !== 503) return status;
  }
  return 503;
}

describe('while the database fails, every answer is 503 with a sentence, and all heals by itself', () => {
  test('when it takes nothing', async () => {
    await admin.query(`ALTER DATABASE ${name()} SET default_transaction_read_only = on`);
    await cutOff();
    await untilHealed(() => agent.get(`/api/demonstrations/${id}`));
    const refused = await save(0).expect(503);
    expect(refused.body.error).toMatchObject({
      code: 'readOnly',
      message: 'The database cannot keep anything just now.',
    });
    await agent.get('/api/health').expect(503, { status: 'readOnly' });
    // Reading goes on, and nobody is signed out.
    await agent.get(`/api/demonstrations/${id}`).expect(200);
    await agent.post('/api/session').send({ email: 'a@b.example', password: 'x' }).expect(503);
    await admin.query(`ALTER DATABASE ${name()} SET default_transaction_read_only = off`);
    await cutOff();
    expect(await untilHealed(() => save(0))).toBe(200);
    await new Promise((resolve) => setTimeout(resolve, 600));
    await agent.get('/api/health').expect(200, { status: 'ok' });
  });

  test('when its disk is full', async () => {
    const disk = await FullDisk.for(server.url, ['changes', 'heartbeat']);
    await cutOff();
    await untilHealed(() => agent.get(`/api/demonstrations/${id}`));
    const refused = await save(0).expect(503);
    expect(refused.body.error.message).toBe('The database cannot keep anything just now.');
    // Reading goes on, and nobody is signed out.
    await agent.get(`/api/demonstrations/${id}`).expect(200);
    await agent.get('/api/health').expect(503, { status: 'readOnly' });
    await disk.clear();
    await cutOff();
    expect(await untilHealed(() => save(0))).toBe(200);
    await new Promise((resolve) => setTimeout(resolve, 600));
    await agent.get('/api/health').expect(200, { status: 'ok' });
    const { body } = await agent.get(`/api/demonstrations/${id}/changes?since=0`).expect(200);
    expect(body.version).toBe(1);
  });

  test('when its connections are cut in flight', async () => {
    const asked = Array.from({ length: 30 }, (_, i) =>
      i % 2 ? save(0) : agent.get(`/api/demonstrations/${id}`),
    );
    const answers = Promise.all(asked.map(async (one) => (await one).status));
    for (let i = 0; i < 4; i++) await cutOff();
    const statuses = new Set(await answers);
    for (const status of statuses) expect([200, 409, 503]).toContain(status);
    expect(await untilHealed(() => agent.get(`/api/demonstrations/${id}`))).toBe(200);
  });

  test('when somebody else holds the row', async () => {
    const holder = new pg.Client({ connectionString: server.url });
    await holder.connect();
    await holder.query('BEGIN');
    await holder.query('SELECT 1 FROM demonstrations WHERE id = $1 FOR UPDATE', [id]);
    await save(0).expect(503);
    await agent.get(`/api/demonstrations/${id}`).expect(200);
    await holder.query('ROLLBACK');
    await holder.end();
    await save(0).expect(200);
  }, 20_000);

  test('when nothing comes back on its connections any more', async () => {
    const proxy = await FreezingProxy.before(server.url);
    const logger = createLogger('silent');
    const database = connect(proxy.url, logger);
    const { app, close } = createApp(
      readConfig({ DATABASE_URL: proxy.url, SESSION_SECRET: 'x'.repeat(40), DEMO: '1' }),
      database,
      logger,
    );
    const client = request.agent(app);
    await client.post('/api/session/demo').expect(200);
    await save(0, client).expect(200);
    proxy.freeze();
    const frozen = await Promise.all([
      client.get(`/api/demonstrations/${id}`),
      save(1, client),
      client.get('/api/health'),
    ]);
    expect(frozen.map(({ status }) => status)).toEqual([503, 503, 503]);
    proxy.thaw();
    expect(await untilHealed(() => save(1, client))).toBe(200);
    await close();
    await database.close();
    await proxy.close();
    // The models belong to the server that was made last.
    connect(server.url, logger);
  }, 60_000);
});

describe('what is wrong with the database', () => {
  test.each([
    [{ code: '25006' }, 'takesNothing'],
    [{ code: '53100' }, 'takesNothing'],
    [{ original: { code: '53100' } }, 'takesNothing'],
    [{ code: '57014' }, 'away'],
    [{ code: '55P03' }, 'away'],
    [{ code: '53300' }, 'away'],
    [{ original: { code: 'ECONNRESET' } }, 'away'],
    [new Error('Query read timeout'), 'away'],
    [{ code: '23505' }, null],
    [{ code: '22P05' }, null],
    [new TypeError('x is not a function'), null],
    [null, null],
  ])('is told from a fault of ours: %j', (error, failure) => {
    expect(databaseFailure(error)).toBe(failure);
  });
});

describe('a server that starts before its database', () => {
  /** Opens a connection to something that takes it and never answers. */
  async function openInVain(): Promise<void> {
    const taken: Socket[] = [];
    const mute = createServer((socket) => taken.push(socket)).listen(0, '127.0.0.1');
    await new Promise((resolve) => mute.once('listening', resolve));
    const { port } = mute.address() as AddressInfo;
    const client = new pg.Client({
      connectionString: `postgres://nobody@127.0.0.1:${port}/x`,
      connectionTimeoutMillis: 50,
    });
    try {
      await client.connect();
    } finally {
      for (const socket of taken) socket.destroy();
      mute.close();
    }
  }

  test('waits for it, and works once it answers', async () => {
    let tries = 0;
    const work = () => (++tries < 3 ? openInVain() : Promise.resolve());
    await onceReachable(work, 60_000);
    expect(tries).toBe(3);
  });

  test('does not wait for ever, and not where something else is wrong', async () => {
    let tries = 0;
    const vain = () => (tries++, openInVain());
    await expect(onceReachable(vain, 0)).rejects.toThrow();
    const wrong = () => (tries++, Promise.reject(new Error('password authentication failed')));
    await expect(onceReachable(wrong, 60_000)).rejects.toThrow('password');
    expect(tries).toBe(2);
  });
});

/** Lets the database meet a full disk where it would put the first rows into empty tables. */
class FullDisk {
  private constructor(private readonly files: readonly string[]) {}

  static async for(url: string, tables: readonly string[]): Promise<FullDisk> {
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    const { rows } = await client.query<{ folder: string; file: string }>(
      `SELECT current_setting('data_directory') AS folder, pg_relation_filepath(name::regclass) AS file
       FROM unnest($1::text[]) AS name`,
      [tables],
    );
    await client.end();
    const files = rows.map(({ folder, file }) => join(folder, file));
    for (const file of files) {
      await rename(file, `${file}.kept`);
      await symlink('/dev/full', file);
    }
    return new FullDisk(files);
  }

  async clear(): Promise<void> {
    for (const file of this.files) {
      await unlink(file);
      await rename(`${file}.kept`, file);
    }
  }
}

/** Stands before the database and can stop handing anything on, without closing a connection. */
class FreezingProxy {
  private isFrozen = false;
  private readonly sockets = new Set<Socket>();

  private constructor(
    private readonly server: Server,
    readonly url: string,
  ) {}

  static async before(target: string): Promise<FreezingProxy> {
    const { hostname, port } = new URL(target);
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const url = new URL(target);
    url.port = String((server.address() as AddressInfo).port);
    const proxy = new FreezingProxy(server, url.href);
    server.on('connection', (near) => proxy.join(near, connectTcp(Number(port), hostname)));
    return proxy;
  }

  private join(near: Socket, far: Socket): void {
    for (const [from, to] of [
      [near, far],
      [far, near],
    ] as const) {
      this.sockets.add(from);
      from.on('error', () => to.destroy());
      from.on('close', () => to.destroy());
      from.on('data', (data) => {
        if (!this.isFrozen) to.write(data);
      });
    }
  }

  freeze(): void {
    this.isFrozen = true;
  }
  /** Connections that were frozen have lost what they were sent, as after a network that came back. */
  thaw(): void {
    this.isFrozen = false;
  }
  close(): Promise<void> {
    for (const socket of this.sockets) socket.destroy();
    return new Promise((resolve) => this.server.close(() => resolve()));
  }
}
