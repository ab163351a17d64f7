import { hostileDocuments } from '../../packages/demonstration/test/hostile.ts';
import { makeDemonstration } from './made.ts';
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
    const edits = Object.entries(document.entries).map(
      ([entry, value]) => ({ at: 'entries', id: entry, old: null, new: value }) as const,
    );
    const id = await makeDemonstration(page.request, address, [{ id: 'all', edits }]);
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
