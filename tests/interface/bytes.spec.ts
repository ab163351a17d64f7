import type { Page, Request } from '@playwright/test';
import { expect, test } from './teacher.ts';

test.use({ ownWindow: true });

/** What travels, in bytes as it travels: compressed, with its headers. */
class Traffic {
  private requests: Request[] = [];

  constructor(page: Page) {
    page.context().on('requestfinished', (request) => this.requests.push(request));
  }

  /** Forgets what has travelled so far, and has the browser forget it too. */
  async beginAnew(page: Page): Promise<void> {
    await page.goto('about:blank');
    const browser = await page.context().newCDPSession(page);
    await browser.send('Network.clearBrowserCache');
    await browser.detach();
    this.requests = [];
  }

  async bytes(of: (request: Request) => boolean = () => true): Promise<number> {
    const sizes = await Promise.all(this.requests.filter(of).map((request) => request.sizes()));
    return sizes.reduce((sum, size) => sum + size.responseBodySize + size.responseHeadersSize, 0);
  }

  /** The texts of the scripts that have travelled. */
  async scripts(): Promise<string> {
    const texts = this.requests.filter(isScript).map(async (request) => (await request.response())?.text());
    return (await Promise.all(texts)).join('\n');
  }
}

const isScript = (request: Request): boolean => request.url().endsWith('.js');
const isStyle = (request: Request): boolean => request.url().endsWith('.css');

test('signing in costs little, and brings nothing of documents, painter or mathematics', async ({
  page,
  server,
  problems: _problems,
}) => {
  const traffic = new Traffic(page);
  await page.goto(server.address);
  await expect(page.getByRole('button', { name: 'Sign in as the demo teacher' })).toBeVisible();
  await page.waitForLoadState('networkidle');
  expect(await traffic.bytes((request) => isScript(request) || isStyle(request))).toBeLessThan(130_000);
  const scripts = await traffic.scripts();
  expect(scripts).toContain('Please give an e-mail address');
  // The document's format, an element of its painter, a sentence of the reader.
  for (const sign of ['yperkine-demonstration', 'clip-path=', 'is not closed'])
    expect(scripts).not.toContain(sign);
});

test('a library page of twenty costs little, pictures included, and they come as they are seen', async ({
  page,
  server,
  problems: _problems,
}) => {
  await page.goto(server.address);
  await page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
  const cards = page.getByRole('main').getByRole('listitem');
  await expect(cards.first()).toBeVisible();
  const links = await page.getByRole('main').getByRole('link').all();
  const ids = await Promise.all(
    links.map(async (link) => (await link.getAttribute('href'))?.split('/').at(-1)),
  );
  const library = `${server.address}/api/demonstrations`;
  const copies: string[] = [];
  try {
    // Copies of all that there is, until a page is full and another begins.
    for (const copyOf of [...ids, ...ids].slice(0, 21 - ids.length)) {
      const made = await page.request.post(library, { data: { copyOf } });
      copies.push(((await made.json()) as { id: string }).id);
    }
    const traffic = new Traffic(page);
    await traffic.beginAnew(page);
    await page.goto(server.address);
    await expect(cards).toHaveCount(20);
    await page.waitForLoadState('networkidle');
    const isPicture = (request: Request): boolean => request.url().includes('picture.svg');
    const atFirst = await traffic.bytes(isPicture);
    for (const card of await cards.all()) {
      await card.scrollIntoViewIfNeeded();
      await expect(card.locator('img')).toHaveJSProperty('complete', true);
    }
    await page.waitForLoadState('networkidle');
    expect(await traffic.bytes(isPicture)).toBeGreaterThan(atFirst);
    // The next page has come as well, since its place is in sight.
    await expect(cards).toHaveCount(21);
    expect(await traffic.bytes()).toBeLessThan(250_000);
  } finally {
    for (const id of copies) await page.request.delete(`${library}/${id}`);
  }
});

test('the build view opens in little, with what proves things', async ({
  page,
  server,
  problems: _problems,
}) => {
  await page.goto(server.address);
  await page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
  const address = await page.getByRole('link', { name: /millstream bed/ }).getAttribute('href');
  const traffic = new Traffic(page);
  await traffic.beginAnew(page);
  const worker = page.waitForEvent('worker');
  await page.goto(server.address + String(address));
  await expect(page.getByRole('textbox', { name: 'Next given' })).toBeVisible();
  await worker;
  await page.waitForLoadState('networkidle');
  expect(await traffic.bytes((request) => request.url().includes('analysis.worker'))).toBeGreaterThan(0);
  expect(await traffic.bytes()).toBeLessThan(550_000);
  // One format of each font.
  const fonts = await traffic.bytes((request) => /\.(woff|ttf|otf|eot)$/.test(request.url()));
  expect(fonts).toBe(0);
});
