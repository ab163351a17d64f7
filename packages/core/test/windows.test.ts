import { describe, expect, test } from '@jest/globals';
import { keyPoints, readExpression, solve, tree, type Expression, type KeyPoint } from '../src/index.ts';
import { Random, randomFormula } from '../fuzz/inputs.ts';
import { cases } from '../../../tests/cases.ts';

const read = (text: string): Expression => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};

const inner = new Set(['zero', 'maximum', 'minimum', 'inflection']);

/** The key points of a complete list; null of one that is not complete. */
function listOn(body: Expression, on: readonly [number, number]): readonly KeyPoint[] | null {
  const { points, complete } = keyPoints(body, 'x', on);
  return complete ? points : null;
}

/** What of a list lies between two numbers, away from their ends. */
const between = (points: readonly KeyPoint[], [from, to]: readonly [number, number]): string[] =>
  points
    .filter(({ kind, x }) => inner.has(kind) && x > from && x < to)
    .map(({ kind, x }) => `${kind} ${x.toPrecision(9)}`);

describe('what lies inside a part of a window is the same for the window and for the part', () => {
  test('functions with poles', () => {
    const random = new Random(20261202);
    let looked = 0;
    const count = cases(4, 10);
    for (let i = 0; i < count; i++) {
      const wave = random.pick(['tan', 'cot', 'sec', 'csc', 'coth', 'csch']);
      const other = random.pick(['x^2', 'x^3/4', '2x*2^(-x)', 'e^x/3', '-x', 'x sin x', '1/(x^2 + 1)']);
      const rate = 1 + random.below(3);
      const body = read(`${1 + random.below(4)} ${wave}(${rate}x) + ${other}`);
      const whole = [-2 - random.next(), 2 + random.next()] as const;
      const all = listOn(body, whole);
      if (!all) continue;
      const poles = Array.from({ length: 41 }, (_, k) => ((k - 20) * Math.PI) / (2 * rate));
      const ends = [whole[0], ...poles.filter((x) => x > whole[0] && x < whole[1]), whole[1]];
      for (const [k, to] of ends.entries()) {
        const from = ends[k - 1];
        if (from === undefined || to - from < 0.1) continue;
        const part = [from + 0.01, to - 0.01] as const;
        const alone = listOn(body, part);
        if (!alone) continue;
        looked++;
        expect([wave, rate, other, part, between(all, part)]).toEqual([
          wave,
          rate,
          other,
          part,
          between(alone, part),
        ]);
      }
    }
    expect(looked).toBeGreaterThan(3 * count);
  });

  test('any functions', () => {
    const random = new Random(20261203);
    let looked = 0;
    const count = cases(50, 150);
    for (let i = 0; i < count; i++) {
      const text = randomFormula(random, 2);
      const body = read(text);
      const part = [-1.37 + random.next(), 0.7 + random.next()] as const;
      const [all, alone] = [listOn(body, [-3, 3]), listOn(body, part)];
      if (!all || !alone) continue;
      looked++;
      expect([text, part, between(all, part)]).toEqual([text, part, between(alone, part)]);
    }
    expect(looked).toBeGreaterThan(count / 3);
  });
});

test('an inflection between two poles of a tangent is seen, whatever the window', () => {
  // f″ = 2 tan x sec²x + 2 is 0 where tan x (1 + tan²x) = −1: tan x = −0.6823278 (Cardano).
  for (const [a, b] of [
    [-1, 1.5],
    [-1, 3],
    [-2, 3],
    [-7, 7],
  ] as const) {
    const { points, complete } = keyPoints(read('tan x + x^2'), 'x', [a, b]);
    const bends = points.filter(({ kind, x }) => kind === 'inflection' && Math.abs(x) < 1.5);
    expect(complete).toBe(true);
    expect(bends.map(({ x }) => x.toFixed(6))).toEqual([Math.atan(-0.6823278038280193).toFixed(6)]);
  }
});

test('a root that no digits tell from the end of a stretch is not left out of a complete list', () => {
  // For x > 0 both sides meet at about 10^(−1,100,000).
  const body = read('x e min(x, 0) + 10^(-3) e^(-((x - 1.6)/10^(-3))^2)');
  expect(solve(body, tree.name('x'), 'x', [-2, 1])).toMatchObject({ solutions: [], complete: false });
  // For x < 0 at about −10^(−10¹¹), which is beyond the reach of any number that is worked with.
  const further = read('cbrt(π x) + 10^(-6) e^(-((x - 3.4)/10^(-5))^2)');
  expect(solve(further, tree.name('x'), 'x', [-2, 1]).complete).toBe(false);
});
