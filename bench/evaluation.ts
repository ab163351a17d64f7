import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import {
  ArrayEvaluator,
  chooseXRange,
  compile,
  derivativeOf,
  evaluatorFor,
  readExpression,
  sampleCurve,
  WasmEvaluator,
  type Evaluator,
  type Program,
} from '@yperkine/core';
import { references } from './functions.ts';
import { bestOf, geometricMean, table } from './measure.ts';

const scope = { names: new Set(['x']), functions: new Set<string>() };

function read(text: string) {
  const reading = readExpression(text, scope);
  if (!reading.ok) throw new Error(`cannot read ${text}`);
  return reading.value;
}

/** Evaluation at 100,000 points as a multiple of the loop written by hand, all in one process. */
function evaluation(name: string, make: (program: Program) => Evaluator): void {
  const xs = Float64Array.from({ length: 100_000 }, (_, i) => i / 10_000 - 5);
  const ys = new Float64Array(xs.length);
  const evaluators = references.map(({ text }) => make(compile(read(text), 'x')));
  // Every strategy meets every function before any is measured, as in a session with many curves.
  for (let round = 0; round < 20; round++) {
    references.forEach(({ loop }, i) => {
      loop(xs, ys);
      evaluators[i]?.evaluate(xs, ys);
    });
  }
  const ratios: number[] = [];
  const rows = references.map(({ text, loop }, i) => {
    const byHand = bestOf(5, 10, () => loop(xs, ys));
    const ours = bestOf(5, 10, () => evaluators[i]?.evaluate(xs, ys));
    ratios.push(ours / byHand);
    return [text, byHand.toFixed(3), ours.toFixed(3), (ours / byHand).toFixed(2)];
  });
  table([`100,000 points by ${name}`, 'by hand, ms', 'ours, ms', 'ratio'], rows);
  process.stdout.write(
    `geometric mean ${geometricMean(ratios).toFixed(2)}, worst ${Math.max(...ratios).toFixed(2)}\n\n`,
  );
}

/** Deriving, choosing a window and sampling a curve for 1,200 pixels, warm. */
function preparation(): void {
  const rows = references.map(({ text }) => {
    const program = compile(read(text), 'x');
    const evaluator = evaluatorFor(program);
    const grid = { xFrom: -5, xTo: 5, yFrom: -10, yTo: 10, width: 1200, height: 500 };
    const derive = bestOf(5, 5, () => derivativeOf(read(text), 'x'));
    const window = bestOf(5, 2, () => chooseXRange([{ program, parameters: [] }]));
    const slope = compile(read(text), 'x', undefined, 1);
    const sample = bestOf(5, 3, () => sampleCurve(program, evaluator, grid, [], slope));
    const { evaluations } = sampleCurve(program, evaluator, grid, [], slope);
    return [text, derive.toFixed(2), window.toFixed(1), sample.toFixed(2), String(evaluations)];
  });
  table(['preparing a curve', 'derivative, ms', 'window, ms', 'sampling, ms', 'evaluations'], rows);
}

/** The first points of a new formula, in fresh processes: nothing is warm. */
function coldStart(): void {
  const script = join(import.meta.dirname, 'cold.ts');
  const runs = Array.from({ length: 5 }, () =>
    execFileSync('node', ['--import', 'tsx', script], { encoding: 'utf8' }).trim().split(' ').map(Number),
  );
  const [best = []] = runs.sort(([a = 0, b = 0], [c = 0, d = 0]) => a + b - c - d);
  const [reading = NaN, first = NaN] = best;
  table(
    ['2,400 points of a new formula, cold', 'reading and compiling, ms', 'first run, ms'],
    [[references.at(-1)?.text ?? '', reading.toFixed(1), first.toFixed(1)]],
  );
  process.stdout.write('\n');
}

coldStart();
evaluation('WebAssembly', (program) => new WasmEvaluator(program));
evaluation('arrays, the fallback', (program) => new ArrayEvaluator(program));
preparation();
