import { chromium } from '@playwright/test';
import { quantile, table } from './measure.ts';

/** Script time of 200 pointer moves that drag a point along its curve, beside a calibration loop. */
const address = process.env.BENCH_ADDRESS ?? '';
const moves = 200;

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  chromiumSandbox: false,
  args: ['--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(address);
await page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
await page.getByRole('link', { name: /How steep is the millstream bed/ }).click();
const handle = page.getByRole('slider', { name: /^Point on/ });
await handle.waitFor();

/** A fixed amount of arithmetic, to tell this machine from another. */
const calibration = await page.evaluate(() => {
  let best = Infinity;
  for (let attempt = 0; attempt < 5; attempt++) {
    const start = performance.now();
    let sum = 0;
    for (let i = 1; i < 5_000_000; i++) sum += Math.sqrt(i) / i;
    if (sum > 0) best = Math.min(best, performance.now() - start);
  }
  return best;
});

const session = await page.context().newCDPSession(page);
await session.send('Performance.enable');
const metrics = async () => {
  const { metrics: list } = await session.send('Performance.getMetrics');
  const of = (name: string) => (list.find((metric) => metric.name === name)?.value ?? NaN) * 1000;
  return { script: of('ScriptDuration'), layout: of('LayoutDuration') + of('RecalcStyleDuration') };
};
const nextFrame = () =>
  page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
/** What two empty frames and the asking itself cost, to be taken off every move. */
const idle: number[] = [];
for (let i = 0; i < 40; i++) {
  const before = await metrics();
  await nextFrame();
  idle.push((await metrics()).script - before.script);
}
const overhead = quantile(idle, 0.5);

const grip = (await handle.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
const start = { x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 };
await page.mouse.move(start.x, start.y);
await page.mouse.down();
const script: number[] = [];
const layout: number[] = [];
for (let i = 1; i <= moves; i++) {
  const before = await metrics();
  await page.mouse.move(start.x + 200 * Math.sin(i / 20), start.y);
  await nextFrame();
  const after = await metrics();
  script.push(Math.max(0, after.script - before.script - overhead));
  layout.push(after.layout - before.layout);
}
await page.mouse.up();
await browser.close();

const row = (name: string, values: readonly number[]) => [
  name,
  quantile(values, 0.5).toFixed(2),
  quantile(values, 0.95).toFixed(2),
  (quantile(values, 0.5) / calibration).toFixed(3),
];
table(
  [`dragging a point, ${moves} moves`, 'median, ms', '95th percentile, ms', 'median / calibration'],
  [row('script', script), row('style and layout', layout)],
);
process.stdout.write(`calibration loop ${calibration.toFixed(1)} ms\n`);
