import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { descendants, kill, processIds, statusOf } from '../processes.ts';

const projectFolder = join(import.meta.dirname, '../..');
const patience = 300_000;

/** Those that have not ended yet: a test that fails half-way leaves none behind. */
const running = new Set<Start>();

/** What one run of the start command did. */
class Start {
  output = '';
  private readonly child: ChildProcess;
  readonly ended: Promise<number>;

  constructor(environment: Record<string, string>) {
    this.child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: projectFolder,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...withoutTestSettings(), ...environment },
    });
    this.child.stdout?.on('data', (piece) => (this.output += String(piece)));
    this.child.stderr?.on('data', (piece) => (this.output += String(piece)));
    running.add(this);
    this.ended = new Promise((resolve) =>
      this.child.on('close', (status) => {
        running.delete(this);
        resolve(status ?? -1);
      }),
    );
  }

  async untilReady(): Promise<void> {
    const until = Date.now() + patience;
    while (!this.output.includes('Yperkine is ready')) {
      if (Date.now() > until || this.child.exitCode !== null) throw new Error(this.output);
      await wait(100);
    }
  }

  async untilSaid(sentence: string): Promise<void> {
    await untilTrue(() => Promise.resolve(this.output.includes(sentence)));
  }

  /** Ends the server under it, as a crash would. */
  killServer(): Promise<void> {
    const server = descendants(this.child.pid ?? 0).find((pid) =>
      statusOf(pid)?.command.includes('apps/server/dist/server.js'),
    );
    kill(server ?? 0);
    return Promise.resolve();
  }

  /** Ends the start command alone, without warning. */
  async killAlone(): Promise<void> {
    kill(this.child.pid ?? 0);
    await wait(300);
  }

  async stop(): Promise<number> {
    this.child.kill('SIGTERM');
    return this.ended;
  }

  /** Ends the start command and its server without warning, and the database too if asked. */
  async crash({ withDatabase }: { withDatabase: boolean }): Promise<void> {
    const family = descendants(this.child.pid ?? 0);
    for (const pid of [...family, ...(withDatabase ? databaseProcesses() : [])]) kill(pid);
    await this.ended;
  }
}

async function untilTrue(isTrue: () => Promise<boolean>): Promise<void> {
  const until = Date.now() + patience;
  while (!(await isTrue().catch(() => false))) {
    if (Date.now() > until) throw new Error('this did not come true in time');
    await wait(150);
  }
}

function withoutTestSettings(): NodeJS.ProcessEnv {
  const { DATABASE_URL: _url, PORT: _port, DEMO: _demo, NODE_OPTIONS: _options, ...rest } = process.env;
  return rest;
}

/** The database that runs for this test's data folder: its folder is named after it. */
function databaseProcesses(): number[] {
  return processIds().filter((pid) => {
    const command = statusOf(pid)?.command ?? '';
    return /postgres.* -D /.test(command) && databaseFolders().some((folder) => command.includes(folder));
  });
}

/** Places in which the start command may keep the data of this test's folder. */
function databaseFolders(): string[] {
  return [`${dataFolder}/`, ...knownNames.map((name) => `/${name}-`)];
}

let dataFolder = '';
let knownNames: string[] = [];

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

const health = async (port: number): Promise<unknown> =>
  (await fetch(`http://127.0.0.1:${port}/api/health`)).json();

beforeAll(async () => {
  dataFolder = mkdtempSync(join(tmpdir(), 'yperkine-start-'));
  const { createHash } = await import('node:crypto');
  knownNames = [`yperkine-${createHash('sha256').update(dataFolder).digest('hex').slice(0, 10)}`];
});
afterEach(async () => {
  for (const start of running) await start.crash({ withDatabase: true });
});
afterAll(() => {
  const places = ['/var/lib/postgresql', tmpdir()].filter((place) => existsSync(place));
  const left = places.flatMap((place) =>
    readdirSync(place)
      .filter((name) => knownNames.some((known) => name.startsWith(`${known}-`)))
      .map((name) => join(place, name)),
  );
  for (const folder of [dataFolder, ...left]) rmSync(folder, { recursive: true, force: true });
});

describe('the start command', () => {
  test(
    'starts, starts again after an orderly end and after a crash, and keeps what was made',
    async () => {
      const port = await freePort();
      const settings = { PORT: String(port), DATA_FOLDER: dataFolder };
      const first = new Start(settings);
      await first.untilReady();
      expect(await health(port)).toEqual({ status: 'ok' });
      const signIn = await fetch(`http://127.0.0.1:${port}/api/session/demo`, { method: 'POST' });
      const cookie = signIn.headers.get('set-cookie')?.split(';')[0] ?? '';
      const made = await fetch(`http://127.0.0.1:${port}/api/demonstrations`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', cookie },
        body: JSON.stringify({ title: 'Kept through a crash' }),
      });
      expect(made.status).toBe(201);
      // A second start in the same folder says that one runs, and leaves it alone.
      const second = new Start({ ...settings, PORT: String(await freePort()) });
      expect(await second.ended).toBe(1);
      expect(second.output).toContain(`Yperkine already runs from this folder: http://127.0.0.1:${port}`);
      expect(await health(port)).toEqual({ status: 'ok' });

      // A server that ends by itself is started again, and so is its database.
      await first.killServer();
      await first.untilSaid('The server answers again.');
      expect(await health(port)).toEqual({ status: 'ok' });
      for (const pid of databaseProcesses()) kill(pid);
      await first.untilSaid('The database answers again.');
      const kept = async (): Promise<string> =>
        (await fetch(`http://127.0.0.1:${port}/api/demonstrations`, { headers: { cookie } })).text();
      await untilTrue(async () => (await kept()).includes('Kept through a crash'));
      await first.crash({ withDatabase: true });

      const afterCrash = new Start(settings);
      await afterCrash.untilReady();
      // It was built already, from these sources.
      expect(afterCrash.output).not.toContain('Building');
      const library = await fetch(`http://127.0.0.1:${port}/api/demonstrations`, { headers: { cookie } });
      expect(await library.text()).toContain('Kept through a crash');
      await afterCrash.crash({ withDatabase: false });
      expect(databaseProcesses()).not.toEqual([]);
      await expect(health(port)).rejects.toThrow();

      const again = new Start(settings);
      await again.untilReady();
      expect(await health(port)).toEqual({ status: 'ok' });
      // Killed alone, it leaves its server behind, which the next start finds.
      await again.killAlone();
      expect(await health(port)).toEqual({ status: 'ok' });
      const last = new Start(settings);
      await last.untilReady();
      expect(last.output).toMatch(/left its server behind \(process \d+\): it is ended/);
      await last.stop();
      expect(databaseProcesses()).toEqual([]);
      await expect(health(port)).rejects.toThrow();
    },
    3 * patience,
  );

  test(
    'uses a given database, starts none of its own, and leaves the demo out',
    async () => {
      const admin = process.env.TEST_DATABASE_URL ?? '';
      const { default: pg } = await import('pg');
      const client = new pg.Client({ connectionString: admin });
      await client.connect();
      await client.query('DROP DATABASE IF EXISTS given_to_start WITH (FORCE)');
      await client.query('CREATE DATABASE given_to_start');
      const url = new URL(admin);
      url.pathname = '/given_to_start';
      const port = await freePort();
      const start = new Start({ PORT: String(port), DATA_FOLDER: dataFolder, DATABASE_URL: url.href });
      await start.untilReady();
      expect(start.output).not.toContain('demo teacher');
      const session = await fetch(`http://127.0.0.1:${port}/api/session`);
      expect(await session.json()).toEqual({ account: null, demo: false });
      expect(databaseProcesses()).toEqual([]);
      await start.stop();
      await client.query('DROP DATABASE given_to_start WITH (FORCE)');
      await client.end();
    },
    2 * patience,
  );

  test(
    'a port that something else listens on is answered by a sentence',
    async () => {
      const other = createServer();
      await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
      const address = other.address();
      const port = typeof address === 'object' && address ? address.port : 0;
      const start = new Start({ PORT: String(port), DATA_FOLDER: dataFolder });
      expect(await start.ended).toBe(1);
      expect(start.output).toContain(`Port ${port} is already in use`);
      await new Promise((resolve) => other.close(resolve));
    },
    patience,
  );

  test('a port that is no port is answered by a sentence', async () => {
    const start = new Start({ PORT: 'eighty', DATA_FOLDER: dataFolder });
    expect(await start.ended).toBe(1);
    expect(start.output.trim()).toBe('PORT must be a number from 1 to 65535.');
  });
});
