import type { ErrorBody } from '@yperkine/protocol';
import type { ErrorRequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import { ConnectionError, ConnectionAcquireTimeoutError } from 'sequelize';
import { z } from 'zod';

/** An answer to a request that cannot be served, with a sentence for the person. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly field?: string,
  ) {
    super(message);
  }
}

export const notFound = (): HttpProblem =>
  new HttpProblem(404, 'notFound', 'This does not exist, or is not yours.');

/** Reads a request body by its schema; the first thing that is wrong becomes the answer. */
export function readBody<T extends z.ZodType>(schema: T, body: unknown): z.output<T> {
  const parsed = schema.safeParse(body);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0];
  throw new HttpProblem(
    400,
    'badRequest',
    issue?.message ?? 'The request cannot be read.',
    issue?.path.join('.'),
  );
}

export function readId(id: unknown): string {
  const parsed = z.uuid().safeParse(id);
  if (!parsed.success) throw notFound();
  return parsed.data;
}

function send(response: Response, { status, code, message, field }: HttpProblem): void {
  const body: ErrorBody = { error: { code, message, ...(field ? { field } : {}) } };
  response.status(status).json(body);
}

/** Whether the database could not be reached, as opposed to having refused something. */
function isDatabaseAway(error: unknown): boolean {
  if (error instanceof ConnectionError || error instanceof ConnectionAcquireTimeoutError) return true;
  const { code, message } = error as { code?: unknown; message?: unknown };
  const isConnectionCode = typeof code === 'string' && /^(ECONN|EPIPE|57P0|08)/.test(code);
  return (
    isConnectionCode ||
    /Connection terminated|connect ECONN|timeout exceeded when trying to connect/.test(String(message))
  );
}

/** Turns everything that a route throws into one sentence; details go to the log only. */
export function problemHandler(logger: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    if (error instanceof HttpProblem) return send(response, error);
    const status = (error as { status?: unknown }).status;
    if (status === 404) return send(response, notFound());
    if (status === 413)
      return send(response, new HttpProblem(413, 'tooLarge', 'This is too large to be saved at once.'));
    if (status === 400)
      return send(response, new HttpProblem(400, 'badRequest', 'The request cannot be read.'));
    if (isDatabaseAway(error)) {
      logger.warn({ path: request.path }, 'the database is away');
      return send(response, new HttpProblem(503, 'unavailable', 'The database cannot be reached just now.'));
    }
    logger.error({ error, path: request.path }, 'a request failed');
    return send(response, new HttpProblem(500, 'internal', 'Something went wrong on the server.'));
  };
}
