import { expect, test } from './teacher.ts';

/** What the mathematics understands, typed into the real interface. */

test('a function in pieces, with a domain, and pasted as LaTeX is stated like any other', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.nextGiven.click();
  await page.keyboard.type('f(x) = x^2 if x < 1; 3 - x otherwise');
  await expect(page.getByTestId('preview').locator('math')).toContainText('otherwise');
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Given')).toContainText('otherwise');
  await teacher.show('Tangent');
  await teacher.setValue('a', '0.5');
  await expect(teacher.entry(/Tangent/)).toContainText('0.25');
  await teacher.setValue('a', '1');
  await expect(teacher.entry(/Tangent/)).toContainText(
    'f has no single slope at x = 1: from the right it is −1, from the left there is none.',
  );

  await teacher.state('g(x) = x(12-x)/5 for 0 ≤ x ≤ 12');
  await expect(teacher.entry('Given').nth(1)).toContainText('≤');
  await teacher.state('h(x) = \\frac{x^{2}-1}{\\sqrt{x^{2}+1}}');
  await expect(teacher.entry('Given').nth(2).locator('math')).toContainText('h');
  await teacher.untilSaved();
});

test('a wrong formula says what is wrong at its place and is mended with one click', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.state('f(x) = 3 sin(x');
  await expect(page.getByRole('alert')).toContainText('This bracket is never closed.');
  await page.getByRole('button', { name: 'Use (x)' }).click();
  await teacher.nextGiven.press('Enter');
  await expect(teacher.entry('Given')).toContainText('sin');

  await teacher.state('g(x) = sin^-1 x');
  await expect(page.getByRole('alert')).toContainText('can be read in two ways');
  await page.getByRole('button', { name: 'Use arcsin' }).click();
  await teacher.nextGiven.press('Enter');
  await expect(teacher.entry('Given').nth(1)).toContainText('arcsin');

  await teacher.state('h(x) = x + 1)');
  await page.getByRole('button', { name: 'Take it away' }).click();
  await teacher.nextGiven.press('Enter');
  await expect(teacher.entry('Given').nth(2)).toContainText('x+1');
});

test('the palette puts notation in at the cursor, for those who cannot type it', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  const palette = page.getByRole('toolbar', { name: 'Notation' });
  await teacher.nextGiven.click();
  await page.keyboard.type('f(x) = ');
  await palette.getByRole('button', { name: 'Square root' }).click();
  await page.keyboard.type('x + 1');
  await expect(teacher.nextGiven).toHaveText('f(x) = √(x + 1)');
  await page.keyboard.press('End');
  await palette.getByRole('button', { name: 'Power' }).click();
  await page.keyboard.type('3');
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Given')).toContainText('x');
  await teacher.state("f'(3)");
  // By hand: f = (x + 1)^(3/2), f′(3) = 3/2·√4 = 3.
  await expect(teacher.entry('Value')).toContainText('3.000');
  await page.getByRole('textbox', { name: 'Title' }).click();
  await expect(palette).toHaveCount(0);
  // A press beside the field takes the palette away only when it is over: what is pressed stays where it is.
  await teacher.nextGiven.click();
  await expect(palette).toBeVisible();
  const add = page.getByRole('button', { name: 'Add', exact: true });
  const before = await add.boundingBox();
  await add.hover();
  await page.mouse.down();
  await page.waitForTimeout(150);
  expect(await add.boundingBox()).toEqual(before);
  await page.mouse.up();
  await expect(page.getByRole('dialog')).toContainText('What do you want to show?');
});

test('what stands on a blackboard is read, set and worked out', async ({ teacher, page }) => {
  await teacher.openNew();
  await teacher.nextGiven.click();
  await page.keyboard.type('f: x ↦ eˣ, x ≥ 0');
  await expect(page.getByTestId('preview').locator('math')).toContainText('≥');
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Given')).toContainText('f');
  for (const [typed, value] of [
    ['∑_{k=1}^3 2^10', '3072.000'],
    ['lim_{x→0} sin(x)/x', '1.000'],
    ['∏_{k=1}^4 k', '24.000'],
    ['3⅓', '10/3'],
  ] as const) {
    const before = await teacher.entry('Value').count();
    await teacher.state(typed);
    await expect(teacher.entry('Value').nth(before)).toContainText(value);
  }
  await teacher.state('1 000');
  await expect(page.getByRole('alert')).toContainText('Write a long number without spaces: 1000.');
  await page.getByRole('button', { name: 'Use 1000' }).click();
  await expect(teacher.nextGiven).toHaveText('1000');
});

test('angles are in degrees for a whole demonstration that says so', async ({ teacher, page }) => {
  await teacher.openNew();
  await teacher.state('sin 30');
  await expect(teacher.entry('Value')).toContainText('−0.988');
  await page.getByRole('button', { name: 'Looks' }).click();
  await page.getByLabel('Angles').selectOption('degrees: sin(90°) = 1');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Angles are in degrees.')).toBeVisible();
  await expect(teacher.entry('Value')).toContainText('0.500');
  await expect(teacher.entry('Value').locator('math')).toContainText('∘');
  await teacher.untilSaved();
  await page.reload();
  await expect(teacher.entry('Value')).toContainText('0.500');
});
