import type { Page } from '@playwright/test';
import { boxOf, expect, test, type Teacher } from './teacher.ts';

/** Givens that are not a formula, units, and what is laid over one another. */

const measured = 'time in min,level in cm,remark\n0,1.0,\n1,3.0,\n2,n/a,gauge cleaned\n4,9.0,\n3,7.0,\n';

/** Puts a text on the clipboard or into a file, and pastes or drops it where the focus is. */
const transfer = (page: Page, kind: 'paste' | 'drop', text: string) =>
  page.evaluate(
    ([type, content]) => {
      const data = new DataTransfer();
      if (type === 'paste') data.setData('text/plain', content);
      else data.items.add(new File([content], 'level.csv', { type: 'text/csv' }));
      const event =
        type === 'paste'
          ? new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })
          : new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true });
      (document.activeElement ?? document.body).dispatchEvent(event);
    },
    [kind, text] as const,
  );

test('data from a file with a bad row: preview, columns, units, and a function like any other', async ({
  page,
  teacher,
}) => {
  await teacher.openNew();
  await teacher.add('From data');
  const dialog = page.getByRole('dialog');
  const chosen = page.waitForEvent('filechooser');
  await dialog.getByRole('button', { name: 'Choose a file' }).click();
  await (await chosen).setFiles({ name: 'level.csv', mimeType: 'text/csv', buffer: Buffer.from(measured) });
  const preview = dialog.getByRole('region', { name: 'Preview' });
  await expect(preview.getByRole('row')).toHaveCount(6);
  await expect(preview).toContainText('4 rows become points.');
  await expect(preview).toContainText('Row 4 is left out: “n/a” is not a number.');
  await expect(dialog.getByLabel('Along x')).toHaveValue('0');
  await expect(dialog.getByLabel('Unit of x')).toHaveValue('min');
  await expect(dialog.getByLabel('Unit of heights')).toHaveValue('cm');
  await expect(dialog.getByLabel('Variable')).toHaveValue('t');
  // The column of remarks holds no numbers, which is said before anything happens.
  await dialog.getByLabel('Heights', { exact: true }).selectOption('remark');
  await expect(dialog.getByRole('alert')).toHaveText(
    'At least two rows with two numbers are needed for a function.',
  );
  await expect(dialog.getByRole('button', { name: 'Put it in' })).toBeDisabled();
  await dialog.getByLabel('Heights', { exact: true }).selectOption('level');
  await dialog.getByLabel('Name').fill('L');
  await dialog.getByRole('button', { name: 'Put it in' }).click();
  await expect(dialog).toBeHidden();

  await expect(teacher.entry('Given: L from data')).toContainText('Row 4 is left out');
  await teacher.state('L(2)');
  await teacher.state("L'(3.5)");
  // By hand: the line from (1, 3) to (3, 7) is at 5 at t = 2; from (3, 7) to (4, 9) it rises by 2 a minute.
  await expect(teacher.entry('Value').nth(0)).toContainText('= 5.000 cm');
  await expect(teacher.entry('Value').nth(1)).toContainText('2.000 cm/min');
  await teacher.untilSaved();
  const { x, xUnit } = await teacher.stored();
  expect(xUnit).toBe('min');
  expect([x.from <= 0, x.to >= 4]).toEqual([true, true]);

  await teacher.chooseFor('Given: L from data', 'Make it smooth');
  await expect(teacher.entry('Given: L from data, smooth')).toBeVisible();
  await teacher.chooseFor('Given: L from data, smooth', 'Change the data …');
  await expect(dialog.getByLabel('Heights', { exact: true })).toHaveValue('1');
  await dialog.getByRole('button', { name: 'Cancel' }).click();
});

test('data is pasted into the formula field, or dropped on the screen', async ({ page, teacher }) => {
  await teacher.openNew();
  await teacher.nextGiven.click();
  const dialog = page.getByRole('dialog');
  await transfer(page, 'paste', '0\t1\n1\t3\n2\t6');
  await expect(dialog.getByRole('region', { name: 'Preview' })).toContainText('3 rows become points.');
  await dialog.getByRole('button', { name: 'Put it in' }).click();
  await expect(teacher.entry('Given: f from data')).toBeVisible();
  await transfer(page, 'drop', measured);
  await expect(dialog.getByRole('region', { name: 'Preview' })).toContainText('4 rows become points.');
  await dialog.getByLabel('Name').fill('f');
  await dialog.getByRole('button', { name: 'Put it in' }).click();
  await expect(dialog.getByRole('alert')).toHaveText('“f” is already taken; please choose another name.');
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await teacher.nextGiven.click();
  await transfer(
    page,
    'paste',
    Array.from({ length: 19_000 }, (_, i) => `${i},${'7'.repeat(30)}`).join('\n'),
  );
  await expect(dialog.getByRole('alert')).toContainText('This table is larger than 600 kB');
  await expect(dialog.getByRole('button', { name: 'Put it in' })).toBeDisabled();
});

test('ten thousand rows are put in by keyboard alone, saved, and a tangent runs along them', async ({
  page,
  teacher,
}) => {
  await teacher.openNew();
  await teacher.add('From data');
  const dialog = page.getByRole('dialog');
  const rows = Array.from({ length: 10_000 }, (_, i) => `${i / 100},${(Math.sin(i / 900) * 5).toFixed(3)}`);
  await dialog.getByRole('textbox', { name: /Or paste rows/ }).focus();
  await transfer(page, 'paste', rows.join('\n'));
  await expect(dialog.getByRole('status')).toContainText('10000 rows become points.');
  await dialog.getByRole('button', { name: 'Put it in' }).focus();
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Given: f from data')).toContainText('goes through');
  await teacher.add('Tangent');
  await teacher.setValue('a', '20.005');
  // By hand: sin(2000.5/900) = 0.795…, and the slope is 5·100/900·cos(2000.5/900) = −0.337 to two digits.
  await expect(teacher.entry(/Tangent to f/)).toContainText('falling by 0.3');
  await teacher.untilSaved();
  await page.reload();
  await expect(teacher.entry('Given: f from data')).toContainText('goes through');
});

test('a profile in pieces, one row per piece: changed, mended, added to, with its slope tier', async ({
  page,
  teacher,
}) => {
  await teacher.openNew();
  await teacher.add('In pieces');
  const piece = (n: number) => page.getByRole('textbox', { name: `Piece ${n}`, exact: true });
  const where = (n: number) => page.getByRole('textbox', { name: `Where piece ${n} holds` });
  await piece(1).fill('x^2');
  await where(1).fill('x <');
  await expect(page.getByRole('alert')).toContainText('Something is missing after “<”.');
  await where(1).fill('x < 2');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await piece(2).fill('6 - x');
  await page.getByRole('button', { name: 'A further piece' }).click();
  await expect(piece(3)).toHaveValue('6 - x');
  await piece(2).fill('4');
  await where(2).fill('x < 5');
  const formula = page.getByRole('textbox', { name: 'Formula' });
  await expect(formula).toHaveText('f(x) = (x^2) if x < 2; (4) if x < 5; (6 - x) otherwise');
  await formula.click();
  await page.keyboard.press('Escape');
  await expect(teacher.entry('Given')).toContainText('otherwise');
  for (const value of ['f(1.5)', 'f(3)', 'f(7)', "f'(1.5)", "f'(3)", "f'(7)"]) await teacher.state(value);
  const texts = await teacher.entry('Value').allTextContents();
  const results = texts.map((text) => /= (−?[\d.]+)/.exec(text)?.[1]);
  expect(results).toEqual(['2.250', '4.000', '−1.000', '3.000', '0.000', '−1.000']);
  await teacher.add('Derivative');
  await expect(teacher.entry('Slope f′')).toBeVisible();
  await page.getByRole('button', { name: 'Change the formula f(x)' }).first().click();
  await page.getByRole('button', { name: 'Remove piece 2' }).click();
  await expect(formula).toHaveText('f(x) = (x^2) if x < 2; (6 - x) otherwise');
});

test('pieces typed in t are a function of t, and so is what the palette puts in', async ({
  page,
  teacher,
}) => {
  await teacher.openNew();
  await teacher.add('In pieces');
  await page.getByRole('textbox', { name: 'Piece 1', exact: true }).fill('t^2');
  await page.getByRole('textbox', { name: 'Where piece 1 holds' }).fill('t < 2');
  await expect(page.getByRole('alert').first()).toContainText('“t” is not known here.');
  const formula = page.getByRole('textbox', { name: 'Formula' });
  await formula.focus();
  await expect(formula).toHaveText('f(t) = (t^2) if t < 2; (2 - t) otherwise');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await formula.press('Escape');
  await teacher.nextGiven.click();
  await page.keyboard.type('v(t) = t');
  await page.getByRole('button', { name: 'Pieces' }).click();
  await expect(teacher.nextGiven).toHaveText('v(t) = t if t < 0;  otherwise');
});

test('known names are offered while one types; Enter alone still ends the formula', async ({
  page,
  teacher,
}) => {
  await teacher.begin('level_2 = 3');
  await teacher.nextGiven.click();
  await page.keyboard.type('f(x) = l');
  const list = page.getByRole('listbox');
  await expect(list.getByRole('option', { name: /level_2/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.keyboard.type(' + si');
  await expect(list.getByRole('option', { name: /^sin\s*sine/ })).toBeVisible();
  await list.getByRole('option', { name: /^sin\s*sine/ }).click();
  await page.keyboard.type('x');
  await expect(teacher.nextGiven).toHaveText('f(x) = level_2 + sin(x)');
  await page.keyboard.press('End');
  await page.keyboard.type(' + co');
  await expect(list).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(list).toBeHidden();
  await page.keyboard.type('s(x)');
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Given')).toContainText('sin');
});

test.describe('while the editor is on its way', () => {
  test.use({ ownWindow: true });

  /** A new demonstration with the next given chosen, where the editor of formulas is kept away until it is sent. */
  async function openWithoutEditor(teacher: Teacher, page: Page): Promise<() => void> {
    let send = (): void => undefined;
    const held = new Promise<void>((resolve) => (send = resolve));
    await page.route(/FormulaEditor/, async (route) => {
      await held;
      await route.continue();
    });
    await teacher.openNew();
    await teacher.nextGiven.click();
    return () => send();
  }

  test('what was typed before the editor had come goes on in it, where the cursor was, and is offered names', async ({
    teacher,
    page,
  }) => {
    const send = await openWithoutEditor(teacher, page);
    await page.keyboard.type('f(x) = sini');
    await page.keyboard.press('ArrowLeft');
    const options = page.getByRole('listbox').getByRole('option');
    await expect(options).toHaveCount(0);
    send();
    await expect(page.locator('.cm-content')).toBeVisible();
    await expect(teacher.nextGiven).toBeFocused();
    await expect(options.filter({ hasText: 'sinh' })).toBeVisible();
    await page.keyboard.press('Delete');
    await page.keyboard.type('(x)');
    await expect(teacher.nextGiven).toHaveText('f(x) = sin(x)');
  });

  test('no letter is lost while the editor comes', async ({ teacher, page }) => {
    const formula = 'f(x) = x^3 - 4x + sin(x) - cos(2x) + 5 - (x - 1)^2';
    const send = await openWithoutEditor(teacher, page);
    const typing = page.keyboard.type(formula, { delay: 12 });
    await expect(teacher.nextGiven).toHaveValue(/x/);
    send();
    await typing;
    await expect(teacher.nextGiven).toHaveText(formula);
  });

  test('until the editor has come a plain field does its work: Enter, a correction, the palette, Escape', async ({
    teacher,
    page,
  }) => {
    const send = await openWithoutEditor(teacher, page);
    await page.keyboard.type('f(x) = 2');
    await page.getByRole('button', { name: 'Square root' }).click();
    await page.keyboard.type('x');
    await expect(teacher.nextGiven).toHaveValue('f(x) = 2√(x)');
    await teacher.nextGiven.fill('f(x) = x^2 [1, 3]');
    await page.keyboard.press('Enter');
    await expect(page.getByText('To limit x, write: for 1 ≤ x ≤ 3.')).toBeVisible();
    await page.getByRole('button', { name: /for 1 ≤ x ≤ 3/ }).click();
    await teacher.nextGiven.press('Enter');
    await expect(teacher.entry('Given')).toContainText('1≤x≤3');
    await page.getByRole('button', { name: /^Change the formula/ }).click();
    const formula = page.getByRole('textbox', { name: 'Formula' });
    await formula.fill('f(x) = x^3');
    await formula.press('Escape');
    await expect(formula).toHaveCount(0);
    await expect(teacher.entry('Given')).toContainText('x^{3}');
    send();
    await expect(page.locator('.cm-content')).toBeVisible();
  });
});

test('suggestions in a card reach beyond it: every one of them can be seen and clicked', async ({
  teacher,
  page,
}) => {
  await teacher.begin('f(x) = x^2', 'Tangent');
  await page.getByRole('button', { name: /^Change the formula/ }).click();
  await page.keyboard.press('End');
  await page.keyboard.type(' + si');
  const options = page.getByRole('listbox').getByRole('option');
  await expect(options.first()).toBeVisible();
  for (const option of await options.all()) {
    const box = await boxOf(option);
    const isOnTop = await option.evaluate(
      (element, [x, y]) => element.contains(document.elementFromPoint(x, y)),
      [box.x + box.width / 2, box.y + box.height / 2] as const,
    );
    expect([await option.textContent(), isOnTop]).toEqual([await option.textContent(), true]);
  }
  await options.first().click();
  await expect(teacher.working).toContainText('x^2 + sin');
});

test('units and titles of the axes are typed once and stand at every number they belong to', async ({
  page,
  teacher,
}) => {
  await teacher.begin('V(t) = 3t^2 + 1', 'Tangent');
  await teacher.setValue('a', '2');
  await page.getByRole('button', { name: /^Change the formula V/ }).click();
  await page.getByRole('textbox', { name: 'Unit' }).fill('L/min');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Formula' }).press('Escape');
  await page.getByRole('button', { name: 'Axes' }).click();
  await page.getByRole('textbox', { name: 'Unit of t' }).fill('min');
  await page.keyboard.press('Enter');
  await page
    .getByRole('group', { name: 'Along t' })
    .getByRole('textbox', { name: 'Title' })
    .fill('time since the gate opened');
  await page.keyboard.press('Enter');
  await page
    .getByRole('group', { name: 'Heights of V' })
    .getByRole('textbox', { name: 'Title' })
    .fill('flow');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  const tangent = teacher.entry(/Tangent to V/);
  await expect(tangent).toContainText('= 12.000 L/min²');
  await expect(tangent).toContainText('At t = 2 min, V is rising at a rate of 12.000 L/min².');
  await expect(page.getByRole('region', { name: 'Graphs' })).toContainText('flow in L/min');
  await teacher.untilSaved();
  expect(await teacher.stored()).toMatchObject({ xTitle: 'time since the gate opened', xUnit: 'min' });
});

test('a derivative by hand over the computed one, and where they agree', async ({ page, teacher }) => {
  await teacher.begin('f(x) = x^3 - 3x', 'Derivative');
  await teacher.state('g(x) = 3x^2 - x');
  await page.getByRole('button', { name: 'More for Given' }).nth(1).click();
  await page.getByRole('menuitem', { name: 'Draw it with f′' }).click();
  await teacher.show('Where do they agree?', 'Slope f′');
  const agreement = teacher.entry('Where do f′ and g agree?');
  await expect(agreement).toContainText('at one place, and nowhere else (proved)');
  await expect(agreement).toContainText('= 3');
  await page.getByRole('button', { name: 'Change the formula g(x)' }).click();
  const formula = page.getByRole('textbox', { name: 'Formula' });
  await formula.fill('g(x) = 3(x^2 - 1)');
  await formula.press('Enter');
  await expect(agreement).toContainText('f′ and g agree everywhere (proved).');
});

test('the numerical derivative with a chosen h beside the true one', async ({ teacher }) => {
  await teacher.begin('f(x) = x^3', 'Derivative', 'Numerical derivative');
  await teacher.setValue('h', '0.5');
  await teacher.state('q(2)');
  // (2.5³ − 1.5³)/1 = 12.25; forward (2.5³ − 2³)/0.5 = 15.25.
  await expect(teacher.entry('Value')).toContainText('12.250');
  await teacher.chooseFor('Numerical derivative q', 'Forward: from x to x + h');
  await expect(teacher.entry('Value')).toContainText('15.250');
  await teacher.setValue('h', '0');
  await expect(teacher.entry('Numerical derivative q').getByRole('alert')).toHaveText(
    /With h = 0 the quotient would be 0\/0\./,
  );
  const { entries } = await teacher.stored();
  const tierOf = (kind: string) =>
    Object.values(entries).flatMap((e) => (e.kind === kind && 'tier' in e ? [e.tier] : []));
  expect(tierOf('differenceQuotient')).toEqual(tierOf('derivative'));
});

test('a point is moved by a slider, by itself alone, or not at all', async ({ page, teacher }) => {
  await teacher.begin('f(x) = x^2', 'Point on the curve');
  await teacher.setValue('a', '1');
  await teacher.chooseFor('Point on f at x = a', 'Move it by its point alone');
  await expect(teacher.lane('a')).toHaveCount(0);
  await teacher.handle.focus();
  await page.keyboard.press('ArrowRight');
  const place = page.getByRole('textbox', { name: 'Place a' });
  await expect(place).toHaveValue('1.01');
  await teacher.chooseFor('Point on f at x = a', 'Keep it fixed');
  await expect(teacher.handle).toHaveCount(0);
  await place.fill('3');
  await place.press('Enter');
  await expect(teacher.entry(/Point on f/)).toContainText('= 9.000');
  await teacher.chooseFor('Point on f at x = a', 'Move it by a slider');
  await expect(teacher.lane('a')).toBeVisible();
  await expect(teacher.handle).toBeVisible();
});

test('a slider of whole numbers with a unit', async ({ page, teacher }) => {
  await teacher.begin('n = 2.6');
  await teacher.lane('n').getByRole('button', { name: 'Settings of n' }).click();
  await page.getByRole('checkbox', { name: 'Whole numbers' }).check();
  await page.getByRole('textbox', { name: 'Unit' }).fill('gates');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Step' }).fill('0.5');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Limits, start and step are whole numbers, too.');
  await page.keyboard.press('Escape');
  const value = page.getByRole('textbox', { name: 'Value of n' });
  await expect(value).toHaveValue('3');
  await expect(teacher.lane('n')).toContainText('gates');
  await value.fill('2.5');
  await value.press('Enter');
  await expect(teacher.lane('n').getByRole('alert')).toContainText('n takes whole numbers only.');
  await value.press('Escape');
  await page.getByRole('slider', { name: 'n', exact: true }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(value).toHaveValue('4');
});

test('points are pasted as two columns', async ({ page, teacher }) => {
  await teacher.openNew();
  await teacher.add('Through points');
  const field = teacher.entry(/Given: f through points/).getByRole('textbox', { name: 'Points' });
  await field.focus();
  await transfer(page, 'paste', '0\t1\n2\t3.5\n4\t-1\n');
  await expect(field).toHaveValue('(0, 1), (2, 3.5), (4, -1)');
  await teacher.state('f(1)');
  await expect(teacher.entry('Value')).toContainText('= 2.250');
});

test('a point of a broken line is removed by its menu', async ({ page, teacher }) => {
  await teacher.begin('p(x) through (0, 0), (2, 4), (4, 0)');
  await page.getByRole('slider', { name: 'Point 2 that p goes through' }).click();
  const menu = page.getByRole('dialog', { name: 'Point 2 that p goes through' });
  await expect(menu).toContainText('(2, 4)');
  await menu.getByRole('button', { name: 'Remove this point' }).click();
  await expect(page.getByRole('slider', { name: /that p goes through/ })).toHaveCount(2);
  await page.getByRole('slider', { name: 'Point 1 that p goes through' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('The last two points stay');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('slider', { name: /that p goes through/ })).toHaveCount(3);
});

test('the window follows h: the secant keeps its length on the screen while the gap shrinks', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2', 'Secant');
  await teacher.setValue('a', '1');
  await teacher.setValue('h', '1');
  const secant = teacher.entry(/Secant of f/);
  await page.getByRole('button', { name: /More for Secant/ }).click();
  await page.getByRole('menuitem', { name: 'Let the window follow h' }).click();
  const gap = async () => {
    const [first, second] = await Promise.all([
      boxOf(page.getByRole('slider', { name: /at x = a$/ })),
      boxOf(page.getByRole('slider', { name: /at x = h$/ })),
    ]);
    return Math.round(second.x - first.x);
  };
  const before = await gap();
  expect(before).toBeGreaterThan(100);
  for (const h of ['0.1', '0.01', '0.001']) {
    await secant.getByRole('button', { name: `h = ${h}`, exact: true }).click();
    await expect.poll(gap).toBe(before);
  }
  await page.getByRole('button', { name: /More for Secant/ }).click();
  await page.getByRole('menuitem', { name: 'Keep the window' }).click();
  await expect.poll(gap).toBeLessThan(before / 2);
});

test('any result of an entry is named and used in later entries', async ({ page, teacher }) => {
  await teacher.begin('f(x) = x^2', 'Tangent', 'Where is the slope k?');
  await teacher.setValue('a', '3');
  await teacher.chooseFor('Tangent to f at x = a', 'Name a result …');
  const name = page.getByRole('textbox', { name: 'Name of the slope' });
  await name.fill('f');
  await name.press('Enter');
  await expect(teacher.entry(/Tangent to f/).getByRole('alert')).toContainText('“f” is already taken');
  await expect(name).toHaveValue('f');
  await name.fill('m');
  await name.press('Enter');
  await expect(teacher.entry(/Tangent to f/).getByRole('alert')).toHaveCount(0);
  await teacher.state('g(x) = m(x - 3) + 9');
  await teacher.state('g(4) + m');
  // The slope of x² at 3 is 6: the tangent is at 15 at 4, and 6 more make 21.
  await expect(teacher.entry('Value')).toContainText('= 21.000');
  await teacher.setValue('a', '2');
  await expect(teacher.entry('Value')).toContainText('= 17.000');
  await page.getByRole('button', { name: /More for Where is f′/ }).click();
  await page.getByRole('menuitem', { name: 'Name a result …' }).click();
  await page.getByRole('textbox', { name: 'Name of the place' }).fill('x_0');
  await page.keyboard.press('Enter');
  await teacher.state('f(x_0)');
  await expect(teacher.entry('Value').nth(1)).toContainText('= 0.000');
});
