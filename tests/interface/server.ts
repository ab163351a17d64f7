import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes, randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { freePort } from '../../scripts/setup/postgres.mjs';

const projectFolder = join(import.meta.dirname, '../..');

/** The built server on a database of its own; it can be stopped and started again. */
export class TestServer {
  private child: ChildProcess | null = null;

  private constructor(
    readonly address: string,
    private readonly port: number,
    private readonly databaseUrl: string,
    private readonly secret: string,
  ) {}

  static async launch(): Promise<TestServer> {
    const admin = process.env.TEST_DATABASE_URL;
    if (!admin) throw new Error('TEST_DATABASE_URL is not set: run the tests through npm test');
    const name = `interface_${randomUUID().replaceAll('-', '')}`;
    const client = new pg.Client({ connectionString: admin });
    await client.connect();
    await client.query(`CREATE DATABASE ${name} TEMPLATE template`);
    await client.end();
    const url = new URL(admin);
    url.pathname = `/${name}`;
    const port = await freePort();
    const server = new TestServer(
      `http://127.0.0.1:${port}`,
      port,
      url.href,
      randomBytes(32).toString('base64url'),
    );
    await server.start();
    return server;
  }

  async start(): Promise<void> {
    this.child = spawn(process.execPath, [join(projectFolder, 'apps/server/dist/server.js')], {
      stdio: 'ignore',
      env: {
        ...process.env,
        PORT: String(this.port),
        DATABASE_URL: this.databaseUrl,
        SESSION_SECRET: this.secret,
        DEMO: '1',
        LOG_LEVEL: 'silent',
        WEB_FOLDER: join(projectFolder, 'apps/web/dist'),
      },
    });
    for (let tries = 0; tries < 200; tries++) {
      const response = await fetch(`${this.address}/api/health`).catch(() => undefined);
      if (response?.ok) return;
      await wait(100);
    }
    throw new Error('the server does not answer');
  }

  /** Ends the server without warning, as a crash would. */
  async stop(): Promise<void> {
    const { child } = this;
    if (!child) return;
    const ended = new Promise((resolve) => child.once('close', resolve));
    child.kill('SIGKILL');
    await ended;
    this.child = null;
  }
}
