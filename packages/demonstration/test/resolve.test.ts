import { describe, expect, test } from '@jest/globals';
import {
  applyChange,
  buildScene,
  emptyStage,
  makeEntry,
  plainText,
  resolve,
  usualLook,
  withValue,
  type Document,
  type PointResult,
  type Resolution,
  type Said,
} from '../src/index.ts';
import { given, setField, slider, tangentDocument, toldIn } from './sample.ts';

const work = (document: Document, previous?: Resolution) => resolve(document, emptyStage, previous);
const resultOf = <T>(resolution: Resolution, id: string): T => {
  const outcome = toldIn(resolution, id);
  if (!outcome?.ok) throw new Error(`${id}: ${outcome?.problem.message}`);
  return outcome.result as T;
};
const problemOf = (resolution: Resolution, id: string) => {
  const outcome = toldIn(resolution, id);
  return outcome && !outcome.ok ? outcome.problem : undefined;
};
const lines = (resolution: Resolution, id: string) => resultOf<Said>(resolution, id).lines.map(plainText);

describe('a document is worked out', () => {
  // Worked by hand with the power rule: f(1) = −4, f′(1) = 1, tangent y = x − 5.
  test('point, tangent and derivative at a rational place are exact', () => {
    const resolution = work(tangentDocument());
    expect(lines(resolution, 'p')).toEqual(['f(1) = −4.000']);
    expect(lines(resolution, 't')).toEqual(["f'(1) = 1.000", 'y = x − 5']);
    expect(lines(resolution, 'd')).toEqual(["f'(x) = 6x-5"]);
  });

  test('the function may be changed to any other, and everything still works', () => {
    const before = work(tangentDocument());
    const changed = applyChange(tangentDocument(), {
      id: '1',
      edits: [setField('f', 'text', '', 'f(x) = sin x')],
    });
    const resolution = work(changed, before);
    expect(lines(resolution, 'd')).toEqual(["f'(x) = \\cos x"]);
    expect(lines(resolution, 't')).toEqual(["f'(1) ≈ 0.540", 'y ≈ 0.540x + 0.301']);
  });

  test.each([
    ['f(x) = x', '2', ['y = x']],
    ['f(x) = 4', '2', ['y = 4']],
    ['f(x) = -3x + 5', '2', ['y = −3x + 5']],
    ['f(x) = -x', '2', ['y = −x']],
    ['f(x) = x^2/2', '1', ['y = x − 0.5']],
    ['f(x) = x^2', '0', ['y = 0']],
    ['f(x) = x^3/3', '1', ['y ≈ x − 0.667']],
    ['f(x) = cbrt(x)', '0', ['x = 0']],
  ])('the tangent to %s at %s is written as a person writes it', (text, at, expected) => {
    expect(lines(work(tangentDocument(text, at)), 't').slice(-1)).toEqual(expected);
  });

  test('a value that no decimal shows is given in its exact form, too', () => {
    const root = work(tangentDocument('f(x) = √(x + 1)', '1'));
    expect(lines(root, 'p')).toEqual(['f(1) = √2 ≈ 1.414']);
    expect(lines(root, 't')[0]).toBe("f'(1) = √2/4 ≈ 0.354");
    expect(lines(work(tangentDocument('f(x) = x^3/3', '1')), 'p')).toEqual(['f(1) = 1/3 ≈ 0.333']);
    // In motion nothing is exact.
    const moving = resolve(tangentDocument('f(x) = √(x + 1)', '1'), withValue(emptyStage, 'a', 1.0000001));
    expect(lines(moving, 'p')).toEqual(['f(1.000) ≈ 1.414']);
  });

  test('where there is no tangent a sentence says why', () => {
    const sentence = (text: string, at: string) =>
      resultOf<Said>(work(tangentDocument(text, at)), 't').sentence;
    expect(sentence('f(x) = abs(x)', '0')).toBe(
      'f has a corner at x = 0: its slope is −1 from the left and 1 from the right, so f′ does not exist there.',
    );
    expect(sentence('f(x) = √x if x ≥ 0; -x otherwise', '0')).toBe(
      'f has a corner at x = 0: its slope is −1 from the left and vertical from the right, so f′ does not exist there.',
    );
    expect(sentence('f(x) = floor(x)', '1')).toBe(
      'f has no single slope at x = 1: from the right it is 0, from the left there is none.',
    );
    expect(sentence('f(x) = x √x', '0')).toBe(
      'x = 0 is an end of f: there is only a one-sided slope. Seen from the right, f neither rises nor falls.',
    );
    expect(sentence('f(x) = arcsin(x)', '1')).toBe(
      'x = 1 is an end of f: there is only a one-sided tangent, and it is vertical.',
    );
    expect(sentence('f(x) = x sin(1/x) if x ≠ 0; 0 otherwise', '0')).toBe(
      'f has no single slope at x = 0, so there is no tangent there.',
    );
    expect(lines(work(tangentDocument('f(x) = abs(x)', '0')), 't')).toEqual([
      "f'_{-}(0) = −1.000",
      "f'_{+}(0) = 1.000",
    ]);
    expect(sentence('f(x) = 1/x', '0')).toBe('f has no value at x = 0, so there is no tangent there.');
    expect(sentence('f(x) = 4 - x^2', '0')).toBe(
      'At x = 0 the tangent is level: f neither rises nor falls there.',
    );
  });

  test('nonsense gets one sentence at its place, what stands on it waits, the rest goes on', () => {
    const document = tangentDocument('f(x) = 3x + + )');
    const withMore = {
      ...document,
      entries: {
        ...document.entries,
        g: given(9, 'g(x) = x^2'),
      },
    };
    const resolution = work(withMore);
    expect(problemOf(resolution, 'f')).toMatchObject({ range: { from: 14, to: 15 } });
    expect(problemOf(resolution, 't')?.message).toContain('waits for its function');
    expect(problemOf(resolution, 'g')).toBeUndefined();
  });

  test('functions mention one another and parameters; circles and double names are said at the later entry', () => {
    const document = tangentDocument();
    const entries = {
      b: slider(1, 'b', '3'),
      g: given(2, 'g(x) = b h(x)'),
      h: given(3, 'h(x) = x^2'),
      u: given(4, 'u(x) = v(x)'),
      v: given(5, 'v(x) = u(x)'),
      h2: given(6, 'h(x) = 7'),
    };
    const resolution = work({ ...document, entries });
    expect(problemOf(resolution, 'g')).toBeUndefined();
    expect(problemOf(resolution, 'v')?.message).toContain('circle');
    expect(problemOf(resolution, 'h2')?.message).toContain('already taken');
    expect(problemOf(resolution, 'h')).toBeUndefined();
  });

  test('a formula too large for a derivative says so there; value, tangent and curve are worked out all the same', () => {
    const product = Array.from({ length: 90 }, (_, i) => `sin(x/${i + 1})`).join(' ');
    const resolution = work(tangentDocument(`f(x) = 1E90 ${product}`));
    expect(problemOf(resolution, 'd')?.message).toBe('This derivative is too long to be worked out.');
    expect(problemOf(resolution, 'f')).toBeUndefined();
    expect(problemOf(resolution, 't')).toBeUndefined();
  });

  test('an unknown letter is offered as a slider', () => {
    expect(problemOf(work(tangentDocument('f(x) = k x^2')), 'f')).toMatchObject({ missingName: 'k' });
  });
});

describe('only what depends on a change is worked out again', () => {
  const document = {
    ...tangentDocument(),
    entries: {
      ...tangentDocument().entries,
      g: given(9, 'g(x) = x'),
    },
  };
  const withHeading: Document = {
    ...document,
    entries: { ...document.entries, part: makeEntry('heading', { order: 0, title: 'At the mill' }) },
  };
  const first = work(document);

  test('nothing changed: nothing is worked out and every object is the same', () => {
    const again = work(document, first);
    expect(again.workedOut).toEqual([]);
    expect(again.entries.get('f')).toBe(first.entries.get('f'));
  });

  test('a moved slider works out itself, the point and the tangent', () => {
    const moved = resolve(document, withValue(emptyStage, 'a', '1.7'), first);
    expect(moved.workedOut).toEqual(['a', 'p', 't']);
    expect(resultOf<PointResult>(moved, 'p').at.setting).toBe('1.7');
  });

  test('a slider that a formula mentions compiles nothing anew', () => {
    const family = tangentDocument('f(x) = a x^2');
    const before = work(family);
    const after = resolve(family, withValue(emptyStage, 'a', '2'), before);
    const program = (resolution: Resolution, id: string) =>
      resultOf<{ program: unknown }>(resolution, id).program;
    expect(after.workedOut).toEqual(['a', 'f', 'p', 't', 'd']);
    expect(program(after, 'f')).toBe(program(before, 'f'));
    expect(program(after, 'd')).toBe(program(before, 'd'));
  });

  test.each([
    ['recoloured', 'f', 'look', { ...usualLook, tone: 'g' }],
    ['moved in the working', 'f', 'order', 20],
    ['hidden', 'f', 'hidden', true],
    ['shown under a condition', 't', 'shownWhen', 'a > 1'],
    ['a heading that is renamed', 'part', 'title', 'Beside the mill'],
    ['a heading that is folded', 'part', 'folded', true],
  ])('%s: nothing is worked out again, and what came out is the same', (_, id, field, value) => {
    const before = withHeading;
    const resolution = work(before);
    const after = applyChange(before, {
      id: '1',
      edits: [setField(id, field, (before.entries[id] as never)[field], value)],
    });
    const again = work(after, resolution);
    expect(again.workedOut).toEqual([]);
    expect(again.entries.get(id)?.entry).toBe(after.entries[id]);
    for (const [of, { outcome }] of again.entries) expect(outcome).toBe(resolution.entries.get(of)?.outcome);
  });

  test('other decimal places: nothing is worked out again, and everything is said and labelled with them', () => {
    const place = makeEntry('point', { order: 6, on: 'f', parameter: 'a' });
    const before = { ...document, entries: { ...document.entries, place } };
    const resolution = work(before);
    const after = { ...before, decimals: 1, looks: { ...before.looks, decimalMark: ',' as const } };
    const again = work(after, resolution);
    expect(again.workedOut).toEqual([]);
    expect(lines(resolution, 't')).toEqual(["f'(1) = 1.000", 'y = x − 5']);
    expect(lines(again, 't')).toEqual(["f'(1) = 1,0", 'y = x − 5']);
    const label = ({ tiers }: ReturnType<typeof buildScene>) =>
      tiers
        .flatMap(({ labels }) => labels.map(({ label: { text } }) => text))
        .find((text) => text.includes('−4'));
    const scene = (of: Document, worked: Resolution, last?: ReturnType<typeof buildScene>) =>
      buildScene(
        {
          document: of,
          stage: emptyStage,
          resolution: worked,
          size: { width: 800, height: 500, density: 1, furniture: true },
          here: null,
        },
        last,
      );
    const first = scene(before, resolution);
    expect(label(first)).toBe('(1.000, −4.000)');
    expect(label(scene(after, again, first))).toBe('(1,0, −4,0)');
  });

  test('a changed formula leaves other functions alone', () => {
    const changed = applyChange(document, {
      id: '1',
      edits: [setField('g', 'text', 'g(x) = x', 'g(x) = 2x')],
    });
    expect(work(changed, first).workedOut).toEqual(['g']);
  });
});
