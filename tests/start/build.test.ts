import { expect, test } from '@jest/globals';
import { mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { digestOf } from '../../scripts/setup/build.mjs';

test('what is built is built again when a source changes, and for nothing else', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yperkine-sources-'));
  const put = (name: string, text: string) => writeFileSync(join(folder, name), text);
  mkdirSync(join(folder, 'src/parts'), { recursive: true });
  mkdirSync(join(folder, 'dist'));
  mkdirSync(join(folder, 'test'));
  put('src/a.ts', 'one');
  put('src/parts/b.ts', 'two');
  const digests = [await digestOf([folder])];
  const others: (() => void)[] = [
    () => put('src/parts/b.ts', 'three'),
    () => put('src/parts/c.ts', ''),
    () => renameSync(join(folder, 'src/parts/c.ts'), join(folder, 'src/c.ts')),
    () => rmSync(join(folder, 'src/c.ts')),
  ];
  for (const change of others) {
    change();
    const digest = await digestOf([folder]);
    expect(digest).not.toBe(digests.at(-1));
    digests.push(digest);
  }
  const same: (() => void)[] = [
    () => put('dist/a.js', 'built'),
    () => put('test/a.test.ts', 'a test'),
    () => put('src/a.ts', 'one'),
  ];
  for (const change of same) {
    change();
    expect(await digestOf([folder])).toBe(digests.at(-1));
  }
  rmSync(folder, { recursive: true });
});
