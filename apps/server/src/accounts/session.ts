import connectPgSimple from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import type { Database } from '../database/connect.ts';
import { preparing } from '../database/prepared.ts';
import type { Config } from '../config.ts';
import { HttpProblem } from '../problem.ts';

declare module 'express-session' {
  interface SessionData {
    accountId: string;
    /** The day on which it was last made to last longer. */
    prolonged: string;
  }
}

const hour = 60 * 60 * 1000;
const thirtyDays = 30 * 24 * hour;
/** A visit as the demo teacher. */
const demoVisit = 2 * hour;

/**
 * Sessions live in the database, so that any of several servers can answer. A request reads its session in one
 * statement and writes nothing; once a day the session is made to last longer.
 */
export function sessions(
  { pool }: Database,
  config: Config,
  onError: (error: Error) => void,
): RequestHandler {
  const Store = connectPgSimple(session);
  return session({
    name: 'yperkine',
    secret: config.sessionSecret,
    store: new Store({
      pool: preparing(pool),
      tableName: 'sessions',
      errorLog: (error) => onError(error as unknown as Error),
      disableTouch: true,
      pruneSessionInterval: hour / 1000,
    }),
    resave: false,
    saveUninitialized: false,
    // Secure where the person came by HTTPS, directly or through a proxy that is trusted.
    cookie: { httpOnly: true, sameSite: 'lax', secure: 'auto', maxAge: thirtyDays },
  });
}

const today = (): string => new Date().toISOString().slice(0, 10);

/** Once a day a session that is used begins its thirty days anew; a visit as the demo teacher ends when it ends. */
export const prolong: RequestHandler = (request, _response, next) => {
  const { session: current } = request;
  // The clock may go on between two of its readings: what was given is a millisecond less now and then.
  const isLong = (current.cookie.originalMaxAge ?? 0) > demoVisit;
  if (current.accountId && isLong && current.prolonged !== today()) current.prolonged = today();
  next();
};

/** Begins a session under a new id, so that an id known from before is worth nothing. */
export function begin(request: Request, accountId: string, { isDemo = false } = {}): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.regenerate((error: unknown) => {
      if (error) return reject(error as Error);
      request.session.accountId = accountId;
      request.session.prolonged = today();
      if (isDemo) request.session.cookie.maxAge = request.session.cookie.originalMaxAge = demoVisit;
      request.session.save((failure: unknown) => (failure ? reject(failure as Error) : resolve()));
    });
  });
}

export function end(request: Request): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.destroy((error: unknown) => (error ? reject(error as Error) : resolve()));
  });
}

/** The account of the person who asks. @throws HttpProblem 401 for nobody */
export function requireAccount(request: Request): string {
  const { accountId } = request.session;
  if (!accountId) throw new HttpProblem(401, 'signedOut', 'Please sign in first.');
  return accountId;
}
