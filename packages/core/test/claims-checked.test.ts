import { describe, expect, test } from '@jest/globals';
import {
  answerSent,
  indicator,
  withoutItsClaim,
  type AnswerOutcome,
  type AnswerTo,
  type Question,
  type QuestionKind,
} from '../src/index.ts';
import { certified } from '../src/questions/certified.ts';
import { school } from './school.ts';
import { condition, expression } from './scope.ts';

type Interval = readonly [number, number];
const asked = (text: string, interval: Interval) =>
  ({ body: expression(text), variable: 'x', interval }) as const;
const compared = (text: string, relation: '>' | '≤', level: string) =>
  ({ kind: 'comparison', operands: [expression(text), expression(level)], relations: [relation] }) as const;

/** What is asked of the functions of school. */
const questions: readonly (readonly [string, (text: string, interval: Interval) => Question])[] = [
  ['key points', (text, on) => ({ ask: 'keyPoints', order: 0, ...asked(text, on) })],
  ['signs of f″', (text, on) => ({ ask: 'signs', order: 2, ...asked(text, on) })],
  ['f = x/2', (text, on) => ({ ask: 'solve', order: 0, equals: expression('x/2'), ...asked(text, on) })],
  ['f′ = 1/2', (text, on) => ({ ask: 'solve', order: 1, equals: expression('1/2'), ...asked(text, on) })],
  [
    'f > 0.3',
    (text, on) => ({ ask: 'holds', ...asked('1', on), body: indicator(compared(text, '>', '0.3')) }),
  ],
  ['parallel tangents', (text, on) => ({ ask: 'meanValue', ...asked(text, on) })],
  ['nearest to (0.5, 1)', (text, on) => ({ ask: 'nearest', to: [0.5, 1], ...asked(text, on) })],
  ['reading f′', (text, on) => ({ ask: 'reading', order: 1, ...asked(text, on) })],
];
/** Every fourth of them, so that the test is no longer than it has to be: `npm run fuzz` asks for all. */
const sample = school.filter((_, i) => i % 4 === 1);

const isClaimed = (question: Question, outcome: AnswerOutcome): boolean =>
  withoutItsClaim(question, outcome) !== null;

describe('what an answer claims is looked at by the checker', () => {
  test.each(questions)('%s: nineteen in twenty claims stay', (_, questionOf) => {
    const claims = sample.flatMap(([text, from, to]) => {
      const question = questionOf(text, [from, to]);
      const outcome = answerSent(question);
      return isClaimed(question, outcome) ? [{ text, question, outcome }] : [];
    });
    const refused = claims.filter(
      ({ question, outcome }) => !isClaimed(question, certified(question, outcome)),
    );
    expect(claims.length).toBeGreaterThanOrEqual(8);
    expect([refused.map(({ text }) => text), refused.length <= Math.ceil(claims.length / 20)]).toEqual([
      refused.map(({ text }) => text),
      true,
    ]);
  });

  const on = [-3, 3] as const;
  const answerOf = <K extends QuestionKind>(question: Question & { readonly ask: K }): AnswerTo[K] => {
    const outcome = answerSent(question);
    if (!outcome.ok) throw new Error(outcome.reason);
    return outcome.answer as AnswerTo[K];
  };
  const isAccepted = (question: Question, answer: AnswerTo[QuestionKind]): boolean =>
    isClaimed(question, certified(question, { ok: true, answer }));

  test('a list of solutions with one left out, moved or made up is refused, and loses its claim only', () => {
    const question = { ask: 'solve', order: 0, equals: expression('1/2'), ...asked('sin x', on) } as const;
    const answer = answerOf(question);
    const [first, ...others] = answer.solutions;
    if (!first) throw new Error('no solution');
    expect(isAccepted(question, answer)).toBe(true);
    const false_ = [
      others,
      [...others, { ...first, value: first.value + 1e-6 }],
      [...answer.solutions, { ...first, value: -1 }],
    ];
    for (const solutions of false_) {
      const told = certified(question, { ok: true, answer: { ...answer, solutions } });
      expect(told).toEqual({
        ok: true,
        answer: { ...answer, solutions, complete: false, isUnconfirmed: true },
      });
    }
  });

  test.each([
    ['|x|', '0', 0],
    ['floor x', 'x', 2],
    ['sqrt(x)', '0', 0],
    ['x^2 if x < 1; 2 - x otherwise', '1', 1],
    ['x/x', 'x', -1],
  ])(
    '%s = %s: nothing is left out or made up at a corner, a jump or where parts meet (%d)',
    (text, other, x) => {
      const question = { ask: 'solve', order: 0, equals: expression(other), ...asked(text, on) } as const;
      const answer = answerOf(question);
      const { solutions } = answer;
      const made = { value: x, low: x, high: x, exact: null };
      const isThere = solutions.some(({ value }) => value === x);
      const changed = isThere ? solutions.filter(({ value }) => value !== x) : [...solutions, made];
      expect([isAccepted(question, answer), isAccepted(question, { ...answer, solutions: changed })]).toEqual(
        [true, false],
      );
    },
  );

  test('false signs, parallel tangents and key points are refused', () => {
    const ofSigns = { ask: 'signs', order: 1, ...asked('x^3 - 3x', on) } as const;
    const signs = answerOf(ofSigns);
    const turned = signs.intervals.map((one, i) => (i === 1 ? { ...one, sign: 1 as const } : one));
    expect([isAccepted(ofSigns, signs), isAccepted(ofSigns, { ...signs, intervals: turned })]).toEqual([
      true,
      false,
    ]);

    const ofMean = { ask: 'meanValue', ...asked('x^3 - 3x', on) } as const;
    const mean = answerOf(ofMean);
    if (!mean) throw new Error('no mean value');
    const fewer = { ...mean, points: { ...mean.points, solutions: mean.points.solutions.slice(1) } };
    expect([isAccepted(ofMean, mean), isAccepted(ofMean, fewer)]).toEqual([true, false]);

    const ofKeyPoints = { ask: 'keyPoints', order: 0, ...asked('x^3 - 3x', on) } as const;
    const keyPoints = answerOf(ofKeyPoints);
    const points = keyPoints.points.filter(({ kind }) => kind !== 'maximum');
    expect([isAccepted(ofKeyPoints, keyPoints), isAccepted(ofKeyPoints, { ...keyPoints, points })]).toEqual([
      true,
      false,
    ]);
  });

  test.each([
    ['x^2 > 2', 'sides of the roots'],
    ['x^2 <= 2 and x != 1', 'a place left out'],
    ['sqrt(x) < 1 or x = -2', 'nothing where there is no root, and a single place'],
    ['not (x^2 < 1)', 'what is not'],
    ['0 < x < 2', 'a chain'],
    ['1/x > 1', 'a pole'],
    ['x^2 < 0', 'nowhere'],
    ['floor x = 1', 'steps'],
  ])('where %s holds is accepted (%s), and nothing else is', (text) => {
    const question = { ask: 'holds', ...asked('1', on), body: indicator(condition(text)) } as const;
    const answer = answerOf(question);
    const { stretches } = answer;
    expect([answer.complete, isAccepted(question, answer)]).toEqual([true, true]);
    const place = (value: number) => ({ value, low: value, high: value, exact: null });
    const made = { from: place(-2.9), to: place(2.9), includesFrom: true, includesTo: true };
    const others = [
      ...stretches.map((_, i) => stretches.filter((__, j) => j !== i)),
      ...stretches.map((one, i) =>
        stretches.with(i, { ...one, includesFrom: !one.includesFrom, includesTo: !one.includesTo }),
      ),
      [made],
    ];
    for (const false_ of others)
      expect([false_, isAccepted(question, { ...answer, stretches: false_ })]).toEqual([false_, false]);
  });

  test.each<[string, number]>([
    ['e^(-x^2) sin(x + 1)', 2],
    ['e^(-x)/(1 + x)', Infinity],
  ])(
    'an integral that is called proved, of %s from 0 to %f, keeps that only with bounds of the checker',
    (text, to) => {
      const question = { ask: 'integral', isTotal: false, ...asked(text, [0, to]) } as const;
      const answer = answerOf(question);
      expect([answer.certainty, isAccepted(question, answer)]).toEqual(['proved', true]);
      const off = { ...answer, value: answer.value + 2 * answer.bound + 1e-9 };
      const told = certified(question, { ok: true, answer: off });
      const { bounds } = told.ok ? (told.answer as typeof answer) : { bounds: null };
      expect(told).toEqual({ ok: true, answer: { ...off, certainty: 'estimated', bounds } });
      expect(off.value).toBeGreaterThan(bounds?.[1] ?? Infinity);
    },
  );

  test('an integral that is called exact stays so, and one that is estimated is proved where the checker has bounds', () => {
    const integralOf = (text: string, on: readonly [number, number]) =>
      ({ ask: 'integral', isTotal: false, ...asked(text, on) }) as const;
    const exact = integralOf('x^2', [0, 2]);
    expect(withoutItsClaim(exact, answerSent(exact))).toBeNull();
    const estimated = integralOf('x^(-x)', [0, 1]);
    const answer = answerOf(estimated);
    expect(answer.certainty).toBe('estimated');
    const told = certified(estimated, { ok: true, answer });
    expect(told).toMatchObject({ ok: true, answer: { value: answer.value, certainty: 'proved' } });
    const off = { ...answer, value: answer.value + 1e-6 };
    expect(certified(estimated, { ok: true, answer: off })).toMatchObject({
      ok: true,
      answer: { value: off.value, certainty: 'estimated' },
    });
  });

  test('bounds of an integral hold for the number that an end is nearest to, however steep it is there', () => {
    // π differs from its double by up to half a unit in the last place: so does the area, times e^(π²).
    const boundsOf = (text: string, to: number) => {
      const question = { ask: 'integral', isTotal: false, ...asked(text, [0, to]) } as const;
      const answer = { ...answerOf(question), certainty: 'proved', exact: null } as const;
      const told = certified(question, { ok: true, answer });
      return told.ok ? (told.answer as typeof answer).bounds : null;
    };
    const [low, high] = boundsOf('e^(x^2)', Math.PI) ?? [NaN, NaN];
    const slope = Math.exp(Math.PI ** 2) * (Math.PI * 2 ** -53);
    expect(high - low).toBeGreaterThan(2 * slope);
    expect(high - low).toBeLessThan(100 * slope + 1e-9 * high);
    expect(boundsOf('1/sqrt(1 - x^4)', 1)).not.toBeNull();
  });

  test('of what has values at single numbers only nothing is claimed, and nothing breaks down', () => {
    const question = { ask: 'holds', ...asked('1', [0, 5]), body: indicator(condition('x! > 6')) } as const;
    const outcome = answerSent(question);
    expect([outcome.ok, isClaimed(question, certified(question, outcome))]).toEqual([true, false]);
  });

  test('an answer that claims nothing is told as it is', () => {
    const question = { ask: 'joins', mend: null, ...asked('|x|', on) } as const;
    const outcome = answerSent(question);
    expect(withoutItsClaim(question, outcome)).toBeNull();
    expect(certified(question, outcome)).toBe(outcome);
  });
});
