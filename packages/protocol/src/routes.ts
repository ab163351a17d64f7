import { z } from 'zod';
import { sessionSchema, signInSchema, signUpSchema } from './accounts.ts';
import { demonstrationSchema, savedSchema, saveSchema, staleSchema } from './demonstrations.ts';
import { librarySchema, newDemonstrationSchema } from './library.ts';
import { errorSchema, healthSchema } from './problems.ts';

export interface Route {
  readonly method: 'get' | 'post' | 'delete';
  readonly path: string;
  readonly summary: string;
  readonly request?: z.ZodType;
  readonly query?: Readonly<Record<string, z.ZodType>>;
  /** Body by status; null for no body. */
  readonly responses: Readonly<Record<number, z.ZodType | null>>;
}

/** Every route of the server's interface: what the OpenAPI description is made from. */
export const routes: readonly Route[] = [
  {
    method: 'get',
    path: '/api/health',
    summary: 'Whether server and database answer',
    responses: { 200: healthSchema, 503: healthSchema },
  },
  { method: 'get', path: '/api/session', summary: 'Who is signed in', responses: { 200: sessionSchema } },
  {
    method: 'post',
    path: '/api/session',
    summary: 'Sign in',
    request: signInSchema,
    responses: { 200: sessionSchema, 400: errorSchema, 401: errorSchema, 429: errorSchema },
  },
  {
    method: 'post',
    path: '/api/session/demo',
    summary: 'Sign in as the demo teacher',
    responses: { 200: sessionSchema, 404: errorSchema, 429: errorSchema },
  },
  { method: 'delete', path: '/api/session', summary: 'Sign out', responses: { 204: null } },
  {
    method: 'post',
    path: '/api/accounts',
    summary: 'Make an account and sign in',
    request: signUpSchema,
    responses: { 201: sessionSchema, 400: errorSchema, 409: errorSchema, 429: errorSchema },
  },
  {
    method: 'get',
    path: '/api/demonstrations',
    summary: 'A page of the library; `after` is the `next` of the page before',
    query: { after: z.string().max(100).optional() },
    responses: { 200: librarySchema, 400: errorSchema, 401: errorSchema },
  },
  {
    method: 'post',
    path: '/api/demonstrations',
    summary: 'Make a demonstration',
    request: newDemonstrationSchema,
    responses: { 201: demonstrationSchema, 401: errorSchema, 404: errorSchema, 409: errorSchema },
  },
  {
    method: 'get',
    path: '/api/demonstrations/{id}',
    summary: 'Open a demonstration',
    responses: { 200: demonstrationSchema, 401: errorSchema, 404: errorSchema },
  },
  {
    method: 'delete',
    path: '/api/demonstrations/{id}',
    summary: 'Delete a demonstration',
    responses: { 204: null, 401: errorSchema, 404: errorSchema },
  },
  {
    method: 'post',
    path: '/api/demonstrations/{id}/changes',
    summary: 'Save changes',
    request: saveSchema,
    responses: { 200: savedSchema, 401: errorSchema, 404: errorSchema, 409: staleSchema, 422: errorSchema },
  },
  {
    method: 'get',
    path: '/api/demonstrations/{id}/changes',
    summary: 'What was changed since a version',
    query: { since: z.coerce.number().int().min(0) },
    responses: { 200: staleSchema, 400: errorSchema, 401: errorSchema, 404: errorSchema },
  },
  {
    method: 'get',
    path: '/api/demonstrations/{id}/news',
    summary: 'Server-sent events: the version, now and whenever somebody has saved',
    responses: { 200: null, 401: errorSchema, 404: errorSchema },
  },
  {
    method: 'get',
    path: '/api/demonstrations/{id}/picture.svg',
    summary: 'The small picture',
    responses: { 200: null, 401: errorSchema, 404: errorSchema },
  },
];
