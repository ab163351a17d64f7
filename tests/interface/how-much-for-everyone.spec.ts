import type { Locator } from '@playwright/test';
import { faultsOn } from './accessibility.ts';
import { boxOf, expect, test, type Teacher } from './teacher.ts';
import { touchOn } from './touch.ts';

/** Two functions with every study that asks how much. */
async function fillTheGraphs(teacher: Teacher): Promise<void> {
  await teacher.openNew();
  await teacher.state('f(x) = 4 - x^2');
  await teacher.state('g(x) = x');
  for (const study of [
    'Rectangle sum',
    'Definite integral',
    'Area between two curves',
    'Average value',
    'Running total',
  ])
    await teacher.add(study);
  await teacher
    .entry(/^Rectangles/)
    .getByRole('button', { name: 'Error against n' })
    .click();
  await expect(teacher.entry('Error against n').getByRole('img')).toBeVisible();
  await expect(teacher.entry(/^Area between/)).toContainText('lies over');
}

test('the studies that ask how much are free of accessibility faults that a checker can find', async ({
  teacher,
  page,
}) => {
  await fillTheGraphs(teacher);
  await teacher
    .entry(/^Rectangles/)
    .getByRole('row')
    .nth(2)
    .click();
  expect(await faultsOn(page)).toEqual([]);
  await teacher
    .entry(/^Rectangles/)
    .getByRole('button', { name: 'Edit the parts' })
    .click();
  expect(await faultsOn(page, 'aside')).toEqual([]);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('region', { name: 'How much?' })).toBeVisible();
  expect(await faultsOn(page, '[role="dialog"]')).toEqual([]);
});

test('by keyboard alone: a sum is asked for, its rule chosen, n moved, a rectangle looked at', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2');
  await page.getByRole('button', { name: 'Add', exact: true }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('riemann');
  await page.keyboard.press('Enter');
  const card = teacher.entry(/^Rectangles under f/);
  await expect(card).toBeVisible();
  await card.getByRole('radio', { name: 'left', exact: true }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(card.getByRole('radio', { name: 'middle', exact: true })).toBeChecked();
  await teacher.lane('n').getByRole('slider').focus();
  await page.keyboard.press('ArrowRight');
  await expect(card.getByText('total of 11')).toBeVisible();
  await card.getByRole('rowgroup').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(card.getByRole('row', { selected: true })).toHaveAttribute('aria-rowindex', '3');
});

test('no key is lost: two within one frame move an end, a partition point, a height and the chosen row twice', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2', 'Rectangle sum', 'Average value');
  await teacher.setValue('n', '4');
  // All events come before the browser can draw.
  const press = (place: Locator, key: string, times: number) =>
    place.evaluate(
      (element, [key, times]) => {
        for (let i = 0; i < times; i++)
          element.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      },
      [key, times] as const,
    );
  const card = teacher.entry(/^Rectangles under f/);
  await press(card.getByRole('rowgroup'), 'ArrowDown', 2);
  await expect(card.getByRole('row', { selected: true })).toHaveAttribute('aria-rowindex', '3');
  for (const name of [
    'Start of the interval of Rectangles under f',
    'Partition point 2 of Rectangles under f',
    'Height of the rectangle of Average value of f',
  ]) {
    const grip = page.getByRole('slider', { name });
    const movedBy = async (times: number) => {
      const place = async () => Number((await grip.getAttribute('aria-valuetext'))?.replace('−', '-'));
      const before = await place();
      await press(grip, 'ArrowRight', times);
      await expect.poll(place).not.toBe(before);
      return (await place()) - before;
    };
    // The first key takes a height to a round place; from there every key is one step.
    await movedBy(1);
    const one = await movedBy(1);
    expect(await movedBy(2)).toBeCloseTo(2 * one, 6);
  }
});

test.describe('on a phone, by touch', () => {
  test.use({ ownWindow: true, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('an end, a partition point and a height are dragged by a finger, a rectangle tapped; nothing sticks out', async ({
    page,
    teacher,
  }) => {
    await teacher.begin('f(x) = 5 - x^2/5', 'Rectangle sum');
    await teacher.setValue('n', '4');
    const sticksOut = () =>
      page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(await sticksOut()).toBe(0);
    const touch = await touchOn(page);
    const dragged = async (name: string, dx: number, dy: number) => {
      const grip = page.getByRole('slider', { name });
      await grip.scrollIntoViewIfNeeded();
      const box = await boxOf(grip);
      const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
      const before = await grip.getAttribute('aria-valuetext');
      await touch.drag(middle, { x: middle.x + dx, y: middle.y + dy });
      await expect(grip).not.toHaveAttribute('aria-valuetext', before ?? '');
    };
    await dragged('Start of the interval of Rectangles under f', 30, 0);
    await dragged('Partition point 2 of Rectangles under f', 20, 0);
    const at = await teacher.placeOnPage();
    const { x, y } = at(0.2, 1);
    await page.touchscreen.tap(x, y);
    await expect(teacher.entry(/^Rectangles/).getByRole('row', { selected: true })).toHaveCount(1);
    await teacher.add('Average value');
    await dragged('Height of the rectangle of Average value of f', 0, -40);
    expect(await sticksOut()).toBe(0);
  });
});

test('a million parts hold up no frame while they are added up', async ({ teacher }) => {
  await teacher.begin('f(x) = x^2 sin(x) + e^(-x) + cos(3x)', 'Rectangle sum');
  const card = teacher.entry(/^Rectangle/);
  await expect(card).toContainText('the area by');
  // Counted in the page: how many frames are drawn while the sum is still being worked out.
  const frames = card.evaluate(async (element) => {
    const isAdding = () => element.textContent.includes('is being worked out');
    for (let i = 0; i < 600 && !isAdding(); i++) await new Promise(requestAnimationFrame);
    let drawn = 0;
    for (; drawn < 600 && isAdding(); drawn++) await new Promise(requestAnimationFrame);
    return drawn;
  });
  await teacher.setValue('n', '1000000');
  expect(await frames).toBeGreaterThanOrEqual(3);
  await expect(card).toContainText('Of so many parts there is no table');
});

test.describe('the demonstrations that ship', () => {
  test('what the sluice let through: rectangles, how exact they are, and the total so far', async ({
    page,
    teacher,
  }) => {
    await teacher.openDemonstration(/sluice let through/);
    const sum = teacher.entry(/^Rectangles under Q/);
    await expect(sum).toContainText('≈ 4.471 m³');
    await expect(sum).toContainText('The left sum is below the area by 0.280 m³');
    await teacher.setValue('n', '20');
    await expect(sum).toContainText('below the area by 0.109 m³');
    await page.getByRole('switch', { name: 'How exact is it?' }).click();
    await expect(teacher.entry(/^Area under Q/)).toContainText('≈ 4.751 m³');
    await expect(teacher.entry('Error against n')).toContainText('left: order 1');
    await page.getByRole('switch', { name: 'How much so far?' }).click();
    await teacher.setValue('b', '8');
    await expect(teacher.entry(/^Running total V of Q/)).toContainText('≈ 4.751 m³');
  });

  test('the tank’s running total: part by part, and where it bends', async ({ page, teacher }) => {
    await teacher.openDemonstration(/running total/);
    const total = teacher.entry(/^Running total V of r/);
    await expect(total).toContainText('not shown just now');
    await page.getByRole('switch', { name: 'The total so far' }).click();
    await expect(total).not.toContainText('not shown just now');
    await expect(total).toBeInViewport();
    await expect(total).toContainText('= 20.00 L');
    await expect(
      page.getByText('at 11 minutes with 12.00 litres. After that it rises to 13.00 litres'),
    ).toBeAttached();
    await expect(total).toContainText('its rate r is 0 at a');
    for (const [part, heading, area] of [
      ['From 0 to 2', '[0, 2]', '= 4.00 L'],
      ['From 2 to 5', '[2, 5]', '= 12.00 L'],
      ['From 5 to 7', '[5, 7]', '= 4.00 L'],
      ['From 7 to 9', '[7, 9]', '= −4.00 L'],
      ['From 9 to 11', '[9, 11]', '= −4.00 L'],
      ['From 11 to 12', '[11, 12]', '= 1.00 L'],
    ] as const) {
      await page.getByRole('switch', { name: part }).click();
      await expect(teacher.entry(`Area under r on ${heading}`)).toContainText(area);
    }
    await page.getByRole('switch', { name: 'Where does it bend?' }).click();
    await expect(page.getByRole('button', { name: /^r′ negative: falling/ })).toBeVisible();
  });
});
