import { expect, test, Teacher } from './teacher.ts';

/** The ten things a teacher can do, each driven through the real interface. */

test('1. the demo teacher signs in with one click', async ({ page, server }) => {
  await page.goto(server.address);
  await page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
  await expect(page.getByRole('link', { name: /How steep is the millstream bed/ })).toBeVisible();
});

test('1. another teacher makes an account, signs out and in again; mistakes get a sentence at their field', async ({
  page,
  server,
}) => {
  await page.goto(server.address);
  await page.getByRole('button', { name: 'Make an account' }).click();
  await page.getByLabel('Name').fill('Keeper of the sluice');
  await page.getByLabel('E-mail').fill('keeper@tarn-valley.example');
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('alert')).toHaveText('A password needs at least 10 characters.');
  await expect(page.getByLabel('Name')).toHaveValue('Keeper of the sluice');
  await page.getByLabel('Password').fill('long enough now');
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('heading', { name: 'Library' })).toBeVisible();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByLabel('E-mail').fill('keeper@tarn-valley.example');
  await page.getByLabel('Password').fill('not that one');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('alert')).toHaveText(
    'This e-mail address and password do not belong together.',
  );
  await page.getByLabel('Password').fill('long enough now');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByText('Keeper of the sluice')).toBeVisible();
});

test('2. the library shows title, picture and when it was changed; New opens an empty one', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await expect(teacher.working).toContainText('Begin with a function');
  await page.getByRole('textbox', { name: 'Title' }).fill('The jetty at noon');
  await teacher.state('f(x) = x^2 - 1');
  await teacher.untilSaved();
  await page.getByRole('link', { name: 'Library' }).click();
  const card = page.getByRole('listitem').filter({ hasText: 'The jetty at noon' });
  await expect(card).toContainText(/changed .* ago/);
  const picture = card.locator('img');
  expect(
    await picture.evaluate((image: HTMLImageElement) => image.decode().then(() => image.naturalWidth)),
  ).toBe(320);
  await page.getByRole('button', { name: 'More for The jetty at noon' }).click();
  await page.getByRole('menuitem', { name: 'Delete …' }).click();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(card).toHaveCount(0);
});

test('3. a typed function is typeset live, and its curve appears in a window that shows zeros and low point', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await page.keyboard.type('f(x) = 3x^2 - 5x - 2');
  await expect(page.getByTestId('preview').locator('math')).toContainText('f(x)=3x2−5x−2');
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Given')).toContainText('f(x)');
  await teacher.untilSaved();
  const { x, tiers } = await teacher.stored();
  expect(x.from).toBeLessThan(-1 / 3);
  expect(x.to).toBeGreaterThan(2);
  expect(tiers['tier-f']?.y.from).toBeLessThan(-49 / 12);
  expect(tiers['tier-f']?.y.to).toBeGreaterThan(0);
});

test('3. drag pans, the wheel zooms at the pointer, an axis is stretched alone, limits and ticks are typed, Fit fits', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.state('f(x) = 3x^2 - 5x - 2');
  await teacher.untilSaved();
  const box = (await teacher.graph.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const width = (range: { from: number; to: number }) => range.to - range.from;
  const windows = async () => {
    await teacher.untilSaved();
    const { x, tiers } = await teacher.stored();
    return { x, y: tiers['tier-f']?.y ?? x };
  };
  const start = await windows();

  await page.mouse.move(box.x + 200, box.y + 450);
  await page.mouse.down();
  await page.mouse.move(box.x + 300, box.y + 430, { steps: 5 });
  await page.mouse.up();
  const panned = await windows();
  expect(panned.x.from).toBeLessThan(start.x.from);
  expect(width(panned.x)).toBeCloseTo(width(start.x), 9);
  expect(panned.y.from).toBeLessThan(start.y.from);

  await page.mouse.move(box.x + 300, box.y + 300);
  const share = (300 - 54) / (box.width - 54 - 18);
  const under = panned.x.from + share * width(panned.x);
  await page.mouse.wheel(0, -240);
  await expect.poll(async () => width((await windows()).x)).toBeLessThan(width(panned.x) * 0.9);
  const zoomed = await windows();
  expect(zoomed.x.from + share * width(zoomed.x)).toBeCloseTo(under, 6);

  await page.mouse.move(box.x + 400, box.y + box.height - 10);
  await page.mouse.down();
  await page.mouse.move(box.x + 500, box.y + box.height - 10, { steps: 4 });
  await page.mouse.up();
  const stretchedX = await windows();
  expect(width(stretchedX.x)).toBeLessThan(width(zoomed.x));
  expect(stretchedX.y).toEqual(zoomed.y);

  await page.mouse.move(box.x + 20, box.y + 300);
  await page.mouse.down();
  await page.mouse.move(box.x + 20, box.y + 220, { steps: 4 });
  await page.mouse.up();
  const stretchedY = await windows();
  expect(width(stretchedY.y)).toBeLessThan(width(stretchedX.y));
  expect(stretchedY.x).toEqual(stretchedX.x);

  await page.getByRole('button', { name: 'Axis limits and ticks' }).click();
  const along = page.getByRole('group', { name: 'Along x' });
  await along.getByRole('textbox', { name: 'From' }).fill('-4');
  await along.getByRole('textbox', { name: 'From' }).press('Enter');
  await along.getByRole('textbox', { name: 'To', exact: true }).fill('1,5');
  await along.getByRole('textbox', { name: 'To', exact: true }).press('Enter');
  await expect(along.getByRole('alert')).toContainText('Write the decimal mark as a point: 1.5.');
  await along.getByRole('button', { name: 'Use 1.5' }).click();
  await along.getByRole('textbox', { name: 'Ticks every' }).fill('0.5');
  await along.getByRole('textbox', { name: 'Ticks every' }).press('Enter');
  await along.getByRole('textbox', { name: 'From' }).fill('7');
  await along.getByRole('textbox', { name: 'From' }).press('Enter');
  await expect(along.getByRole('alert')).toHaveText('The first limit must be smaller than the second.');
  const typed = await windows();
  expect(typed.x).toEqual({ from: -4, to: 1.5 });
  expect((await teacher.stored()).xTicks).toBe(0.5);
  await page.keyboard.press('Escape');

  // With x-limits typed, Fit chooses the height alone.
  await page.getByRole('button', { name: 'Fit the window to the curves' }).click();
  await expect.poll(async () => (await windows()).y).not.toEqual(typed.y);
  const fitted = await windows();
  expect(fitted.x).toEqual(typed.x);
  expect(fitted.y.from).toBeLessThan(-49 / 12);
});

test('3. near the curve it stands out and a ghost shows where a click will land; the click offers a tangent there', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.state('f(x) = 0.2x + 0.2');
  await teacher.untilSaved();
  const { x, tiers } = await teacher.stored();
  const y = tiers['tier-f']?.y ?? x;
  const box = (await teacher.graph.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const toPixel = (px: number, py: number) => ({
    x: box.x + 54 + ((px - x.from) / (x.to - x.from)) * (box.width - 72),
    y: box.y + 34 + ((y.to - py) / (y.to - y.from)) * (box.height - 64),
  });
  const place = toPixel(2, 0.6);
  const ghost = page.getByTestId('ghost');
  await page.mouse.move(place.x + 3, place.y - 60);
  await expect(ghost).toBeHidden();
  await page.mouse.move(place.x + 3, place.y - 9);
  await expect(ghost).toBeVisible();
  const shown = (await ghost.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  // The ghost has caught on x = 2 and lies on the curve, not under the pointer.
  expect(Math.abs(shown.x + shown.width / 2 - place.x)).toBeLessThan(1);
  expect(Math.abs(shown.y + shown.height / 2 - place.y)).toBeLessThan(1);
  await expect(teacher.entry('Given')).toHaveClass(/bg-here/);
  await page.mouse.click(place.x + 3, place.y - 9);
  await page.getByRole('button', { name: 'Tangent here' }).click();
  await expect(teacher.entry(/Tangent to f/)).toContainText('y');
  await teacher.untilSaved();
  const parameter = Object.values((await teacher.stored()).entries).find(({ kind }) => kind === 'parameter');
  expect(parameter).toMatchObject({ name: 'a', value: '2' });
});

test('4. slider and point are the same thing: dragged, moved by keys, set exactly; dragging catches, a held key suspends it', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.setValue('a', '1');
  await expect(teacher.entry(/Tangent to f/)).toContainText('x − 5');
  await expect(teacher.handle).toHaveAttribute('aria-valuetext', /^1, height −4\.000/);

  await teacher.handle.focus();
  await page.keyboard.press('ArrowRight');
  await expect(teacher.handle).toHaveAttribute('aria-valuetext', /^1\.01,/);
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(teacher.handle).toHaveAttribute('aria-valuetext', /^0\.91,/);

  const slider = teacher.lane('a').getByRole('slider', { name: 'a' });
  await slider.fill('2.5');
  await expect(teacher.handle).toHaveAttribute('aria-valuetext', /^2\.5,/);

  const { x } = await teacher.stored();
  const box = (await teacher.graph.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const pixelOf = (value: number) => box.x + 54 + ((value - x.from) / (x.to - x.from)) * (box.width - 72);
  const grip = (await teacher.handle.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
  await page.mouse.down();
  await page.mouse.move(pixelOf(2) + 4, grip.y + 80, { steps: 8 });
  await expect(teacher.handle).toHaveAttribute('aria-valuetext', /^2, height 0\.000, caught/);
  await expect(page.getByTestId('caught')).toHaveText(/^2(\.0)?$/);
  await page.keyboard.down('Shift');
  await page.mouse.move(pixelOf(2) + 5, grip.y + 80, { steps: 2 });
  await expect(teacher.handle).toHaveAttribute('aria-valuetext', /^2\.0[1-9], /);
  await expect(page.getByTestId('caught')).toBeHidden();
  await page.keyboard.up('Shift');
  await page.mouse.move(pixelOf(1) + 2, grip.y, { steps: 8 });
  await page.mouse.up();
  await teacher.untilSaved();
  const parameter = Object.values((await teacher.stored()).entries).find(({ kind }) => kind === 'parameter');
  expect(parameter).toMatchObject({ value: '1' });
});

test('4. limits and step are typed; wrong ones get a sentence and change nothing', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.state('b = 2');
  await page.getByRole('button', { name: 'Settings of b' }).click();
  await page.getByRole('textbox', { name: 'From' }).fill('12');
  await page.getByRole('textbox', { name: 'From' }).press('Enter');
  await expect(page.getByRole('alert')).toHaveText('The left limit must be smaller than the right one.');
  await page.getByRole('textbox', { name: 'Step' }).fill('0.25');
  await page.getByRole('textbox', { name: 'Step' }).press('Enter');
  await page.keyboard.press('Escape');
  await teacher.lane('b').getByRole('slider', { name: 'b' }).press('ArrowRight');
  await expect(teacher.lane('b').getByRole('textbox')).toHaveValue('2.25');
  await teacher.setValue('b', 'two');
  await expect(teacher.lane('b').getByRole('alert')).toHaveText('Please type a number such as 2.5.');
  await expect(teacher.lane('b').getByRole('textbox')).toHaveValue('two');
});

test('5. the tangent: equation as a person writes it, slope triangle, level and vertical', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.buildTangent('f(x) = 4 - x^2');
  const tangent = teacher.entry(/Tangent to f/);
  await teacher.setValue('a', '1');
  await expect(tangent).toContainText('−2x');
  await expect(tangent).toContainText('+ 5');
  await teacher.setValue('a', '0');
  await expect(tangent).toContainText('The tangent is level'.toLowerCase().slice(4));
  await expect(tangent.locator('.live-number').last()).toHaveText('4');
  await teacher.chooseFor('Tangent to f at x = a', 'Hide the slope triangle');
  await teacher.untilSaved();
  const stored = Object.values((await teacher.stored()).entries).find(({ kind }) => kind === 'tangent');
  expect(stored).toMatchObject({ triangle: false });
  await page.getByRole('button', { name: /Change the formula/ }).click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('f(x) = cbrt(x)');
  await page.keyboard.press('Enter');
  await expect(tangent).toContainText('the tangent is vertical');
});

test('6. f′ stands in a tier of its own, its formula typeset, the reading line through both', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await expect(teacher.entry('Slope f′').locator('math').first()).toContainText('f′(x)=6x−5');
  await expect(teacher.graph.locator('math')).toHaveText([/f\(x\)/, /f′\(x\)/]);
  await teacher.setValue('a', '2');
  // The reading line is painted in the colour of here-and-now, in both tiers at the same pixel column.
  const columns = await page.evaluate(() => {
    const canvas = document.querySelector('canvas') as HTMLCanvasElement;
    const context = canvas.getContext('2d') as CanvasRenderingContext2D;
    const rowAt = (share: number) =>
      context.getImageData(0, Math.round(canvas.height * share), canvas.width, 1).data;
    const amber = (row: Uint8ClampedArray) => {
      for (let x = 0; x < row.length / 4; x++) {
        const [r = 0, g = 0, b = 0] = row.slice(4 * x, 4 * x + 3);
        if (r > 200 && g > 130 && g < 180 && b < 60) return x;
      }
      return -1;
    };
    return [amber(rowAt(0.12)), amber(rowAt(0.93))];
  });
  expect(columns[0]).toBeGreaterThan(0);
  expect(columns[1]).toBe(columns[0]);
});

test('7. play: once, over and over, there and back, at a chosen pace; Space starts and stops', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.setValue('a', '0');
  await page.getByRole('button', { name: 'Settings of a' }).click();
  await page.getByRole('textbox', { name: 'Seconds a run' }).fill('0.8');
  await page.getByRole('textbox', { name: 'Seconds a run' }).press('Enter');
  await page.getByRole('radio', { name: 'Once' }).click();
  await page.keyboard.press('Escape');
  const slider = teacher.lane('a').getByRole('slider', { name: 'a' });
  const limit = Number(await slider.getAttribute('max'));
  const value = async () => Number(await slider.inputValue());
  await teacher.handle.focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop a' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play a' })).toBeVisible();
  expect(await value()).toBe(limit);

  await page.getByRole('button', { name: 'Settings of a' }).click();
  await page.getByRole('radio', { name: 'Over and over' }).click();
  await page.keyboard.press('Escape');
  await teacher.graph.focus();
  await page.keyboard.press('Space');
  // Forward only: frame by frame the value falls only where it begins anew.
  const seen = await page.evaluate(
    () =>
      new Promise<number[]>((resolve) => {
        const input = document.querySelector<HTMLInputElement>('input[type="range"]');
        const values: number[] = [];
        const until = performance.now() + 2500;
        const look = () => {
          values.push(Number(input?.value));
          if (performance.now() < until) requestAnimationFrame(look);
          else resolve(values);
        };
        requestAnimationFrame(look);
      }),
  );
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play a' })).toBeVisible();
  const range = limit - Number(await slider.getAttribute('min'));
  const falls = seen
    .slice(1)
    .map((now, i) => (seen[i] ?? now) - now)
    .filter((fall) => fall > 0);
  expect(new Set(seen).size).toBeGreaterThan(5);
  expect(falls.length).toBeGreaterThan(0);
  expect(falls.every((fall) => fall > range / 4)).toBe(true);
  const stopped = await value();
  await page.waitForTimeout(200);
  expect(await value()).toBe(stopped);

  await page.getByRole('button', { name: 'Settings of a' }).click();
  await page.getByRole('radio', { name: 'There and back' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Play a' }).click();
  await expect.poll(value, { intervals: [20] }).toBeGreaterThan(limit - range * 0.2);
  await expect.poll(value, { intervals: [20] }).toBeLessThan(limit - range * 0.4);
  // Motion shows, it does not change the document.
  const parameter = Object.values((await teacher.stored()).entries).find(({ kind }) => kind === 'parameter');
  expect(parameter).toMatchObject({ value: '0' });
});

test('8. the function becomes sin x and everything still works; nonsense gets a sentence, the rest goes on', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.state('g(x) = x/2');
  await page.getByRole('button', { name: /Change the formula f/ }).click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('f(x) = sin x');
  await page.keyboard.press('Enter');
  await expect(teacher.entry('Slope f′').locator('math').first()).toContainText('cos');
  await teacher.setValue('a', '0');
  await expect(teacher.entry(/Tangent to f/)).toContainText('1.000');

  await page.getByRole('button', { name: /Change the formula f/ }).click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('f(x) = sinn x');
  await expect(teacher.entry('Given').first().getByRole('alert')).toContainText(
    '“sinn” is not known here. Did you mean sin?',
  );
  await expect(page.locator('.cm-wrong')).toHaveText('sinn');
  await page.keyboard.press('Enter');
  await expect(teacher.entry(/Tangent/)).toContainText('waits for its function');
  await expect(teacher.working).toContainText('g(x)');
  await teacher.untilSaved();
  await page.reload();
  await expect(teacher.working).toContainText('f(x) = sinn x');
  await page.getByRole('button', { name: /Change the formula f/ }).click();
  await page.getByRole('button', { name: 'Use sin' }).click();
  await expect(teacher.entry(/Tangent to f/)).toContainText('1.000');
});

test('9. everything saves itself; after a reload it is there', async ({ teacher, page }) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await page.getByRole('textbox', { name: 'Title' }).fill('Slope of the jetty');
  await teacher.setValue('a', '1.25');
  await page.keyboard.type('unfinished = ');
  await teacher.nextGiven.click();
  await page.keyboard.type('k(x) = 2 +');
  await teacher.untilSaved();
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Slope of the jetty');
  await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('1.25');
  await expect(teacher.entry(/Tangent to f/)).toBeVisible();
  await expect(teacher.nextGiven).toHaveText('k(x) = 2 +');
});

test('9. the server stops: a notice, work goes on, nothing is lost, and it saves when the server is back', async ({
  browser,
}) => {
  const { TestServer } = await import('./server.ts');
  const server = await TestServer.launch();
  const page = await browser.newPage();
  const teacher = new Teacher(page, server);
  try {
    await teacher.signUp();
    await teacher.openNew();
    await teacher.buildTangent();
    await teacher.untilSaved();
    await server.stop();
    await teacher.setValue('a', '0.75');
    await expect(page.getByRole('alert')).toContainText('The server is away.');
    await teacher.state('g(x) = x^3');
    await expect(teacher.working).toContainText('g(x)');
    await server.start();
    await teacher.untilSaved();
    await expect(page.getByRole('alert')).toHaveCount(0);
    await page.reload();
    await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('0.75');
    await expect(teacher.working).toContainText('g(x)');

    // Closed while the server is away: the next window brings it along.
    await server.stop();
    await teacher.setValue('a', '1.5');
    await expect(page.getByRole('alert')).toContainText('The server is away.');
    const address = page.url();
    await server.start();
    await page.goto('about:blank');
    await page.goto(address);
    await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('1.5');
    await teacher.untilSaved();
    expect(JSON.stringify(await teacher.stored())).toContain('"1.5"');
  } finally {
    await page.close();
    await server.stop();
  }
});

test('9. two windows: different changes are joined and told, the same place is asked', async ({
  teacher,
  page,
  context,
}) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.untilSaved();
  const second = await context.newPage();
  const other = new Teacher(second, teacher.server);
  await second.goto(page.url());
  await expect(other.handle).toBeVisible();

  await teacher.setValue('a', '1');
  await teacher.untilSaved();
  await second.getByRole('textbox', { name: 'Title' }).fill('From the second window');
  await expect(second.getByRole('alert')).toContainText('Another window changed this demonstration too');
  await expect(other.lane('a').getByRole('textbox')).toHaveValue('1');
  await other.untilSaved();

  await page.getByRole('textbox', { name: 'Title' }).fill('From the first window');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Changed in two windows');
  await expect(dialog).toContainText('From the second window');
  await dialog.getByRole('radio', { name: /The other window/ }).click();
  await dialog.getByRole('button', { name: 'Keep the chosen ones' }).click();
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('From the second window');
  await teacher.untilSaved();
  expect((await teacher.stored()).title).toBe('From the second window');
  await second.close();
});

test('10. undo and redo, by button and by key, over everything', async ({ teacher, page }) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.setValue('a', '1');
  await teacher.setValue('a', '2');
  await page.getByRole('button', { name: /Undo/ }).click();
  await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('1');
  await page.getByRole('button', { name: /Redo/ }).click();
  await expect(teacher.lane('a').getByRole('textbox')).toHaveValue('2');
  await teacher.chooseFor('Tangent to f at x = a', 'Delete');
  await expect(teacher.entry(/Tangent to f/)).toHaveCount(0);
  await teacher.graph.focus();
  await page.keyboard.press('Control+z');
  await expect(teacher.entry(/Tangent to f/)).toBeVisible();
  for (let i = 0; i < 12; i++) await page.keyboard.press('Control+z');
  await expect(teacher.working).toContainText('Begin with a function');
  await expect(page.getByRole('button', { name: /Undo/ })).toBeDisabled();
  for (let i = 0; i < 12; i++) await page.keyboard.press('Control+Shift+z');
  await expect(teacher.entry(/Tangent to f/)).toHaveCount(0);
  await expect(teacher.entry('Slope f′')).toBeVisible();
});
