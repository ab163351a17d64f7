import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { dataFolder } from './setup/folders.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { runMain, say, SetupProblem } from './setup/run.mjs';

const usualPort = 4280;

/** @param {number} port */
function requireFreePort(port) {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', (error) =>
      reject(
        /** @type {NodeJS.ErrnoException} */ (error).code === 'EACCES'
          ? new SetupProblem(`Port ${port} may only be opened by root: set PORT to a number above 1023.`)
          : new SetupProblem(
              `Port ${port} is already in use: stop the other program, or set PORT, as in “PORT=5000 npm start”.`,
            ),
      ),
    );
    probe.listen(port, '127.0.0.1', () => probe.close(resolve));
  });
}

function readPort() {
  const port = Number(process.env.PORT ?? usualPort);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new SetupProblem('PORT must be a number from 1 to 65535.');
  return port;
}

/** The secret that signs sessions: made once on this machine and kept. */
function localSecret() {
  const file = join(dataFolder, 'session-secret');
  if (!existsSync(file)) {
    mkdirSync(dataFolder, { recursive: true, mode: 0o711 });
    writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600 });
  }
  return readFileSync(file, 'utf8');
}

runMain(async () => {
  const port = readPort();
  await ensurePackages();
  const { build } = await import('./setup/build.mjs');
  const { startPostgres } = await import('./setup/postgres.mjs');
  const { startServer } = await import('./setup/server.mjs');
  const { claimFolder, keepRunning, watchDatabase } = await import('./setup/supervise.mjs');
  await claimFolder();
  await requireFreePort(port);
  await build();
  const given = process.env.DATABASE_URL;
  const postgres = given ? undefined : await startPostgres('postgres', { durable: true });
  const endWatch = postgres ? watchDatabase(postgres) : () => undefined;
  const databaseUrl = given ?? /** @type {NonNullable<typeof postgres>} */ (postgres).url('postgres');
  const secret = process.env.SESSION_SECRET ?? localSecret();
  const demo = process.env.DEMO === undefined ? !given : process.env.DEMO === '1';
  try {
    return await keepRunning(
      () => startServer({ port, databaseUrl, secret, demo }),
      (address) => {
        say(`\n  Yperkine is ready:  ${address}`);
        if (!given || process.env.DEMO === '1')
          say('  To look around, choose “Sign in as the demo teacher”.');
        say('  Ctrl+C stops it.\n');
      },
    );
  } finally {
    endWatch();
    await postgres?.stop();
  }
});
