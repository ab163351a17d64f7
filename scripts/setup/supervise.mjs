import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { serverFile } from './build.mjs';
import { dataFolder } from './folders.mjs';
import { say, SetupProblem } from './run.mjs';

const runningFile = join(dataFolder, 'running.json');
const firstWait = 1000;
const longestWait = 30_000;
/** Milliseconds after which a server is taken to have run well. */
const settled = 60_000;
const watchEvery = 1500;

/**
 * @param {number} pid
 * @param {string} program part of its command line
 */
function isRunning(pid, program) {
  try {
    return pid > 0 && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(program);
  } catch {
    return false;
  }
}

/** @returns {{ start: number, server: number, address: string }} what the last start in this folder noted */
function noted() {
  const nothing = { start: 0, server: 0, address: '' };
  try {
    return existsSync(runningFile)
      ? { ...nothing, ...JSON.parse(readFileSync(runningFile, 'utf8')) }
      : nothing;
  } catch {
    return nothing;
  }
}

/**
 * Makes sure that no other start serves from this folder: one that runs is left alone, a server that a killed start
 * left behind is ended.
 */
export async function claimFolder() {
  const { start, server, address } = noted();
  if (start !== process.pid && isRunning(start, 'scripts/start.mjs'))
    throw new SetupProblem(
      `Yperkine already runs from this folder${address ? `: ${address}` : ''}. To stop it, press Ctrl+C where it was started.`,
    );
  if (isRunning(server, serverFile)) {
    say(`An earlier start was killed and left its server behind (process ${server}): it is ended.`);
    process.kill(server, 'SIGTERM');
    for (let tries = 0; tries < 50 && isRunning(server, serverFile); tries++) await wait(100);
  }
  note({ address: '' });
}

/** @param {{ server?: number, address: string }} what */
function note(what) {
  mkdirSync(dataFolder, { recursive: true, mode: 0o711 });
  writeFileSync(runningFile, JSON.stringify({ start: process.pid, ...what }), { mode: 0o600 });
}

/**
 * Keeps a server running until it is stopped: one that ends by itself is started again, with growing waits.
 * @param {() => Promise<{ address: string, child: import('node:child_process').ChildProcess, ended: Promise<number>, stop: () => void }>} start
 * @param {(address: string) => void} onReady called once, when it answers for the first time
 * @returns {Promise<number>} its status when it was stopped
 */
export async function keepRunning(start, onReady) {
  const stopping = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.once(signal, () => stopping.abort());
  let pause = firstWait;
  for (let isFirst = true; !stopping.signal.aborted; isFirst = false) {
    const begun = Date.now();
    try {
      const server = await start();
      note({ server: server.child.pid ?? 0, address: server.address });
      // It may have been stopped while it was starting.
      if (stopping.signal.aborted) server.stop();
      else {
        stopping.signal.addEventListener('abort', server.stop);
        if (isFirst) onReady(server.address);
        else say('The server answers again.');
      }
      const status = await server.ended;
      stopping.signal.removeEventListener('abort', server.stop);
      if (stopping.signal.aborted) {
        rmSync(runningFile, { force: true });
        return status;
      }
    } catch (error) {
      if (isFirst) throw error;
    }
    if (Date.now() - begun > settled) pause = firstWait;
    say(`The server has ended by itself; it is started again in ${pause / 1000} s.`);
    await wait(pause, undefined, { signal: stopping.signal }).catch(() => undefined);
    pause = Math.min(longestWait, 2 * pause);
  }
  rmSync(runningFile, { force: true });
  return 0;
}

/**
 * Starts a database again that ended by itself, with growing waits.
 * @param {{ isRunning: () => boolean, restart: () => Promise<boolean> }} database
 * @returns {() => void} what ends the watch
 */
export function watchDatabase(database) {
  let pause = firstWait;
  let isBusy = false;
  const timer = setInterval(async () => {
    if (isBusy || database.isRunning()) return;
    isBusy = true;
    say('The database has ended by itself; it is started again.');
    if (await database.restart()) {
      say('The database answers again.');
      pause = firstWait;
    } else {
      say(`It does not start; the next try is in ${pause / 1000} s.`);
      await wait(pause);
      pause = Math.min(longestWait, 2 * pause);
    }
    isBusy = false;
  }, watchEvery);
  return () => clearInterval(timer);
}
