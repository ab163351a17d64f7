import { derivative as referenceDerivative } from 'mathjs';
import {
  answerSent,
  compile,
  derivativeOf,
  keyPoints,
  limitOfProgram,
  printText,
  readExpression,
  sendable,
  type Expression,
} from '@yperkine/core';
import { Arcs } from '../packages/core/src/analysis/arcs.ts';
import { bestOf, table } from './measure.ts';

const read = (text: string): Expression => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};

/** The best of five, warm. */
const best = (work: () => void): number => {
  work();
  return bestOf(5, 3, work);
};

/** The same arithmetic as beside the dragging, to tell this machine from another. */
const calibration = bestOf(5, 1, () => {
  let sum = 0;
  for (let i = 1; i < 5_000_000; i++) sum += Math.sqrt(i) / i;
  if (Number.isNaN(sum)) throw new Error('unreachable');
});

const analysed: readonly [string, number, number][] = [
  ['x^3 - 3x', -3, 3],
  ['x^4 - 4x^2 + x', -3, 3],
  ['sin(x)', 0, 6.28],
  ['x e^(-x)', 0, 5],
  ['cos(x) - x', -2, 2],
  ['x^2 sin(x)', -5, 5],
  ['sin(x)/x', 1, 10],
  ['e^x sin(x)', -5, 5],
  ['tanh(x) - x/3', -4, 4],
  ['abs(x^2 - 4)', -3, 3],
  ['(x^2 - 1)/(x^2 + 1)', -4, 4],
];

/** The way of a question to a worker and of its answer back, by the copies that are made on it. */
const answered = (text: string, a: number, b: number): number => {
  const question = { ask: 'keyPoints', body: read(text), variable: 'x', interval: [a, b], order: 0 } as const;
  const started = performance.now();
  structuredClone(answerSent(structuredClone(sendable(question))));
  return performance.now() - started;
};

const keyPointRows = analysed.map(([text, a, b]) => {
  const first = answered(text, a, b);
  const body = read(text);
  const arcs = new Arcs(body, 'x', [a, b], 2);
  arcs.eventsUpTo(2);
  const time = best(() => keyPoints(body, 'x', [a, b]));
  const { points } = keyPoints(body, 'x', [a, b]);
  return [
    text,
    first.toFixed(1),
    time.toFixed(1),
    (time / calibration).toFixed(2),
    String(arcs.zeros.evaluations),
    String(points.length),
  ];
});
table(
  ['key points, all proved', 'first answer, ms', 'again, ms', 'ms / calibration', 'evaluations', 'points'],
  keyPointRows,
);
process.stdout.write('\n');

const limitRows = (
  [
    ['sin(x)/x', 0],
    ['(1 + 1/x)^x', Infinity],
    ['(tan(x) - x)/x^3', 0],
    ['x ln(x)', 0],
  ] as const
).map(([text, at]) => {
  const program = compile(read(text), 'x');
  return [`${text}, x → ${at}`, best(() => limitOfProgram(program, at, 'right')).toFixed(1)];
});
table(['limits', 'ms'], limitRows);
process.stdout.write('\n');

/** Length of a text without what a notation is free to leave out. */
const bare = (text: string): number => text.replace(/[\s*]/g, '').replace(/exp\(/g, 'e^(').length;
/** [in the product's notation, in that of the reference library] */
const formulas: readonly (readonly [string, string])[] = [
  ['x^5 - 4x^3 + x', 'x^5 - 4x^3 + x'],
  ['(x^2 + 1)/(x - 7)', '(x^2 + 1)/(x - 7)'],
  ['x^2 sin(x)', 'x^2*sin(x)'],
  ['e^(-x^2)', 'e^(-x^2)'],
  ['ln(x^2 + 1)', 'log(x^2 + 1)'],
  ['x sqrt(x + 4)', 'x*sqrt(x + 4)'],
  ['x^x', 'x^x'],
  ['tan(x)^2', 'tan(x)^2'],
];
const derivativeRows = formulas.map(([ours, theirs]) => {
  const time = best(() => derivativeOf(read(ours), 'x'));
  const text = printText(derivativeOf(read(ours), 'x'));
  const ratio = bare(text) / bare(referenceDerivative(theirs, 'x').toString());
  return [ours, time.toFixed(2), text, ratio.toFixed(2)];
});
table(['derivatives, simplified', 'ms', 'written', 'length / reference library'], derivativeRows);
process.stdout.write(`calibration loop ${calibration.toFixed(1)} ms\n`);
