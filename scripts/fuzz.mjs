import { ensurePackages } from './setup/packages.mjs';
import { run, runMain } from './setup/run.mjs';

/** Tests that try a sample of their random cases with `npm test`, and all of them here. */
const tests = ['packages/(core|demonstration)/test', 'server/test/requests'];

/**
 * Runs random inputs through the reader and the analyses and prints what came of them, then tries every random case
 * of the tests, requests to the server among them:
 * `npm run fuzz` for a million and a hundred thousand, `npm run fuzz -- 10000 1000 7` for fewer and another seed.
 */
runMain(async () => {
  await ensurePackages();
  const { build } = await import('./setup/build.mjs');
  const { runJest, withTestDatabase } = await import('./setup/jest.mjs');
  await build();
  const numbers = process.argv.slice(2);
  const read = await run('node', ['--import', 'tsx', 'packages/core/fuzz/main.ts', ...numbers]);
  const tried = await withTestDatabase((databaseUrl) =>
    runJest(['--testPathPatterns', ...tests], { databaseUrl, allCases: true }),
  );
  return read.status || tried.status;
});
