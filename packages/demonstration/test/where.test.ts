import { describe, expect, test } from '@jest/globals';
import {
  answersNow,
  applyChange,
  buildScene,
  closedTierEdits,
  emptyStage,
  featureNear,
  makeEntry,
  movingField,
  resolve,
  settledEdits,
  stripRow,
  unanswered,
  withValue,
  type Entry,
  type Said,
} from '../src/index.ts';
import {
  documentWith,
  given,
  linesOf,
  marksOf,
  ofKind,
  outcomeOf,
  problemOf,
  sceneOf,
  sentenceOf,
  setField,
  slider,
  withStudy,
  toldIn,
} from './sample.ts';

const interval = { from: '-3', to: '3' };

describe('an entry whose answer takes a while', () => {
  const document = withStudy('f(x) = x^2 - 2', makeEntry('solutions', { order: 2, on: 'f', ...interval }));

  test('says what is being done until it is there, and is worked out again when it has come', () => {
    let news = 0;
    const answers = answersNow();
    const late = {
      ask: (by: string, question: never) =>
        news === 0 ? unanswered.ask(by, question) : answers.ask(by, question),
      version: () => news,
    } as typeof answers;
    const before = resolve(document, emptyStage, undefined, late);
    const outcome = toldIn(before, 'study');
    expect(outcome).toEqual({
      ok: false,
      problem: {
        message: 'Solutions are being looked for, with the proof that none is missed …',
        isWaiting: true,
      },
    });
    expect(resolve(document, emptyStage, before).workedOut).toEqual([]);
    news = 1;
    const after = resolve(document, emptyStage, before);
    expect(after.workedOut).toContain('study');
    expect(after.entries.get('study')?.outcome.ok).toBe(true);
  });

  test('keeps its last answer, marked as such, while the new one is worked out', () => {
    const answers = answersNow();
    const stale = {
      ...answers,
      ask: (by: string, question: never) => ({ ...answers.ask(by, question), of: 'before' }),
    } as typeof answers;
    const outcome = toldIn(resolve(document, emptyStage, undefined, stale), 'study');
    expect(outcome?.ok && (outcome.result as Said).isPending).toBe(true);
  });

  test('shows what is known so far, says how far it is, and claims nothing before its time', () => {
    const answers = answersNow();
    const half = [{ low: 0, high: 2.5 }];
    const soFar = {
      ...answers,
      ask: (by: string, question: never) => {
        const told = answers.ask<'solve'>(by, question);
        if (told.state !== 'answered') return told;
        return { ...told, answer: { ...told.answer, complete: false, undecided: half }, of: 'soFar' };
      },
    } as typeof answers;
    const outcome = toldIn(resolve(document, emptyStage, undefined, soFar), 'study');
    if (!outcome?.ok) throw new Error(outcome?.problem.message);
    const whole = toldIn(resolve(document, emptyStage, undefined, answers), 'study');
    const { table, certainty, sentence, decided } = outcome.result as Said;
    expect(decided).toBeCloseTo(1 - 2.5 / 6, 12);
    expect(certainty).toBeUndefined();
    expect(sentence).toBe('Solutions are being looked for, with the proof that none is missed …');
    expect(table?.rows.length).toBe(whole?.ok ? (whole.result as Said).table?.rows.length : -1);
  });

  test.each([
    ['found', undefined],
    ['foundBefore', true],
  ] as const)(
    'shows all that is found without a word on proofs before they are checked (%s)',
    (of, isPending) => {
      const answers = answersNow();
      const unchecked = {
        ...answers,
        ask: (by: string, question: never) => ({ ...answers.ask(by, question), of }),
      } as typeof answers;
      const outcome = toldIn(resolve(document, emptyStage, undefined, unchecked), 'study');
      if (!outcome?.ok) throw new Error(outcome?.problem.message);
      const told = outcome.result as Said;
      expect([told.certainty, told.isPending]).toEqual([undefined, isPending]);
      expect(told.sentence).toBe('All is found; once nothing moves the proof is checked a second time …');
      expect(told.lines.length).toBeGreaterThan(1);
    },
  );

  test.each([
    ['tooLarge', 'This is too large to be worked out.'],
    ['tooLong', 'This takes so long that it was given up; a shorter interval may help.'],
    ['fault', 'This cannot be worked out, through a fault of the program. All else works on.'],
    [
      'notLoaded',
      'What works this out could not be loaded. Once the server is there again, reload the page.',
    ],
  ] as const)('says so where nothing came of it: %s', (reason, message) => {
    const answers = { ask: () => ({ state: 'unanswerable' as const, reason }), version: () => 0 };
    const outcome = toldIn(resolve(document, emptyStage, undefined, answers), 'study');
    expect(outcome).toEqual({ ok: false, problem: { message } });
  });
});

describe('a sign strip', () => {
  const strip = (degree: number, under: string | null = null) =>
    makeEntry('signStrip', { order: 2, on: 'f', degree, under, ...interval });

  test.each([
    [0, ['f(x) > 0 on [−3, −√3) ∪ (0, √3)', 'f(x) = 0 at x = −√3, 0, √3', 'f(x) < 0 on (−√3, 0) ∪ (√3, 3]']],
    [1, ["f'(x) > 0 on (−1, 1)", "f'(x) = 0 at x = −1, 1", "f'(x) < 0 on (−3, −1) ∪ (1, 3)"]],
    [2, ["f''(x) > 0 on (−3, 0)", "f''(x) = 0 at x = 0", "f''(x) < 0 on (0, 3)"]],
    [3, ["f'''(x) < 0 on (−3, 3)"]],
  ])('of the derivative of order %d in intervals', (degree, expected) => {
    const texts = linesOf(withStudy('f(x) = 3x - x^3', strip(degree)));
    expect(texts).toHaveLength(expected.length);
    const tails = expected.map((text) => text.slice(text.search(/ (on|at) /)));
    texts.forEach((text, i) => expect(text).toContain(tails[i]));
  });

  test('takes a row under its tier, or under another, and gives it back when that goes', () => {
    const bare = sceneOf(documentWith({ f: given(1, 'f(x) = 3x - x^3') }));
    const own = sceneOf(withStudy('f(x) = 3x - x^3', strip(1)));
    expect(own.tiers[0]?.stripRoom).toBe(stripRow.height + stripRow.gap);
    expect(bare.tiers[0]?.stripRoom).toBe(0);
    const document = withStudy('f(x) = 3x - x^3', strip(1, 'slope'));
    expect(sceneOf(document).tiers.map(({ stripRoom }) => stripRoom > 0)).toEqual([false, true]);
    const closed = applyChange(document, { id: '1', edits: closedTierEdits(document, 'slope') });
    expect(closed.entries.study).toMatchObject({ under: null });
    expect(sceneOf(closed).tiers.map(({ stripRoom }) => stripRoom > 0)).toEqual([true]);
  });

  test('its parts say what they mean and why; zeros part them otherwise than gaps', () => {
    const [mark] = ofKind(marksOf(sceneOf(withStudy('f(x) = 3x - x^3', strip(1)))), 'strip');
    expect(mark?.parts.map(({ word, sentence }) => [word, sentence])).toEqual([
      ['falling ↘', 'f falls for x from −3 to −1, because f′ is negative there.'],
      ['rising ↗', 'f rises for x from −1 to 1, because f′ is positive there.'],
      ['falling ↘', 'f falls for x from 1 to 3, because f′ is negative there.'],
    ]);
    expect(mark?.meetings.map(({ isZero }) => isZero)).toEqual([true, true]);
    const [gap] = ofKind(marksOf(sceneOf(withStudy('f(x) = 1/x', strip(1)))), 'strip');
    expect(gap?.meetings.map(({ isZero }) => isZero)).toEqual([false]);
  });
});

describe('solutions', () => {
  const study = (equals: string) => makeEntry('solutions', { order: 3, on: 'f', equals, ...interval });

  test('draw the level line, and stay when the curve is hidden', () => {
    const document = withStudy('f(x) = x^2', study('1'));
    const level = ofKind(marksOf(sceneOf(document)), 'line');
    expect(level).toHaveLength(1);
    expect(level[0]?.y0).toBe(level[0]?.y1);
    const hidden = applyChange(document, { id: '1', edits: [setField('f', 'hidden', false, true)] });
    expect(ofKind(marksOf(sceneOf(hidden)), 'dot')).toHaveLength(2);
    expect(linesOf(hidden)).toEqual(linesOf(document));
  });

  test('draw a second side that is a formula, but not a curve that is there already', () => {
    expect(ofKind(marksOf(sceneOf(withStudy('f(x) = x^2', study('x + 1')))), 'track')).toHaveLength(1);
    const both = withStudy('f(x) = x^2', study('g(x)'), { g: given(2, 'g(x) = x + 1') });
    expect(ofKind(marksOf(sceneOf(both)), 'track')).toHaveLength(0);
    expect(linesOf(both)).toHaveLength(3);
  });

  test('wait for a number that their other side lacks', () => {
    const document = withStudy('f(x) = x^2', study('g(x)'), { g: given(2, 'g(x) = k x') });
    expect(outcomeOf(document, 'study')?.ok).toBe(false);
  });

  test('equality on a whole stretch is said', () => {
    expect(sentenceOf(withStudy('f(x) = abs(x)', study('x')))).toBe(
      'For x from −3 to 3 both sides are equal on [0, 3].',
    );
  });

  test.each([
    ['floor(x)', '2', '[2, 3)'],
    ['x/x', '1', '[−3, 0) and (0, 3]'],
    ['sign(x)', '1', '(0, 3]'],
    ['abs(x)', 'sqrt(x^2)', '[−3, 3]'],
  ])('%s = %s holds on %s, each end as it is', (left, right, stretches) => {
    const document = withStudy(`f(x) = ${left}`, study(right));
    expect(sentenceOf(document)).toBe(`For x from −3 to 3 both sides are equal on ${stretches}.`);
  });
});

describe('the part of a curve on which a condition holds', () => {
  test('is drawn over it, between the ends of the stretch alone', () => {
    const study = makeEntry('holds', { order: 2, on: 'f', condition: "f'(x) > 0 and x < 2", ...interval });
    const scene = sceneOf(withStudy('f(x) = x^2', study));
    const view = scene.tiers[0]?.view;
    const [part] = ofKind(marksOf(scene), 'track');
    const xs = part?.runs.flatMap((run) => [...run].filter((_, i) => i % 2 === 0)) ?? [];
    expect(view?.fromX(Math.min(...xs))).toBeCloseTo(0, 6);
    expect(view?.fromX(Math.max(...xs))).toBeCloseTo(2, 6);
  });
});

describe('what joined dots hide', () => {
  const study = (step: string) => makeEntry('coarse', { order: 2, on: 'f', step, from: '-4', to: '4' });

  test('a pole that is joined over, two zeros between the same dots, a turn: each is named and ringed', () => {
    const pole = withStudy('f(x) = 1/(x - 0.3)', study('1'));
    expect(linesOf(pole)).toEqual(['hidden: a pole at x ≈ 0.300']);
    const zeros = withStudy('f(x) = (x - 0.3)(x - 0.4)', study('1'));
    expect(linesOf(zeros)).toEqual(['hidden: a zero at x ≈ 0.300', 'hidden: a zero at x ≈ 0.400']);
    expect(ofKind(marksOf(sceneOf(zeros)), 'dot')).toHaveLength(2);
    expect(linesOf(withStudy('f(x) = x^2/9 + 3e^(-400(x - 0.4)^2)', study('1')))[0]).toContain('a maximum');
  });

  test('a turn between the first two dots, or the last two, is hidden as any other', () => {
    const ends = { from: '0', to: '10' };
    const low = makeEntry('coarse', { order: 2, on: 'f', step: '1', ...ends });
    expect(linesOf(withStudy('f(x) = x^2 - 0.6x', low))).toContain('hidden: a minimum at x ≈ 0.300');
    expect(linesOf(withStudy('f(x) = 9.7x - x^2/2', low))).toContain('hidden: a maximum at x ≈ 9.700');
    expect(linesOf(withStudy('f(x) = (x - 4)^2', low))).toEqual([]);
  });

  test.each([
    ['0', 'The dots are some distance apart: a number larger than 0.'],
    ['0.0001', 'That would be more than 2000 dots; please take a larger step.'],
  ])('a step of %s is refused', (step, message) => {
    expect(problemOf(withStudy('f(x) = x', study(step)))).toBe(message);
  });
});

describe('reading', () => {
  test('of a function itself is refused with what to do', () => {
    const study = makeEntry('reading', { order: 2, on: 'f', ...interval });
    expect(problemOf(withStudy('f(x) = x', study))).toContain('give or draw f′');
  });

  test('marks what was found on the graph of the derivative', () => {
    const document = documentWith({
      f: given(1, 'f(x) = x^3/3 - x'),
      d: makeEntry('derivative', { order: 2, of: 'f', tier: 'slope' }),
      study: makeEntry('reading', { order: 3, on: 'd', ...interval }),
    });
    const labels = sceneOf(document).tiers[1]?.labels.map(({ label }) => label.text);
    expect(labels).toEqual(expect.arrayContaining(['f local maximum', 'f local minimum', 'f inflection']));
  });
});

describe('the nearest point', () => {
  const document = documentWith({
    a: slider(0.5, 'a', '4'),
    f: given(1, 'f(x) = x^2/4'),
    study: makeEntry('nearest', { order: 2, on: 'f', parameter: 'a', points: '(0, 3)', from: '0', to: '6' }),
    d: makeEntry('distance', { order: 3, of: 'study', tier: 'slope' }),
  });

  test('has its distance set up, simplified, and told from the point', () => {
    const texts = linesOf(document);
    expect(texts[0]).toMatch(/≈ 4\.123/);
    expect(texts.at(-1)).toContain('2√2');
    expect(sentenceOf(document)).toContain(
      'the nearest point is (2.000, 1.000); its distance from P(0, 3) is 2.828. No point is nearer (proved).',
    );
  });

  test('its point is dragged like one of a function, and stands at its start again', () => {
    const scene = sceneOf(document);
    expect(scene.vertices.map(({ entry, index }) => [entry, index])).toEqual([['study', 0]]);
    const staged = withValue(emptyStage, 'study', '(1, 2)');
    const outcome = outcomeOf(document, 'study', staged);
    expect(outcome?.ok && (outcome.result as Said).sentence).toContain('P(1, 2)');
    expect(settledEdits(document, 'study', '(1, 2)')).toMatchObject([{ field: 'points', new: '(1, 2)' }]);
    expect(movingField.nearest).toBe('points');
  });

  test('the distance is a curve of its own that follows the point without compiling anew', () => {
    const curve = (stage = emptyStage) => {
      const outcome = outcomeOf(document, 'd', stage);
      if (!outcome?.ok) throw new Error(outcome?.problem.message);
      return outcome.result as Said & { program: unknown; parameters: readonly number[] };
    };
    const moved = withValue(emptyStage, 'study', '(1, 2)');
    expect(curve().parameters).toEqual([0, 3]);
    expect(curve(moved).parameters).toEqual([1, 2]);
  });
});

test('the mean value theorem draws the secant and every parallel tangent', () => {
  const document = documentWith({
    a: slider(0.2, 'a', '-2'),
    b: slider(0.4, 'b', '2'),
    f: given(1, 'f(x) = x^3 - x'),
    study: makeEntry('meanValue', { order: 2, on: 'f', left: 'a', right: 'b' }),
  });
  const lines = ofKind(marksOf(sceneOf(document)), 'line');
  const slopes = lines.map(({ x0, y0, x1, y1 }) => ((y0 - y1) / (x1 - x0)).toFixed(9));
  expect(lines).toHaveLength(3);
  expect(new Set(slopes).size).toBe(1);
});

describe('what the mean value theorem promises', () => {
  const told = (text: string, from: string, to: string, more: Record<string, Entry> = {}) => {
    const document = documentWith({
      a: slider(0.2, 'a', from),
      b: slider(0.4, 'b', to),
      f: given(1, text),
      study: makeEntry('meanValue', { order: 2, on: 'f', left: 'a', right: 'b' }),
      ...more,
    });
    return { sentence: sentenceOf(document), lines: linesOf(document) };
  };

  test.each([
    ['f(x) = floor(x)', '0', '1', 'f jumps at x = 1, so the theorem promises nothing'],
    [
      'f(x) = cbrt(x)',
      '-1',
      '1',
      'f has a vertical tangent at x = 0, so the theorem promises nothing; all the same',
    ],
    [
      'f(x) = |x|',
      '-1',
      '1',
      'f has a corner at x = 0, so the theorem promises nothing; no tangent is parallel',
    ],
    [
      'f(x) = x^2',
      '0',
      '2',
      'the theorem promises at least one c; the tangent is parallel to the secant at one place.',
    ],
    ['f(x) = 3x', '0', '2', 'the tangent is parallel to the secant on [0, 2].'],
  ])('%s on [%s, %s]', (text, from, to, expected) => {
    expect(told(text, from, to).sentence).toContain(expected);
  });

  test('the places have a letter that means nothing else', () => {
    const { sentence, lines } = told('f(x) = x^2', '0', '2', {
      c: slider(3, 'c', '5'),
      d: given(4, 'd(x) = x'),
    });
    expect(sentence).toContain('at least one p;');
    expect(lines.join(' ')).toContain('p = 1');
    expect(lines.join(' ')).not.toContain('(c)');
  });
});

describe('a high, low, zero or crossing near a click', () => {
  const document = documentWith({ f: given(1, 'f(x) = 4 - x^2'), g: given(2, 'g(x) = 3x') });
  const resolution = resolve(document, emptyStage);
  const scene = buildScene({
    document,
    stage: emptyStage,
    resolution,
    size: { width: 800, height: 500, density: 1, furniture: true },
    here: null,
  });
  const near = (x: number) => {
    const view = scene.tiers[0]?.view;
    const found = view && featureNear(resolution, view, 'f', x);
    return found && [found.kind, found.x, found.y];
  };

  test.each([
    [0.05, ['maximum', 0, 4]],
    [1.95, ['zero', 2, 0]],
    [1.02, ['crossing', 1, 3]],
    [1.5, null],
  ])('at %d', (x, expected) => {
    expect(near(x)).toEqual(expected);
  });
});

describe('why a list of key points is complete', () => {
  const proved = (text: string, proof: 0 | 1 | 2 | null, on = interval) =>
    withStudy(text, makeEntry('keyPoints', { order: 2, on: 'f', ...on, proof }));
  const stripOf = (document: ReturnType<typeof proved>) => ofKind(marksOf(sceneOf(document)), 'strip')[0];

  test('pieces without a gap are laid under the curve, each with its reason', () => {
    const document = proved('f(x) = x e^(-x)', 1);
    const strip = stripOf(document);
    expect(strip?.title).toBe('f′');
    expect(strip?.parts.map(({ sign, word }) => [sign, word])).toEqual([
      [1, 'rises ↗'],
      [0, 'one turn'],
      [-1, 'falls ↘'],
    ]);
    const [first, turn] = strip?.parts ?? [];
    expect(first?.x1).toBe(turn?.x0);
    expect(first?.sentence).toMatch(
      /^For x from −3\.000 to .* f′ lies between .* and .*: it cannot be 0 there, so no high and no low can hide\.$/,
    );
    expect(turn?.sentence).toContain('f′ is 0 exactly once, since it only falls there and changes its sign.');
    expect(sentenceOf(document)).toContain(
      'The interval is covered by 3 pieces without a gap: on 2 of them f′ is never 0, on one exactly once. Each was checked a second time by another way.',
    );
  });

  test('zeros and bends have their own; by counting where it is a polynomial', () => {
    const zeros = stripOf(proved('f(x) = x^3 - 3x', 0));
    expect(zeros?.parts.filter(({ sign }) => sign === 0).map(({ word }) => word)).toEqual([
      'one zero',
      'one zero',
      'one zero',
    ]);
    expect(zeros?.parts[0]?.sentence).toContain('by counting the zeros of a polynomial (Sturm)');
    expect(stripOf(proved('f(x) = x^3 - 3x', 2))?.title).toBe('f″');
  });

  test('without the question there is no strip and no row for it, and bounds are those of the derivative', () => {
    expect(stripOf(proved('f(x) = x e^(-x)', null))).toBeUndefined();
    // By hand: the bend of x² + sin x/10 lies between 1.9 and 2.1; neither is a double, and bounds are rounded outward.
    const [bend] = stripOf(proved('f(x) = x^2 + sin(x)/10', 2))?.parts ?? [];
    expect(bend?.sentence).toContain('f″ lies between 1.89 and 2.11');
  });

  test('what is told of a piece holds all over it: not across a pole, a jump or a corner', () => {
    const told = (text: string, proof: 0 | 1) =>
      stripOf(proved(text, proof))?.parts.map(({ sign, word }) => [sign, word]);
    expect(told('f(x) = |x| + 1', 0)).toEqual([
      [1, 'over the axis'],
      [1, 'over the axis'],
    ]);
    // It falls on either side of its pole, and not from one side to the other.
    expect(told('f(x) = 1/x', 1)).toEqual([
      [-1, 'falls ↘'],
      [-1, 'falls ↘'],
    ]);
    expect(new Set(told('f(x) = (x^2 - 1)/(x - 1)', 1)?.map(([, word]) => word))).toEqual(
      new Set(['rises ↗']),
    );
    expect(new Set(told('f(x) = max(x, 1)', 0)?.map(([, word]) => word))).toEqual(new Set(['over the axis']));
  });

  test('what the second check cannot show is not called proved', () => {
    const document = proved('f(x) = x/(e^x - 1)', 2, { from: '-2', to: '2' });
    expect(sentenceOf(document)).toContain('A second check could not show that these are all');
    expect(sentenceOf(document)).not.toContain('(proved)');
    expect(stripOf(document)?.parts.some(({ word }) => word === 'not shown')).toBe(true);
    const outcome = outcomeOf(document, 'study');
    expect(outcome?.ok && (outcome.result as Said).certainty?.isProved).toBe(false);
  });
});
