import { ConnectionError, ConnectionAcquireTimeoutError } from 'sequelize';

/** What is wrong with the database: it cannot be asked, or it can be asked and takes nothing. */
export type Failure = 'away' | 'takesNothing';

/** PostgreSQL's codes (its manual, appendix A) for a database that would take the same statement another time. */
const takesNothing = /^(25006|53100|53400|58030|XX001|XX002)$/;
const away = /^(08|53|57|40001|40P01|55P03|25P0[234]|58)/;
const socket = /^(ECONN|EPIPE|ETIMEDOUT|EHOSTUNREACH|ENETUNREACH|ENOTFOUND|EAI_AGAIN)/;
const words =
  /Connection terminated|connect ECONN|timeout e(?:xceeded|xpired)|timed out|Query read timeout|Client has encountered|ConnectionManager\.getConnection was called after|Cannot use a pool after/i;

/** The code and message of an error, or of the error that it was made of. */
function* causes(error: unknown): Generator<{ code?: unknown; message?: unknown }> {
  let cause: unknown = error;
  for (let depth = 0; depth < 4 && typeof cause === 'object' && cause !== null; depth++) {
    yield cause;
    const { original, parent } = cause as { original?: unknown; parent?: unknown };
    cause = original ?? parent ?? (cause as Error).cause;
  }
}

/** Tells a database that fails from one that was asked something wrong; null for the latter. */
export function databaseFailure(error: unknown): Failure | null {
  if (error instanceof ConnectionError || error instanceof ConnectionAcquireTimeoutError) return 'away';
  for (const { code, message } of causes(error)) {
    if (typeof code === 'string' && takesNothing.test(code)) return 'takesNothing';
    if (typeof code === 'string' && (away.test(code) || socket.test(code))) return 'away';
    if (typeof message === 'string' && words.test(message)) return 'away';
  }
  return null;
}
