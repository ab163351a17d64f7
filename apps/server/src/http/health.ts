import type { RequestHandler } from 'express';
import type { Database } from '../database/connect.ts';
import { databaseFailure } from '../database/failure.ts';

type Status = 'ok' | 'readOnly' | 'unavailable';

const patience = 3000;
/** Answers are shared for a moment, so that asking often costs the database nothing. */
const keptFor = 500;

/** Says ok only when the database takes a row, which is what saving needs. */
export function health({ pool }: Database): RequestHandler {
  let asked: { readonly at: number; readonly status: Promise<Status> } | null = null;

  const write = (): Promise<Status> =>
    pool
      .query(
        'INSERT INTO heartbeat (one, at) VALUES (true, now()) ON CONFLICT (one) DO UPDATE SET at = now()',
      )
      .then(
        () => 'ok' as const,
        (error: unknown) => (databaseFailure(error) === 'takesNothing' ? 'readOnly' : 'unavailable'),
      );
  const inTime = (status: Promise<Status>): Promise<Status> =>
    Promise.race([
      status,
      new Promise<Status>((resolve) => setTimeout(resolve, patience, 'unavailable').unref()),
    ]);

  return async (_request, response) => {
    const now = performance.now();
    if (!asked || now - asked.at > keptFor) asked = { at: now, status: inTime(write()) };
    const status = await asked.status;
    response
      .set('Cache-Control', 'no-store')
      .status(status === 'ok' ? 200 : 503)
      .json({ status });
  };
}
