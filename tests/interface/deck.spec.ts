import { expect, test } from './teacher.ts';

test('play all sets every lane in motion; a lane stops alone, the rest stop together', async ({
  page,
  teacher,
}) => {
  await teacher.openNew();
  await teacher.state('f(x) = b x^2');
  await expect(page.getByRole('alert')).toContainText('“b” is not known here.');
  await page.getByRole('button', { name: 'Make b a slider' }).click();
  await teacher.nextGiven.press('Enter');
  await teacher.add('Tangent');
  const valueOf = (name: string) => page.getByRole('textbox', { name: `Value of ${name}` });
  const [a, b] = [await valueOf('a').inputValue(), await valueOf('b').inputValue()];
  await page.getByRole('button', { name: 'Play all' }).click();
  await expect(valueOf('a')).not.toHaveValue(a);
  await expect(valueOf('b')).not.toHaveValue(b);
  await page.getByRole('button', { name: 'Stop b' }).click();
  const stopped = await valueOf('b').inputValue();
  const moving = await valueOf('a').inputValue();
  await expect(valueOf('a')).not.toHaveValue(moving);
  await expect(valueOf('b')).toHaveValue(stopped);
  await page.getByRole('button', { name: 'Stop all' }).click();
  await expect(page.getByRole('button', { name: 'Play a', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play all' })).toBeVisible();
});
