import { pino, type DestinationStream, type Logger } from 'pino';

interface ToldError {
  readonly type: string;
  readonly message: string;
  readonly stack?: string;
  readonly code?: string;
}

/** PostgreSQL's codes for a value that it could not take; its message repeats the value. */
const repeatsValue = /^22/;

/**
 * What the log tells of an error: kind, code, message, stack. Never the statement, its values or the request, which
 * hold documents and personal data.
 */
function toldError(error: unknown): ToldError {
  if (!(error instanceof Error))
    return { type: typeof error, message: 'something that is no error was thrown' };
  const { code, original } = error as Error & { code?: unknown; original?: { code?: unknown } };
  const known = [code, original?.code].find((candidate) => typeof candidate === 'string');
  const isQuiet = known !== undefined && repeatsValue.test(known as string);
  const message = isQuiet ? 'a value could not be taken' : error.message;
  return {
    type: error.name,
    message,
    ...(known === undefined ? {} : { code: known as string }),
    // The first line of a stack is the message.
    ...(error.stack ? { stack: error.stack.replace(error.message, message) } : {}),
  };
}

/** The log of the server, one JSON object a line. */
export const createLogger = (level: string, destination?: DestinationStream): Logger =>
  pino({ level, serializers: { err: toldError } }, destination);
