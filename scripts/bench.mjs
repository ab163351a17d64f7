import { randomBytes } from 'node:crypto';
import { ensureChromium } from './setup/debian.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { run, runMain, say } from './setup/run.mjs';

/** Prints measurements; nothing here passes or fails. */
runMain(async () => {
  await ensurePackages();
  await ensureChromium();
  const { build } = await import('./setup/build.mjs');
  const { freePort, startPostgres } = await import('./setup/postgres.mjs');
  const { startServer } = await import('./setup/server.mjs');
  await run('node', ['--import', 'tsx', 'bench/evaluation.ts']);
  say('');
  await run('node', ['--import', 'tsx', 'bench/analysis.ts']);
  say('');
  await run('node', ['--import', 'tsx', 'bench/area.ts']);
  say('');
  await build();
  const postgres = await startPostgres('bench-postgres', { durable: false });
  try {
    const port = await freePort();
    const secret = randomBytes(32).toString('base64url');
    const server = await startServer({
      port,
      databaseUrl: postgres.url('postgres'),
      secret,
      demo: true,
      quiet: true,
    });
    say('');
    for (const program of ['drag', 'phone', 'tasks']) {
      await run('node', ['--import', 'tsx', `bench/${program}.ts`], {
        env: { ...process.env, BENCH_ADDRESS: server.address },
      });
      say('');
    }
    server.stop();
    await server.ended;
  } finally {
    await postgres.stop();
  }
});
