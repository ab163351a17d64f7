import { randomBytes, randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { ensureChromium } from './setup/debian.mjs';
import { projectFolder } from './setup/folders.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { runMain, say } from './setup/run.mjs';

const folder = join(projectFolder, 'docs/screenshots');

/**
 * Takes the pictures of docs/screenshots from the demo data, on a database of their own.
 * @param {string} address
 */
async function takePictures(address) {
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch({
    executablePath: await ensureChromium(),
    chromiumSandbox: false,
    args: [
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--no-first-run',
    ],
  });
  try {
    await takePicturesWith(browser, address);
  } finally {
    await browser.close();
  }
}

/**
 * @param {import('@playwright/test').Browser} browser
 * @param {string} address
 */
async function takePicturesWith(browser, address) {
  /**
   * @param {import('@playwright/test').BrowserContextOptions} options
   * @param {(page: import('@playwright/test').Page) => Promise<void>} visit
   */
  const inWindow = async (options, visit) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options });
    const page = await context.newPage();
    await page.goto(address);
    await visit(page);
    await context.close();
  };
  /** @param {import('@playwright/test').Page} page @param {string} name */
  const picture = async (page, name) => {
    await page.evaluate(() => document.fonts.ready);
    await page.waitForTimeout(600);
    await page.screenshot({ path: join(folder, `${name}.png`) });
    say(`${name}.png`);
  };
  /** @param {import('@playwright/test').Page} page @param {RegExp} [title] */
  const enter = async (page, title) => {
    await page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
    if (title) await page.getByRole('link', { name: title }).click();
    await page
      .getByRole(title ? 'slider' : 'heading', { name: title ? /^Point on/ : 'Library' })
      .first()
      .waitFor();
    await page.mouse.move(2, 2);
  };

  await inWindow({}, (page) => picture(page, 'sign-in'));
  await inWindow({}, async (page) => {
    await enter(page);
    await picture(page, 'library');
  });
  await inWindow({}, async (page) => {
    await enter(page, /From secant to tangent/);
    await picture(page, 'build-day');
  });
  await inWindow({}, async (page) => {
    await enter(page, /millstream bed/);
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await picture(page, 'chooser');
  });
  await inWindow({}, async (page) => {
    await enter(page);
    await page.getByRole('link', { name: /Guess the rule/ }).click();
    await page.getByRole('region', { name: 'Table of f' }).first().waitFor();
    await picture(page, 'table');
  });
  await inWindow({}, async (page) => {
    await enter(page, /gauge behind the sluice/);
    await picture(page, 'build-data');
    await page.getByRole('button', { name: 'More for Given: L from data, smooth' }).click();
    await page.getByRole('menuitem', { name: 'Change the data …' }).click();
    await page.getByRole('region', { name: 'Preview' }).waitFor();
    await picture(page, 'data');
  });
  await inWindow({}, async (page) => {
    await enter(page);
    await page.getByRole('link', { name: /Crag Hollow/ }).click();
    for (const reveal of ['How steep?', 'Where smooth?'])
      await page.getByRole('switch', { name: reveal }).click();
    await page.getByRole('button', { name: 'Play w' }).click();
    await page.waitForTimeout(7200);
    await page.getByRole('button', { name: 'Stop w' }).click();
    await picture(page, 'motion');
    await page.getByRole('button', { name: 'More for the deck' }).click();
    await page.getByRole('menuitem', { name: 'What shows when …' }).click();
    await page.getByRole('heading', { name: 'What shows when' }).waitFor();
    await picture(page, 'reveals');
  });
  /** @param {RegExp} title @param {string[]} reveals @param {string} name */
  const revealed = (title, reveals, name) =>
    inWindow({}, async (page) => {
      await enter(page);
      await page.getByRole('link', { name: title }).click();
      for (const reveal of reveals) await page.getByRole('switch', { name: reveal }).click();
      await page.getByText('(proved)').first().waitFor();
      await page.mouse.move(2, 2);
      await picture(page, name);
    });
  await revealed(/warmest minute/, ['What was between the dots?', 'Which minute?', 'Why?'], 'where');
  await revealed(/from its bend/, ['Where is the slope least?', 'The path itself'], 'reading');
  await revealed(/Nearest point of the jetty/, ['Where is it shortest?'], 'nearest');
  await inWindow({}, async (page) => {
    await enter(page);
    await page.getByRole('link', { name: /sluice let through/ }).click();
    await page.getByRole('switch', { name: 'How much so far?' }).click();
    await page.getByRole('table', { name: 'All rectangles' }).getByRole('row').nth(4).click();
    await page.getByText('the area by').waitFor();
    await page.mouse.move(2, 2);
    await picture(page, 'areas');
    await page.getByRole('switch', { name: 'How exact is it?' }).click();
    await page.getByRole('img', { name: /Size of the error/ }).waitFor();
    await page.getByRole('heading', { name: 'Error against n' }).scrollIntoViewIfNeeded();
    await page.mouse.move(2, 2);
    await page.waitForTimeout(500);
    await picture(page, 'errors');
  });
  await inWindow({}, async (page) => {
    await enter(page);
    await page.getByRole('link', { name: /running total/ }).click();
    await page.getByRole('switch', { name: 'The total so far' }).click();
    await page.getByRole('switch', { name: 'From 0 to 2' }).click();
    await page.getByRole('switch', { name: 'Where does it bend?' }).click();
    await page.getByText('complete (proved)').first().waitFor();
    await page.mouse.move(2, 2);
    await picture(page, 'running-total');
  });
  await inWindow({ colorScheme: 'dark' }, async (page) => {
    await enter(page, /millstream bed/);
    await picture(page, 'build-night');
  });
  await inWindow(
    { viewport: { width: 390, height: 844 }, deviceScaleFactor: 2, hasTouch: true },
    async (page) => {
      await enter(page, /millstream bed/);
      await picture(page, 'build-phone');
    },
  );
  // What it changes is saved, so it comes last.
  await inWindow({}, async (page) => {
    await enter(page, /millstream bed/);
    await page.getByRole('button', { name: 'More for Tangent to h at x = a' }).click();
    await page.getByRole('menuitem', { name: 'Look …' }).click();
    await page.getByRole('group', { name: 'Look' }).scrollIntoViewIfNeeded();
    await page.getByRole('button', { name: 'Looks' }).click();
    await page.getByLabel('Key of the lines').selectOption('bottom left');
    await picture(page, 'looks');
  });
}

runMain(async () => {
  await ensurePackages();
  const { build } = await import('./setup/build.mjs');
  const { freePort, startPostgres } = await import('./setup/postgres.mjs');
  const { startServer } = await import('./setup/server.mjs');
  const { default: pg } = await import('pg');
  await build();
  const postgres = await startPostgres('test-postgres', { durable: false });
  const database = `pictures_${randomUUID().replaceAll('-', '')}`;
  const client = new pg.Client({ connectionString: postgres.url('postgres') });
  try {
    await client.connect();
    await client.query(`CREATE DATABASE ${database}`);
    const server = await startServer({
      port: await freePort(),
      databaseUrl: postgres.url(database),
      secret: randomBytes(32).toString('base64url'),
      demo: true,
      quiet: true,
    });
    await takePictures(server.address);
    server.stop();
    await server.ended;
    await client.query(`DROP DATABASE ${database} WITH (FORCE)`);
  } finally {
    await client.end();
    await postgres.stop();
  }
});
