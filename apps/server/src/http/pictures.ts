import { createHash } from 'node:crypto';
import type { Request, Response } from 'express';
import { placeholder, type Picture } from '../pictures/pictures.ts';

/** Sends a small picture, which the browser keeps until the demonstration or its painter changes. */
export function sendPicture({ key, svg, isFinal }: Picture, request: Request, response: Response): void {
  response.type('image/svg+xml');
  if (!isFinal) return void response.set('Cache-Control', 'no-store').send(placeholder);
  const tag = `"${createHash('sha256').update(key).digest('base64url').slice(0, 22)}"`;
  response.set({ ETag: tag, 'Cache-Control': 'private, no-cache' });
  if (request.headers['if-none-match'] === tag) response.status(304).end();
  else response.send(svg ?? placeholder);
}
