import { randomUUID } from 'node:crypto';
import type { Document } from '@yperkine/demonstration';
import { libraryPage, mostKept, type DemonstrationSummary, type Library } from '@yperkine/protocol';
import { Op, type Sequelize, type WhereOptions } from 'sequelize';
import { AccountRow, DemonstrationRow } from '../database/models.ts';
import { HttpProblem } from '../problem.ts';

export const summary = ({
  id,
  title,
  version,
  changedAt,
}: Pick<DemonstrationRow, 'id' | 'title' | 'version' | 'changedAt'>): DemonstrationSummary => ({
  id,
  title,
  version,
  changedAt: changedAt.toISOString(),
});

const cursorPattern = /^(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z)_([0-9a-f-]{36})$/;

/** What comes after the last row of a page, in the order of the library. */
function after(cursor: string): WhereOptions<DemonstrationRow> {
  const [, at = '', id = ''] = cursorPattern.exec(cursor) ?? [];
  if (Number.isNaN(Date.parse(at)) || !/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(id))
    throw new HttpProblem(400, 'badRequest', 'This page of the library does not exist.', 'after');
  const changedAt = new Date(at);
  return { [Op.or]: [{ changedAt: { [Op.lt]: changedAt } }, { changedAt, id: { [Op.gt]: id } }] };
}

/** A page of one's demonstrations, the last changed first. */
export async function pageOf(accountId: string, cursor: string | undefined): Promise<Library> {
  const rows = await DemonstrationRow.findAll({
    where: { accountId, ...(cursor === undefined ? {} : after(cursor)) },
    attributes: ['id', 'title', 'version', 'changedAt'],
    order: [
      ['changedAt', 'DESC'],
      ['id', 'ASC'],
    ],
    limit: libraryPage + 1,
  });
  const shown = rows.slice(0, libraryPage);
  const last = shown.at(-1);
  const next = rows.length > shown.length && last ? `${last.changedAt.toISOString()}_${last.id}` : null;
  return { demonstrations: shown.map(summary), next };
}

/** Puts a demonstration into a person's library. @throws HttpProblem 409 where it is full */
export function putIn(
  sequelize: Sequelize,
  accountId: string,
  document: Document,
): Promise<DemonstrationRow> {
  return sequelize.transaction(async (transaction) => {
    // Whoever puts something into the same library at this moment waits, so that the count holds.
    await AccountRow.findByPk(accountId, { lock: transaction.LOCK.UPDATE, transaction, attributes: ['id'] });
    const kept = await DemonstrationRow.count({ where: { accountId }, transaction });
    if (kept >= mostKept)
      throw new HttpProblem(
        409,
        'libraryFull',
        `A library has room for ${mostKept.toLocaleString('en')} demonstrations; delete one first.`,
      );
    return DemonstrationRow.create(
      { id: randomUUID(), accountId, title: document.title, document, changedAt: new Date() },
      { transaction },
    );
  });
}
