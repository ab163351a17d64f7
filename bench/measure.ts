/** Milliseconds of one run: the best of `tries` averages over `runs`. */
export function bestOf(tries: number, runs: number, work: () => void): number {
  let best = Infinity;
  for (let attempt = 0; attempt < tries; attempt++) {
    const start = performance.now();
    for (let run = 0; run < runs; run++) work();
    best = Math.min(best, (performance.now() - start) / runs);
  }
  return best;
}

export const geometricMean = (values: readonly number[]): number =>
  Math.exp(values.reduce((sum, value) => sum + Math.log(value), 0) / values.length);

/** The value below which the given share of the values lies. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
}

/** Prints rows under a head, columns aligned. */
export function table(head: readonly string[], rows: readonly (readonly string[])[]): void {
  const widths = head.map((cell, i) => Math.max(cell.length, ...rows.map((row) => row[i]?.length ?? 0)));
  const line = (cells: readonly string[]) =>
    cells
      .map((cell, i) => (i === 0 ? cell.padEnd(widths[i] ?? 0) : cell.padStart(widths[i] ?? 0)))
      .join('  ');
  process.stdout.write(`${[line(head), ...rows.map(line)].join('\n')}\n`);
}
