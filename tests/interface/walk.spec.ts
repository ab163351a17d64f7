import { orange, pixelsOf } from './pixels.ts';
import { expect, test, type Teacher } from './teacher.ts';
import type { Page } from '@playwright/test';

const profile = 'h(t) = t^2/4 if 0 <= t < 4; 4 + 2(t - 4) if 4 <= t < 6; 8 if 6 <= t <= 10';

const fill = async (page: Page, label: string, text: string) => {
  await page.getByLabel(label, { exact: true }).fill(text);
  await page.getByLabel(label, { exact: true }).press('Enter');
};

/** A profile in pieces and a slider w from 0 to 10 that goes forward only. */
async function beginWalk(page: Page, teacher: Teacher): Promise<void> {
  await teacher.begin(profile);
  await teacher.state('w = 0');
  await page.getByRole('button', { name: 'Settings of w' }).click();
  await fill(page, 'From', '0');
  await fill(page, 'To', '10');
  await page.getByLabel('Pace in').selectOption('units a second');
  await fill(page, 'Units a second', '5');
  await page.getByRole('radio', { name: 'Over and over' }).click();
  await page.keyboard.press('Escape');
}

async function addMarker(page: Page, teacher: Teacher, x: string, y: string): Promise<void> {
  await teacher.add('Marker');
  const card = teacher.entry(/^Marker/).last();
  await card.getByLabel('Across').fill(x);
  await card.getByLabel('Across').press('Enter');
  await teacher.entry(`Marker at (${x}, `.concat('h(w))')).getByLabel('Up', { exact: true }).fill(y);
  await page.keyboard.press('Enter');
}

test('a walker on a profile in pieces: forward only, with a dotted slope curve behind a reveal, a title and its definition', async ({
  page,
  teacher,
}) => {
  await beginWalk(page, teacher);
  await addMarker(page, teacher, 'w', 'h(w)');
  await expect(teacher.entry('Marker at (w, h(w))')).toContainText('(0.000');

  await teacher.add('Derivative');
  await teacher.chooseFor('Slope h′', 'Look …');
  await page.getByLabel('Lines', { exact: true }).selectOption('dotted');
  await page.getByRole('button', { name: 'Done' }).click();
  await teacher.ofDeck('Add a reveal');
  await teacher.chooseFor('Slope h′', 'Shown when …');
  await teacher.entry('Slope h′').getByLabel('Shown when').fill('question1');
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Slope h′')).toContainText('not shown just now');

  await teacher.add('Note');
  await page.getByLabel('Text of the note').fill('The path over the hollow\n{definition of h}');
  await page.getByLabel('Where it stands').selectOption('pinned to the screen');
  await page.getByLabel('Size', { exact: true }).selectOption('a title');
  await page.getByRole('button', { name: 'Done' }).click();
  const title = page.getByRole('group', { name: 'Note; arrow keys move it' });
  await expect(title).toContainText('The path over the hollow');
  await expect(title.locator('.katex-mathml mtable')).toHaveCount(1);

  await page.getByRole('button', { name: 'Play w' }).click();
  const value = page.getByRole('textbox', { name: 'Value of w' });
  const seen = await value.evaluate(async (field: HTMLInputElement) => {
    const values: number[] = [];
    const rounds = (): number => values.filter((now, i) => i > 0 && now < (values[i - 1] as number)).length;
    const until = performance.now() + 20_000;
    while (rounds() < 2 && performance.now() < until) {
      await new Promise(requestAnimationFrame);
      values.push(Number(field.value));
    }
    return values;
  });
  await page.getByRole('button', { name: 'Stop w' }).click();
  // It never goes back but from the end of its range to the start.
  const back = seen.flatMap((now, i) => (now < (seen[i - 1] ?? 0) ? [(seen[i - 1] ?? 0) - now] : []));
  expect(back).toHaveLength(2);
  for (const jump of back) expect(jump).toBeGreaterThan(5);

  await page.getByRole('switch', { name: 'Question 1' }).click();
  await expect(teacher.entry('Slope h′')).not.toContainText('not shown just now');
  await teacher.untilSaved();
  const { entries } = await teacher.stored();
  const kinds = Object.values(entries).map(({ kind }) => kind);
  expect(kinds.sort()).toEqual(['derivative', 'function', 'marker', 'note', 'parameter', 'reveal']);
});

test('a sentence and a marker appear exactly while a condition holds', async ({ page, teacher }) => {
  await beginWalk(page, teacher);
  await addMarker(page, teacher, 'w', 'h(w)');
  await teacher.chooseFor('Marker at (w, h(w))', 'Shown when …');
  await teacher
    .entry(/^Marker/)
    .getByLabel('Shown when')
    .fill('4 < w < 6');
  await page.keyboard.press('Enter');
  await teacher.add('Note');
  await page.getByLabel('Text of the note').fill("Here the path rises evenly, by {h'(w)} a minute.");
  await page.getByRole('button', { name: 'Done' }).click();
  await teacher.chooseFor('Note', 'Shown when …');
  await teacher.entry('Note').getByLabel('Shown when').fill('4 < w < 6');
  await page.keyboard.press('Enter');
  const sentence = page.getByRole('group', { name: 'Note; arrow keys move it' });
  await teacher.chooseFor('Note', 'Look …');
  await teacher.entry('Note').getByRole('radio', { name: 'Green-teal' }).click();
  await teacher.entry('Note').getByRole('button', { name: 'Done' }).click();
  for (const [w, isThere] of [
    ['4', false],
    ['4.1', true],
    ['5.9', true],
    ['6', false],
  ] as const) {
    await teacher.setValue('w', w);
    await expect(sentence).toHaveCount(isThere ? 1 : 0);
    await expect.poll(async () => (await pixelsOf(page, orange)) > 0).toBe(isThere);
  }
  await teacher.setValue('w', '5');
  await expect(sentence.locator('div').first()).toHaveCSS('color', 'rgb(11, 117, 104)');
  await expect(sentence).toHaveText('Here the path rises evenly, by 2.000 a minute.');
});

test('a trail stays when its moment is over, hides with its reveal, and is cleared by key and by button', async ({
  page,
  teacher,
}) => {
  await beginWalk(page, teacher);
  await addMarker(page, teacher, 'w', 'h(w)');
  await teacher.ofDeck('Add a reveal');
  await page.getByRole('switch', { name: 'Question 1' }).click();
  await teacher.chooseFor('Marker at (w, h(w))', 'Shown when …');
  await teacher
    .entry(/^Marker/)
    .first()
    .getByLabel('Shown when')
    .fill('w < 6 and question1');
  await page.keyboard.press('Enter');
  await teacher.chooseFor('Marker at (w, h(w))', 'Let it leave a trail');
  const trail = teacher.entry('Trail of marker at (w, h(w))');
  await trail.getByLabel('It leaves').selectOption('a line');
  await trail.getByLabel('At most').fill('1');
  await trail.getByLabel('At most').press('Enter');
  await expect(trail.getByText('This is a whole number from 2 to 5000.')).toBeVisible();
  await trail.getByLabel('At most').fill('900');
  await trail.getByLabel('At most').press('Enter');
  await page.getByRole('slider', { name: 'w', exact: true }).focus();
  const walk = async (steps: number) => {
    for (let i = 0; i < steps; i++) await page.keyboard.press('ArrowRight');
  };
  const marks = () => pixelsOf(page, orange);
  await walk(30);
  await expect.poll(marks).toBeGreaterThan(50);
  await teacher.setValue('w', '8');
  await expect(teacher.entry(/^Marker/).first()).toContainText('not shown just now');
  await expect.poll(marks).toBeGreaterThan(30);

  await page.getByRole('switch', { name: 'Question 1' }).click();
  await expect.poll(marks).toBe(0);
  await page.getByRole('switch', { name: 'Question 1' }).click();
  await expect.poll(marks).toBeGreaterThan(30);

  await page.getByRole('button', { name: 'Clear the trails' }).first().click();
  await expect.poll(marks).toBe(0);
  await teacher.setValue('w', '1');
  await page.getByRole('slider', { name: 'w', exact: true }).focus();
  await walk(20);
  // However fast the keys come, none is lost.
  await expect(page.getByRole('textbox', { name: 'Value of w' })).toHaveValue('3');
  // The marker and what it has left behind since; the marker alone stays.
  await expect.poll(marks).toBeGreaterThan(250);
  const again = await marks();
  await teacher.graph.focus();
  await page.keyboard.press('Backspace');
  await expect.poll(marks).toBeLessThan(again);
  await page.getByRole('slider', { name: 'w', exact: true }).focus();
  await walk(20);
  await page.getByRole('button', { name: 'Restore the start' }).click();
  await expect(page.getByRole('textbox', { name: 'Value of w' })).toHaveValue('0');
  await expect(page.getByRole('switch', { name: 'Question 1' })).not.toBeChecked();
  await expect.poll(marks).toBe(0);
});

test('trials are kept as rows, drawn as points, and motion halts where a large number is greatest', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = 4 - (x - 3)^2', 'Point on the curve');
  await teacher.setValue('a', '1');
  await page.getByRole('button', { name: 'Keep this trial' }).click();
  await teacher.setValue('a', '2');
  await page.getByRole('button', { name: 'Keep this trial' }).click();
  const card = teacher.entry('Trials');
  await expect(card.getByRole('row')).toHaveText([/trialaf\(a\)/, /11\.0000\.000/, /22\.0003\.000/]);
  await card.getByLabel('Draw as points: across').selectOption('a');
  await expect(card.getByLabel('up', { exact: true })).toHaveValue('1');
  await teacher.chooseFor('Trials', 'Take the last row away');
  await expect(card.getByRole('row')).toHaveCount(2);

  await teacher.add('Large number');
  const large = page.getByRole('group', { name: /^Large number f\(a\); arrow keys/ });
  await expect(large).toContainText('3.000');
  await teacher.entry('Large number f(a)').getByLabel('Motion halts').selectOption('where it is greatest');
  await page.getByRole('button', { name: 'Play a', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Play a', exact: true })).toBeVisible({ timeout: 20_000 });
  await expect(large).toContainText('greatest so far 4.000');
  await expect(page.getByRole('textbox', { name: 'Value of a' })).toHaveValue('3.000');
});

test('a text is dragged and moved by keys to its place on the screen or on the graph', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2/4', 'Tangent');
  await teacher.chooseFor('Tangent to f at x = a', 'Put it on the graph');
  const label = page.getByRole('group', { name: /^On the graph: Tangent/ });
  await expect(label).toContainText('= 0.800');
  const before = await label.boundingBox();
  await label.hover();
  await page.mouse.down();
  await page.mouse.move((before?.x ?? 0) + 100, (before?.y ?? 0) + 150, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await label.boundingBox())?.y).toBeGreaterThan((before?.y ?? 0) + 80);
  await label.focus();
  const dragged = await label.boundingBox();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await label.boundingBox())?.x).toBeCloseTo((dragged?.x ?? 0) + 20, 0);

  const card = teacher.entry(/^On the graph: Tangent/);
  await card.getByLabel('What it says').selectOption('its line 2');
  await expect(label).toContainText('x');
  await card.getByLabel('Where it stands').selectOption('pinned to a place of the graph');
  const pinned = await label.boundingBox();
  await teacher.graph.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await label.boundingBox())?.x).toBeLessThan((pinned?.x ?? 0) - 40);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await card.getByLabel('Where it stands').selectOption('in the working alone');
  await expect(label).toHaveCount(0);
});
