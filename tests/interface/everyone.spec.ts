import { faultsOn } from './accessibility.ts';
import { boxOf, expect, test } from './teacher.ts';
import { touchOn } from './touch.ts';

test('every screen is free of accessibility faults that a checker can find', async ({
  teacher,
  page,
  server,
}) => {
  const faults = (within?: string) => faultsOn(page, within);
  // What opens over a screen that was looked at: menus and settings.
  const layer = '#headlessui-portal-root';
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.show('Secant');
  await teacher.show('Lens');
  await teacher.show('Where is the slope k?');
  await teacher.state("f'(3)");
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Normal' })).toBeVisible();
  expect(await faults('[role="dialog"]')).toEqual([]);
  await page.keyboard.press('Escape');
  await teacher.state('q(x) = 2 +');
  expect(await faults()).toEqual([]);
  await page.getByRole('button', { name: 'Axes' }).click();
  expect(await faults(layer)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Settings of a' }).click();
  expect(await faults(layer)).toEqual([]);
  await page.keyboard.press('Escape');
  await teacher.nextGiven.fill('');
  await teacher.add('From data');
  await expect(page.getByRole('button', { name: 'Choose a file' })).toBeVisible();
  expect(await faults('[role="dialog"]')).toEqual([]);
  await page.getByRole('textbox', { name: /Or paste rows/ }).fill('t,level\n0,1\n1,n/a\n2,3');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByRole('region', { name: 'Preview' })).toContainText('Row 3 is left out');
  expect(await faults('[role="dialog"]')).toEqual([]);
  await page.getByRole('button', { name: 'Put it in' }).click();
  await teacher.add('Numerical derivative');
  await teacher.add('Where do they agree?');
  await teacher.add('Through points');
  await teacher.add('In pieces');
  await page.getByRole('textbox', { name: 'Where piece 1 holds' }).fill('x <');
  expect(await faults('aside')).toEqual([]);
  await page
    .getByRole('slider', { name: /goes through/ })
    .first()
    .click();
  expect(await faults()).toEqual([]);
  await page.keyboard.press('Escape');
  await teacher.nextGiven.click();
  await page.keyboard.type('s(x) = si');
  await expect(page.getByRole('listbox')).toBeVisible();
  expect(await faults()).toEqual([]);
  await page.keyboard.press('Escape');
  await page.goto(server.address);
  await expect(page.getByRole('listitem')).toHaveCount(1);
  expect(await faults()).toEqual([]);
  await page.getByRole('button', { name: /^More for/ }).click();
  expect(await faults(layer)).toEqual([]);
  await page.getByRole('menuitem', { name: 'Delete …' }).click();
  expect(await faults('[role="dialog"]')).toEqual([]);
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('button', { name: 'Make an account' })).toBeVisible();
  expect(await faults()).toEqual([]);
  await page.getByRole('button', { name: 'Make an account' }).click();
  await page.getByRole('button', { name: 'Make the account' }).click();
  expect(await faults()).toEqual([]);
});

test('colours follow the system until they are chosen, and then stay', async ({ teacher, page }) => {
  const root = page.locator('html');
  await page.emulateMedia({ colorScheme: 'light' });
  await teacher.openNew();
  await expect(root).toHaveAttribute('data-theme', 'day');
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(root).toHaveAttribute('data-theme', 'night');
  await page.getByRole('button', { name: 'Paper and ink' }).click();
  await expect(root).toHaveAttribute('data-theme', 'day');
  await page.reload();
  await expect(root).toHaveAttribute('data-theme', 'day');
});

test('by keyboard alone: a function, a tangent, its place, motion', async ({ teacher, page }) => {
  await teacher.openNew();
  await page.keyboard.type('f(x) = x^2');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'More for Given' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  // The chooser is open; its search field has the focus, and Enter takes the best match.
  await page.keyboard.type('touches');
  await page.keyboard.press('Enter');
  await expect(teacher.entry(/Tangent to f/)).toBeVisible();
  await teacher.handle.focus();
  await page.keyboard.press('Home');
  await expect(teacher.handle).toHaveAttribute(
    'aria-valuenow',
    String(await teacher.handle.getAttribute('aria-valuemin')),
  );
  await teacher.graph.focus();
  await teacher.untilSaved();
  const before = await teacher.limits();
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await teacher.limits()).from).toBeGreaterThan(before.from);
  const panned = await teacher.limits();
  await page.keyboard.press('+');
  await expect
    .poll(async () => {
      const { from, to } = await teacher.limits();
      return to - from;
    })
    .toBeLessThan(panned.to - panned.from);
});

test('bad input of every kind gets a sentence and loses no keystroke', async ({ teacher, page }) => {
  await teacher.openNew();
  const inputs = [
    ['f(x) = 2 3', 'Two numbers stand side by side (2 3): put a sign between them.'],
    ['f(x) = sin^-1 x', 'sin^-1 can be read in two ways'],
    ['f(x) = (x + 1', 'This bracket is never closed.'],
    ['sin(x) = 2', '“sin” already has a meaning; please choose another name.'],
    ['f(x) =', 'Something is missing after the equals sign.'],
    ['f(x) = x §', '“§” has no meaning in a formula.'],
    ['b = x', '“x” is not known here.'],
  ] as const;
  for (const [typed, sentence] of inputs) {
    await teacher.nextGiven.click();
    await page.keyboard.press('Control+A');
    await page.keyboard.type(typed);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert').first()).toContainText(sentence);
    await expect(teacher.nextGiven).toHaveText(typed);
  }
  await page.keyboard.press('Control+A');
  await page.keyboard.insertText(`f(x) = ${'('.repeat(12_000)}`);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').first()).toContainText('longer than 10,000 characters');
  await page.keyboard.press('Control+A');
  await page.keyboard.type('k x^2');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Make k a slider' }).click();
  await expect(teacher.lane('k')).toBeVisible();
  await teacher.nextGiven.click();
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Given')).toContainText('f(x)');
  await expect(teacher.nextGiven).toHaveText(/^g\(x\) = … +or +b = 2$/);
  await teacher.state('g(x) = x for 2 < x < 1');
  await expect(teacher.entry('Given').nth(1)).toContainText('g has no value anywhere: its domain is empty.');
  await teacher.state('f(2)');
  await expect(teacher.entry('Value')).toContainText('= 4.000');
});

test.describe('on a phone, by touch', () => {
  test.use({ ownWindow: true, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('a tap beside the curve offers a tangent; the point follows a finger; two fingers zoom', async ({
    teacher,
    page,
  }) => {
    await teacher.openNew();
    await teacher.state('f(x) = 0.2x + 0.2');
    const pixel = (await teacher.placeOnPage())(1, 0.4);
    await page.touchscreen.tap(pixel.x, pixel.y - 22);
    await page.getByRole('button', { name: 'Tangent', exact: true }).tap();
    await expect(teacher.handle).toHaveAttribute('aria-valuetext', /^1,/);

    const touch = await touchOn(page);
    await touch.drag(pixel, { x: pixel.x + 60, y: pixel.y });
    await expect(teacher.handle).not.toHaveAttribute('aria-valuetext', /^1,/);

    await teacher.untilSaved();
    const before = await teacher.limits();
    const box = await boxOf(teacher.graph);
    const middle = { x: box.x + box.width / 2, y: box.y + 100 };
    const fingers = (apart: number) => [
      { x: middle.x - apart, y: middle.y },
      { x: middle.x + apart, y: middle.y },
    ];
    await touch.send('touchStart', fingers(30));
    for (let apart = 40; apart <= 90; apart += 10) await touch.send('touchMove', fingers(apart));
    await touch.send('touchEnd', []);
    await expect
      .poll(async () => {
        const { from, to } = await teacher.limits();
        return (to - from) / (before.to - before.from);
      })
      .toBeLessThan(0.5);
  });

  test('the second point of a secant and a point that a function goes through follow a finger', async ({
    teacher,
    page,
  }) => {
    await teacher.begin('f(x) through (0, 0), (4, 4)', 'Secant');
    await teacher.setValue('a', '1');
    await teacher.setValue('h', '2');
    const centre = async (name: RegExp) => {
      const box = await boxOf(page.getByRole('slider', { name }));
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    };
    await teacher.graph.scrollIntoViewIfNeeded();
    const touch = await touchOn(page);
    const second = await centre(/at x = h$/);
    await touch.drag(second, { x: second.x - 40, y: second.y });
    const h = page.getByRole('textbox', { name: 'Value of h' });
    await expect.poll(async () => Number(await h.inputValue())).toBeLessThan(1.9);
    await expect(page.getByRole('textbox', { name: 'Value of a' })).toHaveValue('1');

    const last = await centre(/^Point 2 that f goes through/);
    await touch.drag(last, { x: last.x, y: last.y + 60 });
    await expect
      .poll(() =>
        teacher
          .entry(/Given: f through points/)
          .getByRole('textbox', { name: 'Points' })
          .inputValue(),
      )
      .not.toBe('(0, 0), (4, 4)');
  });

  test('the notation for the formula field opens where it can be seen and tapped', async ({
    teacher,
    page,
  }) => {
    await teacher.begin('f(x) = x^2', 'Tangent', 'Secant');
    await teacher.nextGiven.tap();
    const notation = page.getByRole('toolbar', { name: 'Notation' });
    await expect(notation).toBeInViewport({ ratio: 1 });
    await notation.getByRole('button', { name: 'Square root' }).tap();
    await expect(teacher.nextGiven).toHaveText('√()');
    await expect(notation).toBeInViewport({ ratio: 1 });
  });

  test('the table of a secant fits beside its heading, without scrolling sideways', async ({ teacher }) => {
    await teacher.begin('L(t) = 2 + 7/5 sin(0.7t) + 0.15t', 'Secant');
    await teacher.setValue('a', '3.4');
    const table = teacher.entry(/Secant of L/).getByRole('table');
    await expect(table).toBeVisible();
    expect(
      await table.evaluate(({ parentElement: box }) => box && box.scrollWidth - box.clientWidth),
    ).toBeLessThanOrEqual(0);
  });

  test('data, pieces and a menu of a point, all with a finger', async ({ teacher, page }) => {
    await teacher.openNew();
    const tap = (name: string) => page.getByRole('button', { name, exact: true }).tap();
    await tap('Add');
    await tap('From data');
    await page.getByRole('textbox', { name: /Or paste rows/ }).fill('t,level\n0,1\n1,2\n2,5');
    await tap('Go on');
    const sticksOut = () =>
      page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(await sticksOut()).toBe(0);
    await tap('Put it in');
    await expect(teacher.entry('Given: f from data')).toBeVisible();
    await tap('Add');
    await tap('In pieces');
    await page.getByRole('textbox', { name: 'Where piece 1 holds' }).fill('t < 1.5');
    await tap('A further piece');
    await expect(page.getByRole('textbox', { name: 'Formula' })).toContainText('if t < 0');
    expect(await sticksOut()).toBe(0);
    await tap('Add');
    await tap('Through points');
    const points = page.getByRole('slider', { name: /that h goes through/ });
    await points.first().tap();
    await page.getByRole('button', { name: 'Remove this point' }).tap();
    await expect(points).toHaveCount(3);
  });

  test('tiers on top, the deck under them, the working below; nothing sticks out sideways', async ({
    teacher,
    page,
  }) => {
    await teacher.openNew();
    await teacher.buildTangent();
    const top = async (name: RegExp | string, role: 'region' | 'complementary') =>
      ((await page.getByRole(role, { name }).boundingBox()) ?? { y: NaN }).y;
    const tops = [
      await top('Graphs', 'region'),
      await top('Deck', 'region'),
      await top('Working', 'complementary'),
    ];
    expect(tops).toEqual([...tops].sort((a, b) => a - b));
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
    ).toBeLessThanOrEqual(0);
  });
});
