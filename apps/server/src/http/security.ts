import { randomBytes } from 'node:crypto';
import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { HttpProblem } from '../problem.ts';

/** A fresh nonce for the style element of the formula field, for this response alone. */
export const giveNonce: RequestHandler = (_request, response, next) => {
  response.locals.nonce = randomBytes(16).toString('base64');
  next();
};

/** Headers of the page: nothing is fetched from outside, no text is run as code. */
export const pageHeaders = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'none'"],
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      workerSrc: ["'self'"],
      styleSrc: [
        "'self'",
        (_request, response) =>
          `'nonce-${(response as unknown as { locals: { nonce: string } }).locals.nonce}'`,
      ],
      // The browser's own editing writes style attributes when marked text is typed over.
      styleSrcAttr: ["'unsafe-inline'"],
      fontSrc: ["'self'"],
      // A picture of the graphs is made in the browser, out of its own data.
      imgSrc: ["'self'", 'data:', 'blob:'],
      connectSrc: ["'self'"],
      manifestSrc: ["'self'"],
      formAction: ["'self'"],
      baseUri: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  strictTransportSecurity: false,
});

/** Headers of everything else: data, pictures and files that are never a page themselves. */
export const dataHeaders: RequestHandler = (_request, response, next) => {
  response.set({
    'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'",
    'Cross-Origin-Resource-Policy': 'same-origin',
    'X-Content-Type-Options': 'nosniff',
  });
  next();
};

/** A worker runs under the policy that its own script came with. */
export const scriptPolicy = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'";

/** What the page never asks the browser for. */
const permissions = (
  'accelerometer bluetooth browsing-topics camera display-capture geolocation gyroscope hid magnetometer ' +
  'microphone midi payment serial usb'
)
  .split(' ')
  .map((name) => `${name}=()`)
  .join(', ');
const oneYear = 365 * 24 * 60 * 60;

/** What the page may ask the browser for. */
export const permissionHeaders: RequestHandler = (_request, response, next) => {
  response.set('Permissions-Policy', permissions);
  next();
};

/** What depends on how the person came, which behind a trusted proxy is what that says. */
export const connectionHeaders: RequestHandler = (request, response, next) => {
  if (request.secure) response.set('Strict-Transport-Security', `max-age=${oneYear}`);
  next();
};

const changing = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/** Refuses requests that change something when a page of another origin sent them. */
export const sameOriginOnly: RequestHandler = (request, _response, next) => {
  if (!changing.has(request.method)) return next();
  const { origin } = request.headers;
  // Behind a trusted proxy this is the host that the browser asked for.
  const isForeign = origin !== undefined && originHost(origin) !== request.host;
  if (isForeign || request.headers['sec-fetch-site'] === 'cross-site') {
    throw new HttpProblem(403, 'foreignOrigin', 'This request came from another site.');
  }
  next();
};

function originHost(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}
