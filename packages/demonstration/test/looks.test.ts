import { describe, expect, test } from '@jest/globals';
import { knownNumber, rational } from '@yperkine/core';
import fc from 'fast-check';
import {
  colourOf,
  day,
  night,
  makeEntry,
  openedNumber,
  paint,
  prosePieces,
  resolve,
  emptyStage,
  entryAt,
  headOfEntry,
  usualLook,
  usualLooks,
  type Document,
  type Entry,
  type Look,
  type Looks,
  type Mark,
  type MarkOf,
  type Said,
} from '../src/index.ts';
import { ticksOf } from '../src/scene/ticks.ts';
import { Recorder } from './recorder.ts';
import { documentWith, given, resultOf, sceneOf, slider } from './sample.ts';

const looked = (look: Partial<Look>, more: Document['entries'] = {}): Document =>
  documentWith({
    f: { ...given(1, 'f(x) = x^2 - 1'), look: { ...usualLook, ...look } } as Entry,
    a: slider(2, 'a', '1.5'),
    ...more,
  });
const tangent = (look: Partial<Look>): Entry =>
  makeEntry('tangent', { order: 3, on: 'f', parameter: 'a', look: { ...usualLook, ...look } });
const marksOf = (document: Document): readonly Mark[] => sceneOf(document).tiers[0]?.marks ?? [];
const find = <K extends Mark['kind']>(document: Document, kind: K): MarkOf<K> | undefined =>
  marksOf(document).find((mark): mark is MarkOf<K> => mark.kind === kind);
const withLooks = (document: Document, looks: Partial<Looks>): Document => ({
  ...document,
  looks: { ...usualLooks, ...looks },
});

describe('the look of an entry', () => {
  test('by itself leaves the marks to the kind', () => {
    expect(find(looked({}), 'curve')).toMatchObject({ tone: 'f', dash: [], weight: 2.5 });
  });

  test('colour, line and weight are those that were chosen, also in the title and the card', () => {
    const document = looked({ tone: '#aa3377', line: 'dotted', weight: 5 });
    expect(find(document, 'curve')).toMatchObject({ tone: '#aa3377', dash: [2, 5], weight: 5 });
    const scene = sceneOf(document);
    expect(scene.tiers[0]?.title?.names[0]?.tone).toBe('#aa3377');
    const resolved = resolve(document, emptyStage).entries.get('f');
    expect(resolved && headOfEntry(resolved).tone).toBe('#aa3377');
  });

  test('a point has a shape and a size', () => {
    const document = looked({}, { t: tangent({ point: 'diamond', size: 12 }) });
    expect(find(document, 'point')).toMatchObject({ shape: 'diamond', size: 12 });
  });

  test.each([
    ['name', 'Tangent to f at x = a'],
    ['value', 'slope 3.000'],
    ['text', 'touches here'],
  ] as const)('a label says its %s', (label, text) => {
    const document = looked({}, { t: tangent({ label, text: 'touches here' }) });
    expect(find(document, 'label')?.text).toBe(text);
  });

  test('a curve is labelled where it can be seen, a point keeps its coordinates as its value', () => {
    const labelled = find(looked({ label: 'name' }), 'label');
    expect(labelled?.text).toBe('f(x)');
    const point = (label: Look['label']) =>
      looked(
        {},
        {
          p: makeEntry('point', { order: 3, on: 'f', parameter: 'a', look: { ...usualLook, label } }),
        },
      );
    expect(find(point('value'), 'label')?.text).toBe('(1.500, 1.250)');
    expect(find(point('none'), 'label')).toBeUndefined();
  });

  test('marks of a higher layer are drawn later', () => {
    const order = (layer: number) =>
      marksOf(looked({ layer }, { t: tangent({}) })).findIndex(({ kind }) => kind === 'curve');
    expect(order(0)).toBe(0);
    expect(order(1)).toBeGreaterThan(0);
    expect(order(-1)).toBe(0);
  });

  test('each shape is painted', () => {
    for (const point of ['disc', 'ring', 'square', 'diamond', 'cross'] as const) {
      const recorder = new Recorder();
      paint(sceneOf(looked({}, { t: tangent({ point, tone: '#123456' }) })), recorder);
      expect(recorder.paths.some(({ style }) => style.fill === '#123456' || style.stroke === '#123456')).toBe(
        true,
      );
    }
  });

  test('what lies under the pointer is found: points before lines', () => {
    const scene = sceneOf(looked({}, { t: tangent({}) }));
    const point = find(looked({}, { t: tangent({}) }), 'point');
    const line = find(looked({}, { t: tangent({}) }), 'line');
    expect(entryAt(scene, point?.x ?? 0, point?.y ?? 0)).toBe('t');
    const on = (share: number, start = 0, end = 0) => start + (end - start) * share;
    expect(entryAt(scene, on(0.55, line?.x0, line?.x1), on(0.55, line?.y0, line?.y1))).toBe('t');
    expect(entryAt(scene, 60, 40)).toBeNull();
  });
});

describe('the looks of a demonstration', () => {
  const painted = (looks: Partial<Looks>) => {
    const recorder = new Recorder();
    paint(sceneOf(withLooks(looked({}), looks)), recorder);
    return recorder;
  };
  const strokes = (recorder: Recorder, tone: string) =>
    recorder.paths.filter(({ style }) => style.stroke === tone).length;

  test('grid, axes and numbers can be left out', () => {
    const all = painted({});
    expect(strokes(painted({ grid: false }), 'rule')).toBeLessThan(strokes(all, 'rule'));
    expect(strokes(painted({ axes: false }), 'quiet')).toBe(strokes(all, 'quiet') - 4);
    expect(all.texts.length).toBeGreaterThan(0);
    expect(painted({ numbers: false }).texts).toEqual([]);
  });

  test('without numbers the graphs take their room', () => {
    const width = (looks: Partial<Looks>) =>
      sceneOf(withLooks(looked({}), looks)).tiers[0]?.view.frame.width ?? 0;
    expect(width({ numbers: false })).toBeGreaterThan(width({}));
  });

  test('the same scale gives a unit as many pixels upward as along x', () => {
    const view = sceneOf(withLooks(looked({}), { sameScale: true })).tiers[0]?.view;
    expect(view?.pixelsPerY).toBeCloseTo(view?.pixelsPerX ?? 0, 9);
    expect(((view?.y.from ?? 1) + (view?.y.to ?? 1)) / 2).toBeCloseTo(0, 12);
  });

  test('numbers and ticks take the decimal mark', () => {
    const document = withLooks(
      { ...looked({}, { t: tangent({ label: 'value' }) }), xTicks: 0.5 },
      { decimalMark: ',' },
    );
    expect(find(document, 'label')?.text).toBe('slope 3,000');
    expect(sceneOf(document).xTicks.map(({ text }) => text)).toContain('−0,5');
  });

  test('tick numbers have the chosen size and face', () => {
    const { texts } = painted({ tickNumbers: { face: 'mathematics', size: 'veryLarge' } });
    expect(texts[0]?.style).toMatchObject({ face: 'mathematics', size: 20 });
  });

  test('a key says which line is which', () => {
    const document = withLooks(looked({}, { t: tangent({ line: 'dashed' }) }), { key: 'topLeft' });
    expect(sceneOf(document).tiers[0]?.key).toMatchObject([
      { entry: 'f', latex: 'f(x)', words: '', dash: [] },
      { entry: 't', latex: null, words: 'Tangent to f at x = a', dash: [8, 5] },
    ]);
  });
});

describe('a scale in multiples of π', () => {
  const texts = (from: number, to: number, room: number, spacing: number | null = null) =>
    ticksOf({ from, to }, { spacing, piScale: true }, room).map(({ text }) => text);
  test('has halves, quarters or twelfths as there is room', () => {
    expect(texts(-Math.PI, Math.PI, 5)).toEqual(['−π', '−π/2', '0', 'π/2', 'π']);
    expect(texts(0, Math.PI / 2, 4)).toEqual(['0', 'π/6', 'π/3', 'π/2']);
    expect(texts(0, 7, 10)).toEqual(['0', 'π/4', 'π/2', '3π/4', 'π', '5π/4', '3π/2', '7π/4', '2π']);
    expect(texts(0, 40, 8)).toEqual(['0', '2π', '4π', '6π', '8π', '10π', '12π']);
  });
  test('says each multiple as a typeset fraction, too', () => {
    const latex = ticksOf({ from: -2, to: 5 }, { spacing: null, piScale: true }, 5).map((tick) => tick.latex);
    expect(latex).toEqual(['-\\frac{\\pi}{2}', '0', '\\frac{\\pi}{2}', '\\pi', '\\frac{3\\pi}{2}']);
  });
  test('takes a typed distance in multiples of π, and stands at the true place', () => {
    expect(texts(0, 7, 10, 1.5)).toEqual(['0', '3π/2']);
    const [, half] = ticksOf({ from: 0, to: 3.2 }, { spacing: 0.5, piScale: true }, 9);
    expect(half?.value).toBe(Math.PI / 2);
  });
  test('stays readable in a window of thousands', () => {
    expect(texts(0, 1e5, 8).length).toBeLessThanOrEqual(12);
    expect(texts(0, 1e-4, 8).length).toBeGreaterThan(1);
  });
});

describe('a number that is opened', () => {
  const rule = { decimals: 3, decimalMark: '.' } as const;
  test('shows all digits and its exact form', () => {
    const third = rational.rational(64, 3);
    expect(openedNumber({ number: knownNumber(64 / 3, third), form: null }, rule)).toEqual({
      digits: '21.3333333333333',
      isExact: false,
      form: '64/3',
      between: null,
    });
    expect(openedNumber({ number: knownNumber(0.1 + 0.2), form: null }, rule)).toMatchObject({
      digits: '0.3',
      isExact: false,
    });
    expect(openedNumber({ number: knownNumber(1e23 / 3), form: null }, rule).digits).toBe(
      '3.33333333333333 · 10^22',
    );
    expect(openedNumber({ number: knownNumber(Math.SQRT2), form: '√2' }, rule)).toEqual({
      digits: '1.4142135623731',
      isExact: false,
      form: '√2',
      between: null,
    });
  });

  test('tells bounds that are proved, rounded apart, where it has no exact form', () => {
    const number = knownNumber(1.6449339790733863);
    const between = (low: number, high: number, form: string | null = null) =>
      openedNumber({ number, form, bounds: [low, high] }, rule).between;
    expect(between(1.644811360783887, 1.645311329289809)).toBe('1.64481 and 1.64532');
    expect(between(-1.645311329289809, -1.644811360783887)).toBe('−1.64532 and −1.64481');
    expect(between(0.6247132564155374, 0.624713256439466)).toBe('0.624713256415 and 0.624713256440');
    // π²/6 = 1.64493406…: what is estimated tells no digits that its bounds leave open.
    const { digits } = openedNumber(
      { number, form: null, bounds: [1.644811360783887, 1.645311329289809] },
      rule,
    );
    expect(digits).toBe('1.6449');
    expect(between(0.1, 0.1)).toBe('0.100000000000000 and 0.100000000000001');
    expect(between(1e15, 1e15 + 4)).toBe('1000000000000000.000 and 1000000000000004.000');
    expect(between(1.2344e-20, 1.2348e-20)).toBe('1.23·10⁻²⁰ and 1.24·10⁻²⁰');
    expect(between(-5e-324, 5e-324)).toBe('−1·10⁻³⁰⁰ and 1·10⁻³⁰⁰');
    expect(between(5e-324, 1e-310)).toBe('0 and 1·10⁻³⁰⁰');
    expect(between(3, Infinity)).toBe('3.000 and ∞');
    expect(between(1.6448, 1.6453, 'π²/6')).toBeNull();
  });

  test('bounds hold what they stand for, however they are rounded', () => {
    const sizes = fc.double({ min: 1e-3, max: 1e6, noNaN: true });
    const bounds = fc.tuple(fc.tuple(sizes, fc.constantFrom(1, -1)), fc.integer({ min: 0, max: 13 }));
    fc.assert(
      fc.property(bounds, ([[size, sign], places]) => {
        const low = size * sign;
        const high = low + 10 ** -places;
        const { between } = openedNumber({ number: knownNumber(low), form: null, bounds: [low, high] }, rule);
        const [below, above] = (between ?? '').split(' and ').map((text) => rational.parseDecimal(text));
        const isBelow = below && rational.compare(below, rational.fromDouble(low)) <= 0;
        const isAbove = above && rational.compare(above, rational.fromDouble(high)) >= 0;
        expect([between, isBelow, isAbove]).toEqual([between, true, true]);
      }),
    );
  });

  test('stands in every table behind its cell', () => {
    const table = makeEntry('valueTable', {
      order: 9,
      on: 'f',
      from: '0',
      to: '1',
      step: '0.5',
      columns: 'f(x)/3',
    });
    const { rows = [] } = resultOf<Said>(looked({}, { table }), 'table').table ?? {};
    expect(rows.map(({ numbers }) => numbers?.map((number) => number?.value ?? null))).toEqual([
      [null, -1 / 3],
      [null, -0.25],
      [null, 0],
    ]);
  });
  test('a decimal that ends is exact in all its digits', () => {
    const eighth = rational.rational(-1, 1024);
    expect(openedNumber({ number: knownNumber(-1 / 1024, eighth), form: null }, rule)).toMatchObject({
      digits: '−0.0009765625',
      isExact: true,
    });
  });
  test('powers of ten are written as such, with the decimal mark of the rule', () => {
    expect(
      openedNumber({ number: knownNumber(1.5e-20), form: null }, { ...rule, decimalMark: ',' }).digits,
    ).toBe('1,5 · 10^−20');
  });
});

describe('a text in which mathematics stands', () => {
  const { directory } = resolve(looked({}), emptyStage);
  test('has words, typeset mathematics and live values', () => {
    expect(prosePieces('slope $3x^2/2$ is {f(a)} m', directory)).toEqual([
      { kind: 'words', text: 'slope ' },
      { kind: 'mathematics', latex: expect.stringMatching(/\\frac/) as unknown as string },
      { kind: 'words', text: ' is ' },
      { kind: 'formula', text: 'f(a)' },
      { kind: 'words', text: ' m' },
    ]);
  });
  test('letters that name nothing are letters', () => {
    expect(prosePieces('$(u + h_1)/2$', directory)).toEqual([
      { kind: 'mathematics', latex: expect.stringMatching(/^\\frac\{u ?\+ ?h_/) as unknown as string },
    ]);
  });
  test('LaTeX that the notation does not know is taken as it is; escaped and single signs are signs', () => {
    expect(prosePieces('$\\vec{v}\\cdot\\vec{w}$', directory)).toEqual([
      { kind: 'mathematics', latex: '\\vec{v}\\cdot\\vec{w}' },
    ]);
    expect(prosePieces('5 \\$ or 6 $', directory)).toEqual([{ kind: 'words', text: '5 $ or 6 $' }]);
    expect(prosePieces('\\{x\\}', directory)).toEqual([{ kind: 'words', text: '{x}' }]);
  });
});

test('a role follows paper and slate, a colour of one’s own stays what it is', () => {
  expect([colourOf('f', day), colourOf('f', night)]).toEqual([day.f, night.f]);
  expect([colourOf('#aa3377', day), colourOf('#aa3377', night)]).toEqual(['#aa3377', '#aa3377']);
});
