import { setImmediate as breathe } from 'node:timers/promises';
import {
  accept,
  changeSchema,
  currentVersion,
  migratedChange,
  openDocument,
  unfitSentence,
  unfitSize,
  type Change,
  type Document,
  type Unfit,
} from '@yperkine/demonstration';
import type { Saved, Stale, UnreadSave } from '@yperkine/protocol';
import type pg from 'pg';
import { Op } from 'sequelize';
import { ChangeRow, type DemonstrationRow } from '../database/models.ts';
import { askPrepared } from '../database/prepared.ts';
import { HttpProblem, notFound, readBody } from '../problem.ts';

export type SaveResult =
  { readonly kind: 'saved'; readonly saved: Saved } | { readonly kind: 'stale'; readonly stale: Stale };

/** How often a save is tried again when another was faster. */
const tries = 20;
/** Milliseconds of work after which other requests get their turn. */
const slice = 8;

/**
 * Saves changes that were made on version `base`, all or none. Changes that are there already (the
 * answer to an earlier try was lost) are skipped. When others changed something since, nothing is
 * saved and their changes are the answer.
 *
 * It reads the row, works, and writes in one statement that demands the version it has read: no lock is held while
 * it works, and whoever comes second begins again.
 */
export async function save(
  pool: pg.Pool,
  accountId: string,
  id: string,
  { base, format, changes: unread }: UnreadSave,
): Promise<SaveResult> {
  if (format > currentVersion)
    throw new HttpProblem(
      409,
      'newerVersion',
      'This was made by a newer version of the program; please reload the page.',
    );
  const changes = await inSlices(unread, (change) => readBody(changeSchema, migratedChange(change, format)));
  for (let i = 0; i < tries; i++) {
    const row = await read(pool, accountId, id);
    if (!row) throw notFound();
    const since = base < row.version ? await changesSince(id, base) : [];
    const known = new Set(since.map((change) => change.id));
    const news = changes.filter((change) => !known.has(change.id));
    const sent = new Set(changes.map((change) => change.id));
    const isStale = base > row.version || since.some((change) => !sent.has(change.id));
    if (isStale) return { kind: 'stale', stale: { version: row.version, format: currentVersion, since } };
    const saved = news.length > 0 ? await store(pool, row, news) : row;
    if (saved)
      return { kind: 'saved', saved: { version: saved.version, changedAt: saved.changedAt.toISOString() } };
  }
  throw new HttpProblem(503, 'busy', 'Others are saving this demonstration just now; please try again.');
}

/** The same for every one of many, with room for other requests in between. */
async function inSlices<A, B>(all: readonly A[], work: (one: A) => B): Promise<B[]> {
  const done: B[] = [];
  let begun = performance.now();
  for (const one of all) {
    done.push(work(one));
    if (performance.now() - begun < slice) continue;
    await breathe();
    begun = performance.now();
  }
  return done;
}

/** What others saved after a version, oldest first, as the present version writes it. */
export async function changesSince(demonstrationId: string, base: number): Promise<Change[]> {
  const rows = await ChangeRow.findAll({
    where: { demonstrationId, version: { [Op.gt]: base } },
    order: [['version', 'ASC']],
    raw: true,
  });
  return inSlices(
    rows,
    ({ changeId, edits, format }) => migratedChange({ id: changeId, edits }, format) as Change,
  );
}

const refused = (unfit: Unfit): HttpProblem => new HttpProblem(422, 'invalidChange', unfitSentence(unfit));

interface Stored {
  readonly version: number;
  readonly changedAt: Date;
}
type Row = Pick<DemonstrationRow, 'id' | 'document'> & Stored;

async function read(pool: pg.Pool, accountId: string, id: string): Promise<Row | undefined> {
  const { rows } = await askPrepared<Row>(
    pool,
    'SELECT id, version, changed_at AS "changedAt", document FROM demonstrations WHERE id = $1 AND account_id = $2',
    [id, accountId],
  );
  return rows[0];
}

/** Puts changes in, and the document that comes of them; null when another save was faster. */
async function store(pool: pg.Pool, row: Row, changes: readonly Change[]): Promise<Stored | null> {
  const before = documentOf(row);
  let document = before;
  await inSlices(changes, (change) => {
    const accepted = accept(document, change);
    if (!accepted.ok) throw refused(accepted.unfit);
    ({ document } = accepted);
  });
  const unfit = unfitSize(before, document);
  if (unfit) throw refused(unfit);
  const saved = { version: row.version + changes.length, changedAt: new Date() };
  return (await write(pool, row, changes, document, saved)) ? saved : null;
}

const statement = `
  WITH stored AS (
    UPDATE demonstrations SET document = $5::jsonb, title = $4, version = $3::int, changed_at = $8::timestamptz
    WHERE id = $1::uuid AND version = $2::int
    RETURNING id
  )
  INSERT INTO changes (demonstration_id, version, change_id, edits, format)
  SELECT stored.id, $2::int + change.place, change.change->>'id', change.change->'edits', $7::int
  FROM stored, jsonb_array_elements($6::jsonb) WITH ORDINALITY AS change (change, place)`;

/** PostgreSQL's code for a key that is there already. */
const uniqueViolation = '23505';

async function write(
  pool: pg.Pool,
  { id, version }: Row,
  changes: readonly Change[],
  document: Document,
  saved: Stored,
): Promise<boolean> {
  try {
    const { rowCount } = await askPrepared(pool, statement, [
      id,
      version,
      saved.version,
      document.title,
      JSON.stringify(document),
      JSON.stringify(changes),
      currentVersion,
      saved.changedAt,
    ]);
    return rowCount !== null && rowCount > 0;
  } catch (error) {
    if ((error as { code?: unknown }).code !== uniqueViolation) throw error;
    throw new HttpProblem(422, 'usedId', 'A change with this id was saved before.');
  }
}

/**
 * The stored document, brought up to date. What this version stored was looked at when it came.
 * @throws HttpProblem 422 for one that cannot be read
 */
export function documentOf({ document }: Pick<DemonstrationRow, 'document'>): Document {
  if ((document as { version: unknown }).version === currentVersion) return document;
  const opened = openDocument(document);
  if (!opened.ok)
    throw new HttpProblem(
      422,
      opened.reason,
      'This demonstration was made by a newer version or is damaged.',
    );
  return opened.document;
}
