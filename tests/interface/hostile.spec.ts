import { currentVersion } from '@yperkine/demonstration';
import { hostileDocuments } from '../../packages/demonstration/test/hostile.ts';
import { expect, test } from './teacher.ts';

/** Documents that nobody would make by hand: each opens, shows what can be shown, and takes what is typed. */
for (const [name, document] of Object.entries(hostileDocuments)) {
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
    await expect(teacher.nextGiven).toBeVisible();
    await teacher.setTitle('Still here');
    await teacher.untilSaved();
    expect((await teacher.stored()).title).toBe('Still here');
    // The library paints it, or has a placeholder for it, and answers.
    await teacher.openLibrary();
    await expect(page.getByRole('link', { name: /Still here/ })).toBeVisible();
  });
}
