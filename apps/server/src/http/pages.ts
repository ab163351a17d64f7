import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { Router } from 'express';
import expressStaticGzip from 'express-static-gzip';
import { giveNonce, pageHeaders, permissionHeaders, scriptPolicy } from './security.ts';

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
      serveStatic: {
        immutable: true,
        maxAge: '1y',
        fallthrough: false,
        // A file of another content has another name, so nobody ever asks whether it has changed.
        etag: false,
        lastModified: false,
        acceptRanges: false,
        setHeaders: (response, file) => {
          // Scripts, styles and fonts run under the policy of the page: only a worker comes with its own.
          if (/\.worker-[^/]*$/.test(file)) response.setHeader('Content-Security-Policy', scriptPolicy);
          else response.removeHeader('Content-Security-Policy');
        },
      },
    }),
  );
  router.use(express.static(folder, { index: false }));
  router.get('/{*path}', giveNonce, pageHeaders, permissionHeaders, (_request, response) => {
    const { nonce } = response.locals as { nonce: string };
    response.set('Cache-Control', 'no-store').type('html').send(page.replaceAll('{{nonce}}', nonce));
  });
  return router;
}
