import { describe, expect, test } from '@jest/globals';
import { derivativesAt, evaluateAt } from '@yperkine/core';
import {
  buildScene,
  emptyDocument,
  emptyStage,
  followedWindows,
  makeEntry,
  newTier,
  plainText,
  resolve,
  type AgreementResult,
  type CurveResult,
  type DifferenceQuotientResult,
  type Document,
  type Entry,
  type ParameterResult,
  type StudyResult,
} from '../src/index.ts';
import { given, slider } from './sample.ts';

const documentWith = (entries: Document['entries']): Document => ({
  ...emptyDocument(),
  entries,
  tiers: { 'tier-f': newTier(1, { from: -5, to: 5 }), slope: newTier(2, { from: -5, to: 5 }) },
});
const outcomeOf = (document: Document, id: string, stage = emptyStage) =>
  resolve(document, stage).entries.get(id)?.outcome;
function resultOf<T>(document: Document, id: string, stage = emptyStage): T {
  const outcome = outcomeOf(document, id, stage);
  if (!outcome?.ok) throw new Error(outcome?.problem.message);
  return outcome.result as T;
}

describe('where two functions agree', () => {
  const compare = (f: string, byHand: string, from = '-5', to = '5') => {
    const document = documentWith({
      f: given(1, f),
      d: makeEntry('derivative', { order: 2, of: 'f', tier: 'slope' }),
      g: given(3, byHand, 'slope'),
      agree: makeEntry('agreement', { order: 4, on: 'd', with: 'g', from, to }),
    });
    const { sentence, lines, found } = resultOf<AgreementResult>(document, 'agree');
    return {
      document,
      sentence,
      lines: lines.map(plainText),
      places: found.solutions.map(({ value }) => value),
    };
  };

  // Stewart, Calculus (8th ed.), section 3.2, product rule, from memory: (x eˣ)′ = (x + 1)eˣ.
  test.each([
    ['f(x) = x e^x', 'g(x) = (x+1)e^x'],
    ['f(x) = x^3 - 2x', 'g(x) = 3x^2 - 2'],
    ['f(x) = (sin(x))^2', 'g(x) = 2sin(x)cos(x)'],
    ['f(x) = 1/(x^2+1)', 'g(x) = -2x/(x^2+1)^2'],
    ['f(x) = sqrt(x^2+1)', 'g(x) = x/sqrt(x^2+1)'],
  ])('the derivative of %s worked out by hand as %s agrees everywhere', (f, g) => {
    const { sentence, lines } = compare(f, g);
    expect(sentence).toBe('For x from −5 to 5, f′ and g agree everywhere; it is proved.');
    expect(lines).toHaveLength(1);
  });

  test('a slip agrees at single places only, which are found, exact and marked', () => {
    const { document, sentence, lines, places } = compare('f(x) = x^3', 'g(x) = 2x^2 + 1');
    expect(places).toEqual([-1, 1]);
    expect(lines.slice(1)).toEqual(['x = −1', 'x = 1']);
    expect(sentence).toBe(
      'For x from −5 to 5, f′ and g agree at 2 places, and it is proved that they do not elsewhere.',
    );
    const size = { width: 800, height: 500, density: 1, furniture: true };
    const scene = buildScene({
      document,
      stage: emptyStage,
      resolution: resolve(document, emptyStage),
      size,
      here: null,
    });
    const dots = scene.tiers[1]?.marks.filter(({ kind }) => kind === 'dot');
    expect(dots).toHaveLength(2);
  });

  test('agreement on a part is told with its ends', () => {
    expect(compare('f(x) = x^2/2', 'g(x) = |x|').sentence).toBe(
      'For x from −5 to 5, f′ and g agree from 0 to 5, and it is proved that they do not elsewhere.',
    );
  });

  test('no place, a wrong interval and unlike variables get a sentence each', () => {
    expect(compare('f(x) = x', 'g(x) = 2').sentence).toBe(
      'For x from −5 to 5, f′ and g agree nowhere; it is proved.',
    );
    const document = documentWith({
      f: given(1, 'f(x) = x'),
      g: given(2, 'g(t) = t'),
      agree: makeEntry('agreement', { order: 3, on: 'f', with: 'g', from: '1', to: '0' }),
      other: makeEntry('agreement', { order: 4, on: 'f', with: 'g', from: '0', to: '1' }),
    });
    expect(outcomeOf(document, 'agree')).toMatchObject({
      ok: false,
      problem: { message: 'The interval goes from a smaller to a larger number.' },
    });
    expect(outcomeOf(document, 'other')).toMatchObject({
      ok: false,
      problem: { message: 'f and g have different variables, x and t.' },
    });
  });
});

describe('the numerical derivative with a chosen step', () => {
  const quotient = (direction: 'forward' | 'backward' | 'symmetric', h = '0.5') =>
    documentWith({
      f: given(1, 'f(x) = x^3'),
      h: slider(2, 'h', h),
      q: makeEntry('differenceQuotient', {
        order: 3,
        of: 'f',
        step: 'h',
        name: 'q',
        direction,
        tier: 'slope',
      }),
      use: given(4, "g(x) = q(x) - f'(x)"),
    });

  // Burden & Faires, Numerical Analysis (9th ed.), section 4.1: for x³ the three quotients are 3x² ± 3xh + h² and 3x² + h².
  test.each([
    ['forward', 3 * 4 + 3 * 2 * 0.5 + 0.25],
    ['backward', 3 * 4 - 3 * 2 * 0.5 + 0.25],
    ['symmetric', 3 * 4 + 0.25],
  ] as const)('%s: the textbook value for x³ at 2', (direction, expected) => {
    const { program, parameters } = resultOf<DifferenceQuotientResult>(quotient(direction), 'q');
    expect(evaluateAt(program, 2, parameters)).toBeCloseTo(expected, 12);
  });

  test('it is a function like any other, and its own error is another', () => {
    const { program, parameters } = resultOf<CurveResult>(quotient('symmetric'), 'use');
    expect(evaluateAt(program, 7, parameters)).toBeCloseTo(0.25, 9);
    const own = resultOf<CurveResult>(quotient('symmetric'), 'q');
    expect(derivativesAt(own.program, 2, 1, own.parameters)[1]).toBeCloseTo(12, 9);
  });

  test('a moving step compiles nothing', () => {
    const document = quotient('forward');
    const before = resolve(document, emptyStage);
    const after = resolve(document, { ...emptyStage, values: { h: '0.25' } }, before);
    const [first, second] = [before, after].map(({ entries }) => {
      const outcome = entries.get('q')?.outcome;
      return outcome?.ok ? (outcome.result as DifferenceQuotientResult) : null;
    });
    expect(second?.program).toBe(first?.program);
    expect(second?.parameters).toEqual([0.25]);
  });

  test('a step of 0 is answered in a sentence', () => {
    expect(outcomeOf(quotient('forward', '0'), 'q')).toMatchObject({
      ok: false,
      problem: { message: 'With h = 0 the quotient would be 0/0.' },
    });
  });
});

describe('the window follows the step of a secant', () => {
  const withSecant = (more: object = {}) =>
    documentWith({
      f: given(1, 'f(x) = x^2'),
      a: slider(2, 'a', '1'),
      h: slider(3, 'h', '1'),
      s: makeEntry('secant', { order: 4, on: 'f', parameter: 'a', step: 'h', windowFollows: true, ...more }),
    });
  const windowsAt = (document: Document, h: string) =>
    followedWindows(document, resolve(document, { ...emptyStage, values: { h } }));

  test.each(['forward', 'backward', 'symmetric'] as const)(
    '%s: secant and curve keep their size while the gap shrinks',
    (direction) => {
      const document = withSecant({ direction });
      const shares = ['1', '0.01', '-0.001'].map((h) => {
        const windows = windowsAt(document, h);
        const width = (windows?.x.to ?? NaN) - (windows?.x.from ?? NaN);
        const y = windows?.y['tier-f'];
        return [Math.abs(Number(h)) / width, ((y?.to ?? NaN) - (y?.from ?? NaN)) / width];
      });
      for (const [share, slopeScale] of shares) {
        expect(share).toBeCloseTo(0.35, 9);
        // The document's window is as high as it is wide, so slopes stay what they look like.
        expect(slopeScale).toBeCloseTo(1, 6);
      }
    },
  );

  test('both ends of the secant are in it', () => {
    const windows = windowsAt(withSecant(), '0.1');
    expect(windows?.x.from).toBeLessThan(1);
    expect(windows?.x.to).toBeGreaterThan(1.1);
    expect(windows?.y['tier-f']?.from).toBeLessThan(1);
    expect(windows?.y['tier-f']?.to).toBeGreaterThan(1.21);
  });

  test('no secant asks for it, the step is 0, or the secant is hidden: the window is the document’s', () => {
    expect(windowsAt(withSecant({ windowFollows: false }), '0.1')).toBeNull();
    expect(windowsAt(withSecant(), '0')).toBeNull();
    expect(windowsAt(withSecant({ hidden: true }), '0.1')).toBeNull();
  });
});

describe('a slider of whole numbers', () => {
  const whole = (value: string): Entry => slider(1, 'n', value, { whole: true, step: '1', unit: 'days' });

  test('moves from one to the next, and each is exact', () => {
    const document = documentWith({ n: whole('3') });
    const at = (shown: number) =>
      resultOf<ParameterResult>(document, 'n', { ...emptyStage, values: { n: shown } });
    expect([2.4, 2.6, -0.4].map((shown) => at(shown).text)).toEqual(['2', '3', '0']);
    expect(at(2.6).value.exact).not.toBeNull();
  });

  test('any other number is refused in a sentence', () => {
    expect(outcomeOf(documentWith({ n: whole('2.5') }), 'n')).toMatchObject({
      ok: false,
      problem: { message: 'n takes whole numbers only, and 2.5 is none.' },
    });
  });
});

describe('a point that no slider moves', () => {
  const withPoint = (moves: 'slider' | 'free' | 'fixed') =>
    documentWith({
      f: given(1, 'f(x) = x^2'),
      a: slider(2, 'a', '1.5', { moves }),
      p: makeEntry('point', { order: 3, on: 'f', parameter: 'a' }),
    });
  test.each([
    ['slider', 1],
    ['free', 1],
    ['fixed', 0],
  ] as const)('%s: it has %s handle, and says the same', (moves, handles) => {
    const document = withPoint(moves);
    const resolution = resolve(document, emptyStage);
    const size = { width: 800, height: 500, density: 1, furniture: true };
    const scene = buildScene({ document, stage: emptyStage, resolution, size, here: null });
    expect(scene.handles).toHaveLength(handles);
    expect(scene.tiers[0]?.marks.some(({ kind }) => kind === 'point')).toBe(true);
    expect(resultOf<StudyResult>(document, 'p').sentence).toContain('at the height 2.250');
  });
});

describe('titles of axes', () => {
  const sceneOf = (more: Partial<Document>) => {
    const document = {
      ...documentWith({
        f: makeEntry('function', { order: 1, text: 'V(t) = 2t', tier: 'tier-f', unit: 'L' }),
      }),
      ...more,
    };
    const size = { width: 800, height: 500, density: 1, furniture: true };
    return buildScene({
      document,
      stage: emptyStage,
      resolution: resolve(document, emptyStage),
      size,
      here: null,
    });
  };

  test('say variable and unit by themselves, or what was typed', () => {
    expect(sceneOf({}).xTitle).toBe('');
    expect(sceneOf({ xUnit: 'min' }).xTitle).toBe('t in min');
    expect(sceneOf({ xUnit: 'min', xTitle: 'time' }).xTitle).toBe('time in min');
    expect(sceneOf({}).tiers[0]?.title?.words).toBe('in L');
    const tiers = { 'tier-f': { ...newTier(1, { from: 0, to: 9 }), title: 'water let through' } };
    expect(sceneOf({ tiers }).tiers[0]?.title?.words).toBe('water let through in L');
  });

  test('a title of the x-axis takes room of its own under the numbers', () => {
    const bottom = (more: Partial<Document>) => {
      const frame = sceneOf(more).tiers.at(-1)?.view.frame;
      return (frame?.top ?? NaN) + (frame?.height ?? NaN);
    };
    expect(bottom({}) - bottom({ xUnit: 'min' })).toBeCloseTo(20, 9);
  });
});
