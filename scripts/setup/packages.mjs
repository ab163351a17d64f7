import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { projectFolder } from './folders.mjs';
import { must, say, SetupProblem } from './run.mjs';

/** @returns {void} */
function requireNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  const isNewEnough = (major === 20 && minor >= 19) || major > 22 || (major === 22 && minor >= 12);
  if (!isNewEnough)
    throw new SetupProblem(`Node 20.19 or newer is needed; this is ${process.versions.node}.`);
}

/**
 * Installs the npm packages of the lock file, unless they are there already.
 * @param {(text: string) => void} [tell] where progress is told
 */
export async function ensurePackages(tell = say) {
  requireNode();
  const lock = createHash('sha256')
    .update(readFileSync(join(projectFolder, 'package-lock.json')))
    .digest('hex');
  const marker = join(projectFolder, 'node_modules', '.installed-from');
  if (existsSync(marker) && readFileSync(marker, 'utf8') === lock) return;
  tell('Installing packages …');
  await must('Installing the packages', 'npm', ['ci', '--include=dev'], {
    env: { ...process.env, PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1' },
  });
  writeFileSync(marker, lock);
}
