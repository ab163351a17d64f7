import type { Response } from 'express';
import type { News } from '../library/news.ts';

/** A sign of life, so that neither side nor a proxy between them takes the silence for an end. */
const heartbeat = 20_000;

/**
 * Server-sent events (HTML Standard, section 9.2): the version of a demonstration now and after every save; `gap` where
 * saves may have gone unheard.
 */
export function sendNews(news: News, id: string, version: number, response: Response): void {
  // A proxy must neither keep nor gather what is sent.
  response.set({
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-store, no-transform',
    'X-Accel-Buffering': 'no',
  });
  response.flushHeaders();
  const send = (event: string, data: unknown) =>
    response.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
  send('version', version);
  const end = news.listen(
    id,
    (saved) => send('version', saved),
    () => send('gap', null),
  );
  const beat = setInterval(() => response.write(':\n\n'), heartbeat);
  response.on('close', () => {
    clearInterval(beat);
    end();
  });
}
