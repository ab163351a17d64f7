import { expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { demoAccount } from '../src/database/demo.ts';
import { DemonstrationRow } from '../src/database/models.ts';
import { endless } from './documents.ts';
import { testServer } from './server.ts';

const slow = '00000000-0000-4000-8000-00000000aaaa';

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });
}

test('SIGTERM ends the server at once, whatever it paints and whoever waits', async () => {
  const { url, close } = await testServer();
  await DemonstrationRow.create({
    id: slow,
    accountId: demoAccount.id,
    title: 'Thousands of terms',
    changedAt: new Date(),
    document: endless,
  });
  const port = await freePort();
  const server = spawn(process.execPath, [join(import.meta.dirname, '../dist/server.js')], {
    stdio: 'ignore',
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      PORT: String(port),
      DATABASE_URL: url,
      SESSION_SECRET: 'x'.repeat(40),
      DEMO: '1',
      LOG_LEVEL: 'silent',
    },
  });
  const ended = new Promise<number | null>((resolve) => server.once('close', resolve));
  const address = `http://127.0.0.1:${port}`;
  for (let tries = 0; tries < 300; tries++) {
    if (await fetch(`${address}/api/health`).catch(() => null)) break;
    await wait(100);
  }
  const session = await fetch(`${address}/api/session/demo`, { method: 'POST' });
  const cookie = session.headers.getSetCookie()[0]?.split(';')[0] ?? '';
  const news = await fetch(`${address}/api/demonstrations/${slow}/news`, { headers: { cookie } });
  expect(news.status).toBe(200);
  const order: string[] = [];
  const picture = fetch(`${address}/api/demonstrations/${slow}/picture.svg`, { headers: { cookie } }).then(
    () => order.push('picture'),
    () => order.push('cut off'),
  );
  // The request is on its way before the signal is.
  await fetch(`${address}/api/session`, { headers: { cookie } });
  server.kill('SIGTERM');
  const status = await ended;
  await picture;
  expect({ status, order }).toEqual({ status: 0, order: ['cut off'] });
  await close();
}, 60_000);
