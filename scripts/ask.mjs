import { ensurePackages } from './setup/packages.mjs';
import { run, runMain } from './setup/run.mjs';

/** Answers questions, one JSON object a line; standard output carries answers and nothing else. */
runMain(async () => {
  await ensurePackages((text) => process.stderr.write(`${text}\n`));
  const { status } = await run('node', ['--import', 'tsx', 'apps/ask/src/main.ts'], { stdio: 'inherit' });
  return status;
});
