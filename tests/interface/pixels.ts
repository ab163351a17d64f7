import type { Page } from '@playwright/test';

/** Burnt orange, in which markers and slopes are drawn by day. */
export const orange = [180, 72, 15] as const;

/** How many pixels of the graphs have nearly this colour. */
export const pixelsOf = (page: Page, colour: readonly [number, number, number]): Promise<number> =>
  page.locator('canvas').evaluate((canvas: HTMLCanvasElement, [r, g, b]) => {
    const { width, height } = canvas;
    const data = canvas.getContext('2d')?.getImageData(0, 0, width, height).data ?? [];
    let count = 0;
    for (let i = 0; i < data.length; i += 4) {
      const away =
        Math.abs((data[i] ?? 0) - r) + Math.abs((data[i + 1] ?? 0) - g) + Math.abs((data[i + 2] ?? 0) - b);
      if (away < 30) count++;
    }
    return count;
  }, colour);

/** How opaque so many pixels of the graphs are, to the right of a place of the page. */
export const opacitiesFrom = (
  page: Page,
  { x, y }: { readonly x: number; readonly y: number },
  count: number,
): Promise<number[]> =>
  page.locator('canvas').evaluate(
    (canvas: HTMLCanvasElement, [x, y, count]) => {
      const { left, top } = canvas.getBoundingClientRect();
      const data = canvas.getContext('2d')?.getImageData(x - left, y - top, count, 1).data ?? [];
      return [...data].filter((_, i) => i % 4 === 3);
    },
    [Math.round(x), Math.round(y), count] as const,
  );
