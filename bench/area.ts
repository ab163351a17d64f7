import { evenPartition, integral, readExpression, riemannSum, type Expression } from '@yperkine/core';
import { integralOf } from '../packages/core/src/evaluate/quadrature.ts';
import { bestOf, table } from './measure.ts';

const read = (text: string): Expression => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};

/** The best of five, warm. */
const best = (work: () => void): number => {
  work();
  return bestOf(5, 1, work);
};

const integrated: readonly [string, (x: number) => number, number, number][] = [
  ['e^x', Math.exp, 0, 1],
  ['sqrt(x)', Math.sqrt, 0, 1],
  ['1/sqrt(x)', (x) => 1 / Math.sqrt(x), 0, 1],
  ['ln(x)', Math.log, 0, 1],
  ['abs(x - 1/3)', (x) => Math.abs(x - 1 / 3), 0, 1],
  ['sqrt(1 - x^2)', (x) => Math.sqrt(1 - x * x), -1, 1],
  ['2/(2 + sin(10π x))', (x) => 2 / (2 + Math.sin(10 * Math.PI * x)), 0, 1],
  ['e^(-x^2)', (x) => Math.exp(-x * x), 0, 6],
  ['x^2 sin(x)', (x) => x * x * Math.sin(x), 0, 5],
  ['sin(x^2)', (x) => Math.sin(x * x), 0, 10],
  ['e^(-((x - 3.3)/0.001)^2)', (x) => Math.exp(-(((x - 3.3) / 0.001) ** 2)), 0, 10],
];

const quadratureRows = integrated.map(([text, f, a, b]) => {
  let evaluations = 0;
  integralOf((x) => (evaluations++, f(x)), a, b);
  const time = best(() => integralOf(f, a, b));
  const body = read(text);
  const started = performance.now();
  const { certainty } = integral(body, 'x', [a, b]);
  const first = performance.now() - started;
  const again = best(() => integral(body, 'x', [a, b]));
  return [text, time.toFixed(3), String(evaluations), first.toFixed(1), again.toFixed(1), certainty];
});
table(
  ['integral', 'quadrature, ms', 'evaluations', 'with proof, first, ms', 'again, ms', ''],
  quadratureRows,
);
process.stdout.write('\n');

const summed = read('x^2 sin(x) + e^(-x)');
const sumRows = [1_000, 10_000, 1_000_000].flatMap((n) =>
  (['left', 'midpoint', 'trapezoid', 'simpson', 'upper'] as const).map((rule) => {
    const ends = evenPartition(0, 5, n);
    return [rule, String(n), best(() => riemannSum(summed, 'x', ends, rule)).toFixed(2)];
  }),
);
table(['sum of x² sin x + e⁻ˣ on [0, 5]', 'parts', 'ms'], sumRows);
