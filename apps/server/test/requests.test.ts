import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { Agent, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { emptyDocument } from '@yperkine/demonstration';
import { cases } from '../../../tests/cases.ts';
import { examples } from '../src/database/demo.ts';
import { DemonstrationRow } from '../src/database/models.ts';
import { randomRequests, sendRandom } from './randomRequests.ts';
import { testServer } from './server.ts';

const count = cases(500, 20_000);
const atOnce = 8;
const nobody = '00000000-0000-4000-8000-00000000ffff';

let server: Awaited<ReturnType<typeof testServer>>;
let listening: Server;
beforeAll(async () => {
  server = await testServer({ environment: { TRUST_PROXY: '1' } });
  listening = server.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => listening.once('listening', resolve));
});
afterAll(async () => {
  listening.closeAllConnections();
  listening.close();
  await server.close();
});

test('no request is answered by a fault of the server, and what is refused is refused in a sentence', async () => {
  const agent = server.agent();
  const account = { name: 'Miller', email: 'miller@tarn-valley.example', password: 'a long enough one' };
  const signedUp = await agent.post('/api/accounts').send(account).expect(201);
  const cookie = String(signedUp.headers['set-cookie']?.[0]).split(';')[0] ?? '';
  // Enough that some are still as they were made when something is saved on version 0.
  const own = Array.from({ length: count / 25 }, () => randomUUID());
  const { id: accountId } = signedUp.body.account as { id: string };
  const changedAt = new Date();
  const document = emptyDocument();
  await DemonstrationRow.bulkCreate(own.map((id) => ({ id, accountId, title: '', changedAt, document })));
  const others = examples[0]?.id ?? nobody;
  const before = await DemonstrationRow.findByPk(others, { raw: true });
  const { port } = listening.address() as AddressInfo;
  const connections = new Agent({ keepAlive: true, maxSockets: atOnce });
  const requests = randomRequests({ ids: [...own, others, nobody], cookie }, count, 20261128);
  const statuses = new Map<number, number>();
  const faults: unknown[] = [];
  const next = requests.values();
  const sendInTurn = async (): Promise<void> => {
    for (const one of next) {
      const { status, text } = await sendRandom(port, connections, one);
      statuses.set(status, (statuses.get(status) ?? 0) + 1);
      const isSentence = /"message":"[^"]+[.?]"|"since":/.test(text);
      const isSpoken = !one.path.startsWith('/api/') || one.method === 'HEAD' || text === '' || isSentence;
      if (status >= 500 || (status >= 400 && !isSpoken))
        faults.push({ status, text, ...one, body: String(one.body) });
    }
  };
  await Promise.all(Array.from({ length: atOnce }, sendInTurn));
  connections.destroy();
  expect(faults).toEqual([]);
  // They got far enough to be taken, refused for what they say, for who sends them, and for what they ask for.
  expect([...statuses.keys()]).toEqual(expect.arrayContaining([200, 201, 400, 401, 403, 404, 409, 415]));
  // What belongs to somebody else is as it was, and who is signed in stays so.
  expect(await DemonstrationRow.findByPk(others, { raw: true })).toEqual(before);
  expect((await agent.get('/api/session').expect(200)).body).toMatchObject({ account: { name: 'Miller' } });
  await agent.get('/api/health').expect(200);
}, 600_000);
