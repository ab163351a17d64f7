import { faultsOn } from './accessibility.ts';
import { boxOf, expect, test, type Teacher } from './teacher.ts';
import { touchOn } from './touch.ts';

const studies = [
  'Key points',
  'Sign strip',
  'Where a condition holds',
  'Joins of the pieces',
  'Intersections, solutions',
  'Nearest point',
  'What joined dots hide',
  'Mean value theorem',
] as const;

/** A function with every study that asks where. */
async function fillTheGraphs(teacher: Teacher): Promise<void> {
  await teacher.begin('f(x) = x^3/3 - x', 'Read f from its derivative', ...studies);
  await teacher.chooseFor('Point of f nearest to P', 'Draw the distance as a function');
  await expect(teacher.entry(/^Key points/).first()).toContainText('proved');
}

test('the studies that ask where are free of accessibility faults that a checker can find', async ({
  teacher,
  page,
}) => {
  await fillTheGraphs(teacher);
  expect(await faultsOn(page)).toEqual([]);
  await page.getByRole('button', { name: /^f′ negative/ }).click();
  await expect(page.getByRole('dialog', { name: /^f′: falling/ })).toBeVisible();
  expect(await faultsOn(page, '[role="dialog"]')).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Where?' })).toBeVisible();
  expect(await faultsOn(page, '[role="dialog"]')).toEqual([]);
});

test('by keyboard alone: key points are asked for, their interval moved, a number opened, the window sent to one', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2 - 2');
  await page.getByRole('button', { name: 'Add', exact: true }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('key points');
  await page.keyboard.press('Enter');
  const card = teacher.entry(/^Key points of f/).first();
  await expect(card).toContainText('complete (proved)');
  const end = page.getByRole('slider', { name: 'End of the interval of Key points of f' });
  const before = await end.getAttribute('aria-valuenow');
  await end.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(end).not.toHaveAttribute('aria-valuenow', before ?? '');
  const table = card.getByRole('table');
  await table.getByRole('button').first().focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  const { from } = await teacher.limits();
  await page.getByRole('button', { name: /^Show zero at 1\.414/ }).focus();
  await page.keyboard.press('Enter');
  await teacher.untilSaved();
  await expect.poll(async () => (await teacher.limits()).from).not.toBe(from);
});

test.describe('on a phone, by touch', () => {
  test.use({ ownWindow: true, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('an interval is dragged by a finger, a sign tapped, the free point moved; nothing sticks out sideways', async ({
    page,
    teacher,
  }) => {
    await teacher.begin('f(x) = x^2 - 2', 'Key points', 'Sign strip', 'Nearest point');
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
    await dragged('Start of the interval of Key points of f', 40, 0);
    await dragged('Free point P', -50, 30);
    await page.getByRole('button', { name: /^f′ positive/ }).tap();
    await expect(page.getByRole('dialog', { name: /^f′: rising/ })).toBeInViewport();
    expect(await sticksOut()).toBe(0);
  });
});

test('a long search says what it is doing, holds up no frame, and comes to an answer or says that it was given up', async ({
  teacher,
}) => {
  await teacher.begin('f(x) = x sin(1/x) + tan(tan x)', 'Key points');
  const card = teacher.entry(/^Key points/).first();
  await expect(card).toContainText('Key points are being looked for, with the proof that none is missed …');
  // The page is drawn frame by frame while the search is still going on.
  const frames = await card.evaluate(async (element) => {
    let drawn = 0;
    for (; drawn < 20 && element.textContent.includes('being looked for'); drawn++)
      await new Promise(requestAnimationFrame);
    return drawn;
  });
  expect(frames).toBe(20);
  await expect(card).toContainText(/found by search|it was given up/, { timeout: 60_000 });
});

test.describe('the demonstrations that ship', () => {
  test('the warmest minute in the glasshouse hides between the dots of the logger, and is proved', async ({
    page,
    teacher,
  }) => {
    await teacher.openDemonstration(/warmest minute/);
    // Nothing of the spike is told before it is asked for: the joined dots are the first picture.
    await expect(teacher.entry(/^Given: L from data/)).toContainText('goes through 49 points');
    await expect(teacher.entry('Given').filter({ hasText: 'not shown just now' })).toHaveCount(1);
    await page.getByRole('switch', { name: 'What was between the dots?' }).click();
    await expect(teacher.entry(/^T as joined dots/)).toContainText('hidden: a maximum at t ≈ 4.350');
    await page.getByRole('switch', { name: 'Which minute?' }).click();
    await expect(page.getByText('The warmest minute was at 4:21 in the morning')).toBeVisible();
    const card = teacher.entry(/^Key points of T/).first();
    await expect(card).toContainText('complete (proved)');
    await expect(card.getByRole('row', { name: /^absolute maximum 4\.350 23\.494/ })).toBeVisible();
    await expect(card.getByRole('row', { name: /^absolute minimum 3\.000 6\.000/ })).toBeVisible();
  });

  test('the path is read from its bend', async ({ page, teacher }) => {
    await teacher.openDemonstration(/from its bend/);
    await page.getByRole('switch', { name: 'Where is the slope least?' }).click();
    await expect(teacher.entry('h read from h″').first()).toContainText(
      'h′ has a local minimum at x = 3π/2, because h″ changes from negative to positive there.',
    );
    await expect(page.getByRole('button', { name: 'h″ negative: bends down (concave down)' })).toHaveCount(2);
  });

  test('the gate, the rule and the bed keep their answers until they are asked for', async ({
    page,
    teacher,
  }) => {
    await teacher.openDemonstration(/swings to rest/);
    const fastest = teacher.entry(/^Key points of s′/);
    await expect(fastest).toContainText('not shown just now');
    await page.getByRole('switch', { name: 'Where is it fastest?' }).click();
    await expect(fastest.getByRole('row', { name: /^absolute minimum 0\.637 −6\.609/ })).toBeVisible();
    await teacher.openDemonstration(/Guess the rule/);
    await expect(teacher.entry('Slope f′')).toContainText('not shown just now');
    await page.getByRole('switch', { name: 'The rule' }).click();
    await expect(teacher.entry('Slope f′')).not.toContainText('not shown just now');
    await teacher.openDemonstration(/millstream bed/);
    await expect(teacher.entry(/^Where is h′ equal to 1/)).toContainText('not shown just now');
  });

  test('what a switch shows far down the working comes into sight', async ({ page, teacher }) => {
    await teacher.openDemonstration(/Crag Hollow/);
    await page.getByRole('button', { name: 'Restore the start' }).click();
    await expect(page.getByText(/^greatest so far/)).toHaveCount(0);
    const part = page.getByRole('heading', { name: 'How deep is the hollow?' });
    await expect(part).not.toBeInViewport();
    await page.getByRole('switch', { name: 'How deep?' }).click();
    await expect(part).toBeInViewport();
  });

  test('what a step reveals far down the working comes into sight, too', async ({ page, teacher }) => {
    await teacher.openDemonstration(/Crag Hollow/);
    await page.getByRole('button', { name: 'Restore the start' }).click();
    const part = page.getByRole('heading', { name: 'How deep is the hollow?' });
    await expect(part).not.toBeInViewport();
    await page.getByRole('button', { name: 'Step 4: How deep?' }).click();
    await expect(part).toBeInViewport();
  });

  test('the nearest point of the jetty is told from its distance', async ({ page, teacher }) => {
    await teacher.openDemonstration(/Nearest point of the jetty/);
    const card = teacher.entry('Point of s nearest to P');
    await expect(card).toContainText('not shown just now');
    await page.getByRole('switch', { name: 'Where is it shortest?' }).click();
    await expect(card).not.toContainText('not shown just now');
    await expect(card).toContainText('2√2 ≈ 2.828');
    await expect(card).toContainText('the nearest point is (2.000, 1.000)');
    await expect(teacher.entry(/^Key points of D/).first()).toContainText('(2, 2√2)');
  });
});
