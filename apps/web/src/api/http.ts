import { errorSchema } from '@yperkine/protocol';
import type { z } from 'zod';

/** A request that the server answered with a refusal and a sentence. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly field?: string,
    /** What the server calls it. */
    readonly code?: string,
  ) {
    super(message);
  }
}

/** The server did not answer, or its database is away. */
export class ServerAway extends Error {
  constructor() {
    super('The server cannot be reached just now.');
  }
}

interface Answer {
  readonly status: number;
  readonly body: unknown;
}

export async function ask(method: string, path: string, body?: unknown): Promise<Answer> {
  const response = await fetch(`/api${path}`, {
    method,
    ...(body === undefined
      ? {}
      : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  }).catch(() => {
    throw new ServerAway();
  });
  if (response.status >= 502) throw new ServerAway();
  const answer = { status: response.status, body: (await response.json().catch(() => null)) as unknown };
  if (response.ok || response.status === 409) return answer;
  throw refusal(answer);
}

export function refusal({ status, body }: Answer): Refusal {
  const parsed = errorSchema.safeParse(body);
  if (!parsed.success) return new Refusal(status, 'The server could not do this.');
  const { message, field, code } = parsed.data.error;
  return new Refusal(status, message, field, code);
}

export async function expectBody<T extends z.ZodType>(
  schema: T,
  method: string,
  path: string,
  body?: unknown,
): Promise<z.output<T>> {
  const answer = await ask(method, path, body);
  if (answer.status === 409) throw refusal(answer);
  return schema.parse(answer.body);
}
