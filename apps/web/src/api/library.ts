import { demonstrationSummarySchema, librarySchema, type NewDemonstration } from '@yperkine/protocol';
import { ask, expectBody } from './http.ts';

export const library = {
  /** A page; `after` is the `next` of the page before. */
  page: (after: string | null) =>
    expectBody(
      librarySchema,
      'GET',
      `/demonstrations${after === null ? '' : `?after=${encodeURIComponent(after)}`}`,
    ),
  make: (form: NewDemonstration) => expectBody(demonstrationSummarySchema, 'POST', '/demonstrations', form),
  remove: (id: string) => ask('DELETE', `/demonstrations/${id}`),
};
