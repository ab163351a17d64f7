import { ensurePackages } from './setup/packages.mjs';
import { run, runMain } from './setup/run.mjs';

/**
 * Runs random inputs through the reader and the analyses and prints what came of them:
 * `npm run fuzz` for a million and a hundred thousand, `npm run fuzz -- 10000 1000 7` for fewer and another seed.
 */
runMain(async () => {
  await ensurePackages();
  const numbers = process.argv.slice(2);
  const { status } = await run('node', ['--import', 'tsx', 'packages/core/fuzz/main.ts', ...numbers]);
  return status;
});
