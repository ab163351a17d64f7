import express from 'express';
import pg from 'pg';

/**
 * What the server is measured against: routes of the same framework without sessions, checks and history. One reads a
 * document by its id and sends it, one writes one row.
 */
const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 12 });
const app = express();
app.use(express.json({ limit: '2mb' }));
app.get('/document/:id', async (request, response) => {
  const { rows } = await pool.query<{ document: object }>(
    'SELECT document FROM demonstrations WHERE id = $1',
    [request.params.id],
  );
  response.json(rows[0]?.document);
});
app.post('/row/:id', async (request, response) => {
  await pool.query('UPDATE bare SET body = $2, at = now() WHERE id = $1', [
    request.params.id,
    JSON.stringify(request.body),
  ]);
  response.json({ ok: true });
});
app.listen(Number(process.env.PORT), '127.0.0.1');
