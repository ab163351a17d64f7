/** The runs of a curve between two pixels along x, cut straight where they go over the ends. */
export function partOfRuns(runs: readonly Float64Array[], x0: number, x1: number): Float64Array[] {
  return runs.flatMap((run) => {
    const points: number[] = [];
    for (let i = 0; i + 1 < run.length; i += 2) {
      const [x, y] = [run[i] as number, run[i + 1] as number];
      const before = i > 0 ? ([run[i - 2] as number, run[i - 1] as number] as const) : null;
      if (before) {
        for (const end of [x0, x1]) {
          if (before[0] < end && end < x)
            points.push(end, before[1] + ((y - before[1]) * (end - before[0])) / (x - before[0]));
        }
      }
      if (x >= x0 && x <= x1) points.push(x, y);
    }
    return points.length >= 4 ? [Float64Array.from(points)] : [];
  });
}
