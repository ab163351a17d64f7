import { currentVersion, emptyDocument } from '@yperkine/demonstration';
import { newDemonstrationSchema, unreadSaveSchema, type Stale } from '@yperkine/protocol';
import express, { Router, type Request, type RequestHandler, type Response } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import { requireAccount } from '../accounts/session.ts';
import type { Database } from '../database/connect.ts';
import { DemonstrationRow } from '../database/models.ts';
import { askPrepared } from '../database/prepared.ts';
import { pageOf, putIn, summary } from '../library/library.ts';
import type { News } from '../library/news.ts';
import { changesSince, documentOf, save } from '../library/save.ts';
import type { Pictures } from '../pictures/pictures.ts';
import { cleanBody, smallBody } from './cleanBody.ts';
import { notFound, readBody, readId } from '../problem.ts';
import { sendNews } from './news.ts';
import { sendPicture } from './pictures.ts';

/** A save of one change that puts 5 MB in the place of 5 MB just fits. */
const largestSave = '12mb';

const full = (row: DemonstrationRow) => ({ ...summary(row), document: documentOf(row) });

const pageQuery = z.object({ after: z.string().max(100).optional() });
const sinceQuery = z.object({ since: z.coerce.number().int().min(0).max(2_147_483_647) });

export interface LibraryServices {
  readonly database: Database;
  readonly pictures: Pictures;
  readonly news: News;
}

/** Only who is signed in has a large body read. */
const signedInOnly: RequestHandler = (request, _response, next) => {
  requireAccount(request);
  next();
};

/** The library and the demonstrations in it. */
export function demonstrationRoutes({ database, pictures, news }: LibraryServices): Router {
  const router = Router();

  const own = async (request: Request, id: unknown = request.params.id): Promise<DemonstrationRow> => {
    const accountId = requireAccount(request);
    const row = await DemonstrationRow.findOne({ where: { id: readId(id), accountId } });
    if (!row) throw notFound();
    return row;
  };
  /** The version of a demonstration of one's own. */
  const ownVersion = async (request: Request): Promise<number> => {
    const accountId = requireAccount(request);
    const where = { id: readId(request.params.id), accountId };
    const row = await DemonstrationRow.findOne({ where, attributes: ['version'], raw: true });
    if (!row) throw notFound();
    return row.version;
  };

  router.get('/', async (request, response) => {
    const { after } = readBody(pageQuery, request.query);
    response.json(await pageOf(requireAccount(request), after));
  });

  router.post('/', smallBody, cleanBody, async (request, response) => {
    const accountId = requireAccount(request);
    const { title, copyOf } = readBody(newDemonstrationSchema, request.body ?? {});
    const source = copyOf === undefined ? null : documentOf(await own(request, copyOf));
    const document = source
      ? { ...source, title: `Copy of ${source.title}`.slice(0, 200).toWellFormed() }
      : emptyDocument(title);
    response.status(201).json(full(await putIn(database.sequelize, accountId, document)));
  });

  router.get('/:id', async (request, response) => {
    const accountId = requireAccount(request);
    await sendDemonstration(database.pool, accountId, readId(request.params.id), response);
  });

  router.delete('/:id', async (request, response) => {
    await (await own(request)).destroy();
    response.status(204).end();
  });

  router.post(
    '/:id/changes',
    signedInOnly,
    express.json({ limit: largestSave }),
    cleanBody,
    async (request, response) => {
      const id = readId(request.params.id);
      const result = await save(
        database.pool,
        requireAccount(request),
        id,
        readBody(unreadSaveSchema, request.body),
      );
      if (result.kind === 'stale') return void response.status(409).json(result.stale);
      news.tell(id, result.saved.version);
      response.json(result.saved);
    },
  );

  router.get('/:id/changes', async (request, response) => {
    const { since: base } = readBody(sinceQuery, request.query);
    const version = await ownVersion(request);
    const since = await changesSince(readId(request.params.id), base);
    response.json({ version, format: currentVersion, since } satisfies Stale);
  });

  router.get('/:id/news', async (request, response) => {
    sendNews(news, readId(request.params.id), await ownVersion(request), response);
  });

  router.get('/:id/picture.svg', async (request, response) => {
    const accountId = requireAccount(request);
    const theme = request.query.theme === 'night' ? 'night' : 'day';
    const found = await pictures.of(accountId, readId(request.params.id), theme);
    if (!found) throw notFound();
    sendPicture(found, request, response);
  });

  return router;
}

interface RawRow {
  readonly id: string;
  readonly title: string;
  readonly version: number;
  readonly changedAt: Date;
  readonly text: string;
  readonly format: number;
}

/** A stored document is sent as it is stored, without being read first, unless it has to be brought up to date. */
async function sendDemonstration(
  pool: pg.Pool,
  accountId: string,
  id: string,
  response: Response,
): Promise<void> {
  const { rows } = await askPrepared<RawRow>(
    pool,
    `SELECT id, title, version, changed_at AS "changedAt", document::text AS text, (document->>'version')::int AS format
     FROM demonstrations WHERE id = $1 AND account_id = $2`,
    [id, accountId],
  );
  const [row] = rows;
  if (!row) throw notFound();
  const head = summary(row);
  if (row.format === currentVersion) {
    const beginning = JSON.stringify(head).slice(0, -1);
    response.type('json').send(`${beginning},"document":${row.text}}`);
  } else {
    const document = documentOf({ document: JSON.parse(row.text) as DemonstrationRow['document'] });
    response.json({ ...head, document });
  }
}
