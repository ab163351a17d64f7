import type { Document } from './document.ts';

const known = new WeakMap<object, number>();

/** Bytes that a value takes as JSON in UTF-8. Parts of a document never change, so each is measured once. */
function bytesOf(value: unknown): number {
  if (typeof value !== 'object' || value === null) return measured(value);
  const bytes = known.get(value) ?? measured(value);
  known.set(value, bytes);
  return bytes;
}

function measured(value: unknown): number {
  const text = JSON.stringify(value) as string | undefined;
  if (text === undefined) return 0;
  let bytes = text.length;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    // Each half of a pair of surrogates stands for two of its four bytes.
    if (code > 0x7f) bytes += code > 0x7ff && (code & 0xf800) !== 0xd800 ? 2 : 1;
  }
  return bytes;
}

/** The size of a document in bytes of JSON, up to a few bytes of punctuation. */
export function bytesOfDocument({ entries, tiers, steps, ...rest }: Document): number {
  const maps: Readonly<Record<string, unknown>>[] = [entries, tiers, steps];
  const punctuation = 4;
  return maps
    .flatMap((map) => Object.entries(map))
    .reduce((sum, [id, value]) => sum + id.length + punctuation + bytesOf(value), measured(rest));
}
