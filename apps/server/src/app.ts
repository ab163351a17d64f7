import express, { type Express } from 'express';
import type { Logger } from 'pino';
import { attemptLimits } from './accounts/limits.ts';
import { sessions } from './accounts/session.ts';
import type { Config } from './config.ts';
import type { Database } from './database/connect.ts';
import { accountRoutes } from './http/accounts.ts';
import { demonstrationRoutes } from './http/demonstrations.ts';
import { health } from './http/health.ts';
import { openApi } from './http/openapi.ts';
import { pages } from './http/pages.ts';
import { notFound, problemHandler } from './http/problem.ts';
import { giveNonce, sameOriginOnly, securityHeaders } from './http/security.ts';

const largestBody = '2mb';

/** The whole server as an Express application. */
export function createApp(config: Config, database: Database, logger: Logger): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('trust proxy', config.trustProxy ? 1 : false);
  app.use(giveNonce, securityHeaders);
  app.get('/api/health', health(database));
  app.get('/api/openapi.json', (_request, response) => {
    response.json(openApi());
  });
  app.use(
    '/api',
    sameOriginOnly,
    express.json({ limit: largestBody }),
    sessions(database, config, (error) => logger.warn({ error: error.message }, 'the session store is away')),
    (_request, response, next) => {
      response.set('Cache-Control', 'no-store');
      next();
    },
  );
  app.use('/api', accountRoutes(attemptLimits(database), config.demo));
  app.use('/api/demonstrations', demonstrationRoutes(database.sequelize));
  app.use('/api', () => {
    throw notFound();
  });
  if (config.webFolder) app.use(pages(config.webFolder));
  app.use(problemHandler(logger));
  return app;
}
