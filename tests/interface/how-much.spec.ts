import { readFile } from 'node:fs/promises';
import { boxOf, expect, test, type Teacher } from './teacher.ts';
import { opacitiesFrom } from './pixels.ts';
import type { Locator, Page } from '@playwright/test';

const fill = async (field: Locator, text: string): Promise<void> => {
  await field.fill(text);
  await field.press('Enter');
};
const box = (card: Locator, name: string | RegExp): Locator =>
  card.getByRole('textbox', { name, ...(typeof name === 'string' ? { exact: true } : {}) });
const rule = (card: Locator, name: string): Locator => card.getByRole('radio', { name, exact: true });
const sumCard = (teacher: Teacher) =>
  teacher.entry(/^(Rectangle sum|(Rectangles|Trapezoids|Parabolas) under)/).first();

/** The rows of the table of rectangles that are on the page, as the texts of their cells. */
const rowsOf = (table: Locator): Promise<string[][]> =>
  table
    .getByRole('row')
    .evaluateAll((rows) =>
      rows
        .slice(1)
        .map((row) => [...row.querySelectorAll('[role=cell]')].map((cell) => cell.textContent ?? '')),
    );

/** A sum over a typed interval. */
async function beginSum(
  teacher: Teacher,
  given: string,
  from: string,
  to: string,
  n: string,
): Promise<Locator> {
  await teacher.begin(given, 'Rectangle sum');
  const card = sumCard(teacher);
  await fill(box(card, 'From'), from);
  await fill(box(card, 'To'), to);
  await teacher.setValue('n', n);
  return card;
}

async function dragBy(page: Page, grip: Locator, dx: number, dy: number): Promise<void> {
  const at = await grip.boundingBox();
  if (!at) throw new Error('nothing to take hold of');
  const [x, y] = [at.x + at.width / 2, at.y + at.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 5; i++) await page.mouse.move(x + (dx * i) / 5, y + (dy * i) / 5);
  await page.mouse.up();
}

test('rectangles by every rule: totals, the sum written out, the true area, the side with its reason', async ({
  teacher,
}) => {
  const card = await beginSum(teacher, 'f(x) = x^2', '0', '2', '4');
  await expect(card).toContainText('Rectangles under f on [0, 2]');
  await expect(card).toContainText('= 1.750');
  await expect(card).toContainText('≈ 0.5·(0.000 + 0.250 + 1.000 + 2.250)');
  await expect(card).toContainText('(2 − 0)/4 = 0.5');
  await expect(card).toContainText('= 8/3 ≈ 2.667');
  await expect(card).toContainText('= −11/12 ≈ −0.917');
  await expect(card).toContainText(
    'an underestimate, because f rises, so each left end is the lowest point of its part',
  );
  // OpenStax, Calculus Volume 1, section 5.1: the right sum of x² on [0, 2] with four parts; from memory.
  for (const [name, total] of [
    ['right', '= 3.750'],
    ['middle', '≈ 2.625'],
    ['lower', '≈ 1.750'],
    ['upper', '≈ 3.750'],
    ['trapezoids', '≈ 2.750'],
    ['parabolas', '= 8/3 ≈ 2.667'],
  ] as const) {
    await rule(card, name).click();
    await expect(card).toContainText(total.replace(/^[=≈] (?=\d+\.\d+$)/, ''));
  }
  await expect(card).toContainText('Parabolas under f');
  await expect(card).toContainText('The sum of parabolas equals the integral exactly.');

  await rule(card, 'in between').click();
  await card.getByRole('button', { name: 'By a slider' }).click();
  await expect(teacher.lane('c')).toBeVisible();
  await teacher.setValue('c', '1');
  await expect(card).toContainText('= 3.750');
  await rule(card, 'random').click();
  const total = () => card.getByText('total of 4').locator('..').textContent();
  const before = await total();
  await card.getByRole('button', { name: 'Other points' }).click();
  await expect.poll(total).not.toBe(before);
});

test('n by its slider from 1 to 1000, beyond by typing; a million from the worker; what cannot be is said', async ({
  page,
  teacher,
}) => {
  const card = await beginSum(teacher, 'f(x) = x^2', '0', '1', '10');
  const lane = teacher.lane('n');
  const slider = lane.getByRole('slider');
  await slider.focus();
  await page.keyboard.press('End');
  await expect(slider).toHaveAttribute('aria-valuetext', '1000');
  await page.keyboard.press('Home');
  await expect(slider).toHaveAttribute('aria-valuetext', '1');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(slider).toHaveAttribute('aria-valuetext', '3');

  await teacher.setValue('n', '10000');
  const table = card.getByRole('table', { name: 'All rectangles' });
  await expect(table).toHaveAttribute('aria-rowcount', '10001');
  await table.getByRole('rowgroup').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('End');
  await expect(table.getByRole('row', { selected: true })).toHaveAttribute('aria-rowindex', '10001');
  expect(await table.getByRole('row').count()).toBeLessThanOrEqual(20);
  await teacher.setValue('n', '1000000');
  await expect(card).toContainText('0.333');
  await expect(card).toContainText('Of so many parts there is no table');

  await teacher.setValue('n', '0');
  await expect(card).toContainText('A sum has at least one part: n is a whole number from 1 up.');
  await teacher.setValue('n', '1000000000');
  await expect(card).toContainText('more than 1 000 000 parts; please take a smaller n.');
  await teacher.setValue('n', '4');
  await expect(card).toContainText('= 7/32 ≈ 0.219');
  await fill(box(card, 'From'), '2');
  await expect(card).toContainText(
    'An interval goes from a smaller to a larger number; 2 is not smaller than 1.',
  );
  await fill(box(card, 'From'), '0');
  await expect(card).toContainText('= 7/32 ≈ 0.219');
});

test('the ends are dragged on the axis and moved by keys; one undo takes back a drag', async ({
  page,
  teacher,
}) => {
  const card = await beginSum(teacher, 'f(x) = 4 - x^2', '0', '2', '4');
  const end = page.getByRole('slider', { name: 'End of the interval of Rectangles under f' });
  await dragBy(page, end, -60, 0);
  await expect(card).not.toContainText('[0, 2]');
  await page.keyboard.press('Control+z');
  await expect(card).toContainText('Rectangles under f on [0, 2]');
  await end.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(card).toContainText('[0, 1.9');
});

test('partition points are dragged apart, moved by keys, joined and evened out again', async ({
  page,
  teacher,
}) => {
  const card = await beginSum(teacher, 'f(x) = x + 1', '0', '2', '4');
  const point = page.getByRole('slider', { name: 'Partition point 2 of Rectangles under f' });
  await dragBy(page, point, 30, 0);
  await expect(card).toContainText('The 4 parts are not equally wide.');
  await expect.poll(async () => Number(await point.getAttribute('aria-valuenow'))).toBeGreaterThan(1.1);
  await point.focus();
  const before = Number(await point.getAttribute('aria-valuenow'));
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => Number(await point.getAttribute('aria-valuenow'))).toBeGreaterThan(before);
  await page.keyboard.press('Delete');
  await expect(card).toContainText('The 3 parts are not equally wide.');
  await card.getByRole('button', { name: 'Even out' }).click();
  await expect(card).not.toContainText('not equally wide');
  await expect(card.getByText('total of 4')).toBeVisible();
});

test('the table of all rectangles: sorted, looked at row by row and on the graph, saved as CSV', async ({
  page,
  teacher,
}) => {
  const card = await beginSum(teacher, 'f(x) = 1 - x', '0', '2', '4');
  await rule(card, 'right').click();
  const table = card.getByRole('table', { name: 'All rectangles' });
  expect(await rowsOf(table)).toEqual([
    ['1', '0.500', '0.500', '0.500', '0.250'],
    ['2', '1.000', '0.000', '0.500', '0.000'],
    ['3', '1.500', '−0.500', '0.500', '−0.250'],
    ['4', '2.000', '−1.000', '0.500', '−0.500'],
  ]);
  await table.getByRole('button', { name: 'area' }).click();
  await expect(table.getByRole('columnheader', { name: 'area' })).toHaveAttribute('aria-sort', 'ascending');
  expect((await rowsOf(table)).map(([i]) => i)).toEqual(['4', '3', '2', '1']);

  await table.getByRole('row').nth(1).click();
  await expect(table.getByRole('row', { selected: true })).toContainText('−1.000');
  await table.getByRole('rowgroup').focus();
  await page.keyboard.press('ArrowDown');
  await expect(table.getByRole('row', { selected: true })).toContainText('−0.250');
  await page.keyboard.press('Escape');
  await expect(table.getByRole('row', { selected: true })).toHaveCount(0);

  const at = await teacher.placeOnPage();
  const { x, y } = at(0.25, 0.2);
  await page.mouse.click(x, y);
  await expect(table.getByRole('row', { selected: true })).toContainText('0.250');

  const saving = page.waitForEvent('download');
  await card.getByRole('button', { name: 'Save as CSV' }).click();
  const download = await saving;
  expect(download.suggestedFilename()).toBe('rectangles.csv');
  const lines = (await readFile(await download.path(), 'utf8')).split('\r\n');
  expect(lines[0]).toBe('i,from,to,x*,height,width,area');
  expect(lines[1]).toBe('1,0,0.5,0.5,0.5,0.5,0.25');
  expect(lines.at(-1)).toBe('total,,,,,,-0.5');
  // Rounding noise is left out.
  for (const cell of lines.slice(1).join(',').split(',')) expect(cell.length).toBeLessThan(17);
});

test('parts and sample points are edited in the table; a part that is halved is one more', async ({
  teacher,
}) => {
  const card = await beginSum(teacher, 'f(x) = x', '0', '2', '2');
  await card.getByRole('button', { name: 'Edit the parts' }).click();
  await fill(box(card, 'Right end of part 1'), '0.5');
  await expect(card).toContainText('The 2 parts are not equally wide.');
  await expect(card).toContainText('≈ 0.750');
  await fill(box(card, 'Sample point x* of part 2'), '2');
  await expect(card).toContainText('≈ 3.000');
  await fill(box(card, 'Sample point x* of part 2'), '0.25');
  await expect(card).toContainText('The sample point lies in its part: from 0.500 to 2.000.');
  await card.getByRole('button', { name: 'Halve part 2' }).click();
  await expect(card).toContainText('The 3 parts are not equally wide.');
  await card.getByRole('button', { name: 'Join part 1 with the next' }).click();
  await expect(card).toContainText('The 2 parts are not equally wide.');
});

test('two rules lie over each other; n doubles; the error against n as a chart with orders', async ({
  teacher,
}) => {
  const card = await beginSum(teacher, 'f(x) = e^x', '0', '1', '2');
  await card.getByRole('combobox', { name: 'Laid over it' }).selectOption('right');
  await expect(card).toContainText('right ≈ 2.184');
  await card.getByRole('button', { name: 'Let n double' }).click();
  await expect(card.getByText('total of 8')).toBeVisible({ timeout: 10_000 });
  await card.getByRole('button', { name: 'Stop' }).click();

  await card.getByRole('button', { name: 'Error against n' }).click();
  const errors = teacher.entry('Error against n');
  await expect(errors).toContainText('left: order 1; doubling n divides the error by about 2.');
  await expect(errors).toContainText('parabolas: order 4; doubling n divides the error by about 16.');
  const chart = errors.getByRole('img', { name: /Size of the error against n/ });
  await expect(chart).toBeVisible();
  await expect.poll(() => inked(chart)).toBeGreaterThan(500);
  const table = errors.getByRole('table', { name: /Estimates by left, .* sums for growing n/ });
  await expect(table.getByRole('row').nth(2)).toContainText('1.324');
  await errors.getByRole('checkbox', { name: 'upper' }).check();
  await expect(errors).toContainText('upper: order 1');
});

/** Pixels of a canvas on which something is drawn. */
const inked = (canvas: Locator): Promise<number> =>
  canvas.evaluate((element) => {
    const { width, height } = element as HTMLCanvasElement;
    const { data } = (element as HTMLCanvasElement).getContext('2d')?.getImageData(0, 0, width, height) ?? {
      data: [],
    };
    return data.filter((_, i) => i % 4 === 3 && (data[i] ?? 0) > 0).length;
  });

test('areas over and under the axis are told apart by the slant of their hatching, too', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x', 'Definite integral');
  const at = await teacher.placeOnPage();
  for (const [place, slant] of [
    [at(2.3, 0.4), 1],
    [at(-3.7, -1.6), -1],
  ] as const) {
    const row = (down: number) => opacitiesFrom(page, { x: place.x, y: place.y + down }, 24);
    await expect.poll(async () => Math.max(...(await row(0)))).toBeGreaterThan(60);
    const [upper, lower] = [await row(0), await row(1)];
    expect(Math.max(...upper) - Math.min(...upper)).toBeGreaterThan(40);
    expect(upper.slice(8, 16)).toEqual(upper.slice(0, 8));
    expect(lower.slice(8, 16)).toEqual(upper.slice(8 + slant, 16 + slant));
    expect(lower.slice(8, 16)).not.toEqual(upper.slice(8 - slant, 16 - slant));
  }
});

test('the definite integral is exact where proved, signed or in total; divergence and gaps are said', async ({
  teacher,
}) => {
  await teacher.begin('f(x) = x^2 - 4x + 3', 'Definite integral');
  const card = teacher.entry(/^(Definite integral|(Area|Total area) under)/);
  await fill(box(card, 'From'), '0');
  await fill(box(card, 'To'), '4');
  await expect(card).toContainText('= 4/3 ≈ 1.333');
  await expect(card).toContainText('exact');
  await card.getByRole('combobox', { name: 'Areas under the axis' }).selectOption('total');
  await expect(card).toContainText('Total area under f on [0, 4]');
  await expect(card).toContainText('2.667 over the axis and 1.333 under it, counted together.');

  await teacher.chooseFor('Given', 'Change the formula');
  await teacher.page.keyboard.press('Control+a');
  await teacher.page.keyboard.type('f(x) = 1/x');
  await teacher.page.keyboard.press('Enter');
  await expect(card).toContainText('This integral diverges: the area under f has no finite value.');
  await fill(box(card, 'From'), '1');
  await expect(card).toContainText('= 2 ln 2 ≈ 1.386');
});

test('a definite integral goes on to ∞: its value, its grip, its divergence', async ({ teacher, page }) => {
  await teacher.begin('f(x) = 1/x^2', 'Definite integral');
  const card = teacher.entry(/^(Definite integral|Area under)/);
  await fill(box(card, 'From'), '1');
  await fill(box(card, 'To'), 'infinity');
  await expect(card).toContainText('Area under f on [1, ∞)');
  await expect(card).toContainText('= 1.000');
  await expect(card).toContainText(
    'It converges: the integrals over longer and longer intervals approach this number.',
  );
  await expect(page.getByRole('slider', { name: /^End of the interval/ })).toBeHidden();
  const start = page.getByRole('slider', { name: /^Start of the interval/ });
  await start.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await expect(box(card, 'From')).not.toHaveValue('1');
  await expect(box(card, 'To')).toHaveValue('∞');
  await expect(card).toContainText(/Area under f on \[1\.\d+, ∞\)/);
  await fill(box(card, 'From'), '2');
  await expect(card).toContainText('= 0.500');

  await teacher.chooseFor('Given', 'Change the formula');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('f(x) = 1/x');
  await page.keyboard.press('Enter');
  await expect(card).toContainText('This integral diverges: the area under f has no finite value.');

  await teacher.chooseFor('Given', 'Change the formula');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('f(x) = sin(e^x)');
  await page.keyboard.press('Enter');
  await fill(box(card, 'From'), '0');
  await expect(card).toContainText('≈ 0.625');
  await expect(card).toContainText('proved to 3 decimals');
  await card.getByRole('button', { name: '0.625' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'between' })).toHaveText(
    /between 0\.6247132564\d+ and 0\.6247132564\d+ \(proved\)/,
  );
});

test('the area between two curves goes from crossing to crossing and is split there', async ({ teacher }) => {
  await teacher.openNew();
  await teacher.state('f(x) = x^3 - 4x');
  await teacher.state('g(x) = x');
  await teacher.add('Area between two curves');
  const card = teacher.entry(/^Area between f and g/);
  await expect(box(card, 'To')).toHaveValue('√5');
  await expect(card).toContainText('= 12.500');
  await expect(card).toContainText(
    'f lies over g from −2.236 to 0.000 (6.250); g lies over f from 0.000 to 2.236 (6.250).',
  );
});

test('the average value is the height of a rectangle of the same area, tried by dragging and by keys', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x(12 - x)/5 for 0 <= x <= 12', 'Average value');
  const card = teacher.entry(/^Average value of f/);
  await expect(card).toContainText('= 4.800');
  await expect(card).toContainText('The rectangle of this height has the same area as f over the interval.');
  const grip = page.getByRole('slider', { name: 'Height of the rectangle of Average value of f' });
  await dragBy(page, grip, 0, -70);
  await expect(card).toContainText('more than f; at the average value both are the same.');
  await card.getByRole('button', { name: 'To the average value' }).click();
  await expect(card).toContainText('has the same area');
  await grip.focus();
  await page.keyboard.press('Shift+ArrowDown');
  await expect(card).toContainText('less than f; at the average value both are the same.');
});

test('the running total on its own tier, shaded up to x, with a trail, and its slope is the function', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = 3x^2 - 3', 'Running total');
  const card = teacher.entry(/^Running total A of f/);
  await fill(box(card, 'From'), '0');
  await teacher.setValue('a', '2');
  await expect(card).toContainText('= 2.000');
  await expect(card).toContainText('it is still growing, since f is positive there.');
  const points = page.getByRole('slider', { name: /^Point on f at x = a/ });
  await expect(points.first()).toBeVisible();
  await points.first().focus();
  await page.keyboard.press('Home');
  await expect(card).not.toContainText('= 2.000');
  await teacher.setValue('a', '0.5');
  await expect(card).toContainText('= −1.375');
  await expect(card).toContainText('it is shrinking, since f is negative there.');

  await teacher.chooseFor('Running total A of f', 'Draw its slope on a tier of its own');
  const slope = teacher.entry('Slope A′');
  await expect(slope.locator('annotation').first()).toHaveText("A'(x) = 3x^{2}-3");
  await teacher.chooseFor('Running total A of f', /trail/i);
  await expect(teacher.entry(/Trail/)).toBeVisible();
});

test('an end dragged to where there is no value stops at the last that has one, keeps its grip, and lets go', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = sqrt x', 'Rectangle sum');
  const card = teacher.entry(/^Rectangles under f/);
  const start = page.getByRole('slider', { name: /^Start of the interval of Rectangles/ });
  await expect(start).toBeVisible();
  const box = await boxOf(start);
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  // Far to the left of 0, and further, past the edge of the graph.
  for (const far of [60, 200, 900]) await page.mouse.move(x - far, y, { steps: 4 });
  await expect(start).toHaveAttribute('aria-valuenow', /^0(\.0\d*)?$/);
  await page.mouse.up();
  await expect(card).toContainText('total of');
  await teacher.untilSaved();
  // What comes afterwards counts: a key, and what is typed.
  await start.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await expect.poll(async () => Number(await start.getAttribute('aria-valuenow'))).toBeGreaterThan(0);
  const from = card.getByRole('textbox', { name: 'From', exact: true });
  await from.fill('2');
  await from.press('Enter');
  await expect(start).toHaveAttribute('aria-valuenow', '2');
});
