import { expect, test } from './teacher.ts';

test('play all sets every lane in motion; a lane stops alone, the rest stop together', async ({
  page,
  teacher,
}) => {
  await teacher.openNew();
  await teacher.state('f(x) = b x^2');
  await expect(page.getByRole('alert')).toContainText('“b” is not known here.');
  await page.getByRole('button', { name: 'Make b a slider' }).click();
  await teacher.nextGiven.press('Enter');
  await teacher.add('Tangent');
  const valueOf = (name: string) => page.getByRole('textbox', { name: `Value of ${name}` });
  const [a, b] = [await valueOf('a').inputValue(), await valueOf('b').inputValue()];
  await page.getByRole('button', { name: 'Play all' }).click();
  await expect(valueOf('a')).not.toHaveValue(a);
  await expect(valueOf('b')).not.toHaveValue(b);
  await page.getByRole('button', { name: 'Stop b' }).click();
  const stopped = await valueOf('b').inputValue();
  const moving = await valueOf('a').inputValue();
  await expect(valueOf('a')).not.toHaveValue(moving);
  await expect(valueOf('b')).toHaveValue(stopped);
  await page.getByRole('button', { name: 'Stop all' }).click();
  await expect(page.getByRole('button', { name: 'Play a', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play all' })).toBeVisible();
});

test('a lane goes at a pace in units a second, forward only, or by steps with a pause', async ({
  page,
  teacher,
}) => {
  await teacher.openNew();
  await teacher.state('t = 0');
  const lane = teacher.lane('t');
  const value = lane.getByRole('textbox', { name: 'Value of t' });
  await page.getByRole('button', { name: 'Settings of t' }).click();
  const set = async (label: string, text: string) => {
    await page.getByLabel(label, { exact: true }).fill(text);
    await page.getByLabel(label, { exact: true }).press('Enter');
  };
  await set('From', '0');
  await set('To', '6');
  await page.getByLabel('Pace in').selectOption('units a second');
  await set('Units a second', '4');
  await page.getByRole('radio', { name: 'Over and over' }).click();
  await page.keyboard.press('Escape');
  await expect(lane).toContainText('4 a second');
  await lane.getByRole('button', { name: 'Play t' }).click();
  // Forward only: it falls at its turns alone, and going forward all the time takes it no further than its pace.
  const seen = await value.evaluate(async (field: HTMLInputElement) => {
    const values: number[] = [];
    const from = performance.now();
    while (performance.now() < from + 3500) {
      await new Promise(requestAnimationFrame);
      values.push(Number(field.value.replace('−', '-')));
    }
    return { values, seconds: (performance.now() - from) / 1000 };
  });
  const steps = seen.values.slice(1).map((now, i) => now - (seen.values[i] as number));
  expect(steps.filter((step) => step < 0).length).toBeGreaterThan(0);
  const forward = steps.map((step) => (step < 0 ? step + 6 : step)).reduce((sum, step) => sum + step, 0);
  expect(forward).toBeGreaterThan(6);
  expect(forward).toBeLessThan(4 * seen.seconds + 6);
  await lane.getByRole('button', { name: 'Stop t' }).click();

  await page.getByRole('button', { name: 'Settings of t' }).click();
  await set('Step', '1.5');
  await page.getByLabel('It moves').selectOption('step by step');
  await set('Seconds at each step', '0.6');
  await page.getByRole('radio', { name: 'Once' }).click();
  await set('Seconds at each step', '0');
  await expect(page.getByRole('alert')).toHaveText('A pause must take some time.');
  await page.keyboard.press('Escape');
  await teacher.setValue('t', '0');
  const stops = await value.evaluate(async (field: HTMLInputElement) => {
    const values = new Set<string>();
    const button = document.querySelector<HTMLButtonElement>('[aria-label="Play t"]');
    button?.click();
    const until = performance.now() + 20_000;
    while (!values.has('6') && performance.now() < until) {
      await new Promise(requestAnimationFrame);
      values.add(field.value);
    }
    return [...values];
  });
  // A busy machine may leave out a stop, but shows nothing between two of them.
  const all = ['0', '1.5', '3', '4.5', '6'];
  expect(stops).toEqual(all.filter((stop) => stops.includes(stop)));
  expect(stops.length).toBeGreaterThan(2);
  expect(stops.at(-1)).toBe('6');
});

test('a lane can be locked for students or hidden from them', async ({ page, teacher }) => {
  await teacher.openNew();
  await teacher.state('t = 0');
  await teacher.state('b = 1');
  for (const [name, choice] of [
    ['t', 'only see it'],
    ['b', 'do not see it'],
  ] as const) {
    await page.getByRole('button', { name: `Settings of ${name}` }).click();
    await page.getByLabel('Students', { exact: true }).selectOption(choice);
    await page.keyboard.press('Escape');
  }
  await teacher.ofDeck('Show the lanes as students see them');
  await expect(teacher.lane('b')).toHaveCount(0);
  await expect(teacher.lane('t').getByRole('slider')).toBeDisabled();
  await expect(page.getByRole('button', { name: 'Play t' })).toHaveCount(0);
  await teacher.ofDeck('Show all lanes again');
  await expect(teacher.lane('b')).toBeVisible();
});

test('with reduced motion a run goes in jumps, a second apart', async ({ page, teacher }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await teacher.openNew();
  await teacher.state('t = 0');
  const value = teacher.lane('t').getByRole('textbox', { name: 'Value of t' });
  await page.getByRole('button', { name: 'Play t' }).click();
  const { count, seconds } = await value.evaluate(async (field: HTMLInputElement) => {
    let count = 0;
    let last = field.value;
    const from = performance.now();
    while (performance.now() < from + 3300) {
      await new Promise(requestAnimationFrame);
      if (field.value !== last) count++;
      last = field.value;
    }
    return { count, seconds: (performance.now() - from) / 1000 };
  });
  expect(count).toBeGreaterThanOrEqual(2);
  expect(count).toBeLessThanOrEqual(seconds + 1);
});

test('an exact value is typed while the lane plays: the digits that are typed over stand still', async ({
  teacher,
  page,
}) => {
  await teacher.begin('f(x) = sin x', 'Tangent');
  const lane = teacher.lane('a');
  const value = lane.getByRole('textbox', { name: 'Value of a' });
  const slider = lane.getByRole('slider', { name: 'a', exact: true });
  const moves = async () => expect(slider).not.toHaveValue(await slider.inputValue());
  await page.getByRole('button', { name: 'Play a', exact: true }).click();
  await moves();
  await value.click();
  const digits = await value.inputValue();
  await moves();
  await expect(value).toHaveValue(digits);
  await page.keyboard.type('2');
  await moves();
  await expect(value).toHaveValue('2');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Play a', exact: true })).toBeVisible();
  await expect(value).toHaveValue('2');
  await expect(slider).toHaveAttribute('aria-valuetext', '2');

  // Left without a change, it follows again.
  await page.getByRole('button', { name: 'Play a', exact: true }).click();
  await value.click();
  const held = await value.inputValue();
  await moves();
  await page.keyboard.press('Tab');
  await expect(value).not.toHaveValue(held);
  await expect(page.getByRole('button', { name: 'Stop a', exact: true })).toBeVisible();
});
