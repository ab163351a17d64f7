import { faultsOn } from './accessibility.ts';
import { bytesOfDocument, currentVersion, makeEntry, type Entry } from '@yperkine/demonstration';
import { TestServer } from './server.ts';
import { expect, test, Teacher } from './teacher.ts';

test.use({ ownWindow: true });

/** Saving, two windows, undo: driven through the real interface. */

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
  // A window that was closed leaves its half-typed line to the next one.
  const next = await page.context().newPage();
  await next.goto(page.url());
  await expect(new Teacher(next, teacher.server).nextGiven).toHaveText('k(x) = 2 +');
  await next.close();
});

test('9. the server stops: a notice, work goes on, nothing is lost, and it saves when the server is back', async ({
  browser,
}) => {
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

test('9. two windows: different changes are joined and told, the same place is asked by its name', async ({
  teacher,
  page,
  context,
}) => {
  // Windows that do not hear of each other, as where the network lets no news through.
  await context.route('**/news', (route) => route.abort());
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
  const title = dialog.getByRole('radiogroup', { name: 'The title' });
  await expect(title.getByRole('radio', { name: /This window/ })).toContainText('From the first window');
  await expect(title.getByRole('radio', { name: /The other window/ })).toContainText(
    'From the second window',
  );
  expect(await faultsOn(page, '[role="dialog"]')).toEqual([]);
  await dialog.getByRole('radio', { name: /The other window/ }).click();
  await dialog.getByRole('button', { name: 'Keep the chosen ones' }).click();
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('From the second window');
  await teacher.untilSaved();
  expect((await teacher.stored()).title).toBe('From the second window');

  await teacher.setValue('a', '3');
  await teacher.untilSaved();
  await other.setValue('a', '2');
  const value = second.getByRole('dialog').getByRole('radiogroup', { name: 'The value of slider a' });
  await expect(value.getByRole('radio', { name: /This window/ })).toContainText('2');
  await expect(value.getByRole('radio', { name: /The other window/ })).toContainText('3');
  await second.getByRole('button', { name: 'Keep the chosen ones' }).click();
  await other.untilSaved();
  await expect(other.lane('a').getByRole('textbox')).toHaveValue('2');
  await second.close();
});

test('an open window hears that another saved, and shows it unless just that is being edited', async ({
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
  await teacher.setValue('a', '1.75');
  await expect(other.lane('a').getByRole('textbox')).toHaveValue('1.75');
  await other.state('g(x) = x^3');
  await expect(teacher.working).toContainText('g(x)');
  await expect(page.getByRole('alert')).toHaveCount(0);

  // The formula that is open here stays as it is typed; once it is closed, what others did is asked about or shown.
  await teacher.working.getByRole('button', { name: 'Change the formula g(x) = x^3' }).click();
  await other.working.getByRole('button', { name: 'Change the formula g(x) = x^3' }).click();
  await second.keyboard.type(' + 1');
  await second.keyboard.press('Enter');
  await other.untilSaved();
  await expect(page.getByRole('textbox', { name: 'Formula' })).toHaveText('g(x) = x^3');
  await page.getByRole('textbox', { name: 'Formula' }).press('Enter');
  await expect(
    teacher.working.getByRole('button', { name: 'Change the formula g(x) = x^3 + 1' }),
  ).toBeVisible();
  await second.close();
});

test('what the server refuses for good is undone with a sentence, and all else is saved', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  await teacher.state('f(x) = x^2');
  await teacher.untilSaved();
  // A server that takes no title: what it refuses stands for any rule that this page does not know.
  await page.route('**/changes', async (route) => {
    const isTitle = route.request().postData()?.includes('"field":"title"') ?? false;
    if (!isTitle) return route.continue();
    const error = { code: 'invalidChange', message: 'Titles are not kept here.' };
    await route.fulfill({ status: 422, json: { error } });
  });
  await page.getByRole('textbox', { name: 'Title' }).fill('Refused');
  await page.getByRole('textbox', { name: 'Title' }).press('Enter');
  await teacher.state('g(x) = x^3');
  await expect(page.getByRole('alert')).toContainText('Titles are not kept here. This change was undone');
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Untitled demonstration');
  await teacher.untilSaved();
  expect(Object.values((await teacher.stored()).entries)).toHaveLength(2);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a copy of it' }).click();
  expect((await download).suggestedFilename()).toBe('unsaved change.json');
});

test('a fault of the server is told as such, with a copy to save; a browser that keeps nothing is told of', async ({
  teacher,
  page,
}) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, 'indexedDB', { value: undefined });
  });
  await teacher.openNew();
  await teacher.state('f(x) = x^2');
  await teacher.untilSaved();
  await page.route('**/changes', (route) =>
    route.fulfill({ status: 500, json: { error: { code: 'internal', message: 'Something went wrong.' } } }),
  );
  await teacher.state('g(x) = x^3');
  await expect(page.getByRole('alert')).toContainText('this browser refuses to keep what is unsaved');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a copy' }).click();
  const stream = await (await download).createReadStream();
  const pieces: Buffer[] = [];
  for await (const piece of stream) pieces.push(piece as Buffer);
  expect(Buffer.concat(pieces).toString()).toContain('g(x) = x^3');
  await page.unroute('**/changes');
  await teacher.untilSaved();
});

test('what would be refused is refused in place: an entry too many, a text too long; nothing typed is lost', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  const id = page.url().split('/').at(-1) ?? '';
  const entry = (i: number) => makeEntry('heading', { order: i, title: `Part ${i}`, folded: true });
  const edits = Array.from({ length: 500 }, (_, i) => ({
    at: 'entries',
    id: `h${i}`,
    old: null,
    new: entry(i),
  }));
  const saved = await page.request.post(`${teacher.server.address}/api/demonstrations/${id}/changes`, {
    data: { base: 0, changes: [{ id: 'many', edits }] },
  });
  expect(saved.status()).toBe(200);
  await page.reload();
  await teacher.state('f(x) = x^2');
  await expect(page.getByRole('alert').first()).toContainText(
    'A demonstration has room for 500 entries; delete one first.',
  );
  await expect(teacher.nextGiven).toHaveText('f(x) = x^2');
  await teacher.untilSaved();
});

test('a demonstration that grows large tells so before it is full, and refuses in place what is too much', async ({
  teacher,
  page,
}) => {
  await teacher.openNew();
  const demonstration = page.url().replace('/demonstrations/', '/api/demonstrations/');
  const filling = (bytes: number) =>
    makeEntry('data', { order: 900, name: 'd', tier: 'tier-f', table: 'x'.repeat(bytes) });
  let version = 0;
  const fill = async (id: string, entry: Entry) => {
    const changes = [{ id, edits: [{ at: 'entries', id, old: null, new: entry }] }];
    const data = { base: version++, format: currentVersion, changes };
    expect((await page.request.post(`${demonstration}/changes`, { data })).status()).toBe(200);
  };
  const most = 5e6;
  for (let i = 0; i < 8; i++) await fill(`d${i}`, filling(550_000));
  const room = async () => most - bytesOfDocument(await teacher.stored());
  await fill('rest', filling((await room()) - most / 10 - 400));
  await page.reload();
  await teacher.state('f(x) = x^2');
  const told = page.getByRole('alert').or(page.getByRole('status'));
  await expect(
    told.getByText('This demonstration takes 4.5 MB of the 5 MB that one may take.'),
  ).toBeVisible();
  await teacher.untilSaved();
  version++;
  await fill('last', filling((await room()) - 400));
  await page.reload();
  await teacher.state('g(x) = x^3');
  await expect(page.getByText('A demonstration can take 5 MB, and this would be more.')).toBeVisible();
  await expect(teacher.nextGiven).toHaveText('g(x) = x^3');
  expect(Object.keys((await teacher.stored()).entries)).toHaveLength(11);
});

test('10. undo and redo, by button and by key, over everything', async ({ teacher, page }) => {
  await teacher.openNew();
  await teacher.buildTangent();
  await teacher.setValue('a', '1');
  await teacher.setValue('a', '2');
  await page.getByRole('button', { name: /^Undo \(/ }).click();
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
  await expect(page.getByRole('button', { name: /^Undo \(/ })).toBeDisabled();
  for (let i = 0; i < 12; i++) await page.keyboard.press('Control+Shift+z');
  await expect(teacher.entry(/Tangent to f/)).toHaveCount(0);
  await expect(teacher.entry('Slope f′')).toBeVisible();
});
