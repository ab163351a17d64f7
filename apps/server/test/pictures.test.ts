import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { emptyDocument, type Document } from '@yperkine/demonstration';
import { demoAccount, examples } from '../src/database/demo.ts';
import { DemonstrationRow, PictureRow } from '../src/database/models.ts';
import { Painter, usualLimits, type Fetch } from '../src/pictures/painter.ts';
import { placeholder } from '../src/pictures/pictures.ts';
import { endless, heavy } from './documents.ts';
import { testServer } from './server.ts';

// Threads start slowly where all tests run at once.
jest.setTimeout(60_000);

/** Counts what is painted. */
class CountingPainter extends Painter {
  painted: string[] = [];
  override paint(accountId: string, id: string, fetch: Fetch) {
    this.painted.push(id);
    return super.paint(accountId, id, fetch);
  }
}

const stored = (document: Document) => () => Promise.resolve({ version: 0, text: JSON.stringify(document) });
const [quick] = examples;

describe('a painter', () => {
  const painters: Painter[] = [];
  const painter = (limits: Partial<typeof usualLimits> = {}): Painter => {
    const made = new Painter({ ...usualLimits, ...limits });
    painters.push(made);
    return made;
  };
  afterAll(() => Promise.all(painters.map((made) => made.close())));

  test('gives up what takes too long, and paints on in another thread', async () => {
    const impatient = painter({ time: 250 });
    expect((await impatient.paint('a', '1', stored(endless)))?.pictures).toBeNull();
    const next = await impatient.paint('a', '2', stored(emptyDocument()));
    expect(next?.pictures?.day).toMatch(/^<svg.*<\/svg>$/s);
    expect(next?.pictures?.night).not.toBe(next?.pictures?.day);
  });

  test('gives up what needs too much memory, and paints on', async () => {
    const narrow = painter({ memory: 16, time: 60_000 });
    const small = stored(emptyDocument());
    expect((await narrow.paint('a', '1', small))?.pictures).not.toBeNull();
    expect((await narrow.paint('a', '2', stored(heavy)))?.pictures).toBeNull();
    expect((await narrow.paint('a', '3', small))?.pictures).not.toBeNull();
  });

  test('a document that cannot be read gets no picture, one that is gone none either', async () => {
    const usual = painter();
    const damaged = { version: 3, text: '{"format":"yperkine-demonstration","version":1}' };
    expect(await usual.paint('a', '1', () => Promise.resolve(damaged))).toEqual({
      version: 3,
      pictures: null,
    });
    expect(await usual.paint('a', '2', () => Promise.resolve(null))).toBeNull();
  });

  test('serves everybody in turn, each picture once, and takes only so many of one person', async () => {
    const one = painter({ waiting: 3 });
    const order: string[] = [];
    const noting =
      (name: string, id: string): Fetch =>
      () => {
        order.push(`${name}${id}`);
        return Promise.resolve(null);
      };
    const asked = (name: string, id: string) => one.paint(name, id, noting(name, id));
    // The first is in hand at once, and asked for again: it is painted once all the same.
    const all = [
      asked('a', '0'),
      asked('a', '0'),
      ...['1', '2', '2', '3', '4'].map((id) => asked('a', id)),
      asked('b', '1'),
    ];
    await Promise.all(all);
    expect(order).toEqual(['a0', 'a1', 'b1', 'a2', 'a3']);
  });
});

describe('the pictures of the library', () => {
  let server: Awaited<ReturnType<typeof testServer>>;
  let agent: ReturnType<typeof server.agent>;
  const limits = { ...usualLimits };
  const painter = new CountingPainter(limits);
  const id = quick?.id ?? '';
  const picture = (of = id, theme = 'day') =>
    agent.get(`/api/demonstrations/${of}/picture.svg?theme=${theme}`);

  beforeAll(async () => {
    server = await testServer({ painter });
    agent = server.agent();
    await agent.post('/api/session/demo').expect(200);
  });
  afterAll(() => server.close());

  test('are painted once a version, for day and night, and kept', async () => {
    const day = await picture().expect(200).expect('Content-Type', /svg/);
    await picture(id, 'night').expect(200);
    expect((await picture()).body).toEqual(day.body);
    expect(painter.painted).toEqual([id]);
    await DemonstrationRow.increment('version', { where: { id } });
    await picture().expect(200);
    await PictureRow.update({ painter: 'another program' }, { where: { demonstrationId: id } });
    await picture().expect(200);
    expect(painter.painted).toEqual([id, id, id]);
  });

  test('stay with the browser until the demonstration changes', async () => {
    const first = await picture();
    await picture()
      .set('If-None-Match', first.headers.etag ?? '')
      .expect(304);
    await picture(id, 'night')
      .set('If-None-Match', first.headers.etag ?? '')
      .expect(200);
  });

  test('are there with the demo data before anybody asks', async () => {
    painter.painted = [];
    await server.pictures.prepare(
      demoAccount.id,
      examples.map((example) => example.id),
    );
    const before = painter.painted.length;
    for (const example of examples) await picture(example.id, 'night').expect(200);
    expect(painter.painted).toHaveLength(before);
    expect(await PictureRow.count({ where: { night: null } })).toBe(0);
  });

  test('that take too long hold up nobody and become a quiet placeholder, kept too', async () => {
    const made = await agent.post('/api/demonstrations').send({}).expect(201);
    const slow = String(made.body.id);
    // A fifth of what so many sums take, and fifty times what five lists do.
    limits.time = 2500;
    await DemonstrationRow.update({ document: endless, version: 1 }, { where: { id: slow } });
    const answered: string[] = [];
    const waited = picture(slow)
      .expect(200)
      .then((response) => {
        answered.push('picture');
        return response;
      });
    for (let i = 0; i < 5; i++) {
      await agent.get('/api/demonstrations').expect(200);
      answered.push('library');
    }
    expect(String((await waited).body) === placeholder).toBe(true);
    expect(answered).toEqual([...Array.from({ length: 5 }, () => 'library'), 'picture']);
    painter.painted = [];
    expect(String((await picture(slow).expect(200)).body)).toBe(placeholder);
    expect(painter.painted).toEqual([]);
  });
});
