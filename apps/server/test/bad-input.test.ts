import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { currentVersion, emptyDocument, makeEntry } from '@yperkine/demonstration';
import { mostKept } from '@yperkine/protocol';
import { demoAccount } from '../src/database/demo.ts';
import { DemonstrationRow } from '../src/database/models.ts';
import { testServer } from './server.ts';

let server: Awaited<ReturnType<typeof testServer>>;
let agent: ReturnType<typeof server.agent>;
let id: string;
beforeAll(async () => {
  server = await testServer();
  agent = server.agent();
  await agent.post('/api/session/demo').expect(200);
  id = String((await agent.post('/api/demonstrations').send({ title: 'One' }).expect(201)).body.id);
});
afterAll(() => server.close());

const path = () => `/api/demonstrations/${id}/changes`;
const titleEdit = (next: unknown) => ({ at: 'document', field: 'title', old: null, new: next });
const send = (change: unknown, base = 0) => agent.post(path()).send({ base, changes: [change] });
const raw = (text: string, where = path()) =>
  agent.post(where).set('Content-Type', 'application/json').send(text);
const nested = (depth: number) => `${'['.repeat(depth)}${']'.repeat(depth)}`;
const isSentence = (body: { error?: { message?: string } }) => expect(body.error?.message).toMatch(/\.$/);

describe('bad input is answered by 4xx in a sentence', () => {
  test.each([
    ['NUL in a title', titleEdit('a\0b')],
    ['a lone surrogate in a title', titleEdit('a\ud800b')],
    ['NUL in an old value that nobody reads', { ...titleEdit('x'), old: { deep: ['\0'] } }],
    ['an unknown field', { at: 'document', field: 'colour', old: null, new: 1 }],
    ['an entry of an unknown kind', { at: 'entries', id: 'e', old: null, new: { kind: 'constructor' } }],
    ['an id that every object inherits', { at: 'entries', id: 'constructor', old: null, new: null }],
    [
      'a kind that every object inherits',
      { at: 'field', of: 'constructor', id: 'x', field: 'y', old: 0, new: 0 },
    ],
    ['a title that is a number', titleEdit(7)],
    ['a title that is too long', titleEdit('x'.repeat(201))],
  ])('%s', async (_what, edit) => {
    const response = await send({ id: 'c', edits: [edit] });
    expect([400, 422]).toContain(response.status);
    isSentence(response.body);
    expect((await agent.get(`/api/demonstrations/${id}`)).body).toMatchObject({ title: 'One', version: 0 });
  });

  test.each([
    ['no JSON', '{'],
    ['a number', '7'],
    ['nothing', ''],
    ['null', 'null'],
    ['a million brackets', nested(1_000_000)],
    [
      'nesting in a field that nobody reads',
      `{"base":0,"changes":[{"id":"c","edits":[{"at":"document","field":"looks","old":${nested(5000)},"new":1}]}]}`,
    ],
    [
      '__proto__ as an id',
      '{"base":0,"changes":[{"id":"c","edits":[{"at":"steps","id":"__proto__","old":null,"new":null}]}]}',
    ],
    [
      '__proto__ as a key',
      '{"base":0,"changes":[{"id":"c","edits":[{"at":"document","field":"looks","old":null,"new":{"__proto__":{"x":1}}}]}]}',
    ],
    ['a base beyond all numbers', '{"base":1e99,"changes":[{"id":"c","edits":[]}]}'],
    ['501 changes', JSON.stringify({ base: 0, changes: Array.from({ length: 501 }, () => 0) })],
  ])('%s', async (_what, text) => {
    const response = await raw(text);
    expect(response.status).toBe(400);
    isSentence(response.body);
  });

  test('a change id that is used twice, in one save or in two', async () => {
    const made = await agent.post('/api/demonstrations').send({ title: 'Two' });
    const where = `/api/demonstrations/${String(made.body.id)}/changes`;
    const change = { id: 'same', edits: [titleEdit('x')] };
    const twice = await agent
      .post(where)
      .send({ base: 0, changes: [change, change] })
      .expect(422);
    isSentence(twice.body);
    await agent
      .post(where)
      .send({ base: 0, changes: [change] })
      .expect(200);
    await agent
      .post(where)
      .send({ base: 1, changes: [change] })
      .expect(422);
    await agent
      .post(where)
      .send({ base: 1, changes: [{ ...change, id: 'other' }] })
      .expect(200);
  });

  test('an unknown encoding, charset or type', async () => {
    const body = JSON.stringify({ email: 'a@tarn-valley.example', password: 'x' });
    const post = () => agent.post('/api/session');
    await post()
      .set('Content-Type', 'application/json')
      .set('Content-Encoding', 'made-up')
      .send(body)
      .expect(415);
    await post().set('Content-Type', 'application/json; charset=made-up').send(body).expect(415);
    await post().set('Content-Type', 'text/plain').send(body).expect(415);
    await agent.post('/api/demonstrations').set('Content-Type', 'application/xml').send('<x/>').expect(415);
  });

  test('texts that cannot be kept, in every form', async () => {
    const account = { name: 'A', email: 'a@tarn-valley.example', password: 'long enough, is it' };
    for (const bad of ['a\0', '\udc00'])
      for (const field of ['name', 'email', 'password'])
        await agent
          .post('/api/accounts')
          .send({ ...account, [field]: bad })
          .expect(400);
    await agent.post('/api/demonstrations').send({ title: '\0' }).expect(400);
    await agent.post('/api/session').send({ email: 'a@b.example', password: '\0' }).expect(400);
  });

  test('addresses that mean nothing', async () => {
    for (const address of ['%00', 'constructor', '__proto__', '%E0%A4%A', `${id}%00`]) {
      const { status } = await agent.get(`/api/demonstrations/${address}`);
      expect([400, 404]).toContain(status);
    }
    await agent.get('/api/demonstrations?after=%00').expect(400);
    await agent.get('/api/demonstrations?after=a&after=b').expect(400);
    await agent.get(`/api/demonstrations/${id}/changes?since=x`).expect(400);
    await agent.get(`/api/demonstrations/${id}/picture.svg?theme[]=night&theme=__proto__`).expect(200);
  });

  test('too large a body, before it is read for somebody who is not signed in', async () => {
    await agent
      .post('/api/demonstrations')
      .send({ title: 'x'.repeat(200_000) })
      .expect(413);
    await server
      .agent()
      .post(path())
      .send({ base: 0, changes: ['x'.repeat(500_000)] })
      .expect(401);
  });
});

describe('limits of what is kept', () => {
  const note = makeEntry('note', { order: 1, text: '∫'.repeat(10_000) });
  const edits = (from: number, to: number) =>
    Array.from({ length: to - from }, (_, i) => ({
      at: 'entries',
      id: `n${from + i}`,
      old: null,
      new: note,
    }));

  test('a demonstration takes 5 MB and no more', async () => {
    const made = await agent.post('/api/demonstrations').send({});
    const where = `/api/demonstrations/${String(made.body.id)}/changes`;
    await agent
      .post(where)
      .send({ base: 0, changes: [{ id: 'a', edits: edits(0, 160) }] })
      .expect(200);
    const refused = await agent
      .post(where)
      .send({ base: 1, changes: [{ id: 'b', edits: edits(160, 170) }] })
      .expect(422);
    expect(refused.body.error.message).toBe('A demonstration can take 5 MB, and this would be more.');
  });

  test('the library comes in pages that miss and repeat nothing, and has room for so many', async () => {
    const maker = server.agent();
    await maker
      .post('/api/accounts')
      .send({ name: 'Keeper', email: 'keeper@tarn-valley.example', password: 'another long one' })
      .expect(201);
    const accountId = String((await maker.get('/api/session')).body.account.id);
    const document = emptyDocument('One of many');
    const sameMoment = new Date('2026-11-01T08:00:00.000Z');
    await DemonstrationRow.bulkCreate(
      Array.from({ length: mostKept - 1 }, (_, i) => ({
        id: `00000000-0000-4000-9000-${String(i).padStart(12, '0')}`,
        accountId,
        title: `${i}`,
        document,
        // Many at one moment: the order must be settled all the same.
        changedAt: i % 3 === 0 ? sameMoment : new Date(sameMoment.getTime() + i * 1000),
      })),
    );
    const seen: string[] = [];
    let next: string | null = '';
    while (next !== null) {
      const page: { demonstrations: { id: string }[]; next: string | null } = (
        await maker.get(`/api/demonstrations${next ? `?after=${encodeURIComponent(next)}` : ''}`).expect(200)
      ).body;
      expect(page.demonstrations.length).toBeLessThanOrEqual(20);
      seen.push(...page.demonstrations.map((shown) => shown.id));
      ({ next } = page);
    }
    expect(new Set(seen).size).toBe(mostKept - 1);
    expect(seen).toHaveLength(mostKept - 1);
    // Of two at the same moment only one finds the last place.
    const last = await Promise.all([1, 2].map(() => maker.post('/api/demonstrations').send({})));
    expect(last.map(({ status }) => status).sort()).toEqual([201, 409]);
    const full = await maker.post('/api/demonstrations').send({}).expect(409);
    expect(full.body.error.message).toBe('A library has room for 1,000 demonstrations; delete one first.');
    await agent.post('/api/demonstrations').send({}).expect(201);
  });
});

const sample = (version: number): { entries: Record<string, object> } =>
  JSON.parse(
    readFileSync(
      new URL(`../../../packages/demonstration/src/schema/samples/v${version}.json`, import.meta.url),
      'utf8',
    ),
  );

describe('changes of another version of the document', () => {
  test('are brought up to date when they are saved, and when they are asked for', async () => {
    const where = path();
    const old = sample(3).entries.given;
    expect(old).not.toHaveProperty('look');
    const change = { id: 'old', edits: [{ at: 'entries', id: 'given', old: null, new: old }] };
    const version = Number((await agent.get(`/api/demonstrations/${id}`)).body.version);
    await agent
      .post(where)
      .send({ base: version, changes: [change] })
      .expect(400);
    await agent
      .post(where)
      .send({ base: version, format: 3, changes: [change] })
      .expect(200);
    const since = await agent.get(`${where}?since=${version}`).expect(200);
    expect(since.body).toMatchObject({ version: version + 1, format: currentVersion });
    expect(since.body.since[0].edits[0].new).toMatchObject({ kind: 'function', look: { layer: 0 } });
    const newer = await agent
      .post(where)
      .send({ base: version + 1, format: currentVersion + 1, changes: [change] });
    expect(newer.status).toBe(409);
    expect(newer.body.error.message).toMatch(/reload the page/);
  });

  test('a document of an older version is opened as one of this', async () => {
    const made = await agent.post('/api/demonstrations').send({ title: 'Old' });
    const { readFileSync } = await import('node:fs');
    const sample = new URL('../../../packages/demonstration/src/schema/samples/v3.json', import.meta.url);
    const document = JSON.parse(readFileSync(sample, 'utf8')) as never;
    await DemonstrationRow.update({ document }, { where: { id: made.body.id, accountId: demoAccount.id } });
    const opened = await agent.get(`/api/demonstrations/${String(made.body.id)}`).expect(200);
    expect(opened.body.document.version).toBe(currentVersion);
  });
});
