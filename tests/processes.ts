import { readdirSync, readFileSync } from 'node:fs';

/** Processes of this machine, for tests that end some without warning. */

/** Ends a process as a crash would. */
export function kill(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL');
  } catch {
    // It ended by itself.
  }
}

export const processIds = (): number[] =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number);

export function statusOf(pid: number): { parent: number; command: string } | null {
  try {
    const parent = Number(/^PPid:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]);
    return { parent, command: readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ') };
  } catch {
    return null;
  }
}

/** A process with all that it started, the youngest first. */
export function descendants(root: number): number[] {
  const children = processIds().filter((pid) => statusOf(pid)?.parent === root);
  return [...children.flatMap(descendants), root];
}
