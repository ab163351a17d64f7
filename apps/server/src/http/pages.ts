import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { Router } from 'express';

/** The web application's files; every other address gets its page, with this response's nonce put in. */
export function pages(folder: string): Router {
  const router = Router();
  const page = readFileSync(join(folder, 'index.html'), 'utf8');
  router.use(
    '/assets',
    express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  router.use(express.static(folder, { index: false }));
  router.get('/{*path}', (_request, response) => {
    const { nonce } = response.locals as { nonce: string };
    response.set('Cache-Control', 'no-store').type('html').send(page.replaceAll('{{nonce}}', nonce));
  });
  return router;
}
