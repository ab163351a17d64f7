import { boxOf, expect, test } from './teacher.ts';

/** Point, tangent, slope tier, motion: driven through the real interface. */

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
  const box = await boxOf(teacher.graph);
  const pixelOf = (value: number) => box.x + 54 + ((value - x.from) / (x.to - x.from)) * (box.width - 72);
  const grip = await boxOf(teacher.handle);
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
  await expect(teacher.lane('b').getByRole('alert')).toHaveText('Please type a number such as 2.5 or 4/3.');
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
  await teacher.untilSaved();
  const before = await teacher.limits();
  const slider = teacher.lane('a').getByRole('slider', { name: 'a' });
  const limit = Number(await slider.getAttribute('max'));
  const value = async () => Number(await slider.inputValue());
  await teacher.handle.focus();
  // The run takes less than a second: it is watched from before it begins, frame by frame.
  const plays = page.getByRole('button', { name: 'Stop a' }).waitFor();
  await page.keyboard.press('Space');
  await plays;
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
  // Motion shows, it does not change the document, and the window stays still.
  expect(await teacher.limits()).toEqual(before);
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

test('a point that leaves by the top of the window keeps its grip, by hand and by key', async ({
  page,
  teacher,
}) => {
  await teacher.begin('f(x) = x^2', 'Tangent');
  await teacher.setValue('a', '1');
  // A low window, out of which the point soon goes.
  await page.getByRole('button', { name: 'Axes' }).click();
  const height = page
    .getByRole('group', { name: 'Heights of f' })
    .getByRole('textbox', { name: 'To', exact: true });
  await height.fill('1.5');
  await height.press('Enter');
  await page.keyboard.press('Escape');
  await teacher.untilSaved();
  const box = await boxOf(teacher.handle);
  const graph = await boxOf(teacher.graph);
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(graph.x + graph.width - 30, y, { steps: 12 });
  const out = Number(await teacher.handle.getAttribute('aria-valuenow'));
  expect(out).toBeGreaterThan(1);
  await page.mouse.move(x, y, { steps: 12 });
  await expect.poll(async () => Number(await teacher.handle.getAttribute('aria-valuenow'))).toBeLessThan(1.2);
  await page.mouse.up();
  await teacher.handle.focus();
  await page.keyboard.press('End');
  const end = await teacher.handle.getAttribute('aria-valuemax');
  await expect(teacher.handle).toHaveAttribute('aria-valuenow', end ?? '');
  await page.keyboard.press('Home');
  await expect(teacher.handle).not.toHaveAttribute('aria-valuenow', end ?? '');
});
