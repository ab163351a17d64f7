import { ensurePackages } from './setup/packages.mjs';
import { runMain } from './setup/run.mjs';

/** Kills server and database a hundred times and more while people save, and looks whether anything is lost. */
runMain(async () => {
  await ensurePackages();
  const { build } = await import('./setup/build.mjs');
  const { runJest, withTestDatabase } = await import('./setup/jest.mjs');
  await build();
  const { status } = await withTestDatabase((databaseUrl) =>
    runJest(['--selectProjects', 'server', '--testPathPatterns', 'tests/faults'], {
      databaseUrl,
      allCases: true,
    }),
  );
  return status;
});
