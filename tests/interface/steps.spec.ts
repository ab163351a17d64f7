import { orange, pixelsOf } from './pixels.ts';
import { boxOf, expect, test, type Teacher } from './teacher.ts';

const stepsOf = ({ page }: Teacher) => page.getByRole('group', { name: 'Steps' });
const revealOf = ({ page }: Teacher) => page.getByRole('switch', { name: 'Question 1' });
const keep = (teacher: Teacher) =>
  stepsOf(teacher).getByRole('button', { name: 'Keep this as a step' }).click();

/** A point at a = 1, and two steps: as it is, and at a = 2 with a reveal switched on. */
async function beginWithSteps(teacher: Teacher): Promise<void> {
  await teacher.begin('f(x) = x^2/4', 'Point on the curve');
  await teacher.ofDeck('Add a reveal');
  await teacher.setValue('a', '1');
  await teacher.ofDeck('Keep this as a step');
  await expect(stepsOf(teacher).getByRole('status')).toHaveText('Step 1');
  await teacher.setValue('a', '2');
  await revealOf(teacher).click();
  await keep(teacher);
  await expect(stepsOf(teacher).getByRole('status')).toHaveText('Step 2');
}

async function expectShown(teacher: Teacher, a: string, isRevealed: boolean): Promise<void> {
  await expect(teacher.page.getByRole('textbox', { name: 'Value of a' })).toHaveValue(a);
  await expect(revealOf(teacher)).toBeChecked({ checked: isRevealed });
}

test('steps show again what was kept: values, reveals and the window, forward and back', async ({
  page,
  teacher,
}) => {
  await beginWithSteps(teacher);
  const steps = stepsOf(teacher);
  const before = await teacher.limits();
  await teacher.graph.focus();
  await page.keyboard.press('ArrowRight');
  await teacher.untilSaved();
  expect(await teacher.limits()).not.toEqual(before);
  await steps.getByRole('button', { name: 'One step back' }).click();
  await expectShown(teacher, '1', false);
  await teacher.untilSaved();
  expect(await teacher.limits()).toEqual(before);
  await expect(steps.getByRole('button', { name: 'One step back' })).toBeDisabled();
  await steps.getByRole('button', { name: 'Step 2', exact: true }).click();
  await expectShown(teacher, '2', true);
  await expect(steps.getByRole('button', { name: 'One step on' })).toBeDisabled();
  await page.reload();
  await stepsOf(teacher).getByRole('button', { name: 'One step on' }).click();
  await expectShown(teacher, '1', false);
});

test('a step is titled, told what to leave alone, kept anew, put in order and deleted', async ({
  page,
  teacher,
}) => {
  await beginWithSteps(teacher);
  const steps = stepsOf(teacher);
  const settings = (name: string) => steps.getByRole('button', { name: `Settings of ${name}` }).click();
  await settings('Step 2');
  await page.getByLabel('Title of the step').fill('Twice as far');
  await page.getByLabel('Title of the step').press('Enter');
  await page.getByLabel('Sliders and points').uncheck();
  await page.keyboard.press('Escape');
  await expect(steps.getByRole('status')).toHaveText('Twice as far');

  await steps.getByRole('button', { name: 'Step 1', exact: true }).click();
  await steps.getByRole('button', { name: 'One step on' }).click();
  await expectShown(teacher, '1', true);

  await teacher.setValue('a', '3');
  await settings('Twice as far');
  await page.getByLabel('Sliders and points').check();
  await page.keyboard.press('Escape');
  await teacher.setValue('a', '4');
  await revealOf(teacher).click();
  await steps.getByRole('button', { name: 'Step 2: Twice as far' }).click();
  await expectShown(teacher, '3', true);

  await teacher.setValue('a', '5');
  await settings('Twice as far');
  await page.getByRole('button', { name: 'Keep what is shown now' }).click();
  await page.getByRole('button', { name: 'Earlier' }).click();
  await page.keyboard.press('Escape');
  await steps.getByRole('button', { name: 'Step 2', exact: true }).click();
  await expectShown(teacher, '1', false);
  await steps.getByRole('button', { name: 'Step 1: Twice as far' }).click();
  await expectShown(teacher, '5', true);

  await settings('Twice as far');
  await page.getByRole('button', { name: 'Delete this step' }).click();
  await expect(steps.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('status').filter({ hasText: 'Deleted' }).getByRole('button', { name: 'Undo' }).click();
  await expect(steps.getByRole('listitem')).toHaveCount(2);
});

test('by keyboard alone: the arrow keys go through the steps, and one undo takes the walk back', async ({
  page,
  teacher,
}) => {
  await beginWithSteps(teacher);
  const first = stepsOf(teacher).getByRole('button', { name: 'Step 1', exact: true });
  await first.focus();
  await page.keyboard.press('Enter');
  await expectShown(teacher, '1', false);
  await page.keyboard.press('ArrowRight');
  await expectShown(teacher, '2', true);
  await expect(stepsOf(teacher).getByRole('button', { name: 'Step 2', exact: true })).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expectShown(teacher, '1', false);
  await expect(first).toHaveAttribute('aria-current', 'step');
  await page.keyboard.press('Control+z');
  await expectShown(teacher, '2', true);
  await expect(first).not.toHaveAttribute('aria-current');
});

test('a trail stays through a step, and is cleared by one that says so', async ({ page, teacher }) => {
  await teacher.begin('f(x) = 2', 'Marker');
  await teacher.state('w = 0');
  const marker = teacher.entry(/^Marker/);
  await marker.getByLabel('Across').fill('w');
  await marker.getByLabel('Across').press('Enter');
  await teacher.chooseFor('Marker', 'Let it leave a trail');
  await teacher.ofDeck('Keep this as a step');
  await keep(teacher);
  const steps = stepsOf(teacher);
  await steps.getByRole('button', { name: 'Settings of Step 2' }).click();
  await page.getByLabel('Clear the trails on arriving').check();
  await page.keyboard.press('Escape');
  const marks = () => pixelsOf(page, orange);
  await steps.getByRole('button', { name: 'Step 1', exact: true }).click();
  const markerAlone = await marks();
  await page.getByRole('slider', { name: 'w', exact: true }).focus();
  for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowRight');
  await expect.poll(marks).toBeGreaterThan(markerAlone + 100);
  await steps.getByRole('button', { name: 'Step 1', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Value of w' })).toHaveValue('0');
  await expect.poll(marks).toBeGreaterThan(markerAlone + 100);
  await steps.getByRole('button', { name: 'One step on' }).click();
  await expect.poll(marks).toBe(markerAlone);
});

test('the lesson on Crag Hollow goes step by step from the walk to the depth of the hollow', async ({
  teacher,
}) => {
  await teacher.openDemonstration(/Crag Hollow/);
  const steps = stepsOf(teacher);
  const next = () => steps.getByRole('button', { name: 'One step on' }).click();
  const away = 'not shown just now';
  const [slope, joins] = [teacher.entry(/^Slope h/), teacher.entry(/^Where are the joins smooth/)];
  await next();
  await expect(steps.getByRole('status')).toHaveText('The walk');
  await expect(slope).toContainText(away);
  await next();
  await expect(slope).not.toContainText(away);
  await expect(joins).toContainText(away);
  await next();
  await expect(joins).not.toContainText(away);
  await next();
  await expect(steps.getByRole('status')).toHaveText('How deep?');
  await expect(slope).toContainText(away);
  await expect(teacher.page.getByRole('textbox', { name: 'Value of w' })).toHaveValue('4');
});

test.describe('on a phone', () => {
  test.use({ ownWindow: true, viewport: { width: 390, height: 844 } });

  test('nothing moves under the finger that goes from step to step', async ({ page, teacher }) => {
    await beginWithSteps(teacher);
    await teacher.untilSaved();
    await page.reload();
    const next = stepsOf(teacher).getByRole('button', { name: 'One step on' });
    const before = await boxOf(next);
    await next.click();
    await expectShown(teacher, '1', false);
    expect(await boxOf(next)).toEqual(before);
  });
});
