import { describe, expect, test } from '@jest/globals';
import {
  certificateOf,
  check,
  compile,
  derivativesAt,
  keyPoints,
  readExpression,
  tree,
  type Claim,
  type Expression,
} from '../src/index.ts';
import { fuzzCertificates } from '../fuzz/runs.ts';
import { cases } from '../../../tests/cases.ts';
import { school } from './school.ts';

const scope = { names: new Set(['x']), functions: new Set<string>() };
function read(text: string): Expression {
  const reading = readExpression(text, scope);
  if (!reading.ok) throw new Error(text);
  return reading.value;
}

const known = new Map<string, ReturnType<typeof certify>>();
function certified(text: string, a: number, b: number, order = 0) {
  const key = `${text}|${a}|${b}|${order}`;
  const found = known.get(key) ?? certify(text, a, b, order);
  known.set(key, found);
  return found;
}

const certify = (text: string, a: number, b: number, order: number) => {
  const body = read(text);
  const { points, complete } = keyPoints(body, 'x', [a, b], order);
  const certificate = certificateOf(body, 'x', [a, b], order);
  return { points, complete, certificate, checked: check(certificate, points) };
};

describe('a complete list of key points has a certificate', () => {
  test.each(school)('%s on [%f, %f]', (text, a, b) => {
    const { complete, checked } = certified(text, a, b);
    expect([complete, checked.isAccepted]).toEqual([true, true]);
  });

  test('the sign that is told of a part is that of the function all over it, and is hardly ever missing', () => {
    const counts = { told: 0, missing: 0 };
    for (const [text, a, b] of school) {
      const { certificate, checked } = certified(text, a, b);
      const program = compile(certificate.body, 'x');
      certificate.claims.forEach(({ order, from, to, zeros }, i) => {
        const sign = checked.signs[i];
        if (zeros !== 0 || to - from < 0.01) return;
        counts[sign === 0 ? 'missing' : 'told']++;
        for (const share of [0.03, 0.31, 0.62, 0.97]) {
          const value = derivativesAt(program, from + (to - from) * share, order)[order] ?? NaN;
          if (sign !== 0 && Math.abs(value) > 1e-9)
            expect([text, from, to, Math.sign(value)]).toEqual([text, from, to, sign]);
        }
      });
    }
    expect(counts.told).toBeGreaterThan(300);
    expect(counts.missing).toBeLessThan(counts.told / 20);
  });

  test('of a derivative as well', () => {
    for (const [text, a, b] of [
      ['x^4 - 2x^2', -2, 2],
      ['e^(-x^2)', -3, 3],
      ['x sin x', -4, 4],
    ] as const)
      expect(certified(text, a, b, 1).checked.isAccepted).toBe(true);
  });

  // Beside 0 the slope x/x + ln x runs away, and no enclosure of x·(1/x) shows it: it is written out as 1 + ln x.
  test.each([
    ['x ln x', -1, 3],
    ['x^2 ln x', 0, 2],
    ['sqrt(x) ln x', 0, 3],
    ['(ln x)^2', 0, 4],
    ['ln x/x', 0, 8],
    ['tan x/x', -1, 1],
    ['e^(1/x)', -2, 2],
    ['x^2 e^(-1/x)', 0, 2],
  ])('of %s on [%f, %f], by derivatives in lowest terms', (text, a, b) => {
    const { complete, checked } = certified(text, a, b);
    expect([complete, checked.isAccepted]).toEqual([true, true]);
  });

  // By counting zeros of what lies within |…|, a root, a step or a divisor (Sturm), by algebra at a single number, and over
  // a hole without the zero that both sides of the fraction line share.
  test.each([
    ['|x^3 - x|', -2, 2],
    ['|x|/x', -2, 2],
    ['|x|/x + sin x', -2, 2],
    ['|e^x - 1|', -2, 2],
    ['min(x^2, 2 - x)', -3, 3],
    ['max(sin x, cos x)', -4, 4],
    ['min(x + (x + 1)^2, e^(-2x))', -2, 1],
    ['sqrt(x^3 - x)', -2, 2],
    ['sqrt(x^4 - 5x^2 + 4)', -3, 3],
    ['sqrt(x + 1/3)', -2, 2],
    ['ln(x^3 - x)', -2, 2],
    ['sin(2x) + ln(3 - x^2)', -3, 3],
    ['sign(x^3 - x)', -2, 2],
    ['floor(x^2)', -2, 2],
    ['round(x^2)', -2, 2],
    ['mod(x^2, 1)', -1.5, 1.5],
    ['e^(-1/x^2)', -2, 2],
    ['e^(1/(x^2 - 1))', -2, 2],
    ['sin(x)/x + x', -3, 3],
    ['(1 - cos x)/x^2 + x', -2, 2],
    ['(x - sin x)/x^3', -2, 2],
    ['(e^x - 1)/x - 1', -2, 2],
    // Beside a joint by how the function grows there.
    ['sin(x)/x + x', -5, 3.5],
    ['tanh(1/x)', -2, 2],
    ['1/(1 + e^(1/x))', -2, 2],
    ['e^(1/x)/x', -2, 2],
  ])('of %s on [%f, %f]', (text, a, b) => {
    const { complete, checked } = certified(text, a, b);
    expect([complete, checked.isAccepted, checked.contradictedJoints]).toEqual([true, true, []]);
  });

  test('what the checker has no rule for is not accepted, and nothing is said against it', () => {
    for (const text of ['x^x', '1/x - cot x', 'x/(e^x - 1)']) {
      const { complete, checked } = certified(text, text === 'x^x' ? 0 : -2, 2);
      expect([complete, checked.isAccepted, checked.contradicted.length]).toEqual([true, false, 0]);
    }
  });
});

/** What a true claim is not. */
function falsified(claim: Claim): Claim[] {
  const others = ([0, 1, 'all', 'nowhere'] as const).filter((zeros) => zeros !== claim.zeros);
  // Where there is no function it has no zero.
  const wrong = claim.zeros === 'nowhere' ? others.filter((zeros) => zeros !== 0) : others;
  return wrong.map((zeros) => ({ ...claim, zeros }));
}

describe('the checker refuses what is false', () => {
  test.each(school)('%s', (text, a, b) => {
    const { certificate } = certified(text, a, b);
    const every = Math.ceil(certificate.claims.length / 8);
    const some = certificate.claims.filter((_, i) => i % every === 0).flatMap(falsified);
    for (const claim of some)
      expect([claim, check({ ...certificate, claims: [claim] }, []).shown]).toEqual([claim, [null]]);
    expect(some.length).toBeGreaterThan(3);
  });

  test('an interval that is not covered', () => {
    const { certificate, points } = certified('x^3 - 3x', -3, 3);
    for (let i = 0; i < certificate.claims.length; i++) {
      const claims = certificate.claims.filter((_, j) => j !== i);
      const { isAccepted, gaps } = check({ ...certificate, claims }, points);
      expect([isAccepted, gaps.length]).toEqual([false, 1]);
    }
  });

  test('a point too few, a point too many, and one of another kind', () => {
    const { certificate, points } = certified('x^3 - 3x', -3, 3);
    for (const kind of ['zero', 'maximum', 'minimum', 'inflection'])
      expect(
        check(
          certificate,
          points.filter((point) => point.kind !== kind),
        ).isAccepted,
      ).toBe(false);
    for (const kind of ['zero', 'maximum', 'minimum', 'inflection'])
      expect(check(certificate, [...points, { kind, x: 2.2 }]).isAccepted).toBe(false);
    const swapped = points.map(({ kind, x }) => ({ kind: kind === 'maximum' ? 'minimum' : kind, x }));
    expect(check(certificate, swapped).isAccepted).toBe(false);
  });

  test('a piece that jumps over 0 where it is joined', () => {
    // At 0 it has the value 0; beside it x − ½, with a zero at ½.
    const body = read('0 if x ≤ 0; x - 0.5 otherwise');
    const claims: Claim[] = [{ order: 0, from: 0, to: 1, zeros: 0 }];
    const certificate = {
      body,
      variable: 'x',
      from: 0,
      to: 1,
      orders: [0],
      joints: [{ low: 0, high: 0 }],
      claims,
    };
    expect(check(certificate, []).isAccepted).toBe(false);
  });

  test('a part with a pole or a gap in the middle of it, although its ends and its slope look well', () => {
    for (const [text, zeros] of [
      ['1/x', 1],
      ['1/x', 'all'],
      ['ln(x^2 - 1) + 1', 0],
      ['x - 1/x', 1],
      ['tan x', 1],
      // Powers with an exponent that is no fraction are 0 where their base is.
      ['(x^2)^π', 0],
      ['|x|^e', 0],
      // Poles and holes where a part is halved.
      ['x^(-1/3)', 1],
      ['1/(1/x)', 1],
      ['(1/x)^(-1)', 1],
      ['(x/(x - 0.3))^(-1) + 5', 0],
    ] as const) {
      const claims: Claim[] = [{ order: 0, from: -2, to: 2, zeros }];
      const certificate = {
        body: read(text),
        variable: 'x',
        from: -2,
        to: 2,
        orders: [0],
        joints: [],
        claims,
      };
      expect([text, check(certificate, []).shown]).toEqual([text, [null]]);
    }
  });

  test('a value of its own at a number that is no joint', () => {
    for (const text of [
      '1 if x ≠ 0.4; 0 otherwise',
      '0 if x = 0.4; 1 otherwise',
      '0 if 0.4 ≤ x ≤ 0.4; 1 otherwise',
      '1 if x < 0.4; 1 if x > 0.4; 0 otherwise',
      '0 if |x - 0.4| ≤ 0; 1 otherwise',
      '0 if sqrt(|x - 0.4|) ≤ 0; 1 otherwise',
      '0 if (x - 0.4)^2 ≤ 0; 1 otherwise',
      '0 if max(x, 0.4) ≤ 0.4 and min(x, 0.4) ≥ 0.4; 1 otherwise',
      '0 if floor x = x; 1 otherwise',
      '0 if x - floor x ≤ 0; 1 otherwise',
      '0 if mod(x, 1) = 0; 1 otherwise',
      '0 if floor |x| ≥ |x|; 1 otherwise',
      'sign(x - 0.4)^2',
      '|sign(x - 0.4)|',
      '2 - floor(1 - |x - 0.4|) - ceil(|x - 0.4|)',
    ]) {
      const claims: Claim[] = [{ order: 0, from: -1.1, to: 1.3, zeros: 0 }];
      const certificate = {
        body: read(text),
        variable: 'x',
        from: -1.1,
        to: 1.3,
        orders: [0],
        joints: [],
        claims,
      };
      expect([text, check(certificate, []).shown]).toEqual([text, [null]]);
    }
  });
});

describe('joints', () => {
  const joined: readonly (readonly [string, number, number])[] = [
    ...school,
    // Beside a place at which dividend and divisor are 0 both are looked at without that zero.
    ['sin(x)/x', -3, 3],
    ['(1 - cos(x))/x^2', -2, 2],
    ['(e^x - 1)/x', -2, 2],
    ['x/sin(x)', -2, 2],
    ['ln(x)/(x - 1)', 0.2, 3],
    ['sign x', -1, 1],
    ['x if x < 1; x - 0.1 otherwise', 0, 2],
    ['1/x if x > 0; 2 otherwise', -1, 1],
    ['|sin x|', -4, 4],
    ['x floor(x)', -2.5, 2.5],
    ['sqrt(|x|)', -1, 1],
  ];
  type Point = ReturnType<typeof certify>['points'][number];
  const others: Readonly<Record<string, Point['kind']>> = {
    ...{ corner: 'cusp', cusp: 'corner', jump: 'hole', hole: 'jump', pole: 'hole', zero: 'maximum' },
    ...{
      maximum: 'minimum',
      minimum: 'maximum',
      inflection: 'maximum',
      endpoint: 'openEnd',
      openEnd: 'endpoint',
    },
  };
  /** Lists that say of a point something else than it is: nothing, another kind, another height or limit. */
  const falseLists = (points: readonly Point[], point: Point): Point[][] => {
    const rest = points.filter((other) => other !== point);
    const before = point.sides?.left;
    return [
      rest,
      [...rest, { ...point, kind: others[point.kind] as Point['kind'] }],
      ...(point.y === null ? [] : [[...rest, { ...point, y: point.y + 1e-4 }]]),
      ...(before
        ? [[...rest, { ...point, sides: { right: null, left: { ...before, value: before.value + 1e-4 } } }]]
        : []),
    ];
  };

  test('lists are accepted as they are, and none that says of a joint what is not so', () => {
    let tried = 0;
    for (const [text, a, b] of joined) {
      const { certificate, points, checked } = certified(text, a, b);
      expect([text, checked.isAccepted, checked.contradictedJoints]).toEqual([text, true, []]);
      const atJoints = points.filter(
        ({ x }) => x > a && x < b && certificate.joints.some(({ low, high }) => low <= x && x <= high),
      );
      for (const list of atJoints.flatMap((point) => falseLists(points, point))) {
        tried++;
        expect([text, list, check(certificate, list).isAccepted]).toEqual([text, list, false]);
      }
    }
    expect(tried).toBeGreaterThan(200);
  });

  test('a corner without its name, a jump that is none, and a limit that is another are refused', () => {
    const isRefused = (text: string, change: (point: Point) => Point | null): boolean => {
      const { certificate, points } = certified(text, -2, 2);
      return !check(
        certificate,
        points.flatMap((point) => change(point) ?? []),
      ).isAccepted;
    };
    const kind = (from: Point['kind'], to: Point['kind'] | null) => (point: Point) =>
      point.kind === from ? to && { ...point, kind: to } : point;
    expect(isRefused('|x|', kind('corner', null))).toBe(true);
    expect(isRefused('|x|', kind('minimum', 'maximum'))).toBe(true);
    expect(isRefused('sin(x)/x', kind('hole', null))).toBe(true);
    expect(isRefused('sin(x)/x', (point) => (point.kind === 'hole' ? { ...point, y: 0 } : point))).toBe(true);
    expect(isRefused('x^(1/3)', kind('inflection', null))).toBe(true);
    expect(isRefused('x^(2/3)', kind('cusp', null))).toBe(true);
    expect(isRefused('1/x', kind('pole', 'jump'))).toBe(true);
    expect(isRefused('floor x', kind('jump', null))).toBe(true);
    expect(isRefused('|x|', (point) => point)).toBe(false);
  });
});

test('at the end of a part it is the piece inside that counts, not the one that begins there', () => {
  const body = tree.call('abs', read('1 - x - x^2 if x < 1; 5 otherwise'));
  const claim: Claim = { order: 1, from: 0.3, to: 1, zeros: 0 };
  const joints = [0.3, 1].map((x) => ({ low: x, high: x }));
  // By hand: it falls up to (√5 − 1)/2, where 1 − x − x² = 0, and rises from there: its slope has no sign on the part.
  const certificate = { body, variable: 'x', from: 0.3, to: 1, orders: [1], joints, claims: [claim] };
  expect(check(certificate, []).signs).toEqual([0]);
});

test('a slope is not 0 for a root of what is 0 together with its slope', () => {
  // √(x − 1)² is |x − 1|: beside 1 its slope is −1 and 1.
  const { certificate, points, checked } = certified('sqrt((x - 1)^2) + cos x', -1, 3);
  const smooth = points.filter(({ kind }) => kind !== 'corner');
  expect([checked.contradictedJoints, check(certificate, smooth).isAccepted]).toEqual([[], false]);
});

test('heights beyond all doubles are those that are listed as infinite', () => {
  // e^(e^(e^2)) is about 10^702.
  const { complete, checked } = certified('e^(e^(e^2))', -3, 2);
  expect([complete, checked.isAccepted]).toEqual([true, true]);
  const { checked: other, certificate, points } = certified('e^x', -3, 2);
  const false_ = points.map((point) => ({ ...point, y: point.x === 2 ? Infinity : point.y }));
  expect([other.isAccepted, check(certificate, false_).isAccepted]).toEqual([true, false]);
});

test('a certificate of too many parts is not looked at, and nothing is said against it', () => {
  const inParts = (count: number) => {
    const claims = Array.from({ length: count }, (_, i): Claim => ({
      order: 0,
      from: i / count,
      to: (i + 1) / count,
      zeros: 0,
    }));
    const joints = [0, 1].map((x) => ({ low: x, high: x }));
    const list = [0, 1].map((x) => ({ kind: 'endpoint', x, y: x * x + 1 }));
    return check({ body: read('x^2 + 1'), variable: 'x', from: 0, to: 1, orders: [0], joints, claims }, list);
  };
  expect(inParts(3).isAccepted).toBe(true);
  const { isAccepted, contradicted, contradictedJoints } = inParts(1700);
  expect([isAccepted, contradicted, contradictedJoints]).toEqual([false, [], []]);
});

test('a corner, a hole or a jump inside a part that is shown to have none is refuted', () => {
  const certificate = certificateOf(read('x^2'), 'x', [-1, 2]);
  const { points } = keyPoints(read('x^2'), 'x', [-1, 2]);
  expect(check(certificate, points)).toMatchObject({ isAccepted: true, contradicted: [] });
  for (const kind of ['corner', 'cusp', 'hole', 'jump', 'pole', 'endpoint', 'openEnd']) {
    const { isAccepted, contradicted } = check(certificate, [...points, { kind, x: 0.75, y: 0.5625 }]);
    expect([kind, isAccepted, contradicted.length > 0]).toEqual([kind, false, true]);
  }
});

describe('what is right by hand is not refuted', () => {
  test.each([
    // Its only zero is −1/3, which algebra alone tells: e(−1/3) + e/3 = 0.
    ['cbrt(e x + e/3)', -2, 1],
    // sin π = 0: nowhere a value.
    ['x^2/sin(3) - (1/3)/sin(pi)', -2, 2],
    // (−2)² = 4 is a value, although (−2)ˣ has none beside 2.
    ['(e if x < 1; x otherwise) - (0 if x < 2; (-2)^x otherwise)', -2, 2],
    // x^(7/3)/4^(1/3) beside 0, where 0.5/x has no value.
    ['(0.5/x)^(2/3) x^3', 0, 4],
    // 4e² x^(2/3) has a cusp at 0.
    ['(-2 e cbrt(x))^2', -1, 2],
  ])('%s on [%f, %f]', (text, a, b) => {
    const { contradicted, contradictedJoints } = certified(text, a, b).checked;
    expect([contradicted, contradictedJoints]).toEqual([[], []]);
  });

  test('and a smooth list of a cusp, or an end that has no value, is not accepted', () => {
    const cusp = certified('(-2 e cbrt(x))^2', -1, 2);
    const smooth = cusp.points.filter(({ kind }) => kind !== 'cusp');
    expect([cusp.checked.isAccepted, check(cusp.certificate, smooth).isAccepted]).toEqual([true, false]);
    const hole = certified('(0.5/x)^(2/3) x^3', 0, 4);
    const closed = hole.points.map((point) => (point.x === 0 ? { kind: 'endpoint', x: 0, y: 0 } : point));
    expect(check(hole.certificate, closed).contradictedJoints.map(({ low }) => low)).toEqual([0]);
  });
});

test('random formulas: no complete list that the checker does not follow', () => {
  const { tried, right, undecided, unshown, wrong } = fuzzCertificates(20261130, cases(25, 400));
  expect(wrong).toEqual([]);
  expect(right + undecided + unshown.length).toBe(tried);
  expect(right).toBeGreaterThan(0.75 * (tried - undecided));
});
