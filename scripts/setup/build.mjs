import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { mkdir, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { projectFolder } from './folders.mjs';
import { must, say } from './run.mjs';

export const serverFile = join(projectFolder, 'apps/server/dist/server.js');
export const webFolder = join(projectFolder, 'apps/web/dist');

/** What the build is made of; packages from npm are told by the lock file. */
const sources = [
  'apps/web',
  'apps/server/src',
  'packages',
  'package-lock.json',
  'tsconfig.json',
  'scripts/setup/build.mjs',
].map((name) => join(projectFolder, name));

/** Folders in which nothing lies that is built. */
const beside = new Set(['node_modules', 'dist', 'test']);

/** The digest of the sources of what lies there. */
const builtFrom = join(dirname(serverFile), 'built-from');

/**
 * A digest of files and folders, names and contents, but for what lies beside the sources.
 * @param {readonly string[]} paths
 * @returns {Promise<string>}
 */
export async function digestOf(paths) {
  const digest = createHash('sha256');
  /** @param {string} path */
  const add = async (path) => {
    if (!(await stat(path)).isDirectory())
      return void digest.update(`${path}\0`).update(await readFile(path));
    for (const name of (await readdir(path)).sort()) if (!beside.has(name)) await add(join(path, name));
  };
  for (const path of paths) await add(path);
  return digest.digest('hex');
}

/** @param {string} digest */
const isBuiltFrom = (digest) =>
  [builtFrom, serverFile, join(webFolder, 'index.html')].every((file) => existsSync(file)) &&
  readFileSync(builtFrom, 'utf8') === digest;

/** Builds the web application and the server's bundle, unless they are built from these very sources. */
export async function build() {
  const digest = await digestOf(sources);
  if (isBuiltFrom(digest)) return;
  say('Building …');
  await rm(builtFrom, { force: true });
  const web = must(
    'Building the web application',
    'npx',
    ['--no-install', 'vite', 'build', '--logLevel', 'warn'],
    {
      cwd: join(projectFolder, 'apps/web'),
      // Whoever asks for it, in whatever surroundings, gets what is served.
      env: { ...process.env, NODE_ENV: 'production' },
    },
  );
  const server = buildServer();
  await Promise.all([web.then(compress), server]);
  await mkdir(dirname(builtFrom), { recursive: true });
  await writeFile(builtFrom, digest);
}

/** Smaller files gain nothing: they travel in one packet anyway. */
const worthCompressing = 1000;

/** The compressor's own choice, and small blocks, which adapt to programs put together from many: the better is kept. */
const blockSizes = [0, 16];

/** Puts beside every script, style and page its compressed forms, as they travel. */
async function compress() {
  const [brotli, gzipped] = [promisify(brotliCompress), promisify(gzip)];
  const folder = join(webFolder, 'assets');
  const names = (await readdir(folder)).filter((name) => /\.(js|css|svg)$/.test(name));
  await Promise.all(
    names.map(async (name) => {
      const file = join(folder, name);
      const bytes = await readFile(file);
      if (bytes.length < worthCompressing) return;
      const compressed = await Promise.all(
        blockSizes.map((size) =>
          brotli(bytes, {
            params: {
              [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
              [constants.BROTLI_PARAM_LGBLOCK]: size,
            },
          }),
        ),
      );
      await writeFile(
        `${file}.br`,
        compressed.reduce((a, b) => (b.length < a.length ? b : a)),
      );
      await writeFile(`${file}.gz`, await gzipped(bytes, { level: 9 }));
    }),
  );
}

/** Everything from npm stays outside the bundle; only the project's own packages go in. */
async function buildServer() {
  const esbuild = await import('esbuild');
  await esbuild.build({
    entryPoints: {
      server: join(projectFolder, 'apps/server/src/main.ts'),
      'painter.worker': join(projectFolder, 'apps/server/src/pictures/painter.worker.ts'),
    },
    outdir: dirname(serverFile),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'warning',
    plugins: [
      {
        name: 'npm-packages-outside',
        setup: ({ onResolve }) => {
          onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            kind === 'entry-point' || path.startsWith('@yperkine/') ? undefined : { path, external: true },
          );
        },
      },
    ],
  });
}
