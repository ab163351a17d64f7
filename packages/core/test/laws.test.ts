import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  ArrayEvaluator,
  WasmEvaluator,
  compile,
  derivativesAt,
  enclose,
  evaluateAt,
  printText,
  readExpression,
  simplify,
  type Program,
} from '../src/index.ts';
import { expressions, points, replayable } from './random.ts';

const scope = { names: new Set(['x']), functions: new Set<string>() };
const closeTo = (a: number, b: number, tolerance: number) =>
  Math.abs(a - b) <= tolerance * Math.max(1, Math.abs(a), Math.abs(b));

/** Values beyond this come from cancellation or poles, where two right methods differ in rounding. */
const tame = (value: number) => Number.isFinite(value) && Math.abs(value) < 1e6;

describe('laws, on random expressions with a replayable seed', () => {
  test('reading what was written gives the same tree', () => {
    fc.assert(
      fc.property(expressions, (tree) => {
        expect(readExpression(printText(tree), scope)).toEqual({ ok: true, value: tree });
      }),
      replayable,
    );
  });

  test('the symbolic derivative agrees with automatic differentiation', () => {
    let compared = 0;
    fc.assert(
      fc.property(expressions, points, (tree, x) => {
        const [value = NaN, automatic = NaN, second = NaN] = derivativesAt(compile(tree, 'x'), x, 2);
        const symbolic = evaluateAt(compile(tree, 'x', undefined, 1), x);
        // A steep second derivative turns the rounding of x itself into a visible difference.
        if (![value, automatic, symbolic].every(tame) || !(Math.abs(second) < 1e6)) return;
        compared++;
        expect({ x, agree: closeTo(automatic, symbolic, 1e-8), automatic, symbolic }).toMatchObject({
          agree: true,
        });
      }),
      replayable,
    );
    expect(compared).toBeGreaterThan(replayable.numRuns / 4);
  });

  test('simplifying does not change the value', () => {
    fc.assert(
      fc.property(expressions, points, (tree, x) => {
        const before = evaluateAt(compile(tree, 'x'), x);
        const after = evaluateAt(compile(simplify(tree), 'x'), x);
        const [, slope = NaN] = derivativesAt(compile(tree, 'x'), x, 1);
        if (![before, after, slope].every(tame)) return;
        expect(closeTo(before, after, 1e-8)).toBe(true);
      }),
      replayable,
    );
  });

  test('an enclosure contains every sample', () => {
    fc.assert(
      fc.property(
        expressions,
        points,
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (tree, low, width, share) => {
          const program = compile(tree, 'x');
          const high = low + width;
          const range = enclose(program, low, high);
          const value = evaluateAt(program, Math.min(high, low + width * share));
          if (Number.isNaN(value)) expect(range.sure).toBe(false);
          else if (Number.isFinite(value)) expect(value >= range.low && value <= range.high).toBe(true);
        },
      ),
      { ...replayable, numRuns: 2000 },
    );
  });

  test.each([
    ['arrays', (program: Program) => new ArrayEvaluator(program)],
    ['WebAssembly', (program: Program) => new WasmEvaluator(program)],
  ])('%s and single points give the same values', (_name, make) => {
    fc.assert(
      fc.property(expressions, (tree) => {
        const program = compile(tree, 'x');
        const xs = Float64Array.from({ length: 700 }, (_, i) => i / 100 - 3);
        const ys = new Float64Array(xs.length);
        make(program).evaluate(xs, ys);
        for (const i of [0, 1, 299, 511, 512, 699]) {
          const single = evaluateAt(program, xs[i] as number);
          expect(closeTo(ys[i] as number, single, 1e-12) || Object.is(ys[i], single)).toBe(true);
        }
      }),
      { ...replayable, numRuns: 150 },
    );
  });
});
