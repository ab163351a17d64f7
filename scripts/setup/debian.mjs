import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { run, must, say, SetupProblem } from './run.mjs';

const postgresVersions = '/usr/lib/postgresql';

/** Where Debian puts Chromium without a window, which is lighter than the whole browser without one. */
export const headlessChromium = '/usr/bin/chromium-headless-shell';

/**
 * Installs a package from Debian, or says how a person with the right to do so can.
 * @param {string} name
 */
async function install(name) {
  if (process.getuid?.() !== 0) {
    throw new SetupProblem(
      `${name} is not installed, and only root may install it: run “apt-get install ${name}” as root.`,
    );
  }
  say(`Installing ${name} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const install = ['install', '-y', '--no-install-recommends', name];
  const first = await run('apt-get', install, { quiet: true, env });
  if (first.status === 0) return;
  await must('Reading the list of Debian packages', 'apt-get', ['update'], { env });
  await must(`Installing ${name}`, 'apt-get', install, { env });
}

/** @returns {string | undefined} the folder with PostgreSQL's newest programs */
function findPostgres() {
  if (!existsSync(postgresVersions)) return undefined;
  const versions = readdirSync(postgresVersions).sort((a, b) => Number(b) - Number(a));
  return versions
    .map((version) => join(postgresVersions, version, 'bin'))
    .find((bin) => existsSync(join(bin, 'initdb')));
}

/** The folder with PostgreSQL's programs, installed if need be. */
export async function ensurePostgres() {
  if (!findPostgres()) await install('postgresql');
  const bin = findPostgres();
  if (!bin) throw new SetupProblem('PostgreSQL was installed, but its programs cannot be found.');
  return bin;
}

/** The browser for the interface tests, installed if need be. */
export async function ensureChromium() {
  if (!existsSync(headlessChromium)) await install('chromium-headless-shell');
  return headlessChromium;
}
