import { expect, test, type Teacher } from './teacher.ts';
import type { Locator, Page } from '@playwright/test';

/** The rows of a table as the texts of their cells. */
const rowsOf = (table: Locator): Promise<string[][]> =>
  table
    .locator('tbody tr')
    .evaluateAll((rows) =>
      rows.map((row) => [...row.querySelectorAll('td')].map((cell) => cell.textContent.trim())),
    );

const fill = async (field: Locator, text: string): Promise<void> => {
  await field.fill(text);
  await field.press('Enter');
};

const box = (card: Locator, name: string): Locator => card.getByRole('textbox', { name, exact: true });
const pick = (card: Locator, name: string): Locator => card.getByRole('combobox', { name, exact: true });

/** Takes hold of something and moves it by some pixels. */
async function dragBy(page: Page, grip: Locator, dx: number, dy: number): Promise<void> {
  const box = await grip.boundingBox();
  if (!box) throw new Error('nothing to take hold of');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 5; i++) await page.mouse.move(x + (dx * i) / 5, y + (dy * i) / 5);
  await page.mouse.up();
}

const keyPointsCard = (teacher: Teacher) => teacher.entry(/^Key points of/).first();

test('key points on an interval: every kind with its exact form, proved complete, shown one kind at a time', async ({
  teacher,
}) => {
  await teacher.begin('f(x) = x^3/3 - x for -2 <= x <= 3', 'Key points');
  const card = keyPointsCard(teacher);
  await expect(card).toContainText('Key points of f on [−2, 3]');
  await expect(card).toContainText('complete (proved)');
  await expect(card).toContainText('these are all of them (proved).');
  const table = card.getByRole('table', { name: 'Key points of f' });
  expect((await rowsOf(table)).map((cells) => cells.slice(0, 4))).toEqual([
    ['end point, absolute minimum', '−2.000', '−0.667', '(−2, −2/3)'],
    ['zero', '−1.732', '0.000', '(−√3, 0)'],
    ['local maximum', '−1.000', '0.667', '(−1, 2/3)'],
    ['zero', '0.000', '0.000', '(0, 0)'],
    ['inflection point', '0.000', '0.000', '(0, 0)'],
    ['absolute minimum', '1.000', '−0.667', '(1, −2/3)'],
    ['zero', '1.732', '0.000', '(√3, 0)'],
    ['end point, absolute maximum', '3.000', '6.000', '(3, 6)'],
  ]);

  for (const kind of ['End points', 'Zeros', 'Minima', 'Inflection points', 'Corners and breaks'])
    await card.getByRole('checkbox', { name: kind }).uncheck();
  await expect(table.locator('tbody tr')).toHaveCount(1);
  await expect(table).toContainText('local maximum');
  await card.getByRole('checkbox', { name: 'Maxima' }).uncheck();
  await expect(card).toContainText('Nothing of the kinds that are chosen.');
  await card.getByRole('checkbox', { name: 'Zeros' }).check();
  await expect(table.locator('tbody tr')).toHaveCount(3);
});

test('the interval is typed, as formulas too, dragged on the axis and moved by keys; one undo takes back a drag', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = sin x', 'Key points');
  const card = keyPointsCard(teacher);
  await fill(box(card, 'From'), '0');
  await fill(box(card, 'To'), '2π');
  await expect(card).toContainText('Key points of f on [0, 2π]');
  const table = card.getByRole('table');
  const exact = async () => (await rowsOf(table)).map((cells) => [cells[0], cells[3]]);
  await expect.poll(exact).toContainEqual(['absolute maximum', '(π/2, 1)']);
  expect(await exact()).toContainEqual(['absolute minimum', '(3π/2, −1)']);
  expect(await exact()).toContainEqual(['zero', '(π, 0)']);

  const end = page.getByRole('slider', { name: 'End of the interval of Key points of f' });
  await dragBy(page, end, -120, 0);
  await expect(card).not.toContainText('2π');
  await expect.poll(async () => Number(await end.getAttribute('aria-valuenow'))).toBeLessThan(6);
  await page.keyboard.press('Control+z');
  await expect(card).toContainText('Key points of f on [0, 2π]');

  const start = page.getByRole('slider', { name: 'Start of the interval of Key points of f' });
  await start.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(start).not.toHaveAttribute('aria-valuenow', '0');
  await expect(box(card, 'From')).not.toHaveValue('0');
});

test('no window is too coarse to find a point, and the window jumps to any of them', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = (x - 100.3)(x - 100.304)/10', 'Key points');
  const card = keyPointsCard(teacher);
  await fill(box(card, 'From'), '-200');
  await fill(box(card, 'To'), '400');
  const table = card.getByRole('table');
  await expect.poll(async () => (await rowsOf(table)).filter(([kind]) => kind === 'zero').length).toBe(2);
  expect((await rowsOf(table)).find(([kind]) => kind === 'absolute minimum')?.[1]).toBe('100.302');
  await page.getByRole('button', { name: /^Show absolute minimum at 100.302/ }).click();
  await teacher.untilSaved();
  const { from, to } = await teacher.limits();
  expect((from + to) / 2).toBeCloseTo(100.302, 6);
});

test('where proof fails the list says that it was found by search, and where', async ({ teacher }) => {
  await teacher.begin('f(x) = floor(5000x) sin x', 'Key points');
  const card = keyPointsCard(teacher);
  await fill(box(card, 'From'), '0.1');
  await fill(box(card, 'To'), '0.9');
  await expect(card).toContainText('found by search');
  await expect(card).toContainText('there are more jumps than can be looked at; a shorter interval may help');
  await teacher.openNew();
  await teacher.begin('f(x) = sin(1/x)', 'Key points');
  await fill(box(card, 'From'), '-0.1');
  await fill(box(card, 'To'), '0.1');
  await expect(card).toContainText(/between .* and .* it could not be proved that nothing was missed/);
});

test('a click near a high, a zero or a crossing shows its coordinates at once; it is kept on request', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = 4 - x^2');
  await teacher.state('g(x) = 3x');
  const place = await teacher.placeOnPage();
  const clickAt = async (x: number, y: number) => {
    const at = place(x, y);
    await page.mouse.click(at.x, at.y);
  };
  await clickAt(0.05, 4);
  const menu = page.getByRole('dialog', { name: /^On f at/ });
  await expect(menu).toContainText('High at (0.000, 4.000)');
  await menu.getByRole('button', { name: 'Keep it' }).click();
  const card = keyPointsCard(teacher);
  await expect(card).toContainText('complete (proved)');
  expect(await rowsOf(card.getByRole('table'))).toEqual([
    ['absolute maximum', '0.000', '4.000', '(0, 4)', ''],
  ]);

  await clickAt(1.97, 0.1);
  await expect(menu).toContainText('Zero at (2.000, 0.000)');
  await page.keyboard.press('Escape');
  await clickAt(1.03, 3.02);
  const crossing = page.getByRole('dialog', { name: /^On [fg] at/ });
  await expect(crossing).toContainText('Crossing at (1.000, 3.000)');
  await crossing.getByRole('button', { name: 'Keep it' }).click();
  await expect(teacher.entry(/^Where is [fg] equal to [fg]\(x\)/)).toContainText('this holds at one place');
});

test('sign strips of f, f′, f″ and f‴ in words and intervals; a part says its reason and emphasises the curve', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^4/4 - 2x^2', 'Derivative', 'Sign strip');
  const card = teacher.entry(/^Signs of/);
  await fill(box(card, 'From'), '-3');
  await fill(box(card, 'To'), '3');
  await expect(card).toContainText('(−2, 0) ∪ (2, 3)');
  await expect(card).toContainText('(−3, −2) ∪ (0, 2)');
  await expect(card).toContainText('x = −2, 0, 2');
  const parts = page.getByRole('button', { name: /^f′ (positive|negative):/ });
  await expect(parts).toHaveCount(4);
  await page.getByRole('button', { name: 'f′ negative: falling ↘' }).last().click();
  const said = page.getByRole('dialog', { name: /^f′: falling/ });
  await expect(said).toContainText('f falls for x from 0 to 2, because f′ is negative there.');
  await said.getByRole('button', { name: 'Emphasise f where this holds' }).click();
  await expect(teacher.entry(/^Where f'\(x\) < 0 on f/)).toContainText('(0, 2)');

  await pick(card, 'Signs of').selectOption('f″');
  await expect(card).toContainText('−2√3/3');
  await page.getByRole('button', { name: 'f″ negative: bends down (concave down)' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'f″: bends down (concave down)' })).toContainText(
    'f bends down (concave down) for x from −2√3/3 to 2√3/3, because f″ is negative there.',
  );
  await page.keyboard.press('Escape');
  await pick(card, 'Signs of').selectOption('f‴');
  await expect(page.getByRole('button', { name: /^f‴ positive/ })).toHaveCount(1);
  await pick(card, 'Signs of').selectOption('f');
  await expect(card).toContainText('[−3, −2√2) ∪ (2√2, 3]');
  // Under another tier it stands lower on the page.
  const height = async () =>
    (
      await page
        .getByRole('button', { name: /^f negative/ })
        .first()
        .boundingBox()
    )?.y ?? 0;
  const before = await height();
  await pick(card, 'Where it stands').selectOption('under f′');
  await expect.poll(height).toBeGreaterThan(before + 50);
});

test('f is read from f″ alone, each finding with its reason; with start values f stands in its own tier', async ({
  page,
  teacher,
}) => {
  await teacher.begin("f''(x) = x cos x", 'Read f from its derivative');
  const card = teacher.entry('f read from f″');
  await fill(box(card, 'From'), '0');
  await fill(box(card, 'To'), '3π');
  await expect(card).toContainText(
    'f′ has a local minimum at x = 3π/2, because f″ changes from negative to positive there.',
  );
  await expect(card).toContainText(
    'f bends up (concave up) for x from 3π/2 to 5π/2, because f″ is positive there.',
  );
  await expect(card).toContainText(
    'f has an inflection point at x = π/2, because f″ changes from positive to negative there.',
  );
  await pick(card, 'About').selectOption('f′ alone');
  await expect(card).not.toContainText('f bends up');

  await teacher.chooseFor('Given: f″ alone', 'Show more of it …');
  await page.getByRole('dialog').getByRole('button', { name: 'The function behind it' }).click();
  const itself = teacher.entry(/^(f from its start values|The function itself)/);
  await expect(itself).toContainText('give start values for f and f′');
  await fill(box(teacher.entry('Given: f″ alone'), 'Start values, with ; between'), '2; 1/2');
  await expect(itself).toContainText('By integrating f″ from the start values.');
  // f(0) = 2, and f(x) = 2 sin x − x cos x − x/2 + 2 by parts.
  await teacher.state('c = f(π)');
  await expect(teacher.working).toContainText((Math.PI / 2 + 2).toFixed(3));
  await pick(itself, 'Shown').selectOption('f′');
  await expect(teacher.entry('f′ from its start values')).toBeVisible();
});

test('joins of a function in pieces, and the constant that mends them', async ({ page, teacher }) => {
  await teacher.openNew();
  await teacher.state('k = 3');
  await teacher.state('h(x) = x^2 if x < 1; k x - 1 if 1 <= x < 3; 8 - x otherwise');
  await teacher.add('Joins of the pieces');
  const card = teacher.entry('Joins of h');
  await expect(card).toContainText(
    'At x = 1, h is not continuous: its value is 1.000 from the left, 2.000 from the right.',
  );
  await expect(card).toContainText('there are 2 joins; 2 are not smooth.');
  expect((await rowsOf(card.getByRole('table'))).map((cells) => cells.slice(0, 4))).toEqual([
    ['1.000', 'left', '1.000', '2.000'],
    ['1.000', 'right', '2.000', '3.000'],
    ['3.000', 'left', '8.000', '3.000'],
    ['3.000', 'right', '5.000', '−1.000'],
  ]);
  await pick(card, 'Which value would mend it?').selectOption('of k');
  await expect(card).toContainText('k = 2 makes it continuous at 1, and smooth.');
  await card.getByRole('button', { name: 'Take k = 2' }).click();
  await expect(page.getByRole('textbox', { name: 'Value of k' })).toHaveValue('2');
  await expect(card).toContainText('At x = 1, h is smooth; its bend changes at once.');
  await expect(card).toContainText(
    'At x = 3, h has a corner: its slope is 2.000 from the left, −1.000 from the right.',
  );
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('f = k, f = g and f′ = k, with the line or curve drawn; hiding the first curve keeps the answer', async ({
  teacher,
}) => {
  await teacher.begin('f(x) = x^3 - 3x', 'Intersections, solutions');
  const card = teacher.entry(/^Where is f equal to/);
  await fill(box(card, 'From'), '-3');
  await fill(box(card, 'To'), '3');
  await fill(box(card, 'Equal to'), '2');
  await expect(card).toContainText('this holds at 2 places, and nowhere else (proved).');
  await fill(box(card, 'Equal to'), 'x/2');
  await expect(card).toContainText('−√14/2');
  await expect(card).toContainText('this holds at 3 places');
  await teacher.chooseFor('Given', 'Hide on the graph');
  await expect(card).toContainText('√14/2');
  await fill(box(card, 'Equal to'), '40');
  await expect(card).toContainText('nowhere in this interval (proved).');

  await teacher.show('Derivative');
  await teacher.chooseFor('Slope f′', 'Show more of it …');
  await teacher.page.getByRole('dialog').getByRole('button', { name: 'Intersections, solutions' }).click();
  const slope = teacher.entry(/^Where is f′ equal to/);
  await fill(box(slope, 'Equal to'), '1');
  await expect(slope).toContainText('2√3/3');
});

test('the part of a curve on which a typed condition holds; what joined dots hide', async ({ teacher }) => {
  await teacher.begin('f(x) = x^2 - 1/4', 'Where a condition holds', 'What joined dots hide');
  const holds = teacher.entry(/^Where f'\(x\) > 0 on f/);
  await fill(box(holds, 'From'), '-5');
  await fill(box(holds, 'To'), '5');
  await expect(holds).toContainText('(0, 5]');
  await fill(box(holds, 'Condition'), 'f(x) < 0 and x > 0');
  await expect(teacher.entry(/^Where f\(x\) < 0 and x > 0 on f/)).toContainText('(0, 1/2)');

  const dots = teacher.entry(/^f as joined dots/);
  await fill(box(dots, 'From'), '-5');
  await fill(box(dots, 'To'), '4');
  await fill(box(dots, 'Distance of the dots'), '3');
  await expect(dots).toContainText('The 4 joined dots hide 2 key points');
  await expect(dots).toContainText('hidden: a zero at x ≈ 0.500');
  await fill(box(dots, 'Distance of the dots'), '1');
  await expect(dots).toContainText('The 10 joined dots hide no key point.');
});

test('the nearest point of a curve to a free point, with the distance as a function of its own', async ({
  page,
  teacher,
}) => {
  await teacher.begin('s(x) = x^2/4 for 0 <= x <= 6', 'Nearest point');
  const card = teacher.entry('Point of s nearest to P');
  await fill(box(card, 'Point P'), '(0, 3)');
  await teacher.setValue('a', '4');
  await expect(card).toContainText('2√2');
  await expect(card).toContainText(
    'the nearest point is (2.000, 1.000); its distance from P(0, 3) is 2.828. No point is nearer (proved).',
  );
  // From (0, 3) to (4, 4): √17.
  await expect(card).toContainText('4.123');
  await teacher.chooseFor('Point of s nearest to P', 'Draw the distance as a function');
  await expect(teacher.entry('Distance D from P')).toBeVisible();
  await teacher.chooseFor('Distance D from P', 'Show more of it …');
  await page.getByRole('dialog').getByRole('button', { name: 'Key points' }).click();
  const low = teacher.entry(/^Key points of D/);
  await expect
    .poll(async () =>
      (await rowsOf(low.getByRole('table'))).find(([kind]) => kind === 'absolute minimum')?.slice(1, 4),
    )
    .toEqual(['2.000', '2.828', '(2, 2√2)']);

  // The segment runs along the curve there and back.
  await page.getByRole('button', { name: 'Play a' }).click();
  const value = page.getByRole('textbox', { name: 'Value of a' });
  await expect(value).not.toHaveValue('4');
  await page.getByRole('button', { name: 'Stop a' }).click();
  await expect(teacher.lane('a')).toContainText('a run');

  // The point itself is dragged, and moved by keys.
  await dragBy(page, page.getByRole('slider', { name: 'Free point P' }), 60, -40);
  await expect(box(card, 'Point P')).not.toHaveValue('(0, 3)');
  await expect(card).not.toContainText('P(0, 3)');
  await page.getByRole('slider', { name: 'Free point P' }).focus();
  const before = await box(card, 'Point P').inputValue();
  await page.keyboard.press('ArrowUp');
  await expect(box(card, 'Point P')).not.toHaveValue(before);
  await page.getByRole('button', { name: 'Restore the start' }).click();
});

test('the mean value theorem: the secant over an interval and all tangents parallel to it', async ({
  teacher,
}) => {
  await teacher.begin('f(x) = x^3 - x', 'Mean value theorem');
  await teacher.setValue('a', '0');
  await teacher.setValue('b', '2');
  const card = teacher.entry('Mean value theorem for f on [a, b]');
  // Stewart, Calculus (8th ed.), section 4.2, example 4: c = 2/√3; from memory.
  await expect(card).toContainText('2√3/3');
  await expect(card).toContainText('1.155');
  await expect(card).toContainText('the tangent is parallel to the secant at one place.');
  await teacher.setValue('a', '-2');
  await expect(card).toContainText('at 2 places');
  await teacher.setValue('b', '-3');
  await expect(teacher.entry('Mean value theorem')).toContainText('a has to be smaller than b');
});

test('bad input is answered by a sentence at its place, and the rest works on', async ({ teacher }) => {
  await teacher.begin('f(x) = √x', 'Key points', 'Intersections, solutions', 'Nearest point');
  const points = teacher.entry(/^Key points/).first();
  await fill(box(points, 'From'), '5');
  await fill(box(points, 'To'), '2');
  await expect(points).toContainText(
    'An interval goes from a smaller to a larger number; 5 is not smaller than 2.',
  );
  await fill(box(points, 'From'), '-9');
  await fill(box(points, 'To'), '-1');
  await expect(points).toContainText('For x from −9 to −1, f has no value anywhere.');
  await fill(box(points, 'To'), '4 +');
  await expect(points.getByRole('alert')).toBeVisible();
  await expect(box(points, 'To')).toHaveValue('4 +');

  const solutions = teacher.entry(/^Where (is|are)/);
  await fill(box(solutions, 'Equal to'), '-1');
  await expect(solutions).toContainText('nowhere in this interval (proved).');
  await fill(box(solutions, 'Equal to'), 'q(x)');
  await expect(solutions.getByRole('alert')).toBeVisible();

  const nearest = teacher.entry(/nearest/i);
  await fill(box(nearest, 'Point P'), '(1, 2');
  await expect(nearest.getByRole('alert')).toBeVisible();
  await fill(box(nearest, 'Point P'), '(1, 2)');
  await teacher.setValue('a', '-1');
  await expect(nearest).toContainText('the curve has no point, so there is no segment');
  await expect(nearest).toContainText('the nearest point is');
});

test('why the list is complete is laid under the curve, piece by piece', async ({ teacher, page }) => {
  await teacher.openNew();
  await teacher.state('f(x) = x e^(-x)');
  await teacher.add('Key points');
  const card = teacher.entry(/^Key points/);
  await expect(card).toContainText('complete (proved)');
  await page.getByLabel('Why complete?').selectOption('no other highs and lows');
  await expect(card).toContainText('without a gap');
  const piece = page.getByRole('button', { name: 'f′ negative: falls ↘' });
  await piece.click();
  await expect(page.getByText(/so no high and no low can hide/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/so no high and no low can hide/)).toBeHidden();
  await expect(piece).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/so no high and no low can hide/)).toBeVisible();
  await page.keyboard.press('Escape');
  await teacher.untilSaved();
  await page.reload();
  await expect(page.getByRole('button', { name: 'f′ zero: one turn' })).toBeVisible();
});

test.describe('with the checker held back', () => {
  test.use({ ownWindow: true });
  test('nothing is called complete before a second check has shown it', async ({ teacher, page }) => {
    let isHeld = true;
    // The checker's program is held back at first.
    await page
      .context()
      .route(/\/certified-[^/]*\.js$/, (route) => (isHeld ? route.abort() : route.continue()));
    await teacher.begin('f(x) = x^3 - 3x', 'Key points', 'Sign strip', 'Intersections, solutions');
    const cards = [/^Key points of f/, /^Signs of f′/, /^Where is f equal/].map((heading) =>
      teacher.entry(heading).first(),
    );
    for (const card of cards)
      await expect(card).toContainText('a second check could not show that these are all of them');
    await expect(teacher.working).not.toContainText('(proved)');
    isHeld = false;
    await teacher.untilSaved();
    await page.reload();
    for (const card of cards) await expect(card).toContainText('complete (proved)');
  });
});
