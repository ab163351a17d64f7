import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
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

  test('guessing a password is stopped after ten tries', async () => {
    const email = 'guessed@tarn-valley.example';
    const statuses: number[] = [];
    for (let i = 0; i < 12; i++) {
      statuses.push(
        (
          await server
            .agent()
            .post('/api/session')
            .send({ email, password: `guess ${i}` })
        ).status,
      );
    }
    expect(statuses.slice(0, 10)).toEqual(Array.from({ length: 10 }, () => 401));
    expect(statuses.slice(10)).toEqual([429, 429]);
  });

  test('the session id changes at sign-in, and its cookie cannot be read by scripts', async () => {
    const agent = server.agent();
    const response = await agent.post('/api/session/demo').expect(200);
    expect(response.headers['set-cookie']?.[0]).toMatch(/yperkine=.*HttpOnly; SameSite=Lax/);
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
