import { createInterface } from 'node:readline';
import { Answering } from './answering.ts';

/** Reads one JSON question a line from standard input and writes one JSON answer a line. */
const answering = new Answering();
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
  process.once(signal, () => {
    answering.end();
    process.exit(1);
  });
const lines = createInterface({ input: process.stdin, crlfDelay: Infinity });
for await (const line of lines) {
  if (line.trim() !== '') process.stdout.write(`${await answering.answer(line)}\n`);
}
answering.end();
