import { dirname, join } from 'node:path';
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
    },
  );
  const server = buildServer();
  await Promise.all([web, server]);
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
