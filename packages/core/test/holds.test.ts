import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compile, indicator, whereHolds, type Condition } from '../src/index.ts';
import { enclose } from '../src/evaluate/enclosures.ts';
import { expressions, replayable } from './random.ts';
import { condition } from './scope.ts';

const on = [-3, 3] as const;

/** Stretches as they are written: [−1, 2) and {3}. */
const told = (text: string): readonly string[] => {
  const { stretches, complete } = whereHolds(condition(text), 'x', on);
  expect(complete).toBe(true);
  return stretches.map(({ from, to, includesFrom, includesTo }) =>
    from === to
      ? `{${from.value}}`
      : `${includesFrom ? '[' : '('}${from.value}, ${to.value}${includesTo ? ']' : ')'}`,
  );
};

describe('where a condition holds', () => {
  test.each([
    ['1/x > 1', ['(0, 1)']],
    ['1/x <= 1', ['[-3, 0)', '[1, 3]']],
    ['sqrt(x) < 1', ['[0, 1)']],
    ['x^2 = 4', ['{-2}', '{2}']],
    ['x^2 != 4', ['[-3, -2)', '(-2, 2)', '(2, 3]']],
    ['x^2 >= 0', ['[-3, 3]']],
    ['x^2 < 0', []],
    ['x < 1 and x > -1 or x = 2', ['(-1, 1)', '{2}']],
    ['not (x < 1)', ['[1, 3]']],
    ['0 < x < 1 or 1 < x < 2', ['(0, 1)', '(1, 2)']],
    ['0 < x <= 1 or 1 < x < 2', ['(0, 2)']],
    ['|x| > 1', ['[-3, -1)', '(1, 3]']],
    ['floor x = 1', ['[1, 2)']],
    ['ln x > 0', ['(1, 3]']],
    // √x has no value for x < 0, where nothing is said of it: the other side settles the whole.
    ['sqrt(x) < 1 or x < -2', ['[-3, -2)', '[0, 1)']],
    ['not (sqrt(x) < 1)', ['[1, 3]']],
  ])('%s', (text, expected) => {
    expect(told(text)).toEqual(expected);
  });

  test('what is called complete is so at random places, for random conditions', () => {
    const relations = ['<', '≤', '>', '≥', '=', '≠'] as const;
    const comparison: fc.Arbitrary<Condition> = fc
      .tuple(expressions, expressions, fc.constantFrom(...relations))
      .map(([left, right, relation]) => ({
        kind: 'comparison',
        operands: [left, right],
        relations: [relation],
      }));
    const conditions: fc.Arbitrary<Condition> = fc.oneof(
      comparison,
      fc
        .tuple(fc.constantFrom('and', 'or'), comparison, comparison)
        .map(([kind, left, right]) => ({ kind: kind as 'and', left, right })),
    );
    const looked = { true: 0, false: 0 };
    fc.assert(
      fc.property(
        conditions,
        fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 12 }),
        (given, xs) => {
          const { stretches, complete } = whereHolds(given, 'x', on);
          if (!complete) return;
          const program = compile(indicator(given), 'x');
          const ends = stretches.flatMap(({ from, to }) => [from.value, to.value]);
          for (const x of xs) {
            if (ends.some((end) => Math.abs(end - x) < 1e-9)) continue;
            // What bounds decide of the condition at x.
            const { low, sure } = enclose(program, x, x);
            const holds = sure && low === 1 ? true : Number.isNaN(low) ? false : null;
            if (holds === null) continue;
            looked[`${holds}`]++;
            const isTold = stretches.some(({ from, to }) => from.value < x && x < to.value);
            expect([given, x, isTold]).toEqual([given, x, holds]);
          }
        },
      ),
      { ...replayable, numRuns: 60 },
    );
    expect(Math.min(looked.true, looked.false)).toBeGreaterThan(100);
  });
});
