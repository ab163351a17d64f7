import { run } from './run.mjs';
import { startPostgres } from './postgres.mjs';

/**
 * Does some work beside a database server for tests, in which the migrated template lies.
 * @template T
 * @param {(databaseUrl: string) => Promise<T>} work
 */
export async function withTestDatabase(work) {
  const postgres = await startPostgres('test-postgres', { durable: false });
  try {
    const databaseUrl = postgres.url('postgres');
    await run('node', ['--import', 'tsx', 'apps/server/test/template.ts'], {
      env: { ...process.env, TEST_DATABASE_URL: databaseUrl },
    });
    return await work(databaseUrl);
  } finally {
    await postgres.stop();
  }
}

/**
 * Runs Jest.
 * @param {readonly string[]} args
 * @param {{ databaseUrl: string, allCases?: boolean, timeout?: number }} settings `allCases` tries all random cases, not a
 * sample; `timeout` is in milliseconds, 0 for none
 */
export function runJest(args, { databaseUrl, allCases = false, timeout = 0 }) {
  return run('npx', ['--no-install', 'jest', ...args], {
    timeout,
    env: {
      ...process.env,
      NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
      TEST_DATABASE_URL: databaseUrl,
      ...(allCases ? { ALL_CASES: '1' } : {}),
    },
  });
}
