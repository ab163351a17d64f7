import { expect, test } from './teacher.ts';

/** Signing in and the library: driven through the real interface. */

test('1. the demo teacher signs in with one click', async ({ page, server }) => {
  await page.goto(server.address);
  await page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
  await expect(page.getByRole('link', { name: /How steep is the millstream bed/ })).toBeVisible();
});

test('1. another teacher makes an account, signs out and in again; mistakes get a sentence at their field', async ({
  page,
  server,
}) => {
  await page.goto(server.address);
  await page.getByLabel('E-mail').fill('typed@tarn-valley.example');
  await page.getByRole('button', { name: 'Make an account' }).click();
  await expect(page.getByLabel('E-mail')).toHaveValue('typed@tarn-valley.example');
  await page.getByLabel('Name').fill('Keeper of the sluice');
  await page.getByLabel('E-mail').fill('keeper@tarn-valley.example');
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('alert')).toHaveText('A password needs at least 10 characters.');
  await expect(page.getByLabel('Name')).toHaveValue('Keeper of the sluice');
  await page.getByLabel('Password').fill('long enough now');
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('heading', { name: 'Library' })).toBeVisible();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByLabel('E-mail').fill('keeper@tarn-valley.example');
  await page.getByLabel('Password').fill('not that one');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('alert')).toHaveText(
    'This e-mail address and password do not belong together.',
  );
  await page.getByLabel('Password').fill('long enough now');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByText('Keeper of the sluice')).toBeVisible();
});

test('2. the library shows title, picture and when it was changed; New opens an empty one', async ({
  teacher,
  page,
}) => {
  await teacher.openNewFromLibrary();
  await expect(teacher.working).toContainText('Begin with a function');
  await page.getByRole('textbox', { name: 'Title' }).fill('The jetty at noon');
  await teacher.state('f(x) = x^2 - 1');
  await teacher.untilSaved();
  await page.getByRole('link', { name: 'Library' }).click();
  const card = page.getByRole('listitem').filter({ hasText: 'The jetty at noon' });
  await expect(card).toContainText(/changed .* ago/);
  const picture = card.locator('img');
  expect(
    await picture.evaluate((image: HTMLImageElement) => image.decode().then(() => image.naturalWidth)),
  ).toBe(320);
  await page.getByRole('button', { name: 'More for The jetty at noon' }).click();
  await page.getByRole('menuitem', { name: 'Delete …' }).click();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(card).toHaveCount(0);
});
