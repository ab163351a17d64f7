import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import { testServer } from './server.ts';

let server: Awaited<ReturnType<typeof testServer>>;
let http: Server;
let address: string;
let cookie: string;
let id: string;

beforeAll(async () => {
  server = await testServer();
  http = server.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => http.once('listening', resolve));
  address = `http://127.0.0.1:${(http.address() as AddressInfo).port}`;
  const session = await fetch(`${address}/api/session/demo`, { method: 'POST' });
  cookie = session.headers.getSetCookie()[0]?.split(';')[0] ?? '';
  const made = await fetch(`${address}/api/demonstrations`, { method: 'POST', headers: { cookie } });
  ({ id } = (await made.json()) as { id: string });
});
afterAll(async () => {
  http.closeAllConnections();
  http.close();
  await server.close();
});

const save = async (version: number): Promise<void> => {
  const edits = [{ at: 'document', field: 'title', old: '', new: `T${version}` }];
  const response = await fetch(`${address}/api/demonstrations/${id}/changes`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/json' },
    body: JSON.stringify({ base: version, changes: [{ id: `c${version}`, edits }] }),
  });
  expect(response.status).toBe(200);
};

/** The events of a demonstration, one after another. */
async function* eventsOf(signal: AbortSignal): AsyncGenerator<string> {
  const response = await fetch(`${address}/api/demonstrations/${id}/news`, { headers: { cookie }, signal });
  expect(response.headers.get('content-type')).toMatch(/^text\/event-stream/);
  expect(response.headers.get('content-encoding')).toBeNull();
  let text = '';
  const decoder = new TextDecoder();
  for await (const piece of response.body ?? []) {
    text += decoder.decode(piece as Uint8Array, { stream: true });
    const events = text.split('\n\n');
    text = events.pop() ?? '';
    for (const event of events) yield event.replace('\ndata: ', ' ').replace('event: ', '');
  }
}

test('who has a demonstration open hears its version, every save, and of gaps', async () => {
  const stop = new AbortController();
  const events = eventsOf(stop.signal);
  const next = async (): Promise<string> => String((await events.next()).value);
  expect(await next()).toBe('version 0');
  // Listening has begun: what was saved before may have gone unheard.
  expect(await next()).toBe('gap null');
  await save(0);
  expect(await next()).toBe('version 1');
  // The connection that listens is lost and made again.
  const admin = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL });
  await admin.connect();
  await admin.query(
    "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1 AND query LIKE 'LISTEN%'",
    [new URL(server.url).pathname.slice(1)],
  );
  await admin.end();
  expect(await next()).toBe('gap null');
  await save(1);
  expect(await next()).toBe('version 2');
  stop.abort();
});

test('nobody hears of what is not theirs', async () => {
  const path = `${address}/api/demonstrations/${id}/news`;
  expect((await fetch(path)).status).toBe(401);
  expect(
    (await fetch(path.replace(id, '00000000-0000-4000-8000-00000000ffff'), { headers: { cookie } })).status,
  ).toBe(404);
});
