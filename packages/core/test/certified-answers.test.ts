import { describe, expect, test } from '@jest/globals';
import {
  certificateOf,
  certificateOfSolutions,
  checkLimit,
  checkSigns,
  checkSolutions,
  checkedIntegral,
  compile,
  integral,
  limitOfProgram,
  printText,
  readExpression,
  signs,
  solve,
  type Expression,
} from '../src/index.ts';
import { checkArea } from '../src/checker/areas.ts';
import { Random } from '../fuzz/inputs.ts';
import { school } from './school.ts';

const read = (text: string): Expression => {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
};

const stretch = <T extends { from: { value: number }; to: { value: number } }>({ from, to }: T) => ({
  from: from.value,
  to: to.value,
});

function solved(text: string, equals: string, on: readonly [number, number], order = 0) {
  const [body, other] = [read(text), read(equals)];
  const { solutions, everywhere, complete } = solve(body, other, 'x', on, order);
  const certificate = certificateOfSolutions(body, other, 'x', on, order);
  if (!certificate) throw new Error(text);
  const list = { at: solutions.map(({ value }) => value), everywhere: everywhere.map(stretch) };
  return { complete, certificate, list, checked: checkSolutions(certificate, list) };
}

function signed(text: string, on: readonly [number, number], order: number) {
  const body = read(text);
  const { intervals, complete } = signs(body, 'x', on, order);
  const certificate = certificateOf(body, 'x', on, order, 0);
  const list = intervals.map((one) => ({ ...stretch(one), sign: one.sign }));
  return { complete, certificate, list, checked: checkSigns(certificate, list) };
}

/** Those of school whose complete answer is not accepted. */
function refused(
  ask: (text: string, on: readonly [number, number]) => ReturnType<typeof signed> | ReturnType<typeof solved>,
  every = 1,
) {
  const some = school.filter((_, i) => i % every === 0);
  const asked = some.map(([text, a, b]) => ({ text, ...ask(text, [a, b]) }));
  return asked.filter(({ complete, checked }) => complete && !checked.isAccepted).map(({ text }) => text);
}

describe('a complete list of solutions has a certificate', () => {
  test('of functions of school at a height', () => {
    expect(refused((text, on) => solved(text, '0.3', on), 2)).toEqual([]);
  });

  test('of two curves', () => {
    for (const [text, equals, a, b] of [
      ['x^2', 'x + 1', -3, 3],
      ['e^x', '3x', -1, 3],
      ['tan x', 'x', -6, 6],
      ['sin x', 'x^2/4', -3, 3],
      ['ln x', '1/x', 0.5, 5],
      ['|x|', 'x', -2, 3],
      ['x^2 if x < 1; 2x - 1 otherwise', '2x - 1', 0, 3],
    ] as const) {
      const { complete, checked } = solved(text, equals, [a, b]);
      expect([text, complete, checked.isAccepted]).toEqual([text, true, true]);
    }
  });

  test('of a slope and of a bend', () => {
    for (const order of [1, 2]) {
      const { complete, checked, list } = solved('x^4 - 6x^2 + x', '2', [-3, 3], order);
      expect([complete, checked.isAccepted, list.at.length]).toEqual([true, true, 4 - order]);
    }
    expect(certificateOfSolutions(read('x^2'), read('x'), 'x', [0, 1], 1)).toBeNull();
  });

  test('a list with one too few, one too many, one elsewhere, or a stretch that is none is refused', () => {
    const random = new Random(20261201);
    for (const [text, equals, a, b] of [
      ['x^2 e^(-x)', '0.2', -1, 8],
      ['sin x', '0.3', -7, 7],
      ['x^3 - 3x', '1', -3, 3],
    ] as const) {
      const { certificate, list } = solved(text, equals, [a, b]);
      const isAccepted = (at: readonly number[], everywhere: readonly { from: number; to: number }[] = []) =>
        checkSolutions(certificate, { at, everywhere }).isAccepted;
      expect(isAccepted(list.at)).toBe(true);
      list.at.forEach((x, i) => {
        expect(isAccepted(list.at.toSpliced(i, 1))).toBe(false);
        expect(isAccepted(list.at.with(i, x + 0.4))).toBe(false);
      });
      for (let k = 0; k < 20; k++) {
        const other = a + (b - a) * random.next();
        expect(isAccepted([...list.at, other])).toBe(false);
        expect(isAccepted(list.at, [{ from: other, to: other + 0.01 }])).toBe(false);
      }
    }
    const { certificate, list } = solved('|x|', 'x', [-2, 3]);
    expect(list.everywhere).toEqual([{ from: 0, to: 3 }]);
    for (const everywhere of [[], [{ from: 1, to: 3 }], [{ from: -1, to: 3 }]])
      expect(checkSolutions(certificate, { at: [], everywhere }).isAccepted).toBe(false);
  });
});

describe('a complete list of signs has a certificate', () => {
  test.each([0, 1])('of functions of school, of order %i', (order) => {
    // The signs of slopes stand behind the highs and lows, too, which certificates.test.ts looks at.
    expect(refused((text, on) => signed(text, on, order), order + 2)).toEqual([]);
  });

  test('a sign turned round, a stretch left out, one too long or said to be level is refused', () => {
    for (const [text, a, b] of [
      ['x^3 - 3x', -3, 3],
      ['sin x', -7, 7],
      ['(x - 1)^2 (x + 2)', -3, 3],
      ['tan x', -4, 4],
      ['sqrt(x + 1) - 1', -2, 4],
    ] as const) {
      const { certificate, list, checked } = signed(text, [a, b], 0);
      expect([text, checked.isAccepted]).toEqual([text, true]);
      list.forEach((one, i) => {
        const wrong = [
          list.toSpliced(i, 1),
          list.with(i, { ...one, sign: one.sign === 1 ? -1 : 1 }),
          list.with(i, { ...one, sign: 0 }),
          list.with(i, { ...one, to: one.to - (one.to - one.from) / 3 }),
          list.with(i, { ...one, from: one.from + (one.to - one.from) / 3 }),
        ];
        for (const other of wrong)
          expect([text, other, checkSigns(certificate, other).isAccepted]).toEqual([text, other, false]);
      });
    }
  });
});

describe('an integral that is called proved or exact has a certificate', () => {
  const checked = (text: string, a: number, b: number, isTotal = false) => {
    const body = read(text);
    return checkedIntegral(body, 'x', [a, b], integral(body, 'x', [a, b], { isTotal }), isTotal);
  };

  test.each<[string, number, number]>([
    ['x^2', 0, 2],
    ['x^2', 2, 0],
    ['sin(x^2)', 0, 2],
    ['sqrt(x)', 0, 4],
    ['e^(-x^2)', -3, 3],
    ['e^(-((x - 3.3)/0.001)^2)', 0, 10],
    ['x^2 if x < 1.3; 2x otherwise', 0, 2],
    ['floor x', 0, 5.5],
    ['|sin x|', 0, 10],
    ['ln(1 + x)', 0, 1],
    ['1/(1 + x^2)', -5, 5],
    ['x^x', 0.5, 2],
    ['arctan(x)^2', 0, 3],
    ['tan x', 0, 1.5],
    ['cbrt(x)', -1, 1],
  ])('∫ %s from %f to %f', (text, a, b) => {
    expect(checked(text, a, b)).toMatchObject({ isAccepted: true });
  });

  test('the area without signs', () => {
    expect(checked('x^3 - x', -1.5, 1.5, true)).toMatchObject({ isAccepted: true });
  });

  test('of an estimate bounds that prove it, of what has no value none', () => {
    // E₁(1) = 0.219383934395520 (Abramowitz & Stegun, table 5.1; from memory).
    const { isAccepted, bounds } = checked('e^(-1/x)/x', 0, 1) ?? {};
    expect([
      isAccepted,
      (bounds?.[0] ?? NaN) < 0.21938393439552,
      (bounds?.[1] ?? NaN) > 0.21938393439552,
    ]).toEqual([true, true, true]);
    expect(checked('x^x', 0, 1)).toMatchObject({ isAccepted: true });
    expect([checked('1/x', 0, 1), checked('ln(x - 1/2)', 0, 1)]).toEqual([null, null]);
  });

  test('a value beyond its bound, a bound that is too narrow, and a false exact form are refused', () => {
    const body = read('sin(x^2)');
    const certificate = { body, variable: 'x', ends: [0, 0.5, 1, 1.5, 1.75, 2] };
    // ∫ sin(x²) from 0 to 2: Abramowitz and Stegun, table 7.8, by x = t√(π/2); from memory 0.8047764893437561.
    const value = 0.8047764893437561;
    const isAccepted = (claim: { value: number; bound: number; exact: Expression | null }): boolean =>
      checkArea(certificate, claim).isAccepted;
    expect(isAccepted({ value, bound: 1e-12, exact: null })).toBe(true);
    expect(isAccepted({ value: value + 3e-12, bound: 1e-12, exact: null })).toBe(false);
    expect(isAccepted({ value, bound: 1e-60, exact: null })).toBe(false);
    expect(isAccepted({ value, bound: 0, exact: read('√2·0.5690629') })).toBe(false);
    const square = { body: read('x^2'), variable: 'x', ends: [0, 2] };
    expect(checkArea(square, { value: 8 / 3, bound: 0, exact: read('8/3') }).isAccepted).toBe(true);
    expect(checkArea(square, { value: 8 / 3, bound: 0, exact: read('8/3 + 10^(-8)') }).isAccepted).toBe(
      false,
    );
    // Parts that do not follow on each other.
    for (const ends of [[0], [], [0, 3, 2], [0, 1, 1, 2]])
      expect(checkArea({ ...square, ends }, { value: 8 / 3, bound: 1, exact: null }).isAccepted).toBe(false);
  });

  test('a pole, a gap and a needle between the ends of a part', () => {
    for (const [text, claim] of [
      ['1/x', 0],
      ['ln(x^2 - 0.5)', 1],
      ['1/x^2', -2],
    ] as const)
      expect(
        checkArea(
          { body: read(text), variable: 'x', ends: [-1, 1] },
          { value: claim, bound: 1, exact: null },
        ),
      ).toMatchObject({
        isAccepted: false,
        bounds: null,
      });
    const needle = read('e^(-((x - 3.3)/0.001)^2)');
    expect(
      checkArea({ body: needle, variable: 'x', ends: [0, 10] }, { value: 0, bound: 1e-9, exact: null })
        .isAccepted,
    ).toBe(false);
  });
});

describe('a limit has a certificate', () => {
  const zero = read('0');
  type Place = Expression | 1 | -1;
  const number = (value: number, exact: string | null = null) =>
    ({ kind: 'finite', value, exact: exact === null ? null : read(exact) }) as const;
  const isAccepted = (text: string, place: Place, claimed: Parameters<typeof checkLimit>[4]): boolean =>
    checkLimit(read(text), 'x', place, ['left', 'right'], claimed).isAccepted;

  // By hand: by continuity, without a common zero of dividend and divisor, by leading coefficients, by bounds far out.
  test.each<[text: string, place: Place, exact: string]>([
    ['x^2 + 1', read('1'), '2'],
    ['sin(x)/x', zero, '1'],
    ['(1 - cos(x^2))/x^4', zero, '1/2'],
    ['(e^x - 1 - x)/x^2', zero, '1/2'],
    ['ln(x)/(x - 1)', read('1'), '1'],
    ['(x^2 - 1)/(x - 1)', read('1'), '2'],
    ['(2x^2 + 1)/(x^2 - 3)', 1, '2'],
    ['(x + 1)/(x^2 - 3)', -1, '0'],
    ['arctan(x)', -1, '-π/2'],
  ])('%s', (text, place, exact) => {
    const found = limitOfProgram(
      compile(read(text), 'x'),
      typeof place === 'number' ? place * Infinity : Number(printText(place)),
      'both',
    );
    expect(found).toMatchObject({ kind: 'finite', proved: true });
    if (found.kind !== 'finite') return;
    expect(isAccepted(text, place, found)).toBe(true);
    expect(isAccepted(text, place, number(found.value, exact))).toBe(true);
    expect(isAccepted(text, place, number(found.value + 1e-9))).toBe(false);
    expect(isAccepted(text, place, number(found.value, `${exact} + 10^(-28)`))).toBe(false);
    expect(isAccepted(text, place, { kind: 'none' })).toBe(false);
    expect(isAccepted(text, place, { kind: 'infinite', sign: 1 })).toBe(false);
  });

  test('one beyond all bounds has its sign, and one whose sides differ is none', () => {
    for (const [text, place, sign] of [
      ['1/x^2', zero, 1],
      ['-1/(x - 2)^2', read('2'), -1],
      ['x^3/(1 - x^2)', -1, 1],
    ] as const) {
      expect([text, isAccepted(text, place, { kind: 'infinite', sign })]).toEqual([text, true]);
      expect([text, isAccepted(text, place, { kind: 'infinite', sign: -sign as 1 | -1 })]).toEqual([
        text,
        false,
      ]);
      expect(isAccepted(text, place, number(0))).toBe(false);
    }
    for (const text of ['1/x', '|x|/x', 'sign(x)'])
      expect([text, isAccepted(text, zero, { kind: 'none' })]).toEqual([text, true]);
    for (const text of ['|x|', 'sin(x)/x', '1/x^2'])
      expect([text, isAccepted(text, zero, { kind: 'none' })]).toEqual([text, false]);
  });

  test('what it has no means for is not accepted', () => {
    expect(isAccepted('x e^(-x)', 1, number(0, '0'))).toBe(false);
    expect(isAccepted('sin(1/x)', zero, { kind: 'none' })).toBe(false);
  });
});
