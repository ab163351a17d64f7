import type { ErrorBody } from '@yperkine/protocol';
import type { ErrorRequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import { z } from 'zod';
import { databaseFailure, type Failure } from './database/failure.ts';

/** An answer to a request that cannot be served, with a sentence for the person. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly field?: string,
    /** Seconds after which it is worth trying again. */
    readonly retryAfter?: number,
  ) {
    super(message);
  }
}

export const notFound = (): HttpProblem =>
  new HttpProblem(404, 'notFound', 'This does not exist, or is not yours.');

const unreadable = 'The request cannot be read.';

/** Reads a request body by its schema; the first thing that is wrong becomes the answer. */
export function readBody<T extends z.ZodType>(schema: T, body: unknown): z.output<T> {
  const parsed = schema.safeParse(body);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0];
  // What a person can have typed has a sentence of its own; the others come from no page of ours.
  const message = issue?.message.endsWith('.') ? issue.message : unreadable;
  throw new HttpProblem(400, 'badRequest', message, issue?.path.join('.'));
}

export function readId(id: unknown): string {
  const parsed = z.uuid().safeParse(id);
  if (!parsed.success) throw notFound();
  return parsed.data;
}

function send(response: Response, { status, code, message, field, retryAfter }: HttpProblem): void {
  const body: ErrorBody = { error: { code, message, ...(field ? { field } : {}) } };
  if (retryAfter !== undefined) response.set('Retry-After', String(retryAfter));
  response.status(status).json(body);
}

const failures = {
  away: 'The database cannot be reached just now.',
  takesNothing: 'The database cannot keep anything just now.',
} as const satisfies Record<Failure, string>;

/** What a refusal by Express or the reader of bodies means for the person. */
const refusals: Readonly<Partial<Record<number, string>>> = {
  404: 'This does not exist, or is not yours.',
  413: 'This is too large to be saved at once.',
  415: 'This kind of request cannot be read.',
};

function problemOf(error: unknown): HttpProblem | null {
  if (error instanceof HttpProblem) return error;
  const { status } = error as { status?: unknown };
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new HttpProblem(status, 'badRequest', refusals[status] ?? unreadable);
  const failure = databaseFailure(error);
  return failure && new HttpProblem(503, failure === 'away' ? 'unavailable' : 'readOnly', failures[failure]);
}

/** Turns everything that a route throws into one sentence; details go to the log only. */
export function problemHandler(logger: Logger): ErrorRequestHandler {
  // Express tells an error handler by its four parameters.
  return (error: unknown, request, response, _next) => {
    const problem = problemOf(error);
    if (!problem) logger.error({ err: error, path: request.path }, 'a request failed');
    else if (problem.status === 503) logger.warn({ err: error, path: request.path }, 'the database fails');
    // An answer that is under way is not cut off.
    if (response.headersSent) return;
    send(response, problem ?? new HttpProblem(500, 'internal', 'Something went wrong on the server.'));
  };
}
