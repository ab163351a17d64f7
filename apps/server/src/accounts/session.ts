import connectPgSimple from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import type { Database } from '../database/connect.ts';
import type { Config } from '../config.ts';
import { HttpProblem } from '../http/problem.ts';

declare module 'express-session' {
  interface SessionData {
    accountId: string;
  }
}

const thirtyDays = 30 * 24 * 60 * 60 * 1000;

/** Sessions live in the database, so that any of several servers can answer. */
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
      pool,
      tableName: 'sessions',
      errorLog: (error) => onError(error as unknown as Error),
    }),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'lax', secure: config.trustProxy, maxAge: thirtyDays },
  });
}

/** Begins a session under a new id, so that an id known from before is worth nothing. */
export function begin(request: Request, accountId: string): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.regenerate((error: unknown) => {
      if (error) return reject(error as Error);
      request.session.accountId = accountId;
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
