import { expect, test } from '@jest/globals';
import {
  certificateOf,
  certificateOfSolutions,
  check,
  checkSigns,
  checkSolutions,
  compile,
  derivativeOf,
  evaluateAt,
  keyPoints,
  signs,
  solve,
  type Expression,
  type KeyPoint,
  type Solutions,
} from '../src/index.ts';
import { cases } from '../../../tests/cases.ts';
import { Random } from '../fuzz/inputs.ts';
import { expression } from './scope.ts';

/**
 * Random functions with corners, jumps, holes, poles and ends of domains: of what is accepted as it was found no list is
 * accepted in which one thing is left out, moved or made up, and nothing is said against any list that is complete.
 */
const random = new Random(20261201);
const count = cases(10, 1000);

const whole = (): number => random.below(7) - 3;
const either = (...ways: readonly (() => string)[]): string => random.pick(ways)();

const polynomial = (): string =>
  either(
    () => `(x^2 + (${whole()})x + (${whole()}))`,
    () => `(x^3 + (${whole()})x^2 + (${whole()})x + (${whole()}))`,
    () => `(${1 + random.below(3)}x + (${whole()}))`,
    () => `(${whole()} - x^2)`,
    () => `((x - (${whole()}))^2)`,
  );
const simple = (): string =>
  either(
    polynomial,
    () => `sin(${random.pick(['x', '2x'])})`,
    () => 'e^(-x)',
    () => `sqrt(${polynomial()})`,
    () => `ln(${polynomial()})`,
  );
const formula = (): string =>
  either(
    () => `abs(${simple()})`,
    () => `${random.pick(['min', 'max'])}(${simple()}, ${simple()})`,
    () => `${random.pick(['sign', 'floor'])}(${polynomial()})`,
    () => `mod(${polynomial()}, 1)`,
    () => `(${simple()})/${random.pick(['x', 'abs(x)', '(x - 1)', 'sin x'])}`,
    () => `sin(${polynomial()})/x + x`,
    () => `(${simple()} if x < ${whole()}; ${simple()} otherwise)`,
    () => `${simple()} + abs(${polynomial()})`,
  );

type Interval = readonly [number, number];
const step = 1e-5;

function falseKeyPoints(body: Expression, points: readonly KeyPoint[], [a, b]: Interval): KeyPoint[][] {
  const inner = points.filter(({ kind }) => kind !== 'endpoint' && kind !== 'openEnd');
  const kinds = [
    'zero',
    'maximum',
    'minimum',
    'inflection',
    'corner',
    'cusp',
    'jump',
    'hole',
    'pole',
  ] as const;
  const made = Array.from({ length: 3 }, () => {
    const x = inner.length > 0 && random.next() < 0.5 ? random.pick(inner).x : a + (b - a) * random.next();
    return { x, kind: random.pick(kinds), y: null, sides: null } as unknown as KeyPoint;
  });
  return [
    ...inner.map((one) => points.filter((point) => point !== one)),
    ...inner.map((one) => points.map((point) => (point === one ? { ...one, x: one.x + step } : point))),
    ...made
      .filter(({ x, kind }) => !points.some((point) => point.x === x && point.kind === kind))
      // Where a stretch begins on which it is 0 throughout.
      .filter(({ x, kind }) => kind !== 'zero' || evaluateAt(compile(body, 'x'), x) !== 0)
      .map((point) => [...points, point].sort((p, q) => p.x - q.x)),
  ];
}

function falseSolutions(
  { at, everywhere }: ReturnType<typeof listed>,
  [a, b]: Interval,
): ReturnType<typeof listed>[] {
  const made = random.next() < 0.5 ? whole() : a + (b - a) * random.next();
  const isThere = at.includes(made) || everywhere.some(({ from, to }) => from <= made && made <= to);
  const isInside = made >= a && made <= b;
  return [
    ...at.map((x) => ({ at: at.filter((other) => other !== x), everywhere })),
    ...at.map((x) => ({ at: at.map((other) => (other === x ? x + step : other)), everywhere })),
    ...everywhere.map((one) => ({ at, everywhere: everywhere.filter((other) => other !== one) })),
    ...(isThere || !isInside ? [] : [{ at: [...at, made].sort((p, q) => p - q), everywhere }]),
  ];
}

const listed = ({ solutions, everywhere }: Solutions) => ({
  at: solutions.map(({ value }) => value),
  everywhere: everywhere.map(({ from, to }) => ({ from: from.value, to: to.value })),
});

test.each([
  ['x|x|', '0', [0], []],
  ['x^2 + |x|', '0', [], [0]],
  ['x^2 if x < 0; 1 + x^2 otherwise', '0', [], [0]],
  ['sin(x)/x', '0', [], [0]],
  ['sqrt(|x|) + x', '1', [], [0]],
  ['x sqrt(x)', '0', [], [0]],
  ['x^2', '0', [0], [1]],
] as const)('where the slope of %s is %s at a joint: at %j, not at %j', (text, level, right, wrong) => {
  const body = expression(text);
  const from = text === 'x^2' ? 0 : -1;
  const certificate = certificateOfSolutions(body, expression(level), 'x', [from, 1], 1);
  if (!certificate) throw new Error('no certificate');
  const accepts = (at: readonly number[]): boolean =>
    checkSolutions(certificate, { at, everywhere: [] }).isAccepted;
  expect([accepts(right), accepts(wrong), right.length > 0 && accepts([])]).toEqual([true, false, false]);
});

test.each([
  ['x|x|', 1, ['endpoint', 'zero', 'minimum', 'corner', 'endpoint']],
  ['x|x|', 2, ['endpoint', 'jump', 'endpoint']],
  ['|x|', 1, ['endpoint', 'jump', 'endpoint']],
  ['x^2 if x < 0; x otherwise', 1, ['endpoint', 'jump', 'endpoint']],
  ['tan x', 1, ['endpoint', 'minimum', 'endpoint']],
  ['1/x', 1, ['endpoint', 'pole', 'endpoint']],
  ['arctan x', 1, ['endpoint', 'inflection', 'maximum', 'inflection', 'endpoint']],
] as const)(
  'key points of the derivative of %s of order %i: no list with one more or one less',
  (text, order, kinds) => {
    const body = expression(text);
    const on = [-1, 1] as const;
    const { points } = keyPoints(body, 'x', on, order);
    expect(points.map(({ kind }) => kind)).toEqual(kinds);
    const certificate = certificateOf(body, 'x', on, order);
    const accepts = (list: readonly KeyPoint[]): boolean => check(certificate, list).isAccepted;
    expect(accepts(points)).toBe(true);
    let slope = body;
    for (let k = 0; k < order; k++) slope = derivativeOf(slope, 'x');
    const inner = points.map((one) => points.filter((other) => other !== one));
    for (const list of [...inner, ...falseKeyPoints(slope, points, on)])
      expect([list, accepts(list)]).toEqual([list, false]);
  },
);

test('no false list of key points, solutions or signs is accepted, and no true one contradicted', () => {
  const counts = { complete: 0, accepted: 0, refused: 0 };
  for (let i = 0; i < count; i++) {
    const text = formula();
    const body = expression(text);
    const on = [-3 + random.below(3), 1 + random.below(3)] as const;
    const level = expression(random.pick(['0', '1', 'x', '1/2']));

    const look = <L>(
      list: L,
      isComplete: boolean,
      others: readonly L[],
      accepts: (list: L) => boolean,
    ): void => {
      if (!isComplete) return;
      counts.complete++;
      if (!accepts(list)) return;
      counts.accepted++;
      for (const other of others) {
        counts.refused++;
        expect([text, on, other, accepts(other)]).toEqual([text, on, other, false]);
      }
    };

    const found = keyPoints(body, 'x', on);
    const certificate = certificateOf(body, 'x', on);
    if (found.complete) {
      const { contradicted, contradictedJoints } = check(certificate, found.points);
      expect([text, on, contradicted, contradictedJoints]).toEqual([text, on, [], []]);
    }
    look<readonly KeyPoint[]>(
      found.points,
      found.complete,
      falseKeyPoints(body, found.points, on),
      (list) => check(certificate, list).isAccepted,
    );

    // Of the function at a height or a line, and of its slope at a number.
    for (const [order, equals] of [
      [0, level],
      [1, expression(random.pick(['0', '1', '-1/2']))],
    ] as const) {
      const solutions = solve(body, equals, 'x', on, order);
      const ofSolutions = certificateOfSolutions(body, equals, 'x', on, order);
      if (!ofSolutions) throw new Error('no certificate');
      const list = listed(solutions);
      const accepts = (one: typeof list): boolean => checkSolutions(ofSolutions, one).isAccepted;
      look(list, solutions.complete, falseSolutions(list, on), accepts);
    }

    const { intervals, complete } = signs(body, 'x', on);
    const ofSigns = certificateOf(body, 'x', on, 0, 0);
    const stretches = intervals.map(({ from, to, sign }) => ({ from: from.value, to: to.value, sign }));
    const others = stretches.flatMap((one, k) =>
      ([-1, 0, 1] as const)
        .filter((sign) => sign !== one.sign)
        .map((sign) => stretches.with(k, { ...one, sign })),
    );
    look(stretches, complete, others, (one) => checkSigns(ofSigns, one).isAccepted);
  }
  expect(counts.accepted / counts.complete).toBeGreaterThan(0.75);
  expect(counts.refused).toBeGreaterThan(10 * count);
});
