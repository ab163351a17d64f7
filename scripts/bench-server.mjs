import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { projectFolder } from './setup/folders.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { run, runMain, say } from './setup/run.mjs';

/** Prints how many requests a second the server answers, beside a bare one of the same framework. */
runMain(async () => {
  await ensurePackages();
  const { build } = await import('./setup/build.mjs');
  const { freePort, startPostgres } = await import('./setup/postgres.mjs');
  const { startServer } = await import('./setup/server.mjs');
  const { default: pg } = await import('pg');
  await build();
  const postgres = await startPostgres('bench-postgres', { durable: true });
  const name = `bench_${randomBytes(6).toString('hex')}`;
  const admin = new pg.Client({ connectionString: postgres.url('postgres') });
  try {
    await admin.connect();
    await admin.query(`CREATE DATABASE ${name}`);
    const databaseUrl = postgres.url(name);
    const server = await startServer({
      port: await freePort(),
      databaseUrl,
      secret: randomBytes(32).toString('base64url'),
      demo: false,
      quiet: true,
    });
    const client = new pg.Client({ connectionString: databaseUrl });
    await client.connect();
    await client.query('CREATE TABLE bare (id int PRIMARY KEY, body jsonb, at timestamptz)');
    await client.query("INSERT INTO bare SELECT n, '{}', now() FROM generate_series(1, 64) AS n");
    await client.end();
    const bare = await startBare(await freePort(), databaseUrl);
    say('');
    await run('node', ['--import', 'tsx', 'bench/server.ts'], {
      env: { ...process.env, BENCH_ADDRESS: server.address, BENCH_BARE: bare.address },
    });
    bare.stop();
    server.stop();
    await server.ended;
    await admin.query(`DROP DATABASE ${name} WITH (FORCE)`);
  } finally {
    await admin.end();
    await postgres.stop();
  }
});

/**
 * @param {number} port
 * @param {string} databaseUrl
 */
async function startBare(port, databaseUrl) {
  const child = spawn(process.execPath, ['--import', 'tsx', 'bench/bareServer.ts'], {
    cwd: projectFolder,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'production', PORT: String(port), DATABASE_URL: databaseUrl },
  });
  const address = `http://127.0.0.1:${port}`;
  for (let tries = 0; tries < 100; tries++) {
    if (await fetch(address).catch(() => undefined)) return { address, stop: () => child.kill() };
    await wait(100);
  }
  throw new Error('the bare server does not answer');
}
