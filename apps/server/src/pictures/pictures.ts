import { QueryTypes, type Sequelize } from 'sequelize';
import { PictureRow } from '../database/models.ts';
import type { Painter } from './painter.ts';

export type Theme = 'day' | 'night';

export interface Picture {
  /** The same for the same picture. */
  readonly key: string;
  /** Null where it took too long to paint. */
  readonly svg: string | null;
  /** False where there was no time to paint it: the next to ask may get it. */
  readonly isFinal: boolean;
}

/** What stands where a picture took too long: paper that fits into light and dark. */
export const placeholder =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 320 200" width="320" height="200">' +
  '<path d="M40 140Q110 20 160 100T280 60" fill="none" stroke="#8a8a8a" stroke-opacity=".45" stroke-width="3" stroke-dasharray="2 9" stroke-linecap="round"/></svg>';

/** How long somebody who asks waits for a picture that is being painted. */
const patience = 8000;

interface Kept {
  readonly version: number;
  readonly keptVersion: number | null;
  readonly painter: string | null;
  readonly svg: string | null;
}

/** The small pictures: painted once a version, in threads of their own, and kept. */
export class Pictures {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly painter: Painter,
  ) {}

  /** The picture of a person's demonstration; null where there is no such demonstration. */
  async of(accountId: string, id: string, theme: Theme): Promise<Picture | null> {
    const [row] = await this.sequelize.query<Kept>(
      `SELECT d.version, p.version AS "keptVersion", p.painter, p.${theme} AS svg
       FROM demonstrations d LEFT JOIN pictures p ON p.demonstration_id = d.id
       WHERE d.id = $id AND d.account_id = $accountId`,
      { bind: { id, accountId }, type: QueryTypes.SELECT },
    );
    if (!row) return null;
    const key = `${id} ${row.version} ${this.painter.version} ${theme}`;
    if (row.keptVersion === row.version && row.painter === this.painter.version)
      return { key, svg: row.svg, isFinal: true };
    const painted = await inTime(this.paint(accountId, id));
    // Somebody may have saved meanwhile; what was painted then has another key.
    if (painted?.version !== row.version) return { key, svg: null, isFinal: false };
    return { key, svg: painted[theme], isFinal: true };
  }

  /** Paints a demonstration as it is now and keeps the picture; null where it is gone or too many wait. */
  private async paint(
    accountId: string,
    id: string,
  ): Promise<{ version: number; day: string | null; night: string | null } | null> {
    const found = await this.painter.paint(accountId, id, async () => {
      const [row] = await this.sequelize.query<{ version: number; text: string }>(
        'SELECT version, document::text AS text FROM demonstrations WHERE id = $id',
        { bind: { id }, type: QueryTypes.SELECT },
      );
      return row ?? null;
    });
    if (!found) return null;
    const { version, pictures } = found;
    const painted = { version, day: pictures?.day ?? null, night: pictures?.night ?? null };
    await this.keep(id, painted);
    return painted;
  }

  private async keep(
    id: string,
    painted: { version: number; day: string | null; night: string | null },
  ): Promise<void> {
    try {
      await PictureRow.upsert({ demonstrationId: id, painter: this.painter.version, ...painted });
    } catch {
      // Deleted meanwhile, or the database takes nothing: the picture is there all the same.
    }
  }

  /** Has the pictures of a library there before anybody asks. */
  async prepare(accountId: string, ids: readonly string[]): Promise<void> {
    for (const id of ids) await this.of(accountId, id, 'day');
  }
}

const inTime = <T>(work: Promise<T>): Promise<T | null> =>
  Promise.race([work, new Promise<null>((resolve) => setTimeout(resolve, patience, null).unref())]);
