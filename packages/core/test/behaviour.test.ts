import { describe, expect, test } from '@jest/globals';
import {
  answerTo,
  asymptotes,
  compile,
  derivativeSteps,
  derivativesAt,
  drawEquation,
  equationOf,
  evaluateAt,
  findingSentence,
  fromDerivative,
  implicitSlope,
  mendingAt,
  joins,
  printText,
  rational,
  readExpression,
  readFromDerivative,
  readStatement,
  ruleNames,
  tree,
  type Located,
  type MendingValues,
} from '../src/index.ts';

const scope = { names: new Set(['x', 'y', 'a', 'b', 't']), functions: new Set<string>() };
const read = (text: string) => {
  const reading = readExpression(text, scope);
  if (!reading.ok) throw new Error(text);
  return reading.value;
};
const write = ({ exact, value }: Pick<Located, 'value' | 'exact'>): string =>
  exact ? printText(exact) : String(value);

describe('joins of a function in pieces', () => {
  const about = (text: string): string =>
    joins(read(text), 'x', [-3, 3])
      .map(
        ({ place, left, right, isContinuous, isDifferentiable, isTwiceDifferentiable }) =>
          `${write(place)}: ${left.value}/${right.value}, ${left.slope}/${right.slope} ` +
          [
            isContinuous && 'continuous',
            isDifferentiable && 'differentiable',
            isTwiceDifferentiable && 'twice',
          ]
            .filter(Boolean)
            .join(' '),
      )
      .join('; ');

  test.each([
    ['x^2 if x < 1; 2x - 1 otherwise', '1: 1/1, 2/2 continuous differentiable'],
    ['x^2 if x < 1; 3 - 2x otherwise', '1: 1/1, 2/-2 continuous'],
    ['x^2 if x < 1; 5 otherwise', '1: 1/5, 2/0 '],
    ['x^3 if x < 0; x^4 otherwise', '0: 0/0, 0/0 continuous differentiable twice'],
    ['|x|', '0: 0/0, -1/1 continuous'],
    ['cbrt(x)', '0: 0/0, null/null continuous'],
    ['1/x', '0: null/null, null/null '],
    ['-1 if x < 0; x if x < 2; 2 otherwise', '0: -1/0, 0/1 ; 2: 2/2, 1/0 continuous'],
  ])('%s', (text, expected) => expect(about(text)).toBe(expected));

  const mending = (text: string, at: string, beside: [number, number]) => {
    const [left, right] = beside.map(rational.fromDouble) as [rational.Rational, rational.Rational];
    const found = mendingAt(read(text), 'x', { at: read(at), left, right }, 'a');
    const told = ({ isEvery, values, isComplete }: MendingValues) =>
      isEvery
        ? 'every'
        : [values.map(write).join(', ') || 'none', ...(isComplete ? [] : ['perhaps more'])].join(' ');
    return found && [told(found.continuous), told(found.smooth)];
  };

  test.each([
    // Stewart, Calculus (8th ed.), section 2.5, exercise 45: c x² + 2x and x³ − c x meet at 2 for c = 2/3.
    ['a x^2 + 2x if x < 2; x^3 - a x otherwise', '2', [1, 3], ['2/3', 'none']],
    ['x^2 if x < 1; a x + 3 otherwise', '1', [0, 2], ['-2', 'none']],
    ['x^2 if x < 1; 1 + a(x - 1) otherwise', '1', [0, 2], ['every', '2']],
    ['x^2 if x < 2; 4 + a(x - 2) otherwise', '2', [1, 3], ['every', '4']],
    ['3x if x < 1; a x otherwise', '1', [0, 2], ['3', '3']],
    ['a^2 x if x < 1; 4 otherwise', '1', [0, 2], ['-2, 2', 'none']],
    ['x^2 if x < 1; 5 if x = 1; a otherwise', '1', [0, 2], ['none', 'none']],
    ['x^2 if x ≠ 1; a otherwise', '1', [0, 2], ['1', '1']],
    // In an irrational place, within a formula, by an exponential, far out, and with no constant that would do.
    ['x^2 if x < √2; a x otherwise', '√2', [1, 2], ['√2', 'none']],
    ['2(x if x < 1; a - x otherwise) + 1', '1', [0, 2], ['2', 'none']],
    ['e^(a x) if x < 1; 2 otherwise', '1', [0, 2], ['ln(2) perhaps more', 'none perhaps more']],
    ['x if x < 1; 5000 - a x otherwise', '1', [0, 2], ['4999', 'none']],
    ['x if x < 1; a x^2/3 otherwise', '1', [0, 2], ['3', 'none']],
    ['x if x < 1; x + 1 otherwise', '1', [0, 2], ['none', 'none']],
    ['x^2 if x < 1; 2x - 1 otherwise', '1', [0, 2], ['every', 'every']],
  ] as const)('the values of a for which %s goes on at %s', (text, at, [left, right], expected) => {
    expect(mending(text, at, [left, right])?.map((values) => values.replace('sqrt(2)', '√2'))).toEqual(
      expected,
    );
  });

  test('where the constant moves the join itself nothing is worked out', () => {
    expect(mending('x if x < a; 2x otherwise', '1', [0, 2])).toBeNull();
  });
});

describe('asymptotes', () => {
  test.each([
    ['1/x', [0, 0], [0, 0]],
    ['(x^2 + 1)/x', [1, 0], [1, 0]],
    ['(2x^3 + x^2)/(x^2 + 3)', [2, 1], [2, 1]],
    ['arctan(x)', [0, -Math.PI / 2], [0, Math.PI / 2]],
    ['sqrt(x^2 + 1)', [-1, 0], [1, 0]],
    ['e^x', [0, 0], undefined],
    ['x^2', undefined, undefined],
    ['sin(x)', undefined, undefined],
    ['x + sin(x)/x', [1, 0], [1, 0]],
    ['√(x^2 + x)', [-1, -0.5], [1, 0.5]],
    ['x e^(1/x)', [1, 1], [1, 1]],
    ['ln(x)', undefined, undefined],
    ['10^(-200) x', [1e-200, 0], [1e-200, 0]],
  ])('%s', (text, left, right) => {
    const { asymptotes: found, undecided } = asymptotes(read(text), 'x');
    expect(undecided).toEqual([]);
    for (const [towards, line] of [
      ['left', left],
      ['right', right],
    ] as const) {
      const asymptote = found.find((one) => one.towards === towards);
      if (!line) expect(asymptote).toBeUndefined();
      else {
        expect(asymptote?.slope.value).toBeCloseTo(line[0] as number, 14);
        expect(asymptote?.intercept.value).toBeCloseTo(line[1] as number, 14);
      }
    }
  });
});

test('where nothing shows whether there is an asymptote, that is said', () => {
  expect(asymptotes(read('∫[0, x] e^(-t^2) dt'), 'x')).toEqual({
    asymptotes: [],
    undecided: ['left', 'right'],
  });
});

describe('reading f from the graph of a derivative', () => {
  const sentences = (text: string, order: 1 | 2 | 3): string[] =>
    readFromDerivative(read(text), 'x', [-2, 3], order).findings.map((finding) =>
      findingSentence(finding, 'f', 'x', write),
    );

  test('from f′', () => {
    expect(sentences('x^2 - x - 2', 1)).toEqual([
      'f rises for x from -2 to -1, because f′ is positive there.',
      'f has a local maximum at x = -1, because f′ changes from positive to negative there.',
      'f falls for x from -1 to 2, because f′ is negative there.',
      'f has a local minimum at x = 2, because f′ changes from negative to positive there.',
      'f rises for x from 2 to 3, because f′ is positive there.',
      'f bends down (concave down) for x from -2 to 1/2, because f″ is negative there.',
      'f has an inflection point at x = 1/2, because f″ changes from negative to positive there.',
      'f bends up (concave up) for x from 1/2 to 3, because f″ is positive there.',
      'f′ falls for x from -2 to 1/2, because f″ is negative there.',
      'f′ has a local minimum at x = 1/2, because f″ changes from negative to positive there.',
      'f′ rises for x from 1/2 to 3, because f″ is positive there.',
    ]);
  });

  test('from f″: bending, inflections, and the same about f′', () => {
    const found = sentences('x - 1', 2);
    expect(found).toContain('f bends down (concave down) for x from -2 to 1, because f″ is negative there.');
    expect(found).toContain(
      'f has an inflection point at x = 1, because f″ changes from negative to positive there.',
    );
    expect(found).toContain(
      'f′ has a local minimum at x = 1, because f″ changes from negative to positive there.',
    );
    expect(found).toContain('f′ bends up (concave up) for x from -2 to 3, because f‴ is positive there.');
    expect(found.some((sentence) => sentence.startsWith('f rises'))).toBe(false);
  });

  test('a touching zero of f′ is no extremum', () => {
    const { findings, complete } = readFromDerivative(read('x^2'), 'x', [-1, 1], 1);
    expect(complete).toBe(true);
    expect(
      findings.some(
        (finding) => finding.kind === 'feature' && finding.of === 0 && finding.feature !== 'inflection',
      ),
    ).toBe(false);
  });

  test('at a pole of f′ nothing is claimed: f = ln|x| has no minimum at 0', () => {
    const features = readFromDerivative(read('1/x'), 'x', [-1, 1], 1).findings.filter(
      ({ kind }) => kind === 'feature',
    );
    expect(features).toEqual([]);
    // At a jump of f′ the function goes on, with a corner: f = |x|.
    expect(sentences('sign(x)', 1)).toContain(
      'f has a local minimum at x = 0, because f′ changes from negative to positive there.',
    );
  });

  // By hand: f′ = 2x − x sin x − cos x rises by 1.025 from 3 to 7.587… and falls from there to 8.5.
  test('greatest and least on the interval, ends included, are told by the areas', () => {
    const answer = answerTo<'reading'>({
      ask: 'reading',
      body: read('2 - x cos(x)'),
      variable: 'x',
      interval: [3, 8.5],
      order: 2,
    });
    const turns = answer.findings.filter(
      (finding) => finding.kind === 'feature' && finding.of === 1 && finding.feature !== 'inflection',
    );
    expect(turns).toHaveLength(2);
    const extremes = answer.findings.find(({ kind }) => kind === 'extremes');
    if (extremes?.kind !== 'extremes') throw new Error('no extremes');
    const slope = (x: number): number => 2 * x - x * Math.sin(x) - Math.cos(x);
    const heights = [extremes.changes[0]?.from, ...extremes.changes.map(({ to }) => to)].map(
      (place) => place?.value ?? NaN,
    );
    extremes.changes.forEach(({ from, to, by }) =>
      expect(by).toBeCloseTo(slope(to.value) - slope(from.value), 9),
    );
    const sorted = [...heights].sort((p, q) => slope(p) - slope(q));
    expect([extremes.least.value, extremes.greatest.value]).toEqual([sorted[0], sorted.at(-1)]);
    expect(findingSentence(extremes, 'f', 'x', ({ value }) => value.toFixed(3))).toMatch(
      /^f′ is greatest at x = \d\.\d{3} and least at x = \d\.\d{3}: by the areas under f″ it (rises|falls) by/,
    );
  });

  test('where two heights are the same, or nothing shows which is more, neither is called greatest', () => {
    const about = (text: string, interval: [number, number]) =>
      answerTo<'reading'>({
        ask: 'reading',
        body: read(text),
        variable: 'x',
        interval,
        order: 1,
      }).findings.filter(({ kind }) => kind === 'extremes');
    expect(about('2x', [-1, 1])).toEqual([]);
    expect(about('1/x', [-1, 1])).toEqual([]);
    expect(about('2x', [-1, 2])).toMatchObject([{ least: { value: 0 }, greatest: { value: 2 } }]);
    expect(about('cos(x)', [0, 6])).toMatchObject([{ greatest: { value: expect.closeTo(Math.PI / 2, 12) } }]);
  });

  test('f itself from start values', () => {
    // f″ = 6x with f(1) = 2 and f′(1) = 4: f = x³ + x.
    const f = compile(fromDerivative(read('6x'), 'x', tree.number(1), [tree.number(2), tree.number(4)]), 'x');
    for (const x of [-2, 0, 1, 2.5]) {
      const [value, slope, bend] = derivativesAt(f, x, 2);
      expect(value).toBeCloseTo(x ** 3 + x, 10);
      expect(slope).toBeCloseTo(3 * x ** 2 + 1, 10);
      expect(bend).toBeCloseTo(6 * x, 10);
    }
    const g = compile(fromDerivative(read('cos(x)'), 'x', tree.number(0), [tree.number(3)]), 'x');
    expect(evaluateAt(g, 2)).toBeCloseTo(3 + Math.sin(2), 12);
  });

  test.each([
    ['6x', '1', ['2', '4'], 'x^3 + x'],
    ['x cos(x)', '0', ['1'], 'x sin(x) + cos(x)'],
    ['2 - x cos(x)', '0', ['0', '0'], null],
    ['e^(-x)', '0', ['0'], '1 - e^(-x)'],
    ['a x', '0', ['b'], null],
    // What is given on one interval is found on that interval.
    ['x^2 - 1 if -2 ≤ x ≤ 3', '0', ['0'], 'x^3/3 - x for -2 ≤ x ≤ 3'],
    // With a pole, a jump, or a start outside of the interval there is no formula for all numbers.
    ['1/x', '1', ['0'], 'integral'],
    ['floor(x)', '0', ['0'], 'integral'],
    ['x if 1 ≤ x ≤ 2', '0', ['0'], 'integral'],
    ['sin(x^2)', '0', ['0'], 'integral'],
  ])('from %s at %s comes a formula where antiderivatives hold everywhere', (text, at, values, expected) => {
    const body = fromDerivative(read(text), 'x', read(at), values.map(read));
    if (expected === 'integral') {
      expect(printText(body)).toContain('∫');
      return;
    }
    expect(printText(body)).not.toContain('∫');
    if (expected) expect(printText(body)).toBe(expected);
    const scope = new Map([
      ['a', 0.7],
      ['b', -1.2],
    ]);
    const f = compile(body, 'x');
    const given = compile(read(text), 'x');
    const own = (program: typeof f): number[] => program.parameters.map((name) => scope.get(name) ?? NaN);
    const order = values.length;
    for (const x of [-1.7, 0.4, 2.6])
      expect(derivativesAt(f, x, order, own(f))[order]).toBeCloseTo(evaluateAt(given, x, own(given)), 10);
  });
});

describe('the rules of a derivative, step by step', () => {
  const rules = (text: string): string[] => derivativeSteps(read(text), 'x').steps.map(({ rule }) => rule);

  test.each([
    ['x^2 sin(x)', ['product', 'power', 'function']],
    ['sin(x^2)', ['chain', 'power']],
    ['(x + 1)/x', ['quotient', 'sum']],
    ['3x^2 - 5x', ['sum', 'constantFactor', 'constantFactor', 'power']],
    ['e^(3x)', ['chain', 'constantFactor']],
    ['2^x', ['exponential']],
    ['x^x', ['generalPower', 'product', 'function']],
    ['∫[0, x] t^2 dt', ['fundamentalTheorem']],
    ['x^2 if x < 1; x otherwise', ['pieces']],
    ['7', ['constant']],
  ])('%s', (text, expected) => expect(rules(text)).toEqual(expected));

  test('each step shows what is left to do, and the last line is the tidy result', () => {
    const { steps, result } = derivativeSteps(read('x^2 sin(x)'), 'x');
    const first = steps[0]?.after as tree.Expression;
    expect(printText(first)).toBe('d/dx (x^2) sin(x) + x^2(d/dx (sin(x)))');
    expect(printText(steps[1]?.after as tree.Expression)).toBe('2x');
    expect(printText(result)).toBe('x(x cos(x) + 2sin(x))');
    expect(steps.every(({ rule }) => ruleNames[rule].length > 3)).toBe(true);
  });

  test('putting all steps together gives the derivative', () => {
    for (const text of [
      'x^2 sin(x)',
      '(x^2 + 1)/(x - 5)',
      'e^(sin(x))',
      'x^x',
      'ln(x^2 + 1)^3',
      'sqrt(1 - x)/x',
    ]) {
      const { steps } = derivativeSteps(read(text), 'x');
      const first = compile(steps[0]?.after as tree.Expression, 'x');
      const [, slope] = derivativesAt(compile(read(text), 'x'), 0.7, 1);
      expect(evaluateAt(first, 0.7)).toBeCloseTo(slope as number, 10);
    }
  });
});

describe('equations in x and y', () => {
  const grid = { xFrom: -6, xTo: 6, yFrom: -6, yTo: 6, width: 240, height: 240 };
  const equation = (text: string) => {
    const statement = readStatement(text, scope);
    if (!statement.ok || statement.value.kind !== 'equation') throw new Error(text);
    return statement.value;
  };
  const drawn = (text: string, parameters = new Map<string, number>()) => {
    const { left, right } = equation(text);
    return drawEquation(equationOf(left, right), grid, parameters);
  };
  const points = (segments: Float64Array): [number, number][] =>
    Array.from({ length: segments.length / 2 }, (_, i) => [
      segments[2 * i] as number,
      segments[2 * i + 1] as number,
    ]);

  test('a circle is drawn all around, and nothing else', () => {
    const { segments, unsure, evaluations } = drawn('x^2 + y^2 = 25');
    const all = points(segments);
    for (const [x, y] of all) expect(Math.hypot(x, y)).toBeCloseTo(5, 2);
    for (let angle = 0; angle < 360; angle += 5) {
      const [cx, cy] = [5 * Math.cos((angle * Math.PI) / 180), 5 * Math.sin((angle * Math.PI) / 180)];
      expect(all.some(([x, y]) => Math.hypot(x - cx, y - cy) < 0.15)).toBe(true);
    }
    expect(unsure).toEqual([]);
    expect(evaluations).toBeLessThan(20_000);
  });

  test('a vertical and a slanting line, with parameters', () => {
    for (const [x] of points(drawn('x = 4').segments)) expect(x).toBeCloseTo(4, 10);
    const line = points(
      drawn(
        'y = a x + b',
        new Map([
          ['a', 2],
          ['b', 1],
        ]),
      ).segments,
    );
    expect(line.length).toBeGreaterThan(100);
    for (const [x, y] of line) expect(y).toBeCloseTo(2 * x + 1, 8);
  });

  test('a pole is no crossing: y = 1/x has no line along the y-axis', () => {
    for (const [x, y] of points(drawn('y = 1/x').segments)) {
      expect(Math.abs(x)).toBeGreaterThan(0.1);
      expect(Math.abs(x * y - 1) / Math.hypot(x, y)).toBeLessThan(0.02);
    }
  });

  test('both branches of a hyperbola, and an equation without points', () => {
    const branches = points(drawn('x^2 - y^2 = 4').segments);
    expect(branches.some(([x]) => x > 2.5)).toBe(true);
    expect(branches.some(([x]) => x < -2.5)).toBe(true);
    expect(drawn('x^2 + y^2 = -1').segments).toHaveLength(0);
  });

  test.each([
    ['x^2 + y^2 = 25', '-x/y'],
    ['y = 3x', '3'],
    ['x y = 1', '-y/x'],
    // Stewart, Calculus (8th ed.), section 3.5, example 2: the folium of Descartes.
    ['x^3 + y^3 = 6x y', '(2y - x^2)/(y^2 - 2x)'],
  ])('the slope of %s by implicit differentiation', (text, expected) => {
    const { left, right } = equation(text);
    const slope = compile(implicitSlope(left, right), 'x');
    const wanted = compile(read(expected), 'x');
    for (const [x, y] of [
      [1.3, 2.1],
      [-0.4, 0.9],
    ] as const) {
      const at = (program: typeof slope) =>
        evaluateAt(
          program,
          x,
          program.parameters.map(() => y),
        );
      expect(at(slope)).toBeCloseTo(at(wanted), 12);
    }
  });
});
