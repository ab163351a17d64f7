import { makeEntry } from '@yperkine/demonstration';
import { hostileDocuments } from '../../packages/demonstration/test/hostile.ts';
import { makeDemonstration } from './made.ts';
import { expect, test } from './teacher.ts';

test.use({ ownWindow: true });

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

test('numbers and derivatives that are long to find come from beside the page, one too long to be read says so', async ({
  teacher,
  page,
}) => {
  const { address } = teacher.server;
  const given = (order: number, text: string) => makeEntry('function', { order, text, tier: 'tier-f' });
  const slope = (order: number, degree: 3 | 4) =>
    makeEntry('derivative', { order, of: 'f', degree, tier: 'tier-f' });
  const entries = {
    s: makeEntry('value', { order: 1, text: 's = sum k from 1 to 300000 of 1/k^2' }),
    f: given(2, 'f(x) = (x^2 + 1)^5/(x - 7)^3 sin(x)^4 e^(cos x) sqrt(x^2 + 1)'),
    third: slope(3, 3),
    fourth: slope(4, 4),
  };
  const edits = Object.entries(entries).map(
    ([id, entry]) => ({ at: 'entries', id, old: null, new: entry }) as const,
  );
  const id = await makeDemonstration(page.request, address, [{ id: 'all', edits }]);
  await page.goto(`${address}/demonstrations/${id}`);
  // π²/6 (Euler) without its tail of 1/n.
  await expect(teacher.entry('Value of s')).toContainText('1.64', { timeout: 60_000 });
  await expect(teacher.entry('Slope f‴').locator('.katex').first()).toBeVisible({ timeout: 60_000 });
  await expect(teacher.entry('Slope f⁽⁴⁾')).toContainText('too long to be shown', { timeout: 60_000 });
});
