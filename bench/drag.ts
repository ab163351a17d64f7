import { chromium, type CDPSession, type Locator, type Page } from '@playwright/test';
import { headlessChromium } from '../scripts/setup/debian.mjs';
import { calibrate } from './calibration.ts';
import { quantile, table } from './measure.ts';

/** Script time of 200 pointer moves that drag a point along its curve, the best of five rounds, beside a calibration loop. */
const address = process.env.BENCH_ADDRESS ?? '';
const moves = 200;

const nextFrame = (page: Page) =>
  page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));

async function metrics(session: CDPSession): Promise<{ script: number; layout: number }> {
  const { metrics: list } = await session.send('Performance.getMetrics');
  const of = (name: string) => (list.find((metric) => metric.name === name)?.value ?? NaN) * 1000;
  return { script: of('ScriptDuration'), layout: of('LayoutDuration') + of('RecalcStyleDuration') };
}

/** Drags the first point of the open demonstration to and fro. */
async function measureDrag(page: Page, what: string, calibration: number): Promise<void> {
  const handle = page.getByRole('slider', { name: /^Point on/ }).first();
  await handle.waitFor();
  // An earlier run may have left the point at the end of its curve.
  await page.getByRole('button', { name: 'Restore the start' }).click();
  // A new tier moves the handles, which get their places in the frames that follow.
  await page.waitForTimeout(500);
  const before = await handle.getAttribute('aria-valuetext');
  await measureMoves(page, `dragging a point, ${what}`, calibration, await middleOf(handle));
  if ((await handle.getAttribute('aria-valuetext')) === before) throw new Error('the point was not dragged');
}

/** Drags the paper of the graph to and fro: everything in the window is sampled again with every move. */
async function measurePan(page: Page, what: string, calibration: number): Promise<void> {
  const { x, y } = await middleOf(page.getByRole('application'));
  await measureMoves(page, `panning, ${what}`, calibration, { x, y: y - 200 });
}

async function middleOf(locator: Locator): Promise<{ x: number; y: number }> {
  const { x, y, width, height } = (await locator.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  return { x: x + width / 2, y: y + height / 2 };
}

/** Moves the pointer to and fro from a place that it holds, and prints what the moves cost. */
async function measureMoves(
  page: Page,
  what: string,
  calibration: number,
  start: { x: number; y: number },
): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  // What two empty frames and the asking itself cost, to be taken off every move.
  const idle: number[] = [];
  for (let i = 0; i < 40; i++) {
    const before = await metrics(session);
    await nextFrame(page);
    idle.push((await metrics(session)).script - before.script);
  }
  const overhead = quantile(idle, 0.5);
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  const round = async (): Promise<{ script: number[]; layout: number[] }> => {
    const script: number[] = [];
    const layout: number[] = [];
    for (let i = 1; i <= moves; i++) {
      const before = await metrics(session);
      await page.mouse.move(start.x + 200 * Math.sin(i / 20), start.y);
      await nextFrame(page);
      const after = await metrics(session);
      script.push(Math.max(0, after.script - before.script - overhead));
      layout.push(after.layout - before.layout);
    }
    return { script, layout };
  };
  // The best of five: other work on the machine only ever makes a round slower.
  const rounds = [];
  for (let i = 0; i < 5; i++) rounds.push(await round());
  const [{ script, layout } = { script: [], layout: [] }] = rounds.sort(
    (a, b) => quantile(a.script, 0.95) - quantile(b.script, 0.95),
  );
  await page.mouse.up();
  printCosts(`${what}, ${moves} moves`, script, layout, calibration);
}

function printCosts(
  what: string,
  script: readonly number[],
  layout: readonly number[],
  calibration: number,
): void {
  const row = (name: string, values: readonly number[]) => [
    name,
    quantile(values, 0.5).toFixed(2),
    quantile(values, 0.95).toFixed(2),
    (quantile(values, 0.5) / calibration).toFixed(3),
  ];
  table(
    [what, 'median, ms', '95th percentile, ms', 'median / calibration'],
    [row('script', script), row('style and layout', layout)],
  );
  process.stdout.write('\n');
}

/** Lets the first lane play, and prints what a frame costs while it does. */
async function measurePlaying(page: Page, what: string, calibration: number): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  await page.evaluate(() => {
    const counter = {
      frames: 0,
      count() {
        counter.frames++;
        requestAnimationFrame(() => counter.count());
      },
    };
    counter.count();
    Object.assign(window, { counter });
  });
  const frames = () =>
    page.evaluate(() => (window as unknown as { counter: { frames: number } }).counter.frames);
  const samples = async (count: number): Promise<{ script: number[]; layout: number[] }> => {
    const script: number[] = [];
    const layout: number[] = [];
    for (let i = 0; i < count; i++) {
      // Frames are counted inside the time that is measured, so that a frame is never made to look cheaper than it is.
      const [before, start] = [await metrics(session), await frames()];
      await nextFrame(page);
      const [end, after] = [await frames(), await metrics(session)];
      script.push((after.script - before.script) / (end - start));
      layout.push((after.layout - before.layout) / (end - start));
    }
    return { script, layout };
  };
  const overhead = quantile((await samples(40)).script, 0.5);
  const play = page.getByRole('button', { name: /^Play a$/ });
  await play.click();
  const rounds = [];
  for (let i = 0; i < 5; i++) rounds.push(await samples(moves));
  await page.getByRole('button', { name: /^Stop a$/ }).click();
  const [{ script, layout } = { script: [], layout: [] }] = rounds.sort(
    (a, b) => quantile(a.script, 0.95) - quantile(b.script, 0.95),
  );
  printCosts(
    `playing, ${what}`,
    script.map((cost) => Math.max(0, cost - overhead)),
    layout,
    calibration,
  );
}

/** Milliseconds between two frames, above which the second is late at 60 a second. */
const late = 20;

/** Lets every lane play, undisturbed, and prints how many frames a second reach the screen: the best of five. */
async function measureFrames(page: Page, what: string): Promise<void> {
  const round = async () => {
    // What plays once is at its end after a round.
    await page.getByRole('button', { name: 'Restore the start' }).click();
    await page
      .getByRole('button', { name: /^Play( all| [a-z])$/ })
      .first()
      .click();
    await page.waitForTimeout(500);
    return page.evaluate(
      (length) =>
        new Promise<number[]>((resolve) => {
          const clock = {
            times: [] as number[],
            count(time: number) {
              this.times.push(time);
              if (time - (this.times[0] as number) > length) resolve(this.times);
              else requestAnimationFrame((next) => this.count(next));
            },
          };
          requestAnimationFrame((time) => clock.count(time));
        }),
      2000,
    );
  };
  const rounds: { rate: number; late: number }[] = [];
  for (let i = 0; i < 5; i++) {
    const times = await round();
    const gaps = times.slice(1).map((time, k) => time - (times[k] as number));
    const whole = gaps.reduce((sum, gap) => sum + gap, 0);
    rounds.push({
      rate: (1000 * gaps.length) / whole,
      late: gaps.filter((gap) => gap > late).length / gaps.length,
    });
  }
  await page.getByRole('button', { name: /^Stop/ }).first().click();
  const best = rounds.reduce((a, b) => (b.rate > a.rate ? b : a));
  const worst = rounds.reduce((a, b) => (b.rate < a.rate ? b : a));
  const row = (name: string, one: typeof best) => [
    name,
    one.rate.toFixed(1),
    `${(100 * one.late).toFixed(1)} %`,
  ];
  table(
    [`playing undisturbed, ${what}`, 'frames a second', 'late'],
    [row('best', best), row('worst', worst)],
  );
  process.stdout.write('\n');
}

const six = ['x^3/9 - x', 'sin x', 'x/2 + 1', '2cos x', 'e^(-x^2/4)', '1/(1 + x^2)'];

/** A demonstration of one's own with six curves, two tiers, a secant with its table and a lens. */
async function buildSix(page: Page): Promise<void> {
  await page.goto(address);
  await page.getByRole('button', { name: 'New' }).click();
  const given = page.getByRole('textbox', { name: 'Next given' });
  for (const formula of six) {
    await given.click();
    await page.keyboard.type(formula);
    await page.keyboard.press('Enter');
  }
  for (const study of ['Tangent', 'Secant', 'Lens', 'Derivative']) {
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByRole('dialog').getByRole('button', { name: study, exact: true }).click();
  }
  await page
    .getByRole('slider', { name: /^Point on/ })
    .first()
    .waitFor();
}

/** The tangent's point leaves a trail from now on. */
async function letItLeaveATrail(page: Page): Promise<void> {
  await page
    .getByRole('button', { name: /^More for Tangent/ })
    .first()
    .click();
  await page.getByRole('menuitem', { name: 'Let it leave a trail' }).click();
}

async function openDemonstration(page: Page, title: RegExp): Promise<void> {
  await page.goto(address);
  await page.getByRole('link', { name: title }).first().click();
  await page
    .getByRole('slider', { name: /^(Point|End)/ })
    .first()
    .waitFor();
}

/** Ten thousand rows of measured data, with a tangent and the slope in a tier of its own. */
async function buildData(page: Page): Promise<void> {
  await page.goto(address);
  await page.getByRole('button', { name: 'New' }).click();
  await page.getByRole('textbox', { name: 'Next given' }).click();
  const rows = Array.from({ length: 10_000 }, (_, i) => {
    const noise = (Math.sin(i * 12.9898) * 43758.5453) % 1;
    return `${i / 10},${(5 * Math.sin(i / 900) + noise).toFixed(3)}`;
  });
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData('text/plain', text);
    const paste = new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true });
    document.activeElement?.dispatchEvent(paste);
  }, rows.join('\n'));
  await page.getByRole('button', { name: 'Put it in' }).click();
  for (const study of ['Tangent', 'Derivative']) {
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByRole('dialog').getByRole('button', { name: study, exact: true }).click();
  }
}

/** A thousand rectangles under a curve, with the table of all of them. */
async function buildSum(page: Page): Promise<void> {
  await page.goto(address);
  await page.getByRole('button', { name: 'New' }).click();
  await page.getByRole('textbox', { name: 'Next given' }).click();
  await page.keyboard.type('f(x) = 2 + sin(x) e^(-x/10) + x/5');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Rectangle sum', exact: true }).click();
  const count = page.getByRole('textbox', { name: 'Value of n' });
  await count.fill('1000');
  await count.press('Enter');
  await page.getByText('total of 1000').waitFor();
}

/** Drags an end of the sum's interval, and the slider of n. */
async function measureSum(page: Page, calibration: number): Promise<void> {
  const end = page.getByRole('slider', { name: /^End of the interval/ });
  await page.waitForTimeout(500);
  const place = await middleOf(end);
  await measureMoves(page, 'dragging an end, 1,000 rectangles with their table', calibration, {
    ...place,
    x: place.x - 1,
  });
  const slider = page.getByRole('slider', { name: 'n', exact: true });
  const box = await slider.boundingBox();
  if (!box) throw new Error('the slider of n is not shown');
  await measureMoves(page, 'dragging n around 300, with their table', calibration, {
    x: box.x + box.width * 0.65,
    y: box.y + box.height / 2,
  });
}

const browser = await chromium.launch({
  executablePath: headlessChromium,
  chromiumSandbox: false,
  args: ['--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(address);
await page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
await openDemonstration(page, /The sluice gate swings to rest/);
const calibration = await calibrate(page);
await measureDrag(page, 'tangent and slope tier', calibration);
await buildSix(page);
await measureDrag(page, 'six curves, two tiers, secant table, lens', calibration);
await letItLeaveATrail(page);
await measurePlaying(page, 'six curves, two tiers, secant table, trail, lens', calibration);
await measureFrames(page, 'six curves, two tiers, secant table, trail, lens');
await openDemonstration(page, /What the sluice let through/);
await measureFrames(page, 'the sluice: rectangles, areas, sentences');
await openDemonstration(page, /running total/);
await measureFrames(page, 'the tank: running total, areas, strips');
await buildData(page);
await measureDrag(page, '10,000 rows of data, tangent, slope tier', calibration);
await measurePan(page, '10,000 rows of data, tangent, slope tier', calibration);
await buildSum(page);
await measureSum(page, calibration);
await browser.close();
process.stdout.write(`calibration loop ${calibration.toFixed(1)} ms\n`);
