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
import { Op, QueryTypes, UniqueConstraintError, type Sequelize } from 'sequelize';
import { ChangeRow, DemonstrationRow } from '../database/models.ts';
import { HttpProblem, notFound, readBody } from '../http/problem.ts';

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
  sequelize: Sequelize,
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
    const row = await DemonstrationRow.findOne({ where: { id, accountId } });
    if (!row) throw notFound();
    const since = base < row.version ? await changesSince(id, base) : [];
    const known = new Set(since.map((change) => change.id));
    const news = changes.filter((change) => !known.has(change.id));
    const sent = new Set(changes.map((change) => change.id));
    const isStale = base > row.version || since.some((change) => !sent.has(change.id));
    if (isStale) return { kind: 'stale', stale: { version: row.version, format: currentVersion, since } };
    const saved = news.length > 0 ? await store(sequelize, row, news) : row;
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

/** Puts changes in, and the document that comes of them; null when another save was faster. */
async function store(
  sequelize: Sequelize,
  row: DemonstrationRow,
  changes: readonly Change[],
): Promise<Stored | null> {
  let document = documentOf(row);
  await inSlices(changes, (change) => {
    const accepted = accept(document, change);
    if (!accepted.ok) throw refused(accepted.unfit);
    ({ document } = accepted);
  });
  const unfit = unfitSize(document);
  if (unfit) throw refused(unfit);
  const saved = { version: row.version + changes.length, changedAt: new Date() };
  const written = await write(sequelize, row, changes, document, saved);
  return written ? saved : null;
}

interface Stored {
  readonly version: number;
  readonly changedAt: Date;
}

const statement = `
  WITH stored AS (
    UPDATE demonstrations SET document = $document::jsonb, title = $title, version = $next::int, changed_at = $at::timestamptz
    WHERE id = $id AND version = $version::int
    RETURNING id
  )
  INSERT INTO changes (demonstration_id, version, change_id, edits, format)
  SELECT stored.id, $version::int + change.place, change.change->>'id', change.change->'edits', $format::int
  FROM stored, jsonb_array_elements($changes::jsonb) WITH ORDINALITY AS change (change, place)
  RETURNING version`;

async function write(
  sequelize: Sequelize,
  { id, version }: DemonstrationRow,
  changes: readonly Change[],
  document: Document,
  saved: Stored,
): Promise<boolean> {
  try {
    const rows = await sequelize.query(statement, {
      type: QueryTypes.SELECT,
      bind: {
        id,
        version,
        next: saved.version,
        at: saved.changedAt,
        title: document.title,
        document: JSON.stringify(document),
        changes: JSON.stringify(changes),
        format: currentVersion,
      },
    });
    return rows.length > 0;
  } catch (error) {
    if (!(error instanceof UniqueConstraintError)) throw error;
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
