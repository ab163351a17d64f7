import type { Browser, Page } from '@playwright/test';

/**
 * A browser window in which one test after the other works: what the browser has compiled of the program stays, which
 * is more than half of what opening a demonstration costs. Nothing else stays: {@link clear}.
 */
export class SharedWindow {
  private page: Page | null = null;

  constructor(private readonly browser: Browser) {}

  async open(): Promise<Page> {
    return (this.page ??= await this.browser.newPage());
  }

  /** Makes the window as good as new, for the next test. */
  async clear(address: string): Promise<void> {
    const { page } = this;
    if (!page) return;
    const context = page.context();
    await Promise.all(context.pages().map((other) => (other === page ? undefined : other.close())));
    await page.unrouteAll({ behavior: 'ignoreErrors' });
    await context.unrouteAll({ behavior: 'ignoreErrors' });
    // The page itself goes to the empty one: where the browser is sent there it begins a process anew.
    await page.evaluate(() => location.replace('about:blank'));
    await page.waitForURL('about:blank');
    await page.evaluate(() => sessionStorage.clear());
    await context.clearCookies();
    const browser = await context.newCDPSession(page);
    await browser.send('Storage.clearDataForOrigin', { origin: address, storageTypes: 'all' });
    await browser.detach();
    await page.emulateMedia({ media: null, colorScheme: 'light', reducedMotion: null });
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.mouse.move(0, 0);
  }

  /** Closes it; the next test gets another. */
  async drop(): Promise<void> {
    const { page } = this;
    this.page = null;
    await page?.context().close();
  }
}
