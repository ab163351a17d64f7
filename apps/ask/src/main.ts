import { createInterface } from 'node:readline';
import { answerLine } from './answers.ts';

/** Reads one JSON question a line from standard input and writes one JSON answer a line. */
const lines = createInterface({ input: process.stdin, crlfDelay: Infinity });
for await (const line of lines) {
  if (line.trim() !== '') process.stdout.write(`${answerLine(line)}\n`);
}
