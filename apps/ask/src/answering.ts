import { fork, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';

/** How long a question may take, in milliseconds. */
const longest = 10_000;
const program = fileURLToPath(new URL('oneByOne.ts', import.meta.url));

/** What reads the program from its sources, with the bounds that this process has. */
const reader = process.execArgv.includes('tsx') ? process.execArgv : ['--import', 'tsx'];

const errorLine = (error: string): string => JSON.stringify({ error });

/** Answers lines one by one in a process of its own, which is replaced when one of them takes too long. */
export class Answering {
  private child: ChildProcess | null = null;

  /** @param limit how long a question may take, in milliseconds; loading the program is not counted */
  constructor(private readonly limit = longest) {}

  /** The answer to one line of JSON, as one line of JSON. It comes within the limit. @throws where the program cannot be started */
  async answer(line: string): Promise<string> {
    const child = await this.ready();
    return new Promise((resolve) => {
      const done = (answer: string): void => {
        clearTimeout(timer);
        child.removeAllListeners();
        resolve(answer);
      };
      const giveUp = (reason: string): void => {
        this.end();
        done(errorLine(reason));
      };
      const timer = setTimeout(
        () => giveUp(`This takes longer than ${this.limit / 1000} s and was given up.`),
        this.limit,
      );
      child.on('message', (answer: string) => done(answer));
      child.on('exit', () =>
        giveUp('The program that answers ended over this, as it does where memory is short.'),
      );
      child.send(line);
    });
  }

  end(): void {
    this.child?.kill('SIGKILL');
    this.child = null;
  }

  private async ready(): Promise<ChildProcess> {
    if (this.child) return this.child;
    this.child = fork(program, { execArgv: reader });
    const [said] = (await Promise.race([once(this.child, 'message'), once(this.child, 'exit')])) as unknown[];
    if (said !== 'ready') throw new Error('The program that answers questions could not be started.');
    this.child.removeAllListeners();
    return this.child;
  }
}
