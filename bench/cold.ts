import { compile, readExpression, WasmEvaluator } from '@yperkine/core';
import { references } from './functions.ts';

/** Prints the milliseconds that the first 2,400 points of a new formula take in a process that has just begun. */
const hardest = references.at(-1)?.text ?? '';
const xs = Float64Array.from({ length: 2400 }, (_, i) => i / 240 - 5);
const ys = new Float64Array(xs.length);
const start = performance.now();
const reading = readExpression(hardest, { names: new Set(['x']), functions: new Set() });
if (!reading.ok) throw new Error(hardest);
const evaluator = new WasmEvaluator(compile(reading.value, 'x'));
const compiled = performance.now();
evaluator.evaluate(xs, ys);
process.stdout.write(`${compiled - start} ${performance.now() - compiled}\n`);
