import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { currentVersion, type Document } from '@yperkine/demonstration';
import { hostileDocuments } from '../packages/demonstration/test/hostile.ts';
import { table } from './measure.ts';

/** The longest task of the page's main thread while a demonstration is opened, fitted, typed into and played. */
const address = process.env.BENCH_ADDRESS ?? '';
const only = process.env.BENCH_ONLY ?? '';
const rest = 3000;

declare global {
  interface Window {
    longest: number;
  }
}

const longestSince = async (page: Page): Promise<string> => {
  await page.waitForTimeout(rest);
  const longest = await page.evaluate(() => {
    const { longest } = window;
    window.longest = 0;
    return longest;
  });
  return longest === 0 ? '< 50' : longest.toFixed(0);
};

async function measure(context: BrowserContext, id: string): Promise<string[]> {
  const page = await context.newPage();
  if (process.env.SHOW) page.on('console', (m) => console.log('   ', m.text()));
  await page.addInitScript(() => {
    window.longest = 0;
    new PerformanceObserver((list) => {
      for (const { duration, startTime } of list.getEntries()) {
        window.longest = Math.max(window.longest, duration);
        console.log(Math.round(startTime), Math.round(duration));
      }
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
  let playing = 'still';
  if (await play.isVisible()) {
    await play.click();
    playing = await longestSince(page);
  }
  await page.close();
  return [opening, fitting, typing, playing];
}

async function made(context: BrowserContext, document: Document): Promise<string> {
  const demonstrations = `${address}/api/demonstrations`;
  const { id } = (await (await context.request.post(demonstrations, { data: {} })).json()) as { id: string };
  const edits = Object.entries(document.entries).map(([entry, value]) => ({
    at: 'entries',
    id: entry,
    old: null,
    new: value,
  }));
  await context.request.post(`${demonstrations}/${id}/changes`, {
    data: { base: 0, format: currentVersion, changes: [{ id: 'all', edits }] },
  });
  return id;
}

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', chromiumSandbox: false });
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
await context.request.post(`${address}/api/session/demo`);
const { demonstrations: shipped } = (await (
  await context.request.get(`${address}/api/demonstrations`)
).json()) as { demonstrations: { id: string; title: string }[] };
const calibrate = async (): Promise<number> => {
  const page = await context.newPage();
  const best = await page.evaluate(() => {
    let best = Infinity;
    for (let attempt = 0; attempt < 5; attempt++) {
      const start = performance.now();
      let sum = 0;
      for (let i = 1; i < 5_000_000; i++) sum += Math.sqrt(i) / i;
      if (sum > 0) best = Math.min(best, performance.now() - start);
    }
    return best;
  });
  await page.close();
  return best;
};
const rows: string[][] = [];
const add = async (name: string, id: string): Promise<void> => {
  if (!name.includes(only)) return;
  rows.push([
    name,
    ...(await measure(context, id).catch((error: unknown) => [String(error).slice(0, 100), '', '', ''])),
  ]);
  console.log(rows.at(-1)?.join(' | '), Math.round(await calibrate()));
};
for (const { id, title } of shipped) await add(title, id);
for (const [name, document] of Object.entries(hostileDocuments))
  if (name.includes(only)) await add(name, await made(context, document));
await browser.close();
console.log(table(['longest task, ms', 'opening', 'fitting', 'typing', 'playing'], rows));
