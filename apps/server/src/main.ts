import type { Server } from 'node:http';
import { pino } from 'pino';
import { createApp } from './app.ts';
import { readConfig, type Config } from './config.ts';
import { connect, type Database } from './database/connect.ts';
import { putInDemo } from './database/demo.ts';
import { migrate } from './database/migrate.ts';

function listen(config: Config, app: ReturnType<typeof createApp>): Promise<Server> {
  return new Promise((resolve, reject) => {
    const server = app.listen(config.port, config.host, (error) => (error ? reject(error) : resolve(server)));
  });
}

function stopOnSignal(database: Database, running: { server?: Server }): void {
  const stop = () => {
    running.server?.closeAllConnections();
    running.server?.close();
    void database.close().then(() => process.exit(0));
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
}

async function start(): Promise<void> {
  const config = readConfig(process.env);
  const logger = pino({ level: config.logLevel });
  const database = connect(config.databaseUrl, logger);
  const running: { server?: Server } = {};
  stopOnSignal(database, running);
  await migrate(database.sequelize);
  if (config.demo) await putInDemo();
  running.server = await listen(config, createApp(config, database, logger));
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
