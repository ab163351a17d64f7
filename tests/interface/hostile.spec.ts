import { currentVersion } from '@yperkine/demonstration';
import { hostileDocuments } from '../../packages/demonstration/test/hostile.ts';
import { expect, test } from './teacher.ts';

/** Documents that nobody would make by hand (the others are opened without a browser): each opens, shows what can be shown, and takes what is typed. */
const opened = [
  'functions that mention the one before twice',
  'thirty roots in one another',
  'names that every object inherits',
  'a note nested 700 deep',
  'a sum of a thousand terms and its slope',
];
for (const [name, document] of Object.entries(hostileDocuments).filter(([name]) => opened.includes(name))) {
  test(`${name}: the view opens, and work goes on`, async ({ teacher, page }) => {
    const { address } = teacher.server;
    const made = await page.request.post(`${address}/api/demonstrations`, { data: {} });
    const { id } = (await made.json()) as { id: string };
    const edits = Object.entries(document.entries).map(([entry, value]) => ({
      at: 'entries',
      id: entry,
      old: null,
      new: value,
    }));
    const saved = await page.request.post(`${address}/api/demonstrations/${id}/changes`, {
      data: { base: 0, format: currentVersion, changes: [{ id: 'all', edits }] },
    });
    expect(saved.status()).toBe(200);
    await page.goto(`${address}/demonstrations/${id}`);
    // However slow the machine is: what counts is that it opens.
    await expect(teacher.nextGiven).toBeVisible({ timeout: 60_000 });
    await teacher.setTitle('Still here');
    await expect(teacher.savedState).toHaveText('saved', { timeout: 60_000 });
    expect((await teacher.stored()).title).toBe('Still here');
    // The library paints it, or has a placeholder for it, and answers.
    await teacher.openLibrary();
    await expect(page.getByRole('link', { name: /Still here/ })).toBeVisible();
  });
}
