import { currentVersion, migratedChange } from '@yperkine/demonstration';
import {
  demonstrationSchema,
  savedSchema,
  staleSchema,
  type Save,
  type Saved,
  type Stale,
} from '@yperkine/protocol';
import { z } from 'zod';
import { ask, expectBody, Refusal, refusal } from './http.ts';

const unreadSchema = z.object({ version: z.int(), format: z.int(), since: z.array(z.unknown()) });

/**
 * What others saved, as this version of the program writes it; null for an answer that is something else.
 * @throws Refusal where a newer version of the program wrote it
 */
function readStale(body: unknown): Stale | null {
  const unread = unreadSchema.safeParse(body);
  if (!unread.success) return null;
  const { version, format, since } = unread.data;
  if (format > currentVersion)
    throw new Refusal(409, 'Another window has a newer version of the program.', undefined, 'newerVersion');
  return staleSchema.parse({
    version,
    format: currentVersion,
    since: since.map((change) => migratedChange(change, format)),
  });
}

export const demonstrations = {
  open: (id: string) => expectBody(demonstrationSchema, 'GET', `/demonstrations/${id}`),
  /** What others saved after a version; null where the answer cannot be read. */
  since: async (id: string, version: number): Promise<Stale | null> =>
    readStale((await ask('GET', `/demonstrations/${id}/changes?since=${version}`)).body),
  /** The address of the news of a demonstration, as server-sent events. */
  newsOf: (id: string) => `/api/demonstrations/${id}/news`,

  /** Saves changes; a stale base is answered with what happened since. */
  save: async (id: string, save: Save): Promise<{ saved: Saved } | { stale: Stale }> => {
    const { status, body } = await ask('POST', `/demonstrations/${id}/changes`, save);
    if (status !== 409) return { saved: savedSchema.parse(body) };
    const stale = readStale(body);
    if (!stale) throw refusal({ status, body });
    return { stale };
  },
};
