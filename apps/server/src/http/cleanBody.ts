import express, { type RequestHandler } from 'express';
import { HttpProblem } from '../problem.ts';

const deepest = 40;
const unreadable = (message: string): HttpProblem => new HttpProblem(400, 'badRequest', message);

/**
 * What no request may carry, whatever its schema says: characters that PostgreSQL cannot keep, nesting that nobody
 * writes, and the one name that would change an object rather than be put into it.
 * @throws HttpProblem 400
 */
function refuseUnkeepable(body: unknown): void {
  const waiting: { readonly value: unknown; readonly depth: number }[] = [{ value: body, depth: 0 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value, depth } = next;
    if (typeof value === 'string') refuseText(value);
    if (typeof value !== 'object' || value === null) continue;
    if (depth === deepest) throw unreadable('This is nested too deeply to be kept.');
    for (const [name, part] of Object.entries(value)) {
      if (name === '__proto__') throw unreadable('“__proto__” is no name that can be kept.');
      refuseText(name);
      waiting.push({ value: part, depth: depth + 1 });
    }
  }
}

function refuseText(text: string): void {
  if (text.includes('\0') || !text.isWellFormed())
    throw unreadable('This text has a character in it that cannot be kept.');
}

/** The body of everything but a save. */
export const smallBody: RequestHandler = express.json({ limit: '100kb' });

/** A body is JSON, and nothing that could not be kept is in it. */
export const cleanBody: RequestHandler = (request, _response, next) => {
  const hasBody =
    Number(request.headers['content-length'] ?? 0) > 0 || 'transfer-encoding' in request.headers;
  if (hasBody && !request.is('json')) throw new HttpProblem(415, 'notJson', 'Only JSON can be read here.');
  refuseUnkeepable(request.body);
  next();
};
