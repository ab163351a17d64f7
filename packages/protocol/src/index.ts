import { changeSchema, currentVersion, documentSchema } from '@yperkine/demonstration';
import { z } from 'zod';

/** What goes over the wire, shared by both sides. */
export const accountSchema = z.object({ id: z.uuid(), name: z.string(), email: z.string() });

export const sessionSchema = z.object({
  account: accountSchema.nullable(),
  /** Whether the demo teacher can sign in with one click. */
  demo: z.boolean(),
});
export type Session = z.infer<typeof sessionSchema>;

const email = z
  .string()
  .trim()
  .toLowerCase()
  .max(200)
  .pipe(z.email({ error: 'Please give an e-mail address such as name@school.example.' }));
const password = z
  .string()
  .min(10, { error: 'A password needs at least 10 characters.' })
  .max(200, { error: 'A password can have at most 200 characters.' });

export const signUpSchema = z.object({
  name: z
    .string()
    .trim()
    .min(1, { error: 'Please give a name.' })
    .max(100, { error: 'A name can have at most 100 characters.' }),
  email,
  password,
});
export type SignUp = z.infer<typeof signUpSchema>;

export const signInSchema = z.object({
  email,
  password: z.string().min(1, { error: 'Please give your password.' }).max(200),
});
export type SignIn = z.infer<typeof signInSchema>;

export const demonstrationSummarySchema = z.object({
  id: z.uuid(),
  title: z.string(),
  version: z.int(),
  changedAt: z.iso.datetime(),
});
export type DemonstrationSummary = z.infer<typeof demonstrationSummarySchema>;

/** One page of the library, the last changed first. */
export const librarySchema = z.object({
  demonstrations: z.array(demonstrationSummarySchema),
  /** What to ask the next page with; null where this is the last. */
  next: z.string().nullable(),
});
export type Library = z.infer<typeof librarySchema>;

/** Demonstrations on a page of the library. */
export const libraryPage = 20;
/** Demonstrations that one person may keep. */
export const mostKept = 1000;

export const newDemonstrationSchema = z.object({
  title: z.string().max(200).optional(),
  /** A demonstration of one's own to copy. */
  copyOf: z.uuid().optional(),
});
export type NewDemonstration = z.infer<typeof newDemonstrationSchema>;

export const demonstrationSchema = demonstrationSummarySchema.extend({ document: documentSchema });
export type StoredDemonstration = z.infer<typeof demonstrationSchema>;

/** The version of the document's schema in which changes are written. */
const format = z.int().min(1);

/** Changes and characters that one save may carry; a single change may be larger. */
export const saveLimits = { changes: 500, characters: 1_000_000 } as const;

export const saveSchema = z.object({
  /** The version that the changes were made on. */
  base: z.int().min(0).max(2_147_483_647),
  format: format.default(currentVersion),
  changes: z.array(changeSchema).min(1).max(saveLimits.changes),
});
export type Save = z.input<typeof saveSchema>;

/** A save before its changes are looked at: they are read one by one, in whatever version they are written. */
export const unreadSaveSchema = saveSchema.extend({
  changes: z.array(z.unknown()).min(1).max(saveLimits.changes),
});
export type UnreadSave = z.output<typeof unreadSaveSchema>;

export const savedSchema = z.object({ version: z.int(), changedAt: z.iso.datetime() });
export type Saved = z.infer<typeof savedSchema>;

/** The answer to a save that was made on an older version: what happened since, oldest first. */
export const staleSchema = z.object({ version: z.int(), format, since: z.array(changeSchema) });
export type Stale = z.infer<typeof staleSchema>;

export const errorSchema = z.object({
  error: z.object({
    code: z.string(),
    /** One plain sentence for the person. */
    message: z.string(),
    /** The field of the request that is meant, where there is one. */
    field: z.string().optional(),
  }),
});
export type ErrorBody = z.infer<typeof errorSchema>;

export const healthSchema = z.object({ status: z.enum(['ok', 'readOnly', 'unavailable']) });

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
