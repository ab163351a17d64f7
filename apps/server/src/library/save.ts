import { applyChecked, openDocument, type Change, type Document } from '@yperkine/demonstration';
import type { Save, Saved, Stale } from '@yperkine/protocol';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { ChangeRow, DemonstrationRow } from '../database/models.ts';
import { HttpProblem, notFound } from '../http/problem.ts';

export type SaveResult =
  { readonly kind: 'saved'; readonly saved: Saved } | { readonly kind: 'stale'; readonly stale: Stale };

/**
 * Saves changes that were made on version `base`, all or none. Changes that are there already (the
 * answer to an earlier try was lost) are skipped. When others changed something since, nothing is
 * saved and their changes are the answer.
 */
export function save(
  sequelize: Sequelize,
  accountId: string,
  id: string,
  { base, changes }: Save,
): Promise<SaveResult> {
  return sequelize.transaction(async (transaction) => {
    const row = await DemonstrationRow.findOne({
      where: { id, accountId },
      lock: transaction.LOCK.UPDATE,
      transaction,
    });
    if (!row) throw notFound();
    const since = await changesSince(id, base, transaction);
    const known = new Set(since.map((change) => change.id));
    const news = changes.filter((change) => !known.has(change.id));
    const sent = new Set(changes.map((change) => change.id));
    const isStale = base > row.version || since.some((change) => !sent.has(change.id));
    if (isStale) return { kind: 'stale', stale: { version: row.version, since } };
    const saved = news.length > 0 ? await store(row, news, transaction) : row;
    return { kind: 'saved', saved: { version: saved.version, changedAt: saved.changedAt.toISOString() } };
  });
}

async function changesSince(
  demonstrationId: string,
  base: number,
  transaction: Transaction,
): Promise<Change[]> {
  const rows = await ChangeRow.findAll({
    where: { demonstrationId, version: { [Op.gt]: base } },
    order: [['version', 'ASC']],
    transaction,
  });
  return rows.map(({ changeId, edits }) => ({ id: changeId, edits }));
}

async function store(row: DemonstrationRow, changes: readonly Change[], transaction: Transaction) {
  let document = documentOf(row);
  for (const change of changes) {
    const next = applyChecked(document, change);
    if (!next) throw new HttpProblem(422, 'invalidChange', 'This change does not fit the demonstration.');
    document = next;
  }
  await ChangeRow.bulkCreate(
    changes.map((change, i) => ({
      demonstrationId: row.id,
      version: row.version + i + 1,
      changeId: change.id,
      edits: change.edits,
    })),
    { transaction },
  );
  row.set({ document, title: document.title, version: row.version + changes.length, changedAt: new Date() });
  return row.save({ transaction });
}

/** The stored document, brought up to date. @throws HttpProblem 422 for one that cannot be read */
export function documentOf(row: DemonstrationRow): Document {
  const opened = openDocument(row.document);
  if (!opened.ok)
    throw new HttpProblem(
      422,
      opened.reason,
      'This demonstration was made by a newer version or is damaged.',
    );
  return opened.document;
}
