import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { currentVersion, makeEntry, type Change, type Edit } from '@yperkine/demonstration';
import { QueryTypes } from 'sequelize';
import { testServer } from './server.ts';

let server: Awaited<ReturnType<typeof testServer>>;
let agent: ReturnType<typeof server.agent>;
beforeAll(async () => {
  server = await testServer();
  agent = server.agent();
  await agent.post('/api/session/demo');
});
afterAll(() => server.close());

let changeCount = 0;
const change = (...edits: Edit[]): Change => ({ id: `change-${++changeCount}`, edits });
const title = (old: string, next: string) => change({ at: 'document', field: 'title', old, new: next });
const decimals = (old: number, next: number) => change({ at: 'document', field: 'decimals', old, new: next });
const make = async (name = 'The jetty at noon'): Promise<string> =>
  (await agent.post('/api/demonstrations').send({ title: name }).expect(201)).body.id;
const save = (id: string, base: number, ...changes: Change[]) =>
  agent.post(`/api/demonstrations/${id}/changes`).send({ base, changes });

describe('the library', () => {
  test('a new demonstration is empty, stands first and can be opened', async () => {
    const id = await make();
    const library = await agent.get('/api/demonstrations').expect(200);
    expect(library.body.demonstrations[0]).toMatchObject({ id, title: 'The jetty at noon', version: 0 });
    expect((await agent.get(`/api/demonstrations/${id}`)).body.document).toMatchObject({
      entries: {},
      version: currentVersion,
    });
  });

  test('a copy has its own life', async () => {
    const id = await make('Original');
    const copy = (await agent.post('/api/demonstrations').send({ copyOf: id }).expect(201)).body;
    expect(copy).toMatchObject({ title: 'Copy of Original', version: 0 });
    await save(copy.id, 0, title('Copy of Original', 'Changed')).expect(200);
    expect((await agent.get(`/api/demonstrations/${id}`)).body.title).toBe('Original');
  });

  test('a deleted demonstration is gone', async () => {
    const id = await make();
    await agent.delete(`/api/demonstrations/${id}`).expect(204);
    await agent.get(`/api/demonstrations/${id}`).expect(404);
    await save(id, 0, title('a', 'b')).expect(404);
  });

  test('the small picture is SVG, kept by the browser until the demonstration changes', async () => {
    const path = '/api/demonstrations/00000000-0000-4000-8000-000000000101/picture.svg';
    const first = await agent.get(path).expect(200).expect('Content-Type', /svg/);
    expect(String(first.body)).toContain('<svg');
    await agent
      .get(path)
      .set('If-None-Match', first.headers.etag ?? '')
      .expect(304);
    await agent
      .get(`${path}?theme=night`)
      .set('If-None-Match', first.headers.etag ?? '')
      .expect(200);
  });

  test('nobody opens, changes or deletes what belongs to another account', async () => {
    const id = await make();
    const other = server.agent();
    await other
      .post('/api/accounts')
      .send({ name: 'Other', email: 'other@tarn-valley.example', password: 'another long one' });
    await other.get(`/api/demonstrations/${id}`).expect(404);
    await other.delete(`/api/demonstrations/${id}`).expect(404);
    await other
      .post(`/api/demonstrations/${id}/changes`)
      .send({ base: 0, changes: [title('a', 'b')] })
      .expect(404);
    await other.post('/api/demonstrations').send({ copyOf: id }).expect(404);
    await server.agent().get(`/api/demonstrations/${id}`).expect(401);
    await agent.get('/api/demonstrations/not-an-id').expect(404);
  });
});

describe('saving', () => {
  test('changes are applied in order and counted as versions', async () => {
    const id = await make('One');
    expect((await save(id, 0, title('One', 'Two'), title('Two', 'Three')).expect(200)).body.version).toBe(2);
    expect((await agent.get(`/api/demonstrations/${id}`)).body).toMatchObject({ title: 'Three', version: 2 });
  });

  test('repeating a save whose answer was lost is harmless', async () => {
    const id = await make('One');
    const first = title('One', 'Two');
    await save(id, 0, first).expect(200);
    expect((await save(id, 0, first).expect(200)).body.version).toBe(1);
    const second = title('Two', 'Three');
    expect((await save(id, 0, first, second).expect(200)).body.version).toBe(2);
  });

  test('a save on an old version is told what happened since, and nothing of it is stored', async () => {
    const id = await make('One');
    const theirs = title('One', 'Theirs');
    await save(id, 0, theirs).expect(200);
    const stale = await save(id, 0, decimals(3, 5)).expect(409);
    expect(stale.body).toEqual({ version: 1, format: currentVersion, since: [theirs] });
    expect((await agent.get(`/api/demonstrations/${id}`)).body.document.decimals).toBe(3);
    await save(id, 1, decimals(3, 5)).expect(200);
  });

  test('of two saves at the same moment one is told', async () => {
    const id = await make('One');
    const results = await Promise.all([save(id, 0, title('One', 'A')), save(id, 0, title('One', 'B'))]);
    expect(results.map(({ status }) => status).sort()).toEqual([200, 409]);
  });

  test('a change that does not fit is refused as a whole', async () => {
    const id = await make('One');
    const bad = change({ at: 'document', field: 'x', old: null, new: { from: 2, to: 1 } });
    await save(id, 0, title('One', 'Two'), bad).expect(422);
    expect((await agent.get(`/api/demonstrations/${id}`)).body).toMatchObject({ title: 'One', version: 0 });
    await agent.post(`/api/demonstrations/${id}/changes`).send({ base: 0, changes: 'all' }).expect(400);
    await agent.post(`/api/demonstrations/${id}/changes`).type('json').send('{').expect(400);
    const prototype = change({ at: 'field', of: 'entries', id: 'x', field: '__proto__', old: null, new: {} });
    await save(id, 0, prototype).expect(400);
  });

  test('a save reads once and writes once, however many changes it brings', async () => {
    const id = await make('T0');
    const statements = server.statements();
    await save(id, 0, ...Array.from({ length: 50 }, (_, i) => title(`T${i}`, `T${i + 1}`))).expect(200);
    // The session is the first.
    expect(statements.stop()).toEqual(['SELECT', 'SELECT', 'WITH']);
    const [{ count }] = (await server.database.sequelize.query(
      'SELECT count(*)::int AS count FROM changes WHERE demonstration_id = $id',
      {
        bind: { id },
        type: QueryTypes.SELECT,
      },
    )) as [{ count: number }];
    expect(count).toBe(50);
  });
});

test('while five hundred large changes are saved, others are answered', async () => {
  const id = await make('Many');
  const note = makeEntry('note', { order: 1, text: 'x'.repeat(2000) });
  const edits = Array.from({ length: 4 }, (_, i): Edit => ({
    at: 'entries',
    id: `n${i}`,
    old: null,
    new: note,
  }));
  const order: string[] = [];
  const all = save(id, 0, ...Array.from({ length: 500 }, () => change(...edits))).then(({ status }) => {
    order.push('saved');
    return status;
  });
  // Between two slices of the work there is room for these, one after another.
  const others = Array.from({ length: 3 }, async () => {
    await agent.get('/api/session').expect(200);
    order.push('other');
  });
  await Promise.all(others);
  expect(await all).toBe(200);
  expect(order).toEqual(['other', 'other', 'other', 'saved']);
});

test('a demonstration is opened with its session and one statement', async () => {
  const id = await make('One');
  const statements = server.statements();
  await agent.get(`/api/demonstrations/${id}`).expect(200);
  expect(statements.stop()).toEqual(['SELECT', 'SELECT']);
});

describe('the server', () => {
  test('says ok only while the database answers', async () => {
    await agent.get('/api/health').expect(200, { status: 'ok' });
    await server.close();
    const away = await testServer();
    await away.close();
    await away.agent().get('/api/health').expect(503, { status: 'unavailable' });
    server = await testServer();
    agent = server.agent();
    await agent.post('/api/session/demo').expect(200);
  });

  test('refuses requests that another site sends', async () => {
    await agent.post('/api/demonstrations').set('Origin', 'http://elsewhere.example').send({}).expect(403);
    await agent.post('/api/demonstrations').set('Sec-Fetch-Site', 'cross-site').send({}).expect(403);
  });

  test('its page forbids running text as code, framing, and what it never asks for', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'yperkine-page-'));
    mkdirSync(join(folder, 'assets'));
    for (const file of ['analysis.worker-1.js', 'page-1.js']) writeFileSync(join(folder, 'assets', file), '');
    writeFileSync(join(folder, 'index.html'), '<meta name="style-nonce" content="{{nonce}}">');
    const other = await testServer({ environment: { WEB_FOLDER: folder } });
    try {
      const page = await other.agent().get('/demonstrations/any').expect(200);
      const policy = page.headers['content-security-policy'] ?? '';
      expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval'");
      expect(policy).not.toMatch(/'unsafe-eval'|https?:|(script|style)-src [^;]*'unsafe-inline'/);
      expect(policy).toContain("frame-ancestors 'none'");
      const [, nonce = 'none'] = /content="([^"]+)"/.exec(page.text) ?? [];
      expect(policy).toContain(`'nonce-${nonce}'`);
      expect(page.headers['permissions-policy']).toContain('camera=()');
      // A worker runs under the policy of its own script, everything else under that of the page.
      const policyOf = async (file: string): Promise<string | undefined> => {
        const { headers } = await other.agent().get(`/assets/${file}`).expect(200);
        return headers['content-security-policy'] as string | undefined;
      };
      expect(await policyOf('analysis.worker-1.js')).toBe(
        "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'",
      );
      expect(await policyOf('page-1.js')).toBeUndefined();
    } finally {
      await other.close();
      rmSync(folder, { recursive: true });
    }
    await server.close();
    server = await testServer();
    agent = server.agent();
    await agent.post('/api/session/demo').expect(200);
  });

  test('its data are no page: nothing in them is run or framed', async () => {
    const { headers } = await agent.get('/api/session').expect(200);
    expect(headers['content-security-policy']).toBe("default-src 'none'; frame-ancestors 'none'");
    expect(headers['x-content-type-options']).toBe('nosniff');
  });

  test('describes itself as OpenAPI, every route of it', async () => {
    const { body } = await agent.get('/api/openapi.json').expect(200);
    expect(Object.keys(body.paths)).toContain('/api/demonstrations/{id}/changes');
    expect(
      body.paths['/api/demonstrations/{id}/changes'].post.requestBody.content['application/json'].schema
        .properties,
    ).toHaveProperty('base');
  });

  test('answers unknown addresses and broken bodies in a sentence, never with a stack', async () => {
    const unknown = await agent.get('/api/nothing-here').expect(404);
    expect(unknown.body.error.message).toMatch(/\.$/);
    const broken = await agent.post('/api/session').type('json').send('{"email":').expect(400);
    expect(JSON.stringify(broken.body)).not.toMatch(/at |\.ts|node_modules/);
  });
});
