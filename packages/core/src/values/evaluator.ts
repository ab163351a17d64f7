import type { Program } from '../evaluate/program.ts';
import { ArrayEvaluator } from './arrays.ts';
import { OutOfEffort } from '../budget/effort.ts';
import { isCompilable, WasmEvaluator } from './wasm.ts';

/** Evaluates a function over arrays of points. */
export interface Evaluator {
  evaluate(xs: Float64Array, ys: Float64Array, parameters?: readonly number[]): void;
}

const known = new WeakMap<Program, Evaluator>();

/**
 * The fastest evaluator that this platform allows for a program: WebAssembly made at run time, and
 * arrays step by step where WebAssembly is missing or forbidden. Made once a program and let go with it.
 */
export function evaluatorFor(program: Program): Evaluator {
  const found = known.get(program);
  if (found) return found;
  const evaluator = compiled(program) ?? new ArrayEvaluator(program);
  known.set(program, evaluator);
  return evaluator;
}

function compiled(program: Program): Evaluator | null {
  if (typeof WebAssembly !== 'object' || !isCompilable(program)) return null;
  try {
    return new WasmEvaluator(program);
  } catch (error) {
    if (error instanceof OutOfEffort) throw error;
    // A content security policy may forbid it.
    return null;
  }
}
