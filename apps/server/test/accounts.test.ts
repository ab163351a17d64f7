import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { networkOf } from '../src/accounts/limits.ts';
import { AccountRow } from '../src/database/models.ts';
import { testServer } from './server.ts';

let server: Awaited<ReturnType<typeof testServer>>;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

const teacher = {
  name: 'Warden of the dome',
  email: 'Warden@tarn-valley.example',
  password: 'heron over the sluice',
};

describe('accounts', () => {
  test('a teacher makes an account, is signed in, signs out and in again', async () => {
    const agent = server.agent();
    const made = await agent.post('/api/accounts').send(teacher).expect(201);
    expect(made.body).toMatchObject({ account: { name: teacher.name, email: 'warden@tarn-valley.example' } });
    await agent.delete('/api/session').expect(204);
    expect((await agent.get('/api/session')).body).toMatchObject({ account: null });
    await agent.post('/api/session').send({ email: teacher.email, password: teacher.password }).expect(200);
    expect((await agent.get('/api/session')).body).toMatchObject({ account: { name: teacher.name } });
  });

  test('the password is kept as an argon2id hash, never sent back', async () => {
    const row = await AccountRow.findOne({ where: { email: 'warden@tarn-valley.example' } });
    expect(row?.passwordHash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    const session = await server.agent().post('/api/session').send(teacher);
    expect(JSON.stringify(session.body)).not.toContain('argon');
  });

  test('the same address twice, a wrong password and a short one are refused in a sentence', async () => {
    const agent = server.agent();
    const twice = await agent.post('/api/accounts').send(teacher).expect(409);
    expect(twice.body.error).toMatchObject({
      field: 'email',
      message: 'There is already an account with this e-mail address.',
    });
    const wrong = await agent
      .post('/api/session')
      .send({ ...teacher, password: 'not this' })
      .expect(401);
    const unknown = await agent
      .post('/api/session')
      .send({ email: 'nobody@tarn-valley.example', password: 'not this' })
      .expect(401);
    expect(wrong.body).toEqual(unknown.body);
    const short = await agent
      .post('/api/accounts')
      .send({ ...teacher, email: 'b@tarn-valley.example', password: 'short' })
      .expect(400);
    expect(short.body.error).toMatchObject({ field: 'password' });
  });

  test('the session id changes at sign-in, and its cookie cannot be read by scripts', async () => {
    const agent = server.agent();
    const response = await agent.post('/api/session/demo').expect(200);
    expect(response.headers['set-cookie']?.[0]).toMatch(/yperkine=.*HttpOnly; SameSite=Lax/);
  });
});

describe('guessing', () => {
  let behind: typeof server;
  /** Signs in from an address, through a proxy that tells it. */
  const signIn = (address: string, email: string, password = 'a wrong guess') =>
    behind.agent().post('/api/session').set('X-Forwarded-For', address).send({ email, password });
  beforeAll(async () => {
    await server.close();
    behind = await testServer({ environment: { TRUST_PROXY: '1' } });
    await behind.agent().post('/api/accounts').send(teacher).expect(201);
  });
  afterAll(async () => {
    await behind.close();
    server = await testServer();
  });

  test('is stopped after ten tries from one network, and says how long', async () => {
    const statuses: number[] = [];
    for (let i = 0; i < 10; i++) statuses.push((await signIn('192.0.2.7', 'a@tarn-valley.example')).status);
    expect(statuses).toEqual(Array.from({ length: 10 }, () => 401));
    const stopped = await signIn('192.0.2.7', 'a@tarn-valley.example').expect(429);
    const seconds = Number(stopped.headers['retry-after']);
    expect(seconds).toBeGreaterThan(800);
    expect(stopped.body.error.message).toMatch(/^Too many attempts; please wait 15 minutes/);
    await signIn('192.0.2.8', 'a@tarn-valley.example').expect(401);
  });

  test('is stopped at one account over all networks, the addresses of a network of IPv6 counted as one', async () => {
    for (let i = 0; i < 10; i++) await signIn(`2001:db8:1:1::${i}`, 'b@tarn-valley.example').expect(401);
    await signIn('2001:db8:1:1:ffff::1', 'b@tarn-valley.example').expect(429);
    for (let i = 0; i < 40; i++) await signIn(`198.51.100.${i}`, 'b@tarn-valley.example').expect(401);
    await signIn('203.0.113.1', 'b@tarn-valley.example').expect(429);
  }, 30_000);

  test('is told from knowing: the right password uses up no tries', async () => {
    for (let i = 0; i < 15; i++) await signIn('192.0.2.9', teacher.email, teacher.password).expect(200);
    for (let i = 0; i < 9; i++) await signIn('192.0.2.9', teacher.email).expect(401);
    await signIn('192.0.2.9', teacher.email, teacher.password).expect(200);
  }, 30_000);

  test('a hundred guesses at once are counted one by one', async () => {
    const all = await Promise.all(
      Array.from({ length: 30 }, () => signIn('192.0.2.77', 'c@tarn-valley.example')),
    );
    expect(all.filter(({ status }) => status === 401)).toHaveLength(10);
  }, 30_000);

  test('behind a proxy that rewrites the host, changes work and other sites are refused', async () => {
    const from = (origin: string) =>
      behind
        .agent()
        .post('/api/session/demo')
        .set('Host', 'internal:4280')
        .set('X-Forwarded-Host', 'mathematics.tarn-valley.example')
        .set('X-Forwarded-Proto', 'https')
        .set('Origin', origin);
    const made = await from('https://mathematics.tarn-valley.example').expect(200);
    expect(made.headers['set-cookie']?.[0]).toContain('Secure');
    expect(made.headers['strict-transport-security']).toMatch(/max-age=\d{8}/);
    await from('https://elsewhere.example').expect(403);
  });

  test('who comes straight to the server cannot make up an address', async () => {
    const direct = await testServer();
    try {
      const statuses: number[] = [];
      for (let i = 0; i < 11; i++)
        statuses.push(
          (
            await direct
              .agent()
              .post('/api/session')
              .set('X-Forwarded-For', `198.51.100.${i}`)
              .send({ email: 'd@tarn-valley.example', password: 'x' })
          ).status,
        );
      expect(statuses.at(-1)).toBe(429);
    } finally {
      await direct.close();
    }
  }, 30_000);
});

test.each([
  ['192.0.2.7', '192.0.2.7'],
  ['::ffff:192.0.2.7', '192.0.2.7'],
  ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2::/64'],
  ['2001:db8:1:2::', '2001:db8:1:2::/64'],
  ['::1', '0:0:0:0::/64'],
  ['', 'unknown'],
  ['<script>', 'unknown'],
])('the network of %s is %s', (address, network) => {
  expect(networkOf(address)).toBe(network);
});

describe('sessions', () => {
  test('a request reads its session and writes nothing; once a day it begins its thirty days anew', async () => {
    const agent = server.agent();
    await agent
      .post('/api/accounts')
      .send({ ...teacher, email: 'daily@tarn-valley.example' })
      .expect(201);
    const ask = async () => {
      const statements = server.statements();
      const { headers } = await agent.get('/api/demonstrations/not-an-id').expect(404);
      return { statements: statements.stop(), cookie: headers['set-cookie']?.[0] };
    };
    expect(await ask()).toEqual({ statements: ['SELECT'], cookie: undefined });
    // The days that a session was given are a millisecond less where the clock went on meanwhile.
    await server.database.pool.query(
      `UPDATE sessions SET sess = jsonb_set(jsonb_set(sess::jsonb, '{prolonged}', '"2026-01-01"'),
        '{cookie,originalMaxAge}', '2591999999')::json`,
    );
    const next = await ask();
    expect(next).toMatchObject({ statements: ['SELECT', 'INSERT'] });
    expect(next.cookie).toMatch(/^yperkine=/);
    expect(await ask()).toEqual({ statements: ['SELECT'], cookie: undefined });
  });

  test('a visit as the demo teacher is short', async () => {
    const visit = await server.agent().post('/api/session/demo').expect(200);
    const expires = new Date(/Expires=([^;]+)/.exec(visit.headers['set-cookie']?.[0] ?? '')?.[1] ?? '');
    const hours = (expires.getTime() - Date.now()) / 3_600_000;
    expect(hours).toBeGreaterThan(1.9);
    expect(hours).toBeLessThanOrEqual(2);
  });
});

describe('the demo teacher', () => {
  test('signs in with one click where the demo is on', async () => {
    const agent = server.agent();
    expect((await agent.get('/api/session')).body).toEqual({ account: null, demo: true });
    await agent.post('/api/session/demo').expect(200);
    const library = await agent.get('/api/demonstrations').expect(200);
    expect(library.body.demonstrations.map((d: { title: string }) => d.title)).toContain(
      'How steep is the millstream bed?',
    );
  });

  test('does not exist elsewhere, and nobody signs in as the demo teacher by password', async () => {
    await server.close();
    const other = await testServer({ demo: false });
    try {
      expect((await other.agent().get('/api/session')).body).toEqual({ account: null, demo: false });
      await other.agent().post('/api/session/demo').expect(404);
    } finally {
      await other.close();
    }
    server = await testServer();
    await server
      .agent()
      .post('/api/session')
      .send({ email: 'demo@tarn-valley.example', password: 'x' })
      .expect(401);
  });
});
