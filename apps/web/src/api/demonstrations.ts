import {
  demonstrationSchema,
  savedSchema,
  staleSchema,
  type Save,
  type Saved,
  type Stale,
} from '@yperkine/protocol';
import { ask, expectBody, refusal } from './http.ts';

export const demonstrations = {
  open: (id: string) => expectBody(demonstrationSchema, 'GET', `/demonstrations/${id}`),
  /** What others saved after a version. */
  since: (id: string, version: number) =>
    expectBody(staleSchema, 'GET', `/demonstrations/${id}/changes?since=${version}`),
  /** The address of the news of a demonstration, as server-sent events. */
  newsOf: (id: string) => `/api/demonstrations/${id}/news`,

  /** Saves changes; a stale base is answered with what happened since. */
  save: async (id: string, save: Save): Promise<{ saved: Saved } | { stale: Stale }> => {
    const { status, body } = await ask('POST', `/demonstrations/${id}/changes`, save);
    if (status !== 409) return { saved: savedSchema.parse(body) };
    const stale = staleSchema.safeParse(body);
    if (!stale.success) throw refusal({ status, body });
    return { stale: stale.data };
  },
};
