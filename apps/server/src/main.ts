import type { Server } from 'node:http';
import type { Express } from 'express';
import { createApp, type App } from './app.ts';
import { readConfig, type Config } from './config.ts';
import { connect, onceReachable, type Database } from './database/connect.ts';
import { demoAccount, examples, putInDemo } from './database/demo.ts';
import { migrate } from './database/migrate.ts';
import { createLogger } from './log.ts';

/**
 * Milliseconds for which an idle connection is kept: longer than browsers and proxies keep theirs, so that no request is
 * sent on one that is being closed (common practice).
 */
const keptOpen = 65_000;

/** Milliseconds for which the server waits for its database when it starts. */
const untilReached = 60_000;

/** Milliseconds that connections get to end by themselves. */
const farewell = 600;

interface Running {
  database?: Database;
  app?: App;
  server?: Server;
}

function listen(config: Config, app: Express): Promise<Server> {
  return new Promise((resolve, reject) => {
    const server = app.listen(config.port, config.host, (error) => (error ? reject(error) : resolve(server)));
    server.keepAliveTimeout = keptOpen;
    server.headersTimeout = keptOpen + 1000;
  });
}

/** Ends within a second, whatever is being worked out. */
function stopOnSignal(running: Running): void {
  const stop = () => {
    setTimeout(() => process.exit(0), farewell);
    running.server?.closeAllConnections();
    running.server?.close();
    void Promise.allSettled([running.app?.close(), running.database?.close()]).then(() => process.exit(0));
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
}

async function start(): Promise<void> {
  const config = readConfig(process.env);
  const logger = createLogger(config.logLevel);
  const running: Running = {};
  stopOnSignal(running);
  const patient = (running.database = connect(config.databaseUrl, logger, { isPatient: true }));
  await onceReachable(() => migrate(patient.sequelize), untilReached);
  await patient.close();
  const database = (running.database = connect(config.databaseUrl, logger));
  const app = (running.app = createApp(config, database, logger));
  if (config.demo) {
    await onceReachable(putInDemo, untilReached);
    await app.pictures.prepare(
      demoAccount.id,
      examples.map(({ id }) => id),
    );
  }
  running.server = await listen(config, app.app);
  logger.info({ port: config.port }, 'listening');
}

start().catch((error: unknown) => {
  const { code, message } = error as { code?: string; message?: string };
  const sentence =
    code === 'EADDRINUSE'
      ? `Port ${process.env.PORT ?? ''} is already in use: stop the other program or set PORT to another number.`
      : (message ?? String(error));
  process.stderr.write(`${sentence}\n`);
  process.exit(1);
});
