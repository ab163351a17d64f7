import { randomInt } from 'node:crypto';
import { request } from 'node:http';
import {
  test as base,
  expect,
  type ConsoleMessage,
  type Locator,
  type Page,
  type Request,
} from '@playwright/test';
import { furniture, type Document } from '@yperkine/demonstration';
import { changesStating, makeDemonstration } from './made.ts';
import { TestServer } from './server.ts';
import { SharedWindow } from './sharedWindow.ts';

/** What a teacher does with the interface, in the words of the interface. */
export class Teacher {
  constructor(
    readonly page: Page,
    readonly server: TestServer,
  ) {}

  /** A new account of one's own, made over the wire, so that tests do not meet. */
  async signUp(): Promise<void> {
    const email = `${crypto.randomUUID()}@tarn-valley.example`;
    const account = { name: 'Teacher', email, password: 'a long enough one' };
    const { status, cookies } = await postFromElsewhere(`${this.server.address}/api/accounts`, account);
    expect(status).toBe(201);
    await this.page.context().addCookies(cookies.map((cookie) => ({ ...cookie, url: this.server.address })));
  }

  async openLibrary(): Promise<void> {
    await this.page.goto(this.server.address);
    await expect(this.page.getByRole('heading', { name: 'Library' })).toBeVisible();
  }

  /** Opens a new demonstration, made over the wire, in which these are given. */
  async openNew(...givens: readonly string[]): Promise<void> {
    const { page } = this;
    const { address } = this.server;
    const id = await makeDemonstration(page.request, address, changesStating(givens));
    await page.goto(`${address}/demonstrations/${id}`);
    await expect(this.nextGiven).toBeVisible();
  }

  /** Presses New in the library. */
  async openNewFromLibrary(): Promise<void> {
    await this.openLibrary();
    await this.page.getByRole('button', { name: 'New' }).click();
    await expect(this.nextGiven).toBeVisible();
  }

  get nextGiven(): Locator {
    return this.page.getByRole('textbox', { name: 'Next given' });
  }
  get working(): Locator {
    return this.page.getByRole('complementary', { name: 'Working' });
  }
  get graph(): Locator {
    return this.page.getByRole('application', { name: /Graph window/ });
  }
  /** The word beside the title that says whether everything is saved. */
  get savedState(): Locator {
    return this.page.getByRole('banner').getByRole('status');
  }
  get handle(): Locator {
    return this.page.getByRole('slider', { name: /^Point on/ });
  }
  lane(name: string): Locator {
    return this.page.getByRole('group', { name: `Slider ${name}` });
  }
  entry(heading: string | RegExp): Locator {
    return this.working.getByRole('region', { name: heading });
  }

  /** Types the next given and presses Enter. */
  async state(text: string): Promise<void> {
    await this.nextGiven.click();
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
  }

  async chooseFor(heading: string, action: string | RegExp): Promise<void> {
    await this.page
      .getByRole('button', { name: `More for ${heading}` })
      .first()
      .click();
    await this.page.getByRole('menuitem', { name: action }).click();
  }

  /** Opens the chooser for a given and takes a study from it. */
  async show(study: string, heading = 'Given'): Promise<void> {
    await this.chooseFor(heading, 'Show more of it …');
    await this.page.getByRole('dialog').getByRole('button', { name: study, exact: true }).click();
  }

  /** Opens the chooser by the button at the foot of the working and takes a study from it. */
  async add(study: string): Promise<void> {
    await this.page.getByRole('button', { name: 'Add', exact: true }).click();
    await this.page.getByRole('dialog').getByRole('button', { name: study, exact: true }).click();
  }

  /** A new demonstration with one given and studies of it. */
  async begin(given: string, ...studies: readonly string[]): Promise<void> {
    await this.openNew(given);
    for (const study of studies) await this.add(study);
  }

  /** Opens a demonstration of the demo teacher. */
  async openDemonstration(title: RegExp): Promise<void> {
    await this.page.context().clearCookies();
    await this.page.goto(this.server.address);
    await this.page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
    await this.page.getByRole('link', { name: title }).click();
    await expect(this.nextGiven).toBeVisible();
  }

  /** f with a tangent and its slope in a tier of its own, made through the interface. */
  async buildTangent(text = 'f(x) = 3x^2 - 5x - 2'): Promise<void> {
    await this.state(text);
    await this.show('Tangent');
    await this.show('Derivative');
    await expect(this.handle).toBeVisible();
  }

  /** Takes an action from the menu of the deck. */
  async ofDeck(action: string): Promise<void> {
    await this.page.getByRole('button', { name: 'More for the deck' }).click();
    await this.page.getByRole('menuitem', { name: action }).click();
  }

  async setTitle(title: string): Promise<void> {
    await this.page.getByRole('textbox', { name: 'Title' }).fill(title);
    await this.page.getByRole('textbox', { name: 'Title' }).press('Enter');
  }

  async setValue(name: string, value: string): Promise<void> {
    const field = this.lane(name).getByRole('textbox', { name: `Value of ${name}` });
    await field.fill(value);
    await field.press('Enter');
  }

  /** The stored document, as the server has it. */
  async stored(): Promise<Document> {
    const id = this.page.url().split('/').at(-1) ?? '';
    const response = await this.page.request.get(`${this.server.address}/api/demonstrations/${id}`);
    return ((await response.json()) as { document: Document }).document;
  }

  async untilSaved(): Promise<void> {
    await expect(this.savedState).toHaveText('saved');
  }

  /** Turns a place of the only tier into a place of the page. */
  async placeOnPage(): Promise<(x: number, y: number) => { x: number; y: number }> {
    await this.untilSaved();
    const { x: across, tiers } = await this.stored();
    const up = tiers['tier-f']?.y ?? across;
    const box = await boxOf(this.graph);
    const { left, right, title, xNumbers } = furniture;
    return (x, y) => ({
      x: box.x + left + ((x - across.from) / (across.to - across.from)) * (box.width - left - right),
      y: box.y + title + ((up.to - y) / (up.to - up.from)) * (box.height - title - xNumbers),
    });
  }

  async limits(): Promise<{ from: number; to: number }> {
    const { x } = await this.stored();
    return x;
  }
}

interface Answer {
  readonly status: number;
  readonly cookies: readonly { name: string; value: string }[];
}

/** Posts from a loopback address of its own, since new accounts are limited by address and tests make many. */
function postFromElsewhere(url: string, body: object): Promise<Answer> {
  const localAddress = `127.0.${randomInt(1, 255)}.${randomInt(1, 255)}`;
  const headers = { 'content-type': 'application/json' };
  return new Promise((resolve, reject) => {
    const sent = request(url, { method: 'POST', localAddress, headers }, (response) => {
      const cookies = (response.headers['set-cookie'] ?? []).map((line) => {
        const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(line) ?? [];
        return { name, value };
      });
      response.resume();
      response.on('end', () => resolve({ status: response.statusCode ?? 0, cookies }));
    });
    sent.on('error', reject);
    sent.end(JSON.stringify(body));
  });
}

/** Where a visible element stands on the page. */
export async function boxOf(
  locator: Locator,
): Promise<{ x: number; y: number; width: number; height: number }> {
  const box = await locator.boundingBox();
  if (!box) throw new Error('this element is not shown');
  return box;
}

interface Fixtures {
  readonly teacher: Teacher;
  readonly problems: string[];
  /** Whether the test works in a window of its own: where it changes what cannot be changed back, or counts what travels. */
  readonly ownWindow: boolean;
}
interface WorkerFixtures {
  readonly server: TestServer;
  readonly sharedWindow: SharedWindow;
}

/** A test with a signed-in teacher; any page error, console error or request to elsewhere fails it. */
export const test = base.extend<Fixtures, WorkerFixtures>({
  ownWindow: [false, { option: true }],
  sharedWindow: [
    async ({ browser }, use) => {
      const shared = new SharedWindow(browser);
      await use(shared);
      await shared.drop();
    },
    { scope: 'worker' },
  ],
  context: async ({ browser, ownWindow, sharedWindow, server }, use, test) => {
    if (ownWindow) {
      const context = await browser.newContext();
      await use(context);
      await context.close();
      return;
    }
    await use((await sharedWindow.open()).context());
    if (test.status === 'passed') await sharedWindow.clear(server.address);
    else await sharedWindow.drop();
  },
  page: async ({ context, ownWindow, sharedWindow }, use) => {
    await use(ownWindow ? await context.newPage() : await sharedWindow.open());
  },
  server: [
    async ({ browserName: _browser }, use) => {
      const server = await TestServer.launch();
      await use(server);
      await server.stop();
    },
    { scope: 'worker' },
  ],
  problems: async ({ page, server }, use) => {
    const problems: string[] = [];
    const noteError = (error: Error): void => void problems.push(error.stack ?? String(error));
    const noteMessage = (message: ConsoleMessage): void => {
      const isExpected = /Failed to load resource/.test(message.text());
      if (message.type() === 'error' && !isExpected) problems.push(message.text());
    };
    const noteRequest = (request: Request): void => {
      if (!request.url().startsWith(server.address)) problems.push(`request to ${request.url()}`);
    };
    page.on('pageerror', noteError).on('console', noteMessage).on('request', noteRequest);
    await use(problems);
    page.off('pageerror', noteError).off('console', noteMessage).off('request', noteRequest);
    expect(problems).toEqual([]);
  },
  teacher: async ({ page, server, problems: _problems }, use) => {
    const teacher = new Teacher(page, server);
    await teacher.signUp();
    await use(teacher);
  },
});

export { expect };
