import { parentPort } from 'node:worker_threads';
import { day, night, openDocument, smallPictures } from '@yperkine/demonstration';
import type { Order, Painted } from './painting.ts';

/** Paints one document after another; whoever asks ends the thread when it takes too long. */
parentPort?.on('message', ({ number, text }: Order) => {
  const opened = openDocument(JSON.parse(text));
  const pictures = opened.ok ? smallPictures(opened.document, { day, night }) : null;
  parentPort?.postMessage({ number, pictures } satisfies Painted);
});

parentPort?.postMessage('ready');
