import { describe, expect, test } from '@jest/globals';
import {
  ArrayEvaluator,
  derivativesAt,
  evaluateAt,
  evaluatorFor,
  WasmEvaluator,
  type Evaluator,
  type Program,
} from '../src/index.ts';
import { expression, program } from './scope.ts';
import { compile } from '../src/index.ts';

const evaluators: readonly [string, (program: Program) => Evaluator][] = [
  ['WebAssembly', (p) => new WasmEvaluator(p)],
  ['arrays', (p) => new ArrayEvaluator(p)],
];

const valuesOf = (make: (p: Program) => Evaluator, text: string, xs: number[], parameters: number[] = []) => {
  const ys = new Float64Array(xs.length);
  make(program(text)).evaluate(Float64Array.from(xs), ys, parameters);
  return [...ys];
};

describe.each(evaluators)('evaluation by %s', (_name, make) => {
  test.each([
    ['3x^2 - 5x - 2', [1, 2, -1], [-4, 0, 6]],
    ['1/x', [0, 2], [NaN, 0.5]],
    ['1/(1/x)', [0, 2], [NaN, 2]],
    ['x^-2', [0, 2], [NaN, 0.25]],
    ['ln x', [0, 1, -1], [NaN, 0, NaN]],
    ['√x', [4, -1], [2, NaN]],
    ['x^(1/3)', [-8, 8], [-2, 2]],
    ['x^(2/3)', [-8], [4]],
    ['x^70', [1, -1], [1, 1]],
    ['min(x, 2) + max(x, 3)', [1, 5], [4, 7]],
    ['floor x + ceil x + |x|', [-1.5], [-1.5]],
    ['log_2(x)', [8], [3]],
    ['mod(x, 3)', [-1, 7], [2, 1]],
    ['x!', [5, 0.5], [120, NaN]],
  ] as const)('%s', (text, xs, ys) => {
    const values = valuesOf(make, text, [...xs]);
    values.forEach((value, i) => {
      if (Number.isNaN(ys[i])) expect(value).toBeNaN();
      else expect(value).toBeCloseTo(ys[i] as number, 12);
    });
  });

  test('parameters are inputs: the same compiled function, other values', () => {
    const f = compile(expression('a x^2 + b'), 'x');
    const evaluator = make(f);
    const ys = new Float64Array(1);
    evaluator.evaluate(Float64Array.of(3), ys, [2, 1]);
    expect(ys[0]).toBe(19);
    evaluator.evaluate(Float64Array.of(3), ys, [1, 0]);
    expect(ys[0]).toBe(9);
  });

  test('arrays of any length, longer than a block too', () => {
    const f = program('x^2 + 1');
    for (const length of [0, 1, 511, 512, 4096, 4097, 10_000]) {
      const xs = Float64Array.from({ length }, (_, i) => i / 100);
      const ys = new Float64Array(length);
      make(f).evaluate(xs, ys);
      const wrong = [...ys.keys()].filter((i) => ys[i] !== evaluateAt(f, xs[i] as number));
      expect(wrong).toEqual([]);
    }
  });

  test('the array given is left as it was', () => {
    const xs = Float64Array.of(1, 2, 3);
    make(program('x^2')).evaluate(xs, new Float64Array(3));
    expect([...xs]).toEqual([1, 2, 3]);
  });
});

test('the smaller or larger of two numbers is undefined where one of them is, in every evaluation', () => {
  for (const text of ['min(x/0, 2)', 'max(2, ln(-1 - x^2))', 'min(sqrt(-1), x)']) {
    const compiled = program(text);
    expect(evaluateAt(compiled, 0.5)).toBeNaN();
    expect(derivativesAt(compiled, 0.5, 1)).toEqual([NaN, NaN]);
  }
});

describe('the evaluator of a function', () => {
  test('is WebAssembly where the platform has it, made once', () => {
    const f = program('sin x');
    expect(evaluatorFor(f)).toBeInstanceOf(WasmEvaluator);
    expect(evaluatorFor(f)).toBe(evaluatorFor(f));
  });

  test('is arrays where WebAssembly is forbidden', () => {
    const { Module } = WebAssembly;
    try {
      const forbidden = function () {
        throw new WebAssembly.CompileError('forbidden by policy');
      };
      Object.assign(WebAssembly, { Module: forbidden });
      const ys = new Float64Array(1);
      const evaluator = evaluatorFor(program('x^2 + 3'));
      expect(evaluator).toBeInstanceOf(ArrayEvaluator);
      evaluator.evaluate(Float64Array.of(2), ys);
      expect(ys[0]).toBe(7);
    } finally {
      Object.assign(WebAssembly, { Module });
    }
  });
});
