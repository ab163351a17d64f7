import type { Page } from '@playwright/test';

/** A fixed amount of arithmetic, to tell this machine from another. */
export const calibrate = (page: Page): Promise<number> =>
  page.evaluate(() => {
    let best = Infinity;
    for (let attempt = 0; attempt < 5; attempt++) {
      const start = performance.now();
      let sum = 0;
      for (let i = 1; i < 5_000_000; i++) sum += Math.sqrt(i) / i;
      if (sum > 0) best = Math.min(best, performance.now() - start);
    }
    return best;
  });
