import { spawn } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import { serverFile, webFolder } from './build.mjs';
import { projectFolder } from './folders.mjs';
import { SetupProblem } from './run.mjs';

/** Milliseconds: longer than the server waits for its database. */
const patience = 150_000;

/**
 * Starts the built server and waits until it answers.
 * @param {{ port: number, databaseUrl: string, secret: string, demo: boolean, quiet?: boolean }} settings
 */
export async function startServer({ port, databaseUrl, secret, demo, quiet = false }) {
  const child = spawn(process.execPath, ['--enable-source-maps', serverFile], {
    cwd: projectFolder,
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
      PORT: String(port),
      DATABASE_URL: databaseUrl,
      SESSION_SECRET: secret,
      DEMO: demo ? '1' : '0',
      WEB_FOLDER: webFolder,
    },
  });
  /** @type {Promise<number>} */
  const ended = new Promise((resolve) => child.on('close', (status) => resolve(status ?? 1)));
  const address = `http://127.0.0.1:${port}`;
  try {
    await Promise.race([
      untilHealthy(address),
      ended.then(() => {
        throw new SetupProblem('The server did not start.');
      }),
    ]);
  } catch (error) {
    child.kill('SIGKILL');
    throw error;
  }
  return { address, ended, child, stop: () => child.kill('SIGTERM') };
}

/** @param {string} address */
async function untilHealthy(address) {
  const until = Date.now() + patience;
  while (Date.now() < until) {
    const response = await fetch(`${address}/api/health`).catch(() => undefined);
    if (response?.ok) return;
    await wait(150);
  }
  throw new SetupProblem('The server does not answer.');
}
