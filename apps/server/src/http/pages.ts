import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Router } from 'express';
import { static as expressStatic } from 'express';
import expressStaticGzip from 'express-static-gzip';
import { giveNonce, pageHeaders, permissionHeaders } from './security.ts';

/**
 * The web application's files, compressed when it was built; every other address gets its page, with this response's
 * nonce put in.
 */
export function pages(folder: string): Router {
  const router = Router();
  const page = readFileSync(join(folder, 'index.html'), 'utf8');
  router.use(
    '/assets',
    expressStaticGzip(join(folder, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
    }),
  );
  router.use(expressStatic(folder, { index: false }));
  router.get('/{*path}', giveNonce, pageHeaders, permissionHeaders, (_request, response) => {
    const { nonce } = response.locals as { nonce: string };
    response.set('Cache-Control', 'no-store').type('html').send(page.replaceAll('{{nonce}}', nonce));
  });
  return router;
}
