import type { RequestHandler } from 'express';
import type { Database } from '../database/connect.ts';

const patience = 3000;

/** Says ok only when the database answers too. */
export function health({ pool }: Database): RequestHandler {
  return async (_request, response) => {
    const answered = pool.query('SELECT 1').then(
      () => true,
      () => false,
    );
    const isOk = await Promise.race([
      answered,
      new Promise<boolean>((resolve) => setTimeout(resolve, patience, false).unref()),
    ]);
    response
      .set('Cache-Control', 'no-store')
      .status(isOk ? 200 : 503)
      .json({ status: isOk ? 'ok' : 'unavailable' });
  };
}
