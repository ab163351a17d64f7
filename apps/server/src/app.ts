import compression from 'compression';
import express, { type Express } from 'express';
import type { Logger } from 'pino';
import { attemptLimits } from './accounts/limits.ts';
import { prolong, sessions } from './accounts/session.ts';
import type { Config } from './config.ts';
import type { Database } from './database/connect.ts';
import { accountRoutes } from './http/accounts.ts';
import { cleanBody, smallBody } from './http/cleanBody.ts';
import { demonstrationRoutes } from './http/demonstrations.ts';
import { health } from './http/health.ts';
import { openApi } from './http/openapi.ts';
import { pages } from './http/pages.ts';
import { notFound, problemHandler } from './problem.ts';
import { connectionHeaders, dataHeaders, sameOriginOnly } from './http/security.ts';
import { News } from './library/news.ts';
import { Painter } from './pictures/painter.ts';
import { Pictures } from './pictures/pictures.ts';

export interface App {
  readonly app: Express;
  readonly pictures: Pictures;
  /** Ends what the application does beside answering requests. */
  close(): Promise<void>;
}

/** The whole server as an Express application. */
export function createApp(
  config: Config,
  database: Database,
  logger: Logger,
  painter: Painter = new Painter(),
): App {
  const app = express();
  const pictures = new Pictures(database.sequelize, painter);
  const news = new News(config.databaseUrl, database.pool, logger);
  app.disable('x-powered-by');
  // Nothing of the interface is kept by browsers but pictures, which have tags of their own.
  app.disable('etag');
  app.set('trust proxy', config.trustProxy ? 1 : false);
  app.use(dataHeaders, connectionHeaders);
  app.get('/api/health', health(database));
  app.use(compression());
  app.get('/api/openapi.json', (_request, response) => {
    response.json(openApi());
  });
  app.use('/api', (_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  app.use(
    '/api',
    sameOriginOnly,
    sessions(database, config, (error) => logger.warn({ err: error }, 'the session store is away')),
    prolong,
  );
  app.use('/api/demonstrations', demonstrationRoutes({ database, pictures, news }));
  app.use('/api', smallBody, cleanBody, accountRoutes(attemptLimits(database), config.demo));
  app.use('/api', () => {
    throw notFound();
  });
  if (config.webFolder) app.use(pages(config.webFolder));
  app.use(problemHandler(logger));
  return {
    app,
    pictures,
    close: async () => {
      await Promise.allSettled([painter.close(), news.close()]);
    },
  };
}
