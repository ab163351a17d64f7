import { describe, expect, test } from '@jest/globals';
import { derivative as referenceDerivative, parse } from 'mathjs';
import {
  answerSent,
  answersInStages,
  answerTo,
  compile,
  evaluateAt,
  indicator,
  printText,
  rational,
  readCondition,
  readExpression,
  sendable,
  Spline,
  tree,
  type AnswerTo,
  type Expression,
  type Question,
  type QuestionKind,
  type QuestionOf,
} from '../src/index.ts';

const scope = { names: new Set(['x', 'k']), functions: new Set<string>() };
const read = (text: string): Expression => {
  const reading = readExpression(text, scope);
  if (!reading.ok) throw new Error(text);
  return reading.value;
};
const text = (form: Expression | null): string | null => form && printText(form);

/** The answer as it comes back from a worker: the question is copied on its way there, the answer on its way back. */
function sent<K extends QuestionKind>(question: QuestionOf<K>): AnswerTo[K] {
  const outcome = structuredClone(answerSent(structuredClone(sendable(question))));
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.answer as AnswerTo[K];
}
const keyPointsOf = (formula: string, interval: [number, number]) =>
  sent<'keyPoints'>({ ask: 'keyPoints', body: read(formula), variable: 'x', interval, order: 0 });

describe('key points of published worked examples', () => {
  // Stewart, Calculus (8th ed.), section 4.1, examples 8 and 9; from memory.
  test('x³ − 3x² + 1 on [−1/2, 4] is least at 2 and greatest at the end', () => {
    const { points, complete } = keyPointsOf('x^3 - 3x^2 + 1', [-0.5, 4]);
    expect(complete).toBe(true);
    const told = points.filter(({ absolute }) => absolute === true).map(({ kind, x, y }) => [kind, x, y]);
    expect(told).toEqual([
      ['minimum', 2, -3],
      ['endpoint', 4, 17],
    ]);
  });

  test('x − 2 sin x on [0, 2π] is least at π/3 and greatest at 5π/3', () => {
    const { points, complete } = keyPointsOf('x - 2 sin(x)', [0, 2 * Math.PI]);
    expect(complete).toBe(true);
    const told = points.filter(({ absolute }) => absolute === true);
    expect(told.map(({ kind, exact }) => [kind, text(exact)])).toEqual([
      ['minimum', 'π/3'],
      ['maximum', '5π/3'],
    ]);
    const heights = told.map(({ exactY }) => evaluateAt(compile(exactY as Expression, ''), 0));
    expect(heights[0]).toBeCloseTo(Math.PI / 3 - Math.sqrt(3), 12);
    expect(heights[1]).toBeCloseTo((5 * Math.PI) / 3 + Math.sqrt(3), 12);
  });

  // OpenStax, Calculus Volume 1, example 4.19 (concavity of x³ − 6x² + 9x + 30); from memory.
  test('x³ − 6x² + 9x + 30 has its inflection point at (2, 32)', () => {
    const { points } = keyPointsOf('x^3 - 6x^2 + 9x + 30', [-1, 6]);
    const [inflection] = points.filter(({ kind }) => kind === 'inflection');
    expect([inflection?.x, inflection?.y, text(inflection?.exactY ?? null)]).toEqual([2, 32, '32']);
  });
});

test('a hole has the height of its limit, exact as well, not of the value beside it', () => {
  const { points } = keyPointsOf('5 if x = 1; 2x otherwise', [0, 3]);
  const hole = points.find(({ kind }) => kind === 'hole');
  expect([hole?.x, hole?.y, hole?.exactY && printText(hole.exactY)]).toEqual([1, 2, '2']);
});

test('heights are exact through pieces, too', () => {
  const { points } = keyPointsOf('sqrt((x^2/4 - 3)^2 + x^2) if x >= 0; 3 + x^2 otherwise', [-1, 6]);
  const told = points.filter(({ kind }) => kind === 'minimum' || kind === 'endpoint');
  expect(told.map(({ exact, exactY }) => [text(exact), text(exactY)])).toEqual([
    ['-1', '4'],
    ['2', '2sqrt(2)'],
    ['6', '6sqrt(2)'],
  ]);
});

/** Functions on intervals whose plot with a hundred joined dots leaves something out, and what. */
const hiding: readonly [formula: string, from: number, to: number, kind: string, near: number][] = [
  ['x^2/20 + e^(-900(x - 3.137)^2)', 1, 10, 'maximum', 3.137],
  ['sin(x) - 2e^(-9000(x - 1.043)^2)', 0.1, 6, 'minimum', 1.043],
  ['14 + 8 sin(π(x - 9)/12) + 17 e^(-900(x - 4.35)^2)', 0, 24, 'maximum', 4.35],
  ['(x - 1.003)(x - 1.004)', -5, 5, 'zero', 1.003],
  ['(x - 2.011)(x - 2.012)(x + 1)', -4, 4, 'zero', 2.012],
  ['(x^2 - 4)/(x - 2.013)', -5, 5, 'pole', 2.013],
  ['1/((x - 0.517)^2 + 1/1000000)', -3, 3, 'maximum', 0.517],
  ['x + 1/(50000(x - 1.234))', -2, 4, 'pole', 1.234],
  ['abs(x - 0.777) + x/3', -4, 4, 'corner', 0.777],
  ['(x^2 - 1.0404)/(x - 1.02)', -3, 3, 'hole', 1.02],
  ['cos(x) + sin(200x)/40', 0, 0.2, 'maximum', 0.0078],
  ['x^4 - 0.0001x^2', -2, 2, 'minimum', 0.00707],
  ['x^3/3 - 0.0009x', -3, 3, 'maximum', -0.03],
  ['x e^(-60x) + x/200', 0, 8, 'maximum', 0.0169],
];

describe('what a coarse plot hides is found and proved', () => {
  test.each(hiding)('%s on [%d, %d]: %s near %d', (formula, from, to, kind, near) => {
    const { points, complete } = keyPointsOf(formula, [from, to]);
    expect(complete).toBe(true);
    const found = points.find((point) => point.kind === kind && Math.abs(point.x - near) < 0.002);
    expect(found).toBeDefined();
    // The dots of the coarse plot, a hundredth of the interval apart, stand beside it.
    const step = (to - from) / 100;
    const dots = Array.from({ length: 101 }, (_, i) => from + i * step);
    expect(Math.min(...dots.map((x) => Math.abs(x - (found?.x ?? NaN))))).toBeGreaterThan(0);
  });

  // mathjs, a general-purpose library, differentiates and evaluates by its own rules.
  test.each(hiding.filter(([, , , kind]) => kind === 'maximum' || kind === 'minimum'))(
    'in %s on [%d, %d] the reference library agrees on every extremum, and sees no further change of sign',
    (formula, from, to) => {
      const { points } = keyPointsOf(formula, [from, to]);
      const plain = formula
        .replaceAll('π(', 'pi*(')
        .replace(/(\d)(?=[a-z(])/g, '$1*')
        .replace(/\)(?=\()/g, ')*');
      const slope = referenceDerivative(parse(plain), 'x').compile();
      const slopeAt = (x: number): number => slope.evaluate({ x }) as number;
      const extrema = points.filter(({ kind }) => kind === 'maximum' || kind === 'minimum');
      for (const { x, kind } of extrema) {
        const beside = (to - from) * 1e-7;
        const [before, after] = [slopeAt(x - beside), slopeAt(x + beside)];
        expect([Math.sign(before), Math.sign(after)]).toEqual(kind === 'maximum' ? [1, -1] : [-1, 1]);
      }
      const looks = 20_000;
      let changes = 0;
      for (let i = 0; i < looks; i++) {
        const [a, b] = [i, i + 1].map((k) => slopeAt(from + ((to - from) * (k + 0.31)) / (looks + 1)));
        if ((a as number) * (b as number) < 0) changes++;
      }
      expect(changes).toBe(extrema.length);
    },
  );
});

test('where proof fails, what is between is found by search and said to be', () => {
  const { points, complete, undecided } = keyPointsOf('x sin(1/x)', [-1, 1]);
  expect(complete).toBe(false);
  expect(undecided.length).toBeGreaterThan(0);
  const searched = points.filter(({ proved }) => !proved);
  expect(searched.some(({ kind }) => kind === 'zero')).toBe(true);
  for (const { kind, x } of searched.filter(({ kind }) => kind === 'zero')) {
    expect(kind).toBe('zero');
    expect(Math.abs(Math.sin(1 / x))).toBeLessThan(1e-6);
  }
});

describe('the nearest point', () => {
  const nearest = (formula: string, interval: [number, number], to: [number, number]) =>
    sent<'nearest'>({ ask: 'nearest', body: read(formula), variable: 'x', interval, to });

  // Stewart, Calculus (8th ed.), section 4.7, example 3: on y² = 2x nearest to (1, 4) lies (2, 2); from memory.
  test('of √(2x) to (1, 4) is (2, 2), √5 away, proved', () => {
    const { points, isProved } = nearest('sqrt(2x)', [0, 10], [1, 4]);
    expect(isProved).toBe(true);
    expect(points).toHaveLength(1);
    expect(points[0]?.x).toBeCloseTo(2, 12);
    expect(points[0]?.distance).toBeCloseTo(Math.sqrt(5), 12);
  });

  test('has its exact distance where algebra gives it: x²/4 and (0, 3)', () => {
    const { points, isProved } = nearest('x^2/4', [0, 6], [0, 3]);
    expect(isProved).toBe(true);
    expect(points.map(({ exactX, exactDistance }) => [text(exactX), text(exactDistance)])).toEqual([
      ['2', '2sqrt(2)'],
    ]);
  });

  test('may be two points; an end that is farthest is none', () => {
    const { points } = nearest('x^2/4', [-4, 3], [0, 3]);
    expect(points.map(({ x }) => x)).toEqual([-2, 2]);
  });

  test('may be an end of the interval', () => {
    expect(nearest('x^2', [1, 3], [0, 0]).points.map(({ x }) => x)).toEqual([1]);
  });
});

describe('the mean value theorem', () => {
  const mean = (formula: string, interval: [number, number]) =>
    sent<'meanValue'>({ ask: 'meanValue', body: read(formula), variable: 'x', interval });

  // Stewart, Calculus (8th ed.), section 4.2, example 4; from memory.
  test('x³ − x on [0, 2]: the slope 3 again at 2/√3', () => {
    const found = mean('x^3 - x', [0, 2]);
    expect(found?.slope).toBe(3);
    expect(found?.conditions).toBe('hold');
    expect(found?.points.solutions.map(({ value }) => value.toFixed(12))).toEqual([
      (2 / Math.sqrt(3)).toFixed(12),
    ]);
  });

  // OpenStax, Calculus Volume 1, example 4.15; from memory.
  test('√x on [0, 9]: c = 9/4', () => {
    const found = mean('sqrt(x)', [0, 9]);
    expect(found?.points.solutions.map(({ exact }) => text(exact))).toEqual(['9/4']);
  });

  test('promises nothing over a corner', () => {
    expect(mean('abs(x)', [-1, 1])?.conditions).toMatchObject({ kind: 'corner', at: { value: 0 } });
    expect(mean('1/x', [0, 1])).toBeNull();
  });
});

test('the signs of a slope, with the values where they meet', () => {
  // OpenStax, Calculus Volume 1, example 4.17: rises before −1 and after 3; from memory.
  const body = read('x^3 - 3x^2 - 9x - 1');
  const { intervals, ends } = sent<'signs'>({
    ask: 'signs',
    body,
    variable: 'x',
    interval: [-4, 6],
    order: 1,
  });
  expect(intervals.map(({ from, to, sign }) => [from.value, to.value, sign])).toEqual([
    [-4, -1, 1],
    [-1, 3, -1],
    [3, 6, 1],
  ]);
  expect(ends.map(({ value }) => value === 0)).toEqual([false, true, true, false]);
});

test('signs part where there is no value', () => {
  const { intervals, ends } = sent<'signs'>({
    ask: 'signs',
    body: read('1/x'),
    variable: 'x',
    interval: [-2, 2],
    order: 0,
  });
  expect(intervals.map(({ sign }) => sign)).toEqual([-1, 1]);
  expect(ends.find(({ place }) => place.value === 0)?.value).toBeNull();
});

test('a condition holds on stretches with their ends', () => {
  const reading = readCondition('x^2 < 4 and x > -1', scope);
  if (!reading.ok) throw new Error('unread');
  const { stretches } = sent<'holds'>({
    ask: 'holds',
    body: indicator(reading.value),
    variable: 'x',
    interval: [-5, 5],
  });
  expect(
    stretches.map(({ from, to, includesFrom, includesTo }) => [
      from.value,
      to.value,
      includesFrom,
      includesTo,
    ]),
  ).toEqual([[-1, 2, false, false]]);
});

test('a constant that mends a join, in value and in slope', () => {
  const body = read('x^2 if x < 1; k x - 1 otherwise');
  const closed = tree.substitute(body, 'k', tree.number(3));
  const { joins } = sent<'joins'>({
    ask: 'joins',
    body: closed,
    variable: 'x',
    interval: [-3, 3],
    mend: { constant: 'k', body },
  });
  expect(joins.map(({ place, isContinuous }) => [place.value, isContinuous])).toEqual([[1, false]]);
  const { continuous, smooth } = joins[0]?.mending ?? {};
  expect(continuous?.values.map(({ exact }) => text(exact))).toEqual(['2']);
  expect(smooth?.values.map(({ exact }) => text(exact))).toEqual(['2']);
});

test('a table of measured values goes to the worker as its rows and comes to the same answer', () => {
  const rows = [0, 1, 2, 3, 4].map((x) => ({
    x: rational.rational(x),
    y: rational.rational((x * x * 3) % 7),
  }));
  const body = tree.spline(Spline.through(rows, 'smooth', 'L'), tree.name('x'));
  const question: Question = {
    ask: 'solve',
    body,
    equals: tree.number(2),
    variable: 'x',
    interval: [0, 4],
    order: 0,
  };
  const here = answerTo<'solve'>(question);
  expect(here.solutions.length).toBeGreaterThan(0);
  expect(sent<'solve'>(question).solutions.map(({ value }) => value)).toEqual(
    here.solutions.map(({ value }) => value),
  );
});

test('what is too large is said, not thrown', () => {
  const body = read(Array.from({ length: 80 }, (_, i) => `sin(${i + 1}x)`).join(' '));
  const outcome = answerSent({ ask: 'keyPoints', body, variable: 'x', interval: [0, 1], order: 0 });
  expect(outcome).toEqual({ ok: false, reason: 'tooLarge' });
});

describe('a curve as a question', () => {
  const grid = { xFrom: -5, xTo: 5, yFrom: -2, yTo: 2, width: 400, height: 300 };
  const curve = (text: string) => {
    const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
    if (!reading.ok) throw new Error(text);
    return answerTo<'curve'>({ ask: 'curve', body: reading.value, variable: 'x', interval: [-5, 5], grid });
  };

  test('is sampled as it would be in a frame', () => {
    const { runs, isRough } = curve('1/x');
    expect({ isRough, runs: runs.length }).toEqual({ isRough: false, runs: 2 });
  });

  test('comes roughly where it takes too many operations, and is right at every point', () => {
    const { runs, isRough } = curve('sum k from 1 to 1000 of sin(k x)/k');
    expect(isRough).toBe(true);
    const [run = new Float64Array()] = runs;
    expect(run.length).toBeGreaterThanOrEqual(2 * 385);
    for (let i = 0; i < run.length; i += 128) {
      const x = run[i] as number;
      let sum = 0;
      for (let k = 1; k <= 1000; k++) sum += Math.sin(k * x) / k;
      expect(run[i + 1]).toBeCloseTo(sum, 9);
    }
  });
});

describe('an answer in stages', () => {
  const stagesOf = (question: Question) => [...answersInStages(structuredClone(sendable(question)))];
  const asked = (formula: string, interval: [number, number]) =>
    ({ body: read(formula), variable: 'x', interval, order: 0 }) as const;
  const widthOf = (boxes: readonly { low: number; high: number }[]) =>
    boxes.reduce((width, { low, high }) => width + high - low, 0);

  test('is the whole answer at once where nothing is left to look at', () => {
    const question = { ask: 'keyPoints', ...asked('x^3 - 3x', [-3, 3]) } as const;
    expect(stagesOf(question)).toEqual([{ outcome: answerSent(question), isLast: true }]);
  });

  test.each([
    ['sin(1/x) + x/9', [0.004, 1]],
    ['sin(x^2) - x/40', [0, 40]],
    ['cos(40x) e^(-x/9) + sin(x^2)/5', [0, 12]],
  ] as const)(
    'of %s grows, claims nothing before its time, and ends with the whole',
    (formula, [from, to]) => {
      const zero = tree.number(0);
      const question = { ask: 'solve', ...asked(formula, [from, to]), equals: zero } as const;
      const stages = stagesOf(question);
      const answers = stages.map(({ outcome }) => {
        if (!outcome.ok) throw new Error(outcome.reason);
        return outcome.answer as AnswerTo['solve'];
      });
      expect(stages.length).toBeGreaterThan(1);
      expect(stages.map(({ isLast }) => isLast)).toEqual(stages.map((_, i) => i === stages.length - 1));
      const last = answers.at(-1);
      expect(last).toEqual(sent<'solve'>(question));
      answers.slice(1).forEach((answer, i) => {
        const before = answers[i] as AnswerTo['solve'];
        expect(before.complete).toBe(false);
        expect(widthOf(answer.undecided)).toBeLessThan(widthOf(before.undecided));
        expect(answer.solutions.length).toBeGreaterThanOrEqual(before.solutions.length);
        // What was proved early is there in the end.
        for (const { value } of before.solutions)
          expect(last?.solutions.some((solution) => Math.abs(solution.value - value) < 1e-9)).toBe(true);
      });
    },
  );
});
