import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { minify, type JsMinifyOptions } from '@swc/core';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** Every browser that runs the application reads WOFF2, so the typesetter's fonts ship in no other format. */
const oneFormatOfFonts: Plugin = {
  name: 'one-format-of-fonts',
  enforce: 'pre',
  transform: {
    filter: { id: /katex\.min\.css$/ },
    handler: (css) => css.replaceAll(/,url\([^)]+\.(?:woff|ttf)\) format\("(?:woff|truetype)"\)/g, ''),
  },
};

const smallest: JsMinifyOptions = { module: true, ecma: 2020, compress: { passes: 3 }, mangle: true };

/** What the builder has made small is made smaller again, by a percent as it travels. */
const smaller: Plugin = {
  name: 'smaller',
  apply: 'build',
  generateBundle: {
    order: 'post',
    async handler(_options, bundle) {
      for (const chunk of Object.values(bundle)) {
        if (chunk.type !== 'chunk') continue;
        let { code } = chunk;
        // What the first round leaves can be made smaller still.
        for (let round = 0; round < 2; round++) ({ code } = await minify(code, smallest));
        chunk.code = code;
      }
    },
  },
};

const writersOfJsonSchema = /zod[\\/]v4[\\/]core[\\/](?:json-schema-processors|to-json-schema)\.js$/;

/** Zod can write its schemas as JSON Schema, which nobody asks for in a browser: those functions ship empty. */
const withoutJsonSchema: Plugin = {
  name: 'without-json-schema',
  apply: 'build',
  enforce: 'pre',
  load: {
    filter: { id: writersOfJsonSchema },
    handler(id) {
      const source = readFileSync(id, 'utf8');
      const names = [...source.matchAll(/^export (?:const|function) (\w+)/gm)].map(([, name = '']) => name);
      return names.map((name) => `export const ${name} = () => undefined;`).join('\n');
    },
  },
};

/** Zod's own sentences, in English for programmers: what people read is written at each schema. */
const withoutSentencesOfZod: Plugin = {
  name: 'without-sentences-of-zod',
  apply: 'build',
  enforce: 'pre',
  load: {
    filter: { id: /zod[\\/]v4[\\/]locales[\\/]en\.js$/ },
    handler: () => 'export default () => ({ localeError: undefined });',
  },
};

const workerSource = fileURLToPath(new URL('src/workers/analysis.worker.ts', import.meta.url));

/**
 * The address of the worker, whose program is built together with the page's: the mathematics that both need travels
 * once.
 */
function analysisWorker(): Plugin {
  const name = 'virtual:analysis-worker';
  let isBuild = false;
  return {
    name: 'analysis-worker',
    configResolved: ({ command }) => {
      isBuild = command === 'build';
    },
    resolveId: (id) => (id === name ? `\0${name}` : null),
    load(id) {
      if (id !== `\0${name}`) return null;
      if (!isBuild) return `export default ${JSON.stringify('/src/workers/analysis.worker.ts')};`;
      const file = this.emitFile({ type: 'chunk', id: workerSource, name: 'analysis.worker' });
      return `export default import.meta.ROLLUP_FILE_URL_${file};`;
    },
  };
}

/** What the first script asks for one after the other is fetched from the beginning, as what it imports would be. */
const fetchedAhead: Plugin = {
  name: 'fetched-ahead',
  apply: 'build',
  transformIndexHtml: {
    order: 'post',
    handler: (_html, { bundle = {}, chunk }) => {
      const reached = new Set(chunk?.dynamicImports);
      for (const name of reached) {
        const asked = bundle[name];
        if (asked?.type === 'chunk') asked.imports.forEach((imported) => reached.add(imported));
      }
      const isLinked = new Set(chunk?.imports);
      return [...reached]
        .filter((name) => !isLinked.has(name))
        .map((name) => ({
          tag: 'link',
          attrs: { rel: 'modulepreload', crossorigin: true, href: `/${name}` },
          injectTo: 'head',
        }));
    },
  },
};

/** What every program stands on: it starts before the others, in a task of its own. */
const isOfReact = /node_modules[\\/](react|react-dom|scheduler)[\\/]/;

/** What the sign-in page needs, and every other page with it. */
const isOfShell = new RegExp(
  [
    /node_modules[\\/](react-router|@tanstack|zod|zustand|clsx)[\\/]/,
    /lucide-react[\\/].*[\\/](createLucideIcon|Icon|defaultAttributes|context|utils|shared|icons[\\/]plus)/,
    /demonstration[\\/]src[\\/]draw[\\/]theme/,
    /apps[\\/]web[\\/]src[\\/](theme[\\/].*\.ts$|api[\\/]http\.|parts[\\/](Button|ThemeButton|Wordmark)\.)/,
  ]
    .map(({ source }) => source)
    .join('|'),
);

/** What every page behind the sign-in page needs. */
const isOfControls = new RegExp(
  [
    /node_modules[\\/](@headlessui(?!.*[\\/](radio-group|dialog)[\\/])|@floating-ui|@react-aria|react-aria|react-stately)[\\/]/,
    /packages[\\/]protocol[\\/]src[\\/]library\./,
    /apps[\\/]web[\\/]src[\\/](api[\\/]library|parts[\\/](ActionMenu|Veil|lazily))\./,
  ]
    .map(({ source }) => source)
    .join('|'),
);

export default defineConfig({
  plugins: [
    analysisWorker(),
    oneFormatOfFonts,
    withoutJsonSchema,
    withoutSentencesOfZod,
    react(),
    tailwindcss(),
    smaller,
    fetchedAhead,
  ],
  build: {
    // Fonts stay files: the content security policy allows no data: fonts.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    modulePreload: {
      // Every browser that runs the application fetches modules ahead by itself.
      polyfill: false,
      // A worker has no document to fetch them ahead for.
      resolveDependencies: (_file, needed, { hostId }) => (hostId.includes('analysis.worker') ? [] : needed),
    },
    rolldownOptions: {
      output: {
        // What is needed together travels together: small files cost more on the way than they hold.
        advancedChunks: {
          groups: [
            { name: 'react', test: isOfReact, priority: 4 },
            { name: 'shell', test: isOfShell, priority: 3 },
            {
              name: 'controls',
              test: isOfControls,
              minShareCount: 2,
            },
            // What checks proofs comes when it is first asked for.
            {
              name: 'mathematics',
              test: /packages[\\/]core[\\/]src[\\/](?!checker|analysis[\\/]certificate)/,
              minShareCount: 2,
            },
            {
              name: 'workplace',
              test: /packages[\\/]demonstration[\\/]|apps[\\/]web[\\/]src[\\/](state[\\/]|build[\\/]|parts[\\/](TextField|SelectField|Typeset|typesetting)\.)|node_modules[\\/]katex/,
              minShareCount: 2,
            },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4280' } },
});
