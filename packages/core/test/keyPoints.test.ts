import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  closedFormula,
  compile,
  evaluateAt,
  printText,
  readCondition,
  readExpression,
  signs,
  solve,
  tree,
  whereHolds,
  type Expression,
} from '../src/index.ts';
import { keyPoints } from './checked.ts';
import { cases } from '../../../tests/cases.ts';
import { Arcs } from '../src/analysis/arcs.ts';
import { Random, randomFormula } from '../fuzz/inputs.ts';
import { missedBy } from './soundness.ts';

const scope = { names: new Set(['x', 'a']), functions: new Set<string>() };
const read = (text: string) => {
  const reading = readExpression(text, scope);
  if (!reading.ok) throw new Error(text);
  return reading.value;
};

/** A list of key points in short: "zero -1, minimum 0*"; * for absolute, ? for unproved or undecided. */
const inShort = (text: string, a: number, b: number, order = 0): string => inShortOf(read(text), a, b, order);

function inShortOf(body: Expression, a: number, b: number, order = 0): string {
  const { points, complete } = keyPoints(body, 'x', [a, b], order);
  const parts = points.map(({ kind, x, exact, proved, absolute }) => {
    const place = exact ? printText(exact) : x.toPrecision(8);
    return `${kind} ${place}${absolute ? '*' : absolute === null ? '∅' : ''}${proved ? '' : '?'}`;
  });
  return `${complete ? '' : 'incomplete: '}${parts.join(', ')}`;
}

describe('key points on [a, b]', () => {
  test.each([
    ['x^2 - 1', -2, 2, 'endpoint -2*, zero -1, minimum 0*, zero 1, endpoint 2*'],
    [
      'x^3 - 3x',
      -3,
      3,
      'endpoint -3*, zero -sqrt(3), maximum -1, zero 0, inflection 0, minimum 1, zero sqrt(3), endpoint 3*',
    ],
    ['|x|', -1, 2, 'endpoint -1, zero 0, minimum 0*, corner 0, endpoint 2*'],
    ['1/x', -1, 1, 'endpoint -1, pole 0, endpoint 1'],
    ['x^(2/3)', -1, 1, 'endpoint -1*, zero 0, minimum 0*, cusp 0, endpoint 1*'],
    ['x^(1/3)', -1, 1, 'endpoint -1*, zero 0, inflection 0, endpoint 1*'],
    ['floor(x)', 0, 2.5, 'endpoint 0*, jump 1, jump 2, endpoint 5/2*'],
    ['(x^2-4)/(x-2)', 0, 3, 'endpoint 0*, hole 2, endpoint 3*'],
    ['tan(x)', -2, 2, 'endpoint -2, pole -π/2, zero 0, inflection 0, pole π/2, endpoint 2'],
    [
      'x^2 if x < 1; 3 - x otherwise',
      -1,
      3,
      'endpoint -1, zero 0, minimum 0*, jump 1, maximum 1*, endpoint 3*, zero 3',
    ],
    ['sqrt(x)(x-1)', -1, 2, 'endpoint 0, zero 0, minimum 1/3*, zero 1, endpoint 2*'],
    ['max(0, x)', -1, 1, 'endpoint -1*, corner 0, endpoint 1*'],
    ['x^x', 0, 2, 'endpoint 0, minimum 1/e*, endpoint 2*'],
    ['x/x', -1, 1, 'endpoint -1*, hole 0, endpoint 1*'],
    ['x|x|', -1, 1, 'endpoint -1*, zero 0, inflection 0, endpoint 1*'],
    ['ln|x|', -2, 2, 'endpoint -2*, zero -1, pole 0, zero 1, endpoint 2*'],
    ['x(12-x)/5 for 0 ≤ x ≤ 12', -1, 13, 'endpoint 0*, zero 0, maximum 6*, endpoint 12*, zero 12'],
    ['5', -1, 1, 'endpoint -1*, endpoint 1*'],
  ])('%s on [%s, %s]', (text, a, b, expected) => expect(inShort(text, a, b)).toBe(expected));

  test('of a derivative: where the function itself has none, the derivative has none', () => {
    expect(inShort('|x|', -1, 1, 1)).toBe('endpoint -1*, jump 0, endpoint 1*');
    expect(inShort('ln(x)', -1, 2, 1)).toBe('pole 0, endpoint 2*');
    expect(inShort('x^3', -1, 1, 2)).toBe('endpoint -1*, zero 0, endpoint 1*');
  });

  test('parameters are exact where they are typed exactly', () => {
    const closed = closedFormula(read('a x^2 - 1'), new Map([['a', 0.1]]));
    const zeros = keyPoints(closed, 'x', [-5, 5]).points.filter(({ kind }) => kind === 'zero');
    expect(zeros.map(({ exact }) => exact && printText(exact))).toEqual(['-sqrt(10)', 'sqrt(10)']);
  });
});

describe('complete is never wrong: an adversarial set', () => {
  test.each([
    // Narrow bumps and spikes.
    ['1/(1 + 1E10(x - 0.3)^2)', -1, 1, 'maximum 3/10*'],
    ['e^(-(1E5(x - 0.123))^2)', -1, 1, 'maximum 123/1000*'],
    ['sin(100x)', 0, 0.05, 'maximum π/200*'],
    // Clusters.
    [
      '(x-1)(x-1.0001)(x-1.0002)',
      0,
      2,
      'zero 1, maximum (30003 - sqrt(3))/30000, zero 10001/10000, inflection 10001/10000',
    ],
    ['1E-8 - x^2', -1, 1, 'zero -1/10000, maximum 0*, zero 1/10000'],
    // Touching zeros, and near misses.
    ['(x - 0.5)^2', -1, 1, 'zero 1/2, minimum 1/2*'],
    ['1 + sin(x)', -4, 4, 'zero -π/2, minimum -π/2*'],
    ['cos(x) - 1 + x^2/2', -1, 1, 'zero 0, minimum 0*'],
    ['x^2 + 1E-8', -1, 1, 'endpoint -1*, minimum 0*, endpoint 1*'],
    ['(x-2)^2 - 1E-12', 0, 4, 'zero 1999999/1000000, minimum 2*, zero 2000001/1000000'],
    // Poles close together, and poles between which nothing crosses.
    ['1/((x-1)(x-1.001))', 0, 2, 'pole 1, maximum 2001/2000, pole 1001/1000'],
    ['1/(x-1)^2', -1, 3, 'pole 1'],
    // Corners and plateaus.
    ['|x-1| + |x+1|', -3, 3, 'corner -1, corner 1'],
    ['min(x, 1)', 0, 2, 'zero 0, corner 1'],
    // Features beside end points.
    ['sin(x)', 0, 3.1415926, 'zero 0, maximum π/2*'],
    ['x - 1E-9', 0, 1, 'zero 1/1000000000'],
    ['(x-1)^2', 0.999999, 2, 'zero 1, minimum 1*'],
  ])('%s on [%s, %s]', (text, a, b, part) => {
    const found = inShort(text, a, b);
    expect(found).not.toContain('incomplete');
    expect(found).toContain(part);
  });

  test.each([
    ['sin(1/x)', -1, 1],
    ['x sin(1/x)', -1, 1],
    // Single points, at whole x alone.
    ['(-2)^x', -2, 2],
    ['|(-2)^x| x', -4, 1],
  ])('%s is not called complete', (text, a, b) =>
    expect(keyPoints(read(text), 'x', [a, b]).complete).toBe(false),
  );

  test('the zero of a line is found however many digits its coefficients have', () => {
    const line = read('1234567890123457x - 3086419725308641');
    const { points, complete } = keyPoints(line, 'x', [0, 5]);
    expect(complete).toBe(true);
    expect(points.filter(({ kind }) => kind === 'zero').map(({ x }) => x)).toEqual([
      3086419725308641 / 1234567890123457,
    ]);
  });

  test('no list called complete misses what samples see, on random formulas (seed 20261124)', () => {
    const random = new Random(20261124);
    for (let i = 0; i < cases(50, 120); i++) {
      const text = randomFormula(random, 2);
      const a = random.below(5) - 4;
      const b = a + 1 + random.below(5);
      expect({ text, a, b, missed: missedBy(text, [a, b]) }).toMatchObject({ missed: null });
    }
  });
});

test('where the list is not complete, the kinds that it tells are right (cos(π/x) + x)', () => {
  const body = read('cos(π/x) + x');
  const { points, complete } = keyPoints(body, 'x', [-4, 1]);
  expect(complete).toBe(false);
  const found = points.filter(({ kind }) => kind === 'maximum' || kind === 'minimum');
  expect(found.length).toBeGreaterThan(10);
  for (const { kind, x, y } of found) {
    // Far closer than the next wave, whose length is about 2x².
    const beside = [x - x * x * 1e-3, x + x * x * 1e-3].map((at) => evaluateAt(compile(body, 'x'), at));
    for (const value of beside) expect(value < (y as number)).toBe(kind === 'maximum');
  }
});

test('a power with a parameter above is a real root of negative numbers only where it is a whole power', () => {
  const closed = (a: number) => closedFormula(read('x^a'), new Map([['a', a]]));
  expect(inShortOf(closed(0.2), -2, 2)).toBe('endpoint 0*, zero 0, endpoint 2*');
  expect(inShortOf(closed(2), -2, 2)).toBe('endpoint -2*, zero 0, minimum 0*, endpoint 2*');
  expect(inShort('x^(1/5)', -2, 2)).toContain('endpoint -2*');
});

describe('a form is not taken apart without end', () => {
  // Found by random inputs: powers of powers that were factored back and forth.
  test.each([
    ['(e^x)^(2/3) - x', -4, 0],
    ['cbrt(e^x) - x + 2π', -4, -3],
    ['2^x - sqrt(x^x)', 0, 2],
    ['cbrt(x^x) - 3x', 1, 2],
  ])('%s on [%s, %s]', (text, a, b) => {
    const arcs = new Arcs(read(text), 'x', [a, b], 2);
    arcs.eventsUpTo(2);
    expect(arcs.zeros.evaluations).toBeLessThanOrEqual(1000);
    expect(missedBy(text, [a, b])).toBeNull();
  });
});

describe('laws', () => {
  test('the list moves along when function and interval are moved together', () => {
    const formulas = [
      'x^3 - 3x',
      'x e^(-x)',
      '|x^2 - 4|',
      'sin(x) + x/2',
      '1/(x - 1) + x',
      'x^4 - 4x^2 + x',
      'floor(x) + x',
    ];
    fc.assert(
      fc.property(fc.constantFrom(...formulas), fc.integer({ min: -5, max: 5 }), (text, shift) => {
        const body = read(text);
        const moved = tree.substitute(body, 'x', tree.subtract(tree.name('x'), tree.number(shift)));
        const plain = keyPoints(body, 'x', [-3, 3]);
        const other = keyPoints(
          shift < 0 ? tree.substitute(body, 'x', tree.add(tree.name('x'), tree.number(-shift))) : moved,
          'x',
          [-3 + shift, 3 + shift],
        );
        expect(other.complete).toBe(plain.complete);
        expect(other.points.map(({ kind, absolute }) => [kind, absolute])).toEqual(
          plain.points.map(({ kind, absolute }) => [kind, absolute]),
        );
        other.points.forEach(({ x, y }, i) => {
          expect(x).toBeCloseTo((plain.points[i]?.x ?? NaN) + shift, 12);
          if (y !== null) expect(y).toBeCloseTo(plain.points[i]?.y ?? NaN, 11);
        });
      }),
      { seed: 20261124, numRuns: cases(12, 25) },
    );
  });

  test('mirrored in the y-axis, the list is mirrored', () => {
    for (const text of ['x^3 - 3x + 1', 'e^x - x', 'x^2/(x - 4)']) {
      const mirrored = tree.substitute(read(text), 'x', tree.negate(tree.name('x')));
      const [plain, other] = [keyPoints(read(text), 'x', [-3, 3]), keyPoints(mirrored, 'x', [-3, 3])];
      expect(other.points.map(({ x }) => -x + 0).sort((p, q) => p - q)).toEqual(
        plain.points.map(({ x }) => x),
      );
    }
  });
});

describe('effort', () => {
  // The functions on which attainable effort was measured, and others of the kind.
  test.each([
    ['sin(x)', 0, 6.28],
    ['x^4 - 4x^2 + x', -3, 3],
    ['cos(x) - x', -2, 2],
    ['x + 2sin(x)', 0, 7],
    ['x^2 sin(x)', -5, 5],
    ['sin(x)/x', 1, 10],
    ['e^x sin(x)', -5, 5],
    ['arctan(x) - x/2', -5, 5],
    ['tanh(x) - x/3', -4, 4],
    ['x - ln(x)', 0.1, 5],
    ['sqrt(x+3) - x', -3, 4],
    ['e^(-x^2) - x/5', -3, 3],
    ['sin(x) + sin(3x)', -3, 3],
    ['x^x - 2', 0.1, 2],
  ])('zeros, extrema and inflections of %s take at most 1,000 evaluations', (text, a, b) => {
    const arcs = new Arcs(read(text), 'x', [a, b], 2);
    arcs.eventsUpTo(2);
    expect(arcs.undecided).toEqual([]);
    expect(arcs.zeros.evaluations).toBeLessThanOrEqual(1000);
  });
});

describe('signs', () => {
  const inWords = (text: string, a: number, b: number, order = 0): string =>
    signs(read(text), 'x', [a, b], order)
      .intervals.map(({ from, to, sign }) => `${+from.value.toFixed(6)}…${+to.value.toFixed(6)} ${sign}`)
      .join(', ');

  test.each([
    ['x^3 - 3x', -2, 2, 1, '-2…-1 1, -1…1 -1, 1…2 1'],
    ['x^3 - 3x', -2, 2, 2, '-2…0 -1, 0…2 1'],
    ['1/x', -1, 1, 0, '-1…0 -1, 0…1 1'],
    ['|x| + 1', -1, 1, 0, '-1…1 1'],
    ['|x|', -1, 1, 1, '-1…0 -1, 0…1 1'],
    ['max(0, x)', -1, 1, 0, '-1…0 0, 0…1 1'],
    ['ln(x)', -1, 2, 0, '0…1 -1, 1…2 1'],
    ['x^2', -1, 1, 0, '-1…0 1, 0…1 1'],
    ['x^2 if x < 1; 2x - 1 otherwise', 0, 2, 1, '0…2 1'],
  ])('%s on [%s, %s], order %s', (text, a, b, order, expected) =>
    expect(inWords(text, a, b, order)).toBe(expected),
  );

  test.each([
    ['14 + 8 sin(π(x - 9)/12) + 17 e^(-900(x - 4.35)^2) for 0 <= x <= 24', 1, true],
    ['e^(-x^2) for 0 <= x <= 24', 1, true],
    ['2^x - 3 for 0 <= x <= 4', 0, true],
    // Of (−1)ˣ and 0ˣ there are values that stand alone.
    ['(1 - 2)^x for 0 <= x <= 4', 1, false],
    ['x + (-2)^x', 0, false],
  ] as const)(
    'powers of a number above 0 have no values that stand alone: of %s',
    (text, order, isComplete) => {
      expect(signs(read(text), 'x', [0, 24], order).complete).toBe(isComplete);
    },
  );
});

describe('solutions', () => {
  const solutions = (text: string, equals: string, a: number, b: number, order = 0): (string | number)[] =>
    solve(read(text), read(equals), 'x', [a, b], order).solutions.map(({ exact, value }) =>
      exact ? printText(exact) : value,
    );

  test.each([
    ['x^2', '2', -2, 2, 0, ['-sqrt(2)', 'sqrt(2)']],
    ['x^2', '1/2', -1, 2, 1, ['1/4']],
    ['x^2', 'x + 2', -5, 5, 0, ['-1', '2']],
    ['sin(x)', '1/2', 0, 7, 0, ['π/6', '5π/6', '13π/6']],
    ['e^x', '5', 0, 3, 0, ['ln(5)']],
    ['ln(x)', '2', 1, 10, 0, ['e^2']],
    ['e^(2x) - 3e^x', '-2', -1, 2, 0, ['0', 'ln(2)']],
    ['|x - 1|', '2', -5, 5, 0, ['-1', '3']],
    ['floor(x)', 'x', -1.5, 1.5, 0, ['-1', '0', '1']],
    ['|x|', '1', -2, 2, 1, []],
    ['x^3', '0', -1, 1, 1, ['0']],
    ['x^2 + 1', '0', -5, 5, 0, []],
    ['1/x', '1/4', -5, 5, 0, ['4']],
    ['cos(x)', '2', -5, 5, 0, []],
  ])('%s = %s on [%s, %s], order %s', (text, equals, a, b, order, expected) => {
    expect(solutions(text, equals, a, b, order)).toEqual(expected);
  });

  test('an equation that holds throughout a stretch says so', () => {
    const { everywhere, solutions: single } = solve(read('|x|'), read('x'), 'x', [-1, 2]);
    expect(everywhere.map(({ from, to }) => [from.value, to.value])).toEqual([[0, 2]]);
    expect(single).toEqual([]);
  });

  test('where a condition holds', () => {
    const held = (text: string): string => {
      const reading = readCondition(text, scope);
      if (!reading.ok) throw new Error(text);
      return whereHolds(reading.value, 'x', [-3, 3])
        .stretches.map(
          ({ from, to, includesFrom, includesTo }) =>
            `${includesFrom ? '[' : '('}${from.value}, ${to.value}${includesTo ? ']' : ')'}`,
        )
        .join(' ');
    };
    expect(held('x^2 < 4')).toBe('(-2, 2)');
    expect(held('x^2 ≥ 4')).toBe('[-3, -2] [2, 3]');
    expect(held('0 ≤ x < 2 and x ≠ 1')).toBe('[0, 1) (1, 2)');
    expect(held('x = 1 or x > 2')).toBe('[1, 1] (2, 3]');
    expect(held('1/x > 1')).toBe('(0, 1)');
    expect(held('x > 5')).toBe('');
  });
});
