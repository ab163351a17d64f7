import { routes, type Route } from '@yperkine/protocol';
import { z } from 'zod';

const json = (schema: z.ZodType, io: 'input' | 'output') => ({
  content: {
    'application/json': {
      schema: z.toJSONSchema(schema, { target: 'openapi-3.0', io, unrepresentable: 'any' }),
    },
  },
});

/** The description of the server's interface, made from the same schemas that read the requests. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const route of routes) {
    paths[route.path] = { ...paths[route.path], [route.method]: operation(route) };
  }
  return { openapi: '3.0.3', info: { title: 'Yperkine', version: '1' }, paths };
}

function operation({ summary, request, query = {}, responses, path }: Route): object {
  const names = [...path.matchAll(/\{(\w+)\}/g)].map((match) => match[1]);
  return {
    summary,
    parameters: [
      ...names.map((name) => ({
        name,
        in: 'path',
        required: true,
        schema: { type: 'string', format: 'uuid' },
      })),
      ...Object.entries(query).map(([name, schema]) => ({
        name,
        in: 'query',
        required: !schema.safeParse(undefined).success,
        schema: z.toJSONSchema(schema, { target: 'openapi-3.0', io: 'input', unrepresentable: 'any' }),
      })),
    ],
    ...(request ? { requestBody: { required: true, ...json(request, 'input') } } : {}),
    responses: Object.fromEntries(
      Object.entries(responses).map(([status, schema]) => [
        status,
        { description: `Status ${status}`, ...(schema ? json(schema, 'output') : {}) },
      ]),
    ),
  };
}
