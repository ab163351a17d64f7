import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { headlessChromium } from '../scripts/setup/debian.mjs';
import type { Document } from '@yperkine/demonstration';
import { hostileDocuments } from '../packages/demonstration/test/hostile.ts';
import { makeDemonstration } from '../tests/interface/made.ts';
import { calibrate } from './calibration.ts';
import { table } from './measure.ts';

/**
 * The longest task of the page's main thread while demonstrations are opened, fitted, typed into and played: those that
 * ship, and some that nobody would make by hand. The browser tells of tasks over 50 ms.
 */
const address = process.env.BENCH_ADDRESS ?? '';
/** Milliseconds after which what was asked for is taken to be done. */
const rest = 3000;

declare global {
  interface Window {
    longest: number;
  }
}

async function longestSince(page: Page): Promise<string> {
  await page.waitForTimeout(rest);
  const longest = await page.evaluate(() => {
    const { longest } = window;
    window.longest = 0;
    return longest;
  });
  return longest === 0 ? '< 50' : longest.toFixed(0);
}

async function measure(context: BrowserContext, id: string): Promise<string[]> {
  const page = await context.newPage();
  await page.addInitScript(() => {
    window.longest = 0;
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) window.longest = Math.max(window.longest, duration);
    }).observe({ type: 'longtask', buffered: true });
  });
  // Plain selectors: looking for roles costs a long page more than what is measured.
  const next = page.locator('[aria-label="Next given"]');
  await page.goto(`${address}/demonstrations/${id}`);
  await next.waitFor({ timeout: 60_000 });
  const opening = await longestSince(page);
  await page.locator('button:text-is("Fit")').first().click();
  const fitting = await longestSince(page);
  await next.click();
  await page.keyboard.type('w_9(x) = sin(x) x');
  await page.keyboard.press('Enter');
  const typing = await longestSince(page);
  const play = page.locator('button[aria-label^="Play"]').first();
  const canPlay = await play.isVisible();
  if (canPlay) await play.click();
  const playing = canPlay ? await longestSince(page) : 'still';
  const calibration = (await calibrate(page)).toFixed(0);
  await page.close();
  return [opening, fitting, typing, playing, calibration];
}

const made = (context: BrowserContext, { entries }: Document): Promise<string> => {
  const edits = Object.entries(entries).map(
    ([id, entry]) => ({ at: 'entries', id, old: null, new: entry }) as const,
  );
  return makeDemonstration(context.request, address, [{ id: 'all', edits }]);
};

const browser = await chromium.launch({ executablePath: headlessChromium, chromiumSandbox: false });
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
await context.request.post(`${address}/api/session/demo`);
const shipped = (await (await context.request.get(`${address}/api/demonstrations`)).json()) as {
  demonstrations: { id: string; title: string }[];
};
const rows: string[][] = [];
for (const { id, title } of shipped.demonstrations) rows.push([title, ...(await measure(context, id))]);
// What the browser takes to start the programs and lay out the page, whatever the document.
rows.push([
  'an empty demonstration',
  ...(await measure(context, await makeDemonstration(context.request, address))),
]);
for (const [name, document] of Object.entries(hostileDocuments))
  rows.push([name, ...(await measure(context, await made(context, document)))]);
await browser.close();
table(['longest task, ms', 'opening', 'fitting', 'typing', 'playing', 'calibration'], rows);
