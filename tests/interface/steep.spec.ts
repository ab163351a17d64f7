import { expect, test } from './teacher.ts';

/** A typeset letter stands in the page for eyes, for screen readers and as its source: x+ in the patterns below. */

test('from an empty document to secant becomes tangent with its table, in at most 12 actions', async ({
  teacher,
}) => {
  // 1 click, 2 formula, 3–4 secant, 5–6 tangent, 7–8 lens, 9 x typed, 10 h small, 11 closing up.
  await teacher.openNewFromLibrary();
  await teacher.state('f(x) = x^2');
  for (const study of ['Secant', 'Tangent', 'Lens']) await teacher.add(study);
  await teacher.setValue('a', '1');
  const secant = teacher.entry(/Secant of f from x = a to a \+ h/);
  await expect(secant).toContainText('≈ 3.000');
  // By hand: ((1 + h)² − 1)/h = 2 + h forward, 2 − h backward, 2 symmetric.
  const cells = await secant
    .getByRole('row')
    .evaluateAll((list) => list.map((row) => [...row.children].map((cell) => cell.textContent)));
  expect(cells).toEqual([
    ['h', 'forward', 'backward', 'symmetric', 'error'],
    ['1', '3.000', '1.000', '2.000', '1.000'],
    ['0.1', '2.100', '1.900', '2.000', '0.100'],
    ['0.01', '2.010', '1.990', '2.000', '0.010'],
    ['0.001', '2.001', '1.999', '2.000', '0.001'],
    ['→ 0', '2.000', '2.000', '2.000', '0'],
  ]);
  await secant.getByRole('button', { name: 'h = 0.001' }).click();
  await expect(secant).toContainText('≈ 2.001');
  await secant.getByRole('button', { name: 'h = 1', exact: true }).click();
  await secant.getByRole('button', { name: 'Let it close up' }).click();
  await expect(secant).toContainText('≈ 2.001', { timeout: 15_000 });
  await expect(teacher.entry(/Tangent to f/)).toContainText(/= 2x+ − 1/);
  await expect(teacher.entry(/Lens on f/)).toContainText('Magnified 10 times');
});

test('a point that is dragged beyond the end of its curve stays at the end and can be taken back', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = sqrt(x)', 'Point on the curve');
  await teacher.setValue('a', '1');
  const value = page.getByRole('textbox', { name: 'Value of a' });
  const at = await teacher.placeOnPage();
  const [start, beyond, back] = [at(1, 1), at(-1, 0), at(0.5, 0.7)];
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  await page.mouse.move(beyond.x, beyond.y, { steps: 4 });
  await expect(value).toHaveValue('0');
  await page.mouse.move(back.x, back.y, { steps: 4 });
  await page.mouse.up();
  await expect(value).not.toHaveValue('0');
  await teacher.setValue('a', '0');
  await teacher.handle.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(value).toHaveValue('0');
  await page.keyboard.press('ArrowRight');
  await expect(value).not.toHaveValue('0');
});

test('the second point is dragged along the curve, and moved by the arrow keys', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2', 'Secant');
  await teacher.setValue('a', '0');
  await teacher.setValue('h', '2');
  const [first, second] = [
    page.getByRole('slider', { name: /at x = a$/ }),
    page.getByRole('slider', { name: /at x = h$/ }),
  ];
  await expect(first).toBeVisible();
  await second.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('textbox', { name: 'Value of h' })).toHaveValue('1.999');
  const box = await second.boundingBox();
  if (!box) throw new Error('no handle');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x - 90, y, { steps: 4 });
  await page.mouse.up();
  const h = Number(await page.getByRole('textbox', { name: 'Value of h' }).inputValue());
  expect(h).toBeGreaterThan(0.5);
  expect(h).toBeLessThan(1.9);
  await expect(page.getByRole('textbox', { name: 'Value of a' })).toHaveValue('0');
});

test('h = 0, and a secant across a gap, get one sentence at their place; everything else works on', async ({
  teacher,
}) => {
  await teacher.begin('f(x) = 1/x', 'Secant', 'Tangent');
  await teacher.setValue('a', '-1');
  await teacher.setValue('h', '0');
  const secant = teacher.entry(/Secant of f/);
  await expect(secant).toContainText('With h = 0 both points are one, and one point has no secant.');
  await teacher.setValue('h', '2');
  await expect(secant).toContainText('Between x = −1 and 1 f has a gap');
  await teacher.setValue('h', '0.5');
  // (1/(−0.5) − 1/(−1))/0.5 = −2.
  await expect(secant).toContainText('≈ −2.000');
  await expect(teacher.entry(/Tangent to f/)).toContainText(/= −x+ − 2/);
});

test('the normal, and a tangent drawn as a short piece', async ({ teacher }) => {
  await teacher.begin('f(x) = x^2', 'Normal', 'Tangent');
  await teacher.setValue('a', '1');
  // By hand: slope 2, so the normal has slope −1/2 through (1, 1).
  await expect(teacher.entry(/Normal to f at x = a/)).toContainText(/= −0.5x+ \+ 1.5/);
  await teacher.setValue('a', '0');
  await expect(teacher.entry(/Normal to f at x = a/)).toContainText('the normal is vertical');
  await teacher.chooseFor('Tangent to f at x = a', 'Draw a short piece only');
  await teacher.untilSaved();
  expect(Object.values((await teacher.stored()).entries)).toContainEqual(
    expect.objectContaining({ kind: 'tangent', reach: 'piece' }),
  );
});

test('where f′ is ½, proved complete, and again for another slope', async ({ page, teacher }) => {
  await teacher.begin('f(x) = x^3/3 - x', 'Where is the slope k?');
  const study = teacher.entry(/^Where is/);
  // f′ = x² − 1.
  await expect(study).toContainText('at 2 places, and nowhere else (proved)');
  await study.getByRole('textbox', { name: 'Slope' }).fill('1/2');
  await page.keyboard.press('Enter');
  await expect(study).toContainText('√6/2 ≈ 1.225');
  await study.getByRole('textbox', { name: 'Slope' }).fill('-2');
  await page.keyboard.press('Enter');
  await expect(study).toContainText('nowhere (proved)');
  await study.getByRole('textbox', { name: 'Slope' }).fill('2 +');
  await page.keyboard.press('Enter');
  await expect(study.getByRole('alert')).toContainText('Something is missing after “+”.');
});

test('several functions wear their own colours and can be hidden; the chooser asks of which', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2');
  await teacher.state('g(x) = 2x - 1');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox', { name: 'Look for a study' }).fill('touches');
  await expect(dialog.getByRole('region', { name: 'How steep?' }).getByRole('button')).toHaveText([
    'Tangent',
  ]);
  await dialog.getByRole('group', { name: 'Of which function' }).getByRole('button').nth(1).click();
  await dialog.getByRole('textbox', { name: 'Look for a study' }).focus();
  await page.keyboard.press('Enter');
  await expect(teacher.entry(/Tangent to g/)).toContainText(/= 2x+ − 1/);
  await page.getByRole('button', { name: 'More for Given' }).nth(1).click();
  await page.getByRole('menuitem', { name: 'Hide on the graph' }).click();
  await expect(teacher.entry('Given').nth(1)).toContainText('hidden');
  await teacher.untilSaved();
  const functions = Object.values((await teacher.stored()).entries)
    .filter(({ kind }) => kind === 'function')
    .sort((a, b) => a.order - b.order);
  expect(functions.map((entry) => [(entry as { family?: number }).family, entry.hidden])).toEqual([
    [0, false],
    [1, true],
  ]);
});

test('f(3), f′(3), f″(−2) as values, and a named slope used in a later function', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^3 - 4x');
  await teacher.state('f(3)');
  await teacher.state("f'(3)");
  await teacher.state("f''(-2)");
  // By hand: 27 − 12, 27 − 4, −12.
  const values = teacher.entry('Value');
  await expect(values.nth(0)).toContainText('= 15.000');
  await expect(values.nth(1)).toContainText('= 23.000');
  await expect(values.nth(2)).toContainText('= −12.000');
  await teacher.state("m = f'(2)");
  await teacher.state('g(x) = m x');
  await expect(teacher.entry('Value of m')).toContainText('= 8.000');
  await teacher.state("g'(0)");
  await expect(values.nth(3)).toContainText('= 8.000');
  // Beside the number, which opens all its digits.
  const change = page.getByRole('button', { name: "Change the formula m = f'(2)" });
  await change.click({ position: { x: 8, y: 8 } });
  await page.keyboard.press('Control+A');
  await page.keyboard.type("m = f'(1)");
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Value of m')).toContainText('= −1.000');
  await expect(values.nth(3)).toContainText('= −1.000');
});

test('a value table, filled in one action, with own columns and a typed list of x', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2', 'Table of values');
  const table = teacher.entry(/^Table of/);
  await expect(table.getByRole('columnheader')).toHaveText(['x', 'f(x)', 'f′(x)', 'f″(x)']);
  await expect(table.getByRole('row').nth(1)).toContainText('16.000');
  await table.getByRole('textbox', { name: 'Columns, with ; between' }).fill('(f(x) - f(1))/(x - 1)');
  await page.keyboard.press('Enter');
  await table
    .getByRole('textbox', { name: 'Or x one by one, with ; between' })
    .fill('2; 1.5; 1.1; 1.01; 1.001');
  await page.keyboard.press('Enter');
  // Stewart, Calculus: Early Transcendentals (8th ed.), section 2.1, example 1.
  await expect(table.getByRole('row')).toHaveText([
    'x(f(x) − f(1))/(x − 1)',
    '23.000',
    '1.52.500',
    '1.12.100',
    '1.012.010',
    '1.0012.001',
  ]);
  await table.getByRole('textbox', { name: 'Step' }).fill('0');
  await table.getByRole('textbox', { name: 'Or x one by one, with ; between' }).fill('');
  await page.keyboard.press('Enter');
  await expect(table.getByRole('alert')).toHaveText(/The step must be greater than zero\./);
});

test('a broken line through points: chosen, dragged, added to, made smooth, with its slope', async ({
  page,
  teacher,
}) => {
  await teacher.openNew();
  await teacher.add('Through points');
  const given = teacher.entry(/Given: f through points/);
  const field = given.getByRole('textbox', { name: 'Points' });
  await field.fill('(0, 0), (2, 4), (4, 0)');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  await teacher.state("f'(1)");
  await expect(teacher.entry('Value')).toContainText('= 2.000');
  const second = page.getByRole('slider', { name: 'Point 2 that f goes through' });
  await expect(second).toHaveAttribute('aria-valuetext', '(2, 4)');
  await second.focus();
  await page.keyboard.press('ArrowDown');
  await expect(second).not.toHaveAttribute('aria-valuetext', '(2, 4)');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(second).toHaveAttribute('aria-valuetext', '(2, 4)');
  const at = await teacher.placeOnPage();
  // A drag, caught on round values.
  const [from, to] = [at(2, 4), at(2, 2)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 5 });
  await page.mouse.up();
  await expect(field).toHaveValue('(0, 0), (2, 2), (4, 0)');
  await expect(teacher.entry('Value')).toContainText('= 1.000');
  // A double click on the line puts a point there; Delete takes it away.
  const middle = at(3, 1);
  await page.mouse.dblclick(middle.x, middle.y);
  await expect(field).toHaveValue('(0, 0), (2, 2), (3, 1), (4, 0)');
  await page.getByRole('slider', { name: 'Point 3 that f goes through' }).focus();
  await page.keyboard.press('Delete');
  await expect(field).toHaveValue('(0, 0), (2, 2), (4, 0)');
  await teacher.chooseFor('Given: f through points', 'Make it smooth');
  // The natural spline through (0, 0), (2, 2), (4, 0) begins with the slope 3/2 and has the slope 9/8 at 1.
  await expect(teacher.entry('Value')).toContainText('= 1.125');
  await field.fill('(0, 0), (0, 2)');
  await page.keyboard.press('Enter');
  await expect(given.getByRole('alert')).toContainText('Two points stand at x = 0');
  await teacher.state('g(t) through (0, 1), (2, 3)');
  await expect(teacher.entry(/Given: g through points/)).toBeVisible();
});

test('f″ alone is given; with start values f itself can be used', async ({ page, teacher }) => {
  await teacher.begin("f''(x) = 6x");
  const given = teacher.entry('Given: f″ alone');
  await expect(given).toContainText('start values would say which f is meant');
  await given.getByRole('textbox', { name: 'Start at' }).fill('1');
  await page.keyboard.press('Enter');
  await given.getByRole('textbox', { name: /Start values/ }).fill('2; 4');
  await page.keyboard.press('Enter');
  await teacher.state('g(x) = f(x)');
  await teacher.state('g(2)');
  // f = x³ + x, found as a formula.
  await expect(teacher.entry('Value')).toContainText('= 10.000');
});

test('the tangent in both forms with a triangle of base ½; f′ in the tier of f and in its own again', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2', 'Tangent');
  await teacher.setValue('a', '1');
  const tangent = teacher.entry(/Tangent to f/);
  await teacher.chooseFor('Tangent to f at x = a', 'Point–slope form, too');
  await expect(tangent).toContainText(/ − 1 = 2\(x+ − 1\)/);
  await tangent.getByRole('textbox', { name: 'Base of the triangle' }).fill('0.5');
  await page.keyboard.press('Enter');
  await teacher.add('Derivative');
  const tiers = async () => {
    await teacher.untilSaved();
    return Object.keys((await teacher.stored()).tiers).length;
  };
  expect(await tiers()).toBe(2);
  await teacher.chooseFor('Slope f′', 'Draw it with f');
  expect(await tiers()).toBe(1);
  await teacher.chooseFor('Slope f′', 'Give it a tier of its own');
  expect(await tiers()).toBe(2);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  expect(await tiers()).toBe(2);
  const stored = Object.values((await teacher.stored()).entries);
  expect(stored).toContainEqual(expect.objectContaining({ kind: 'tangent', base: '0.5', pointSlope: true }));
});

test('a derivative’s card tells the rules used, step by step', async ({ page, teacher }) => {
  await teacher.begin('f(x) = x^2 sin(3x)', 'Derivative');
  const card = teacher.entry(/^Slope f′/);
  const summary = card.getByText('The rules used, step by step');
  await expect(card.getByRole('listitem')).toHaveCount(0);
  await summary.click();
  const steps = card.getByRole('listitem');
  await expect(steps.first()).toContainText('product rule');
  await expect(steps.filter({ hasText: 'chain rule' })).toHaveCount(1);
  await expect(steps.filter({ hasText: 'power rule' })).toHaveCount(1);
  await expect(steps.last()).toContainText('Together');
  await summary.focus();
  await page.keyboard.press('Enter');
  await expect(steps).toHaveCount(0);
});

test('the linear approximation: a function of its own, compared at a second place, good to a tolerance that is typed', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2', 'Linear approximation');
  await teacher.setValue('a', '1');
  await teacher.setValue('b', '1.5');
  const card = teacher.entry(/^Linear approximation/);
  await expect(card).toContainText(/L is off by at most \S+ \(proved\)\./);
  const tolerance = card.getByRole('textbox', { name: 'Tolerance' });
  const takes = async (text: string) => {
    await tolerance.fill(text);
    await page.keyboard.press('Enter');
  };
  await takes('0.1');
  await expect(card).toContainText('From x = 0.684 to 1.316 L is off by at most 0.1 (proved).');
  await expect(card).toContainText('= 0.250');
  // The second place is a point on the curve, and one on the difference under it.
  const grips = page.getByRole('slider', { name: 'Point on f at x = b' });
  await expect(grips).toHaveCount(2);
  await grips.last().focus();
  await page.keyboard.press('ArrowRight');
  await expect(card).toContainText('At x = 1.51 L is below f.');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(card).toContainText('At x = 1.5 L is below f.');

  await takes('0');
  await expect(card).toContainText('The tolerance is a number larger than 0');
  await takes('0.04');
  await expect(card).toContainText('L is off by at most 0.04 (proved).');

  await teacher.state('3L(2)');
  await expect(teacher.entry('Value')).toContainText('= 9');
  await teacher.chooseFor('Linear approximation L of f at x = a', 'Delete');
  await teacher.untilSaved();
  expect(Object.keys((await teacher.stored()).tiers)).toHaveLength(1);
});
