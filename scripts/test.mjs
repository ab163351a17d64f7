import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureChromium } from './setup/debian.mjs';
import { dataFolder } from './setup/folders.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { run, runMain, say } from './setup/run.mjs';

/** Every check counts as one test; Jest and Playwright report their own. */
const counts = { passed: 0, failed: 0 };
const results = join(dataFolder, 'test-results');

/**
 * @param {string} what
 * @param {string} program
 * @param {readonly string[]} args
 */
async function check(what, program, args) {
  const started = Date.now();
  const { status } = await run(program, args);
  counts[status === 0 ? 'passed' : 'failed']++;
  say(`${status === 0 ? 'passed' : 'FAILED'}: ${what} (${Math.round((Date.now() - started) / 1000)} s)`);
}

/** Milliseconds after which a runner is ended: one that hangs is a failure, and the others are told. */
const longestRun = 35 * 60_000;

/**
 * Adds up what a runner reported; a runner that fell over before reporting counts as a failure.
 * @param {number} status
 * @param {() => { passed: number, failed: number }} read
 */
function addReport(status, read) {
  const report = readReport(read);
  if (status !== 0 && report.failed === 0) report.failed = 1;
  if (report.passed + report.failed === 0) report.failed = 1;
  counts.passed += report.passed;
  counts.failed += report.failed;
}

/** @param {() => { passed: number, failed: number }} read */
function readReport(read) {
  try {
    return read();
  } catch {
    return { passed: 0, failed: 1 };
  }
}

/**
 * What took longest, by what the runners reported.
 * @type {{ seconds: number, title: string }[]}
 */
const durations = [];
const shownDurations = 20;

function tellSlowest() {
  const slowest = durations.sort((a, b) => b.seconds - a.seconds).slice(0, shownDurations);
  say('\nThe slowest tests, in seconds:');
  for (const { seconds, title } of slowest) say(`${seconds.toFixed(1).padStart(6)}  ${title}`);
}

/**
 * The tests of Playwright's report, which nests files, groups and tests.
 * @param {{ suites?: any[], specs?: any[] }} suite
 */
function noteDurations({ suites = [], specs = [] }) {
  for (const { title, tests } of specs)
    for (const { results } of tests)
      for (const { duration } of results) durations.push({ seconds: duration / 1000, title });
  suites.forEach(noteDurations);
}

/** @param {string} file */
const readJson = (file) => JSON.parse(readFileSync(file, 'utf8'));

/**
 * @param {string} databaseUrl
 * @param {readonly string[]} projects
 */
async function jest(databaseUrl, projects) {
  const file = join(results, `jest-${projects.join('-')}.json`);
  // A test that hangs fails; one on a busy machine may take its time.
  const limits = ['--testTimeout', '60000'];
  const report = ['--json', `--outputFile=${file}`];
  const { runJest } = await import('./setup/jest.mjs');
  const { status } = await runJest([...report, ...limits, '--selectProjects', ...projects], {
    databaseUrl,
    timeout: longestRun,
  });
  addReport(status, () => {
    const { numPassedTests, numFailedTests, numFailedTestSuites, numPendingTests, testResults } =
      readJson(file);
    for (const { assertionResults } of testResults)
      for (const { duration, fullName } of assertionResults)
        durations.push({ seconds: (duration ?? 0) / 1000, title: fullName });
    // A suite that could not even be loaded has no tests of its own to fail; a skipped test proves nothing.
    const unloaded = numFailedTests === 0 ? numFailedTestSuites : 0;
    return { passed: numPassedTests, failed: numFailedTests + unloaded + numPendingTests };
  });
}

/** @param {string} databaseUrl */
async function playwright(databaseUrl) {
  const file = join(results, 'playwright.json');
  const { status } = await run('npx', ['--no-install', 'playwright', 'test'], {
    timeout: longestRun,
    env: { ...process.env, TEST_DATABASE_URL: databaseUrl, PLAYWRIGHT_JSON_OUTPUT_NAME: file },
  });
  addReport(status, () => {
    const { stats, suites } = readJson(file);
    noteDurations({ suites });
    return { passed: stats.expected, failed: stats.unexpected + stats.flaky + stats.skipped };
  });
}

runMain(async () => {
  await ensurePackages();
  await ensureChromium();
  const { build } = await import('./setup/build.mjs');
  const { withTestDatabase } = await import('./setup/jest.mjs');
  rmSync(results, { recursive: true, force: true });
  mkdirSync(results, { recursive: true });
  await Promise.all([
    check('figures of the code', 'node', ['scripts/house.mjs']),
    ...[
      ['types', 'tsc', '-p', '.'],
      ['nothing unused', 'knip', '--no-progress', '--no-config-hints'],
      ['lint', 'eslint', '.', '--max-warnings', '0'],
      ['formatting', 'prettier', '--check', '--log-level', 'warn', '.'],
    ].map(([what = '', ...command]) => check(what, 'npx', ['--no-install', ...command])),
  ]);
  await build();
  await withTestDatabase(async (databaseUrl) => {
    await jest(databaseUrl, ['mathematics', 'server']);
    // It starts whole servers and databases, which what measures time beside it would notice.
    await jest(databaseUrl, ['start']);
    await playwright(databaseUrl);
  });
  tellSlowest();
  say(`\n${counts.passed} passed, ${counts.failed} failed`);
  return counts.failed === 0 ? 0 : 1;
});
