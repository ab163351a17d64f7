import { expect, test, type Teacher } from './teacher.ts';

const headings = (teacher: Teacher) => teacher.working.getByRole('region').getByRole('heading', { level: 2 });

test('entries are put in another order by drag, by keyboard and by menu', async ({ page, teacher }) => {
  await teacher.begin('f(x) = x^2/4', 'Tangent', 'Derivative');
  const [given, tangent, slope] = ['Given', 'Tangent to f at x = a', 'Slope f′'] as const;
  await expect(headings(teacher)).toHaveText([given, tangent, slope]);

  await teacher.entry(slope).hover();
  const grip = page.getByRole('button', { name: `Move ${slope}` });
  const from = await grip.boundingBox();
  const to = await teacher.entry(given).boundingBox();
  await page.mouse.move((from?.x ?? 0) + 8, (from?.y ?? 0) + 8);
  await page.mouse.down();
  await page.mouse.move((from?.x ?? 0) + 8, (to?.y ?? 0) + 10, { steps: 12 });
  await page.mouse.up();
  await expect(headings(teacher)).toHaveText([slope, given, tangent]);

  await grip.focus();
  await page.keyboard.press('Space');
  await expect(grip).toHaveAttribute('aria-pressed', 'true');
  // It is told where it is as soon as the places are measured: an arrow pressed before finds none.
  await expect(page.getByText(`${slope} is at the place of ${slope}.`)).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText(`${slope} is at the place of ${given}.`)).toBeAttached();
  await page.keyboard.press('Space');
  await expect(headings(teacher)).toHaveText([given, slope, tangent]);

  await teacher.chooseFor(slope, 'Move down');
  await expect(headings(teacher)).toHaveText([given, tangent, slope]);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(headings(teacher)).toHaveText([given, slope, tangent]);
});

test('a heading folds what is under it in the working, and hides it on the graph', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2/4');
  await teacher.add('Heading');
  await teacher.working.getByLabel('Heading', { exact: true }).fill('Part (b)');
  await page.keyboard.press('Enter');
  await teacher.add('Tangent');
  await expect(headings(teacher)).toHaveText(['Given', 'Part (b)', 'Tangent to f at x = a']);

  await page.getByRole('button', { name: 'Fold Part (b)' }).click();
  await expect(headings(teacher)).toHaveText(['Given', 'Part (b)']);
  await expect(teacher.handle).toBeVisible();
  await teacher.chooseFor('Part (b)', 'Move up');
  await page.getByRole('button', { name: 'Unfold Part (b)' }).click();
  await expect(headings(teacher)).toHaveText(['Part (b)', 'Tangent to f at x = a', 'Given']);
  await page.getByRole('button', { name: 'Hide all of Part (b)' }).click();
  await expect(teacher.handle).toHaveCount(0);
  await expect(teacher.entry(/^Tangent/)).toContainText('hidden');
  await page.getByRole('button', { name: 'Show all of Part (b)' }).click();
  await expect(teacher.handle).toBeVisible();
});

test('an entry is duplicated under a free name, deleted, and had back at once', async ({ page, teacher }) => {
  await teacher.begin('f(x) = x^2/4', 'Tangent');
  await teacher.chooseFor('Given', 'Duplicate');
  await expect(
    teacher.working.getByRole('button', { name: 'Change the formula g(x) = x^2/4' }),
  ).toBeVisible();
  await expect(headings(teacher)).toHaveText(['Given', 'Given', 'Tangent to f at x = a']);

  await teacher.chooseFor('Given', 'Delete');
  const told = page.getByRole('status').filter({ hasText: 'Deleted: Given and 2 entries with it.' });
  await expect(told).toBeVisible();
  await expect(headings(teacher)).toHaveText(['Given']);
  await told.getByRole('button', { name: 'Undo' }).click();
  await expect(headings(teacher)).toHaveText(['Given', 'Given', 'Tangent to f at x = a']);
  await expect(told).toHaveCount(0);
});

test('a picture of the graphs goes to the clipboard', async ({ page, teacher, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await teacher.begin('f(x) = x^2/4', 'Tangent');
  await page.getByRole('button', { name: 'Copy a picture of the graphs' }).click();
  await expect(page.getByText('A picture of the graphs is on the clipboard.')).toBeVisible();
  const picture = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    const blob = await item?.getType('image/png');
    if (!blob) return null;
    const image = await createImageBitmap(blob);
    const canvas = new OffscreenCanvas(image.width, image.height);
    const context2d = canvas.getContext('2d');
    context2d?.drawImage(image, 0, 0);
    const data = context2d?.getImageData(0, 0, image.width, image.height).data ?? [];
    let blue = 0;
    for (let i = 0; i < data.length; i += 4)
      if (
        Math.abs((data[i] ?? 0) - 47) +
          Math.abs((data[i + 1] ?? 0) - 63) +
          Math.abs((data[i + 2] ?? 0) - 163) <
        12
      )
        blue++;
    return { width: image.width, height: image.height, blue };
  });
  const box = await page.getByRole('region', { name: 'Graphs' }).boundingBox();
  expect(picture?.width).toBe(2 * Math.round(box?.width ?? 0));
  // The curve of f in its indigo, at two pixels a pixel.
  expect(picture?.blue).toBeGreaterThan(1000);
});
