import type { Limit } from './found.ts';

const steps = 18;

/**
 * The limit from one side (1 from the right), or towards ±Infinity, of a function that has no series: by doubles at
 * halved distances, extrapolated (Richardson). It is found by evaluation, and proves nothing.
 */
export function searchedLimit(at: (x: number) => number, target: number, side: 1 | -1): Limit {
  const place = (k: number): number =>
    Number.isFinite(target) ? target + side * 2 ** -k : -side * 2 ** (k * 1.5);
  const raw = Array.from({ length: steps }, (_, k) => at(place(k + 2)));
  if (raw.slice(4).some(Number.isNaN)) return { kind: 'undefined' };
  const tail = raw.slice(-4);
  const isGrowing = tail.every((y, i) => i === 0 || Math.abs(y) > 1.5 * Math.abs(tail[i - 1] as number));
  if (isGrowing) return { kind: 'infinite', sign: (tail.at(-1) as number) > 0 ? 1 : -1 };
  let best = { value: NaN, change: Infinity };
  let level = raw;
  for (let order = 1; order <= 4; order++) {
    level = level.slice(1).map((y, i) => y + (y - (level[i] as number)) / (2 ** order - 1));
    level.slice(1).forEach((y, i) => {
      const change = Math.abs(y - (level[i] as number));
      if (change < best.change) best = { value: y, change };
    });
  }
  const isSure = best.change < 1e-6 * Math.max(1, Math.abs(best.value));
  return isSure ? { kind: 'finite', value: best.value, proved: false, exact: null } : { kind: 'undecided' };
}
