import { readdir, readFile, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { projectFolder } from './folders.mjs';
import { must, say } from './run.mjs';

export const serverFile = join(projectFolder, 'apps/server/dist/server.js');
export const webFolder = join(projectFolder, 'apps/web/dist');

/** Builds the web application and the server's bundle. */
export async function build() {
  say('Building …');
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
}

/** Smaller files gain nothing: they travel in one packet anyway. */
const worthCompressing = 1000;

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
      const hint = { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length };
      await writeFile(`${file}.br`, await brotli(bytes, { params: hint }));
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
