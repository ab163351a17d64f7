import { describe, expect, test } from '@jest/globals';
import {
  answersNow,
  applyChange,
  emptyStage,
  entryKinds,
  makeEntry,
  plainText,
  positionOf,
  resolve,
  withValue,
  type Document,
  type Entry,
  type MarkOf,
  type Said,
} from '../src/index.ts';
import { buildScene } from '../src/scene/scene.ts';
import { given, setField, slider, tangentDocument, toldIn } from './sample.ts';

/** f with a = 1 and h = 0.5, and further entries. */
function withStudies(text: string, more: Record<string, Entry>, a = '1', h = '0.5'): Document {
  const document = tangentDocument(text, a);
  const { f, a: place } = document.entries as { f: Entry; a: Entry };
  return { ...document, entries: { f, a: place, h: slider(2.5, 'h', h), ...more } };
}

const secant = (more: Partial<Extract<Entry, { kind: 'secant' }>> = {}) =>
  makeEntry('secant', { order: 5, on: 'f', parameter: 'a', step: 'h', ...more });

function study(document: Document, id: string): Said {
  const outcome = toldIn(resolve(document, emptyStage, undefined, answersNow()), id);
  if (!outcome?.ok) throw new Error(outcome?.problem.message ?? id);
  return outcome.result as Said;
}
const problem = (document: Document, id: string) => {
  const outcome = toldIn(resolve(document, emptyStage, undefined, answersNow()), id);
  return outcome?.ok ? undefined : outcome?.problem.message;
};
const lines = (document: Document, id: string): string[] => study(document, id).lines.map(plainText);

const size = { width: 800, height: 600, density: 1, furniture: true };
const sceneOf = (document: Document, stage = emptyStage) =>
  buildScene({
    document,
    stage,
    resolution: resolve(document, stage, undefined, answersNow()),
    size,
    here: null,
  });

describe('the secant', () => {
  // By hand for f = x² at 1: forward 2 + h, backward 2 − h, symmetric 2.
  test.each([
    ['forward', '\\frac{f(a+h)-f(a)}{h} ≈ 2.500'],
    ['backward', '\\frac{f(a)-f(a-h)}{h} ≈ 1.500'],
    ['symmetric', '\\frac{f(a+h)-f(a-h)}{2h} ≈ 2.000'],
  ] as const)('%s', (direction, line) => {
    expect(lines(withStudies('f(x) = x^2', { s: secant({ direction }) }), 's')[0]).toBe(line);
  });

  test('the table ends at the slope, and its error shrinks with h', () => {
    const { table } = study(withStudies('f(x) = x^2', { s: secant() }), 's');
    expect(table?.rows.map(({ cells }) => cells.join(' '))).toEqual([
      '1 3.000 1.000 2.000 1.000',
      '0.1 2.100 1.900 2.000 0.100',
      '0.01 2.010 1.990 2.000 0.010',
      '0.001 2.001 1.999 2.000 0.001',
      '→ 0 2.000 2.000 2.000 0',
    ]);
    expect(table?.rows.at(-1)?.isGoal).toBe(true);
  });

  test('when h is too small for the machine’s digits the rows say so', () => {
    const { table } = study(withStudies('f(x) = sin x', { s: secant({ table: 'tooSmall' }) }), 's');
    expect(table?.rows).toHaveLength(17);
    expect(table?.rows.filter(({ isDoubtful }) => isDoubtful).length).toBeGreaterThan(4);
    expect(table?.rows.slice(0, 5).some(({ isDoubtful }) => isDoubtful)).toBe(false);
    expect(table?.note).toMatch(/^From h = 10⁻[⁰¹²³⁴⁵⁶⁷⁸⁹]+ on the quotient gets worse again/);
  });

  test.each([
    ['h = 0', 'f(x) = x^2', '1', '0', 'With h = 0 both points are one, and one point has no secant.'],
    [
      'a pole between',
      'f(x) = 1/x',
      '-1',
      '2',
      'Between x = −1 and 1 f has a gap, and a secant across it would say nothing.',
    ],
    [
      'a jump between',
      'f(x) = floor(x)',
      '0.5',
      '1',
      'Between x = 0.5 and 1.5 f has a gap, and a secant across it would say nothing.',
    ],
    ['no value', 'f(x) = √x', '-1', '2', 'f has no value at x = −1, so there is no secant.'],
  ])('%s gets one sentence', (_name, text, a, h, sentence) => {
    const { sentence: said, lines: none } = study(withStudies(text, { s: secant() }, a, h), 's');
    expect(said).toBe(sentence);
    expect(none).toEqual([]);
  });

  test.each(['f(x) = |x|', 'f(x) = cbrt(x)', 'f(x) = x^2 if x < 0; x otherwise'])('%s has no gap', (text) => {
    expect(study(withStudies(text, { s: secant() }, '-1', '2'), 's').lines).toHaveLength(2);
  });

  test('its second point is a handle of the step, counted from the first', () => {
    const { handles } = sceneOf(withStudies('f(x) = x^2', { s: secant() }));
    expect(handles.map(({ parameter, offset, sign }) => [parameter, offset, sign])).toEqual([
      ['a', 0, 1],
      ['h', 1, 1],
    ]);
    const backward = sceneOf(withStudies('f(x) = x^2', { s: secant({ direction: 'backward' }) })).handles;
    expect(backward.find(({ parameter }) => parameter === 'h')).toMatchObject({ offset: 1, sign: -1 });
  });

  test('closing up shrinks by the same factor in equal times and never comes to 0', () => {
    const run = { from: 1, to: 0.001, start: 1, seconds: 6, repeat: 'once', pace: 'closing' } as const;
    const at = [0, 2, 4, 6].map((seconds) => positionOf(run, seconds).value);
    expect(at[1]).toBeCloseTo(0.1, 12);
    expect(at[2]).toBeCloseTo(0.01, 12);
    expect(at[3]).toBeCloseTo(0.001, 12);
    expect(positionOf(run, 7)).toEqual({ value: 0.001, isOver: true });
  });

  test('a moved step works out itself and the secant, and nothing else', () => {
    const document = withStudies('f(x) = x^2', {
      s: secant(),
      t: makeEntry('tangent', { order: 6, on: 'f', parameter: 'a' }),
    });
    const before = resolve(document, emptyStage);
    expect(resolve(document, withValue(emptyStage, 'h', '0.4'), before).workedOut).toEqual(['h', 's']);
  });
});

describe('the normal', () => {
  const normal = makeEntry('normal', { order: 5, on: 'f', parameter: 'a' });
  // By hand: slope −1/f′(a) through (a, f(a)).
  test.each([
    ['f(x) = x^2', '1', 'y = −0.5x + 1.5'],
    ['f(x) = x^2', '0', 'x = 0'],
    ['f(x) = 1/x', '1', 'y = x'],
    ['f(x) = cbrt(x)', '0', 'y = 0'],
  ])('to %s at %s', (text, a, line) => {
    expect(lines(withStudies(text, { n: normal }, a), 'n')).toEqual([line]);
  });

  test('without a tangent there is none', () => {
    const { sentence } = study(withStudies('f(x) = |x|', { n: normal }, '0'), 'n');
    expect(sentence).toBe('f has no tangent at x = 0, so it has no normal there.');
  });
});

describe('where the slope is k', () => {
  const where = (level: string, from = '-3', to = '3') =>
    makeEntry('slopeEquals', { order: 5, on: 'f', level, from, to } as never);

  // f′ = x² − 1.
  test.each([
    ['0', ['x = −1', 'x = 1'], 'at 2 places, and nowhere else (proved)'],
    ['1/2', ['x = −√6/2 ≈ −1.225', 'x = √6/2 ≈ 1.225'], 'at 2 places, and nowhere else (proved)'],
    ['-1', ['x = 0'], 'at one place, and nowhere else (proved)'],
    ['-2', [], 'nowhere (proved)'],
    ['h', ['x = −√6/2 ≈ −1.225', 'x = √6/2 ≈ 1.225'], 'the slope of f is h at 2 places'],
  ])('k = %s', (level, places, said) => {
    const document = withStudies('f(x) = x^3/3 - x', { w: where(level) });
    expect(lines(document, 'w').slice(1)).toEqual(places);
    expect(study(document, 'w').sentence).toContain(said);
  });

  test('an interval the wrong way round and a slope that cannot be read get a sentence', () => {
    expect(problem(withStudies('f(x) = x^2', { w: where('0', '3', '-3') }), 'w')).toBe(
      'The interval goes from a smaller to a larger number.',
    );
    expect(problem(withStudies('f(x) = x^2', { w: where('2 +') }), 'w')).toContain('Something is missing');
  });

  test('a straight line has its slope everywhere', () => {
    expect(study(withStudies('f(x) = 2x', { w: where('2') }), 'w').sentence).toContain('on [');
  });
});

describe('the lens', () => {
  const lens = (more: Partial<Extract<Entry, { kind: 'lens' }>> = {}) =>
    makeEntry('lens', { order: 5, on: 'f', parameter: 'a', ...more });
  const inside = (document: Document) => {
    const mark = sceneOf(document).tiers[0]?.marks.find(({ kind }) => kind === 'lens');
    if (!mark) throw new Error('no lens');
    return mark as MarkOf<'lens'>;
  };
  const heightsApart = (mark: MarkOf<'lens'>): number => {
    const curve = mark.marks.find(({ kind }) => kind === 'curve') as MarkOf<'curve'>;
    const line = mark.marks.find(({ kind }) => kind === 'line') as MarkOf<'line'>;
    const run = curve.runs[0] as Float64Array;
    return Math.max(
      ...Array.from({ length: run.length / 2 }, (_, i) => {
        const [x, y] = [run[2 * i] as number, run[2 * i + 1] as number];
        const onLine = line.y0 + ((line.y1 - line.y0) * (x - line.x0)) / (line.x1 - line.x0);
        return Math.abs(y - onLine);
      }),
    );
  };

  test('ten times nearer, curve and tangent are ten times less apart', () => {
    const [ten, hundred] = ([10, 100] as const).map((magnification) =>
      heightsApart(inside(withStudies('f(x) = x^2', { l: lens({ magnification }) }))),
    ) as [number, number];
    // The gap is f″/2·(x − a)² times the magnification: 1/10 of it at ten times the magnification.
    expect(ten / hundred).toBeCloseTo(10, 1);
    expect(hundred).toBeLessThan(1);
  });

  test('it follows a step: the step keeps its size, whatever it is', () => {
    const width = (h: string): number => {
      const mark = inside(withStudies('f(x) = x^2', { l: lens({ follows: 'h' }) }, '1', h));
      const [own, other] = mark.marks
        .filter(({ kind }) => kind === 'dot')
        .map((dot) => (dot as MarkOf<'dot'>).x);
      return Math.abs((other as number) - (own as number));
    };
    expect(width('0.1')).toBeCloseTo(52, 6);
    expect(width('0.01')).toBeCloseTo(52, 6);
  });

  test('it stands in the corner away from its place, inside the frame', () => {
    for (const a of ['-1.5', '3']) {
      const scene = sceneOf(withStudies('f(x) = x', { l: lens() }, a));
      const { frame } = scene.tiers[0]?.view ?? { frame: { left: 0, top: 0, width: 0, height: 0 } };
      const { x, y, radius, source } = inside(withStudies('f(x) = x', { l: lens() }, a));
      expect(Math.sign(x - (frame.left + frame.width / 2))).toBe(
        -Math.sign(source.x - (frame.left + frame.width / 2)),
      );
      expect(y - radius).toBeGreaterThan(frame.top);
      expect(x - radius).toBeGreaterThan(frame.left);
      expect(x + radius).toBeLessThan(frame.left + frame.width);
    }
  });

  test('at a corner it says that nothing becomes straight', () => {
    expect(study(withStudies('f(x) = |x|', { l: lens() }, '0'), 'l').sentence).toContain(
      'does not become straight',
    );
  });
});

describe('values, and names for results', () => {
  const value = (order: number, text: string) => makeEntry('value', { order, text });

  // By hand: f = x³ − 4x, f′ = 3x² − 4, f″ = 6x.
  test.each([
    ['f(3)', 'f(3) = 15.000'],
    ["f'(3)", "f'(3) = 23.000"],
    ["f''(-2)", "f''(-2) = −12.000"],
    ['f(1)/f(3)', '\\frac{f(1)}{f(3)} = −0.200'],
    ['√2 f(1)', '\\sqrt{2}f(1) = −3√2 ≈ −4.243'],
    ["f'(a) + h", "f'(a)+h = −0.500"],
  ])('%s', (text, line) => {
    const document = withStudies('f(x) = x^3 - 4x', { v: value(9, text) });
    expect(lines(document, 'v')[0]?.replaceAll('\\left', '').replaceAll('\\right', '')).toBe(line);
  });

  test('a named value is used in later formulas and follows what it is made of', () => {
    const document = withStudies('f(x) = x^2', { m: value(9, "m = f'(a)"), g: given(10, 'g(x) = m x') });
    const at = (a: string) => toldIn(resolve(document, withValue(emptyStage, 'a', a)), 'g');
    const slopes = ['1', '3'].map((a) => {
      const outcome = at(a);
      return outcome?.ok ? (outcome.result as Said & { parameters: number[] }).parameters : null;
    });
    expect(slopes).toEqual([[2], [6]]);
  });

  test('a circle of names, a name that is taken, and a value that is none get one sentence', () => {
    const document = withStudies('f(x) = 1/x', {
      m: value(9, 'm = 2n'),
      n: value(10, 'n = m + 1'),
      a2: value(11, 'a = 7'),
      none: value(12, 'f(0)'),
    });
    expect(problem(document, 'n')).toContain('circle');
    expect(problem(document, 'a2')).toContain('already taken');
    expect(study(document, 'none').sentence).toBe('This has no value.');
    expect(study(document, 'none').lines.map(plainText)[0]).toBe('f\\left(0\\right)');
  });
});

/** Fields that have a value in every new entry. */
const ofEveryEntry = new Set(['kind', 'hidden', 'names', 'shownWhen', 'look']);

describe('every kind of entry', () => {
  test('has usual settings that make a valid entry with what it stands on, and a heading without a result', () => {
    const fields: Readonly<Record<string, unknown>> = {
      order: 1,
      on: 'f',
      of: 'f',
      parameter: 'a',
      step: '1',
      tier: 't',
      text: 'x',
      columns: 'x',
      points: '(0, 0), (1, 1)',
      table: '0,1\n1,2',
      with: 'g',
      name: 'a',
      value: '1',
      from: '0',
      to: '1',
      x: '1',
      y: '1',
      place: 'point',
      left: 'a',
      right: 'b',
      parts: 'n',
    };
    for (const [name, kind] of Object.entries(entryKinds)) {
      const shape = Object.keys((kind.schema as unknown as { shape: Record<string, unknown> }).shape);
      const usual = typeof kind.defaults === 'function' ? kind.defaults({}) : kind.defaults;
      // What is not among these fields refers to another entry.
      const wanted = shape.filter((field) => !(field in usual) && !ofEveryEntry.has(field));
      const own = Object.fromEntries(wanted.map((field) => [field, fields[field] ?? 'a']));
      const entry = makeEntry(name as Entry['kind'], own as never);
      expect(entry.kind).toBe(name);
      expect(entry.hidden).toBe(false);
    }
  });

  test('hidden entries draw nothing, and what they say stays', () => {
    const document = withStudies('f(x) = x^2', { s: secant() });
    const hidden = applyChange(document, { id: '1', edits: [setField('s', 'hidden', false, true)] });
    expect(sceneOf(document).tiers[0]?.marks.some((mark) => 'entry' in mark && mark.entry === 's')).toBe(
      true,
    );
    expect(sceneOf(hidden).tiers[0]?.marks.some((mark) => 'entry' in mark && mark.entry === 's')).toBe(false);
    expect(lines(hidden, 's')).toHaveLength(2);
  });
});

describe('a table of values', () => {
  const table = (more: Record<string, string> = {}) =>
    makeEntry('valueTable', {
      order: 5,
      on: 'f',
      from: '0',
      to: '2',
      step: '0.5',
      columns: "f(x); f'(x)",
      ...more,
    });
  const cells = (document: Document) => study(document, 'v').table?.rows.map((row) => row.cells.join(' '));

  // Stewart, Calculus: Early Transcendentals (8th ed.), section 2.1, example 1: slopes of secants of y = x² at (1, 1).
  test('slopes of secants of x² at 1, from a published worked example', () => {
    const document = withStudies('f(x) = x^2', {
      v: table({ list: '2; 1.5; 1.1; 1.01; 1.001', columns: '(f(x) - f(1))/(x - 1)' }),
    });
    expect(cells(document)).toEqual(['2 3.000', '1.5 2.500', '1.1 2.100', '1.01 2.010', '1.001 2.001']);
  });

  test('columns are headed as they are printed, with primes and minus signs', () => {
    const document = withStudies('f(x) = x^2', { v: table({ columns: "f'(x) - 1; f''(x); f'''(x)" }) });
    expect(study(document, 'v').table?.head).toEqual(['x', 'f′(x) − 1', 'f″(x)', 'f‴(x)']);
  });

  // Stewart, section 2.2, example 1: (x − 1)/(x² − 1) near 1.
  test('values beside a hole, and none in it', () => {
    const document = withStudies('f(x) = (x - 1)/(x^2 - 1)', {
      v: table({ list: '0.5; 0.9; 0.99; 1; 1.01; 1.1; 1.5', columns: 'f(x)' }),
    });
    expect(cells(document)).toEqual([
      '0.5 0.667',
      '0.9 0.526',
      '0.99 0.503',
      '1 –',
      '1.01 0.498',
      '1.1 0.476',
      '1.5 0.400',
    ]);
  });

  test('start, end and step, with f, f′, f″ and formulas of one’s own', () => {
    const document = withStudies('f(x) = x^3', {
      v: table({ columns: "f(x); f'(x); f''(x); x + h; (f(x + h) - f(x))/h" }),
    });
    expect(study(document, 'v').table?.head).toEqual([
      'x',
      'f(x)',
      'f′(x)',
      'f″(x)',
      'x + h',
      '(f(x + h) − f(x))/h',
    ]);
    expect(cells(document)).toEqual([
      '0 0.000 0.000 0.000 0.500 0.250',
      '0.5 0.125 0.750 3.000 1.000 1.750',
      '1 1.000 3.000 6.000 1.500 4.750',
      '1.5 3.375 6.750 9.000 2.000 9.250',
      '2 8.000 12.000 12.000 2.500 15.250',
    ]);
    expect(sceneOf(document).tiers[0]?.marks.filter(({ kind }) => kind === 'dot')).toHaveLength(5);
  });

  test.each([
    ['a step of nothing', { step: '0' }, 'The step must be greater than zero.'],
    ['an end before the start', { to: '-1' }, 'The start must not lie behind the end.'],
    ['too many rows', { step: '0.001' }, 'A table has at most 200 rows: choose a larger step.'],
    ['a word among the numbers', { list: '1; two' }, '“two” is not a number.'],
    [
      'a column that cannot be read',
      { columns: 'f(x) +' },
      'In the column “f(x) +”: Something is missing after “+”.',
    ],
  ])('%s gets one sentence', (_name, more, message) => {
    expect(problem(withStudies('f(x) = x^2', { v: table(more) }), 'v')).toBe(message);
  });

  test('it follows a parameter that only its columns mention', () => {
    const document = withStudies('f(x) = x', { v: table({ list: '1', columns: 'h x' }) });
    const before = resolve(document, emptyStage);
    expect(resolve(document, withValue(emptyStage, 'h', '2'), before).workedOut).toEqual(['h', 'v']);
  });
});

describe('the tangent’s equation and triangle', () => {
  const tangent = (more: Partial<Extract<Entry, { kind: 'tangent' }>>) =>
    makeEntry('tangent', { order: 5, on: 'f', parameter: 'a', ...more });

  // By hand: f(1) = 1, f′(1) = 2; f(−1) = 1, f′(−1) = −2.
  test.each([
    ['1', ["f'(1) = 2.000", 'y − 1 = 2(x − 1)', 'y = 2x − 1']],
    ['-1', ["f'(−1) = −2.000", 'y − 1 = −2(x + 1)', 'y = −2x − 1']],
  ])('in two forms, at %s', (a, expected) => {
    expect(lines(withStudies('f(x) = x^2', { t: tangent({ pointSlope: true }) }, a), 't')).toEqual(expected);
  });

  // By hand: what is 0 is not taken away, and what is 1 is no factor.
  test.each([
    ['f(x) = 2x^2 - 8', '-2', 'y = −8(x + 2)'],
    ['f(x) = 3x + 1', '0', 'y − 1 = 3x'],
    ['f(x) = x', '0', 'y = x'],
    ['f(x) = 5 - x', '2', 'y − 3 = −(x − 2)'],
    ['f(x) = (x - 1)^2 + 4', '1', 'y − 4 = 0'],
    ['f(x) = sin(x)', '0', 'y = x'],
    ['f(x) = cos(x)', '2', 'y + 0.416 ≈ −0.909(x − 2)'],
  ])('the general form of %s at %s is tidy', (formula, a, expected) => {
    expect(lines(withStudies(formula, { t: tangent({ pointSlope: true }) }, a), 't')[1]).toBe(expected);
  });

  test('a triangle of any base: its height is the slope times the base', () => {
    const marks = sceneOf(withStudies('f(x) = x^2', { t: tangent({ base: '0.5' }) })).tiers[0]?.marks ?? [];
    const notes = marks.flatMap((mark) => (mark.kind === 'note' ? [mark.text] : []));
    expect(notes).toEqual(['0.5', '1.000']);
  });

  test('a short piece reaches equally far on both sides of its point', () => {
    const document = withStudies('f(x) = x^2', { t: tangent({ reach: 'piece' }) });
    const marks = sceneOf(document).tiers[0]?.marks ?? [];
    const line = marks.find((mark) => mark.kind === 'line') as MarkOf<'line'>;
    const point = marks.find((mark) => mark.kind === 'point') as MarkOf<'point'>;
    expect((line.x0 + line.x1) / 2).toBeCloseTo(point.x, 6);
    expect((line.y0 + line.y1) / 2).toBeCloseTo(point.y, 6);
    expect(Math.hypot(line.x1 - line.x0, line.y1 - line.y0)).toBeCloseTo(220, 6);
  });
});
