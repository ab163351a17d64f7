import { spawn } from 'node:child_process';
import { projectFolder } from './folders.mjs';

/** Thrown with a sentence that says what to do; shown without a stack trace. */
export class SetupProblem extends Error {}

/**
 * Runs a program to its end.
 * @param {string} command
 * @param {readonly string[]} args
 * @param {import('node:child_process').SpawnOptions & { quiet?: boolean }} [options] `quiet` shows output only on failure
 * @returns {Promise<{ status: number, output: string }>}
 */
export function run(command, args, { quiet = false, ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: projectFolder,
      stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
      ...options,
    });
    let output = '';
    child.stdout?.on('data', (piece) => (output += String(piece)));
    child.stderr?.on('data', (piece) => (output += String(piece)));
    child.on('error', reject);
    child.on('close', (status) => resolve({ status: status ?? 1, output }));
  });
}

/**
 * Runs a program that must succeed.
 * @param {string} what what it is for, for the sentence when it fails
 * @param {string} command
 * @param {readonly string[]} args
 * @param {import('node:child_process').SpawnOptions} [options]
 */
export async function must(what, command, args, options = {}) {
  const { status, output } = await run(command, args, { quiet: true, ...options });
  if (status !== 0)
    throw new SetupProblem(`${what} did not work.\n${output.trim().split('\n').slice(-25).join('\n')}`);
  return output;
}

/** @param {string} text */
export function say(text) {
  process.stdout.write(`${text}\n`);
}

/**
 * Ends with a sentence instead of a stack trace when something that a person can mend went wrong.
 * @param {() => Promise<number | void>} main
 */
export function runMain(main) {
  main().then(
    (status) => process.exit(status ?? 0),
    (error) => {
      process.stderr.write(
        `${error instanceof SetupProblem ? error.message : String(error?.stack ?? error)}\n`,
      );
      process.exit(1);
    },
  );
}
