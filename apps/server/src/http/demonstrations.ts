import { createHash, randomUUID } from 'node:crypto';
import { day, emptyDocument, night, smallPicture } from '@yperkine/demonstration';
import {
  newDemonstrationSchema,
  saveSchema,
  type DemonstrationSummary,
  type Library,
} from '@yperkine/protocol';
import { Router, type Request } from 'express';
import type { Sequelize } from 'sequelize';
import { requireAccount } from '../accounts/session.ts';
import { DemonstrationRow } from '../database/models.ts';
import { documentOf, save } from '../library/save.ts';
import { notFound, readBody, readId } from './problem.ts';

const mostInLibrary = 1000;
const palettes = { day, night };

const summary = ({ id, title, version, changedAt }: DemonstrationRow): DemonstrationSummary => ({
  id,
  title,
  version,
  changedAt: changedAt.toISOString(),
});

const full = (row: DemonstrationRow) => ({ ...summary(row), document: documentOf(row) });

/** The library and the demonstrations in it. */
export function demonstrationRoutes(sequelize: Sequelize): Router {
  const router = Router();

  const own = async (request: Request, id: unknown = request.params.id): Promise<DemonstrationRow> => {
    const accountId = requireAccount(request);
    const row = await DemonstrationRow.findOne({ where: { id: readId(id), accountId } });
    if (!row) throw notFound();
    return row;
  };

  router.get('/', async (request, response) => {
    const rows = await DemonstrationRow.findAll({
      where: { accountId: requireAccount(request) },
      attributes: ['id', 'title', 'version', 'changedAt'],
      order: [['changedAt', 'DESC']],
      limit: mostInLibrary,
    });
    response.json({ demonstrations: rows.map(summary) } satisfies Library);
  });

  router.post('/', async (request, response) => {
    const { title, copyOf } = readBody(newDemonstrationSchema, request.body ?? {});
    const source = copyOf === undefined ? null : documentOf(await own(request, copyOf));
    const document = source
      ? { ...source, title: `Copy of ${source.title}`.slice(0, 200) }
      : emptyDocument(title);
    const row = await DemonstrationRow.create({
      id: randomUUID(),
      accountId: requireAccount(request),
      title: document.title,
      document,
      changedAt: new Date(),
    });
    response.status(201).json(full(row));
  });

  router.get('/:id', async (request, response) => {
    response.json(full(await own(request)));
  });

  router.delete('/:id', async (request, response) => {
    await (await own(request)).destroy();
    response.status(204).end();
  });

  router.post('/:id/changes', async (request, response) => {
    const accountId = requireAccount(request);
    const body = readBody(saveSchema, request.body);
    const result = await save(sequelize, accountId, readId(request.params.id), body);
    if (result.kind === 'stale') response.status(409).json(result.stale);
    else response.json(result.saved);
  });

  router.get('/:id/picture.svg', async (request, response) => {
    const row = await own(request);
    const palette = request.query.theme === 'night' ? 'night' : 'day';
    const tag = `"${createHash('sha256').update(`${row.id} ${row.version} ${palette}`).digest('base64url').slice(0, 22)}"`;
    response.set({ ETag: tag, 'Cache-Control': 'private, no-cache' });
    if (request.headers['if-none-match'] === tag) response.status(304).end();
    else response.type('image/svg+xml').send(smallPicture(documentOf(row), palettes[palette]));
  });

  return router;
}
