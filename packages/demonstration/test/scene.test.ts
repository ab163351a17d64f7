import { describe, expect, test } from '@jest/globals';
import {
  buildScene,
  emptyStage,
  fitEdits,
  makeEntry,
  nearestCurve,
  resolve,
  smallPicture,
  TierView,
  withValue,
  zoomed,
  type Document,
  type Entry,
  type MarkOf,
  type Scene,
  type Stage,
} from '../src/index.ts';
import { placeLabels } from '../src/scene/labels.ts';
import type { Mark } from '../src/marks/mark.ts';
import { ticksOf } from '../src/scene/ticks.ts';
import { documentWith, given, slider, tangentDocument } from './sample.ts';

const size = { width: 800, height: 600, density: 1, furniture: true };
const sceneOf = (document: Document, stage: Stage = emptyStage, previous?: Scene) =>
  buildScene({ document, stage, resolution: resolve(document, stage), size, here: 'a' }, previous);
const marks = <K extends MarkOf<'curve'>['kind'] | 'point' | 'line' | 'polygon' | 'dot' | 'label'>(
  scene: Scene,
  tier: number,
  kind: K,
) => (scene.tiers[tier]?.marks ?? []).filter((mark) => mark.kind === kind) as unknown as MarkOf<K>[];

describe('the scene', () => {
  const document = tangentDocument();
  const scene = sceneOf(document);

  test('draws f above and f′ under it, on one x-axis', () => {
    expect(scene.tiers.map(({ title }) => title?.names.map(({ latex }) => latex))).toEqual([
      ['f(x)'],
      ["f'(x)"],
    ]);
    const [upper, lower] = scene.tiers.map(({ view }) => view);
    expect(upper?.toX(1)).toBe(lower?.toX(1));
    expect(marks(scene, 0, 'curve')).toHaveLength(1);
    expect(marks(scene, 1, 'curve')[0]).toMatchObject({ tone: 'f1', dash: [8, 5] });
  });

  test('the tangent touches the curve at the point, with slope f′(1) = 1', () => {
    const view = scene.tiers[0]?.view as TierView;
    const [line] = marks(scene, 0, 'line');
    const [point] = marks(scene, 0, 'point');
    const rise = view.fromY(line?.y1 ?? 0) - view.fromY(line?.y0 ?? 0);
    const run = view.fromX(line?.x1 ?? 0) - view.fromX(line?.x0 ?? 0);
    expect(rise / run).toBeCloseTo(1, 9);
    expect([view.fromX(point?.x ?? 0), view.fromY(point?.y ?? 0)]).toEqual([
      expect.closeTo(1, 9),
      expect.closeTo(-4, 9),
    ]);
  });

  test('the triangle has base 1 and the slope as its height', () => {
    const view = scene.tiers[0]?.view as TierView;
    const [x0, y0, x1, , , y2] = marks(scene, 0, 'polygon')[0]?.points as number[];
    expect(view.fromX(x1 as number) - view.fromX(x0 as number)).toBeCloseTo(1, 9);
    expect(view.fromY(y2 as number) - view.fromY(y0 as number)).toBeCloseTo(1, 9);
  });

  test('the reading line passes through every tier, with each tier’s value', () => {
    expect(scene.readingX).toBe(scene.tiers[0]?.view.toX(1));
    expect(marks(scene, 0, 'label').map(({ text }) => text)).toEqual(['(1.000, −4.000)']);
    expect(marks(scene, 1, 'label').map(({ text }) => text)).toEqual(['1.000']);
    expect(marks(scene, 1, 'dot')).toHaveLength(1);
  });

  test('point and tangent at the same place share one handle', () => {
    expect(scene.handles).toMatchObject([{ parameter: 'a', tier: 'tier-f' }]);
  });

  test('a moved point makes only its own marks again: no curve is sampled', () => {
    const stage = withValue(emptyStage, 'a', '1.7');
    const resolution = resolve(document, stage, resolve(document, emptyStage));
    const before = buildScene({
      document,
      stage: emptyStage,
      resolution: resolve(document, emptyStage),
      size,
      here: 'a',
    });
    const first = resolve(document, emptyStage);
    const start = buildScene({ document, stage: emptyStage, resolution: first, size, here: 'a' });
    const next = buildScene(
      { document, stage, resolution: resolve(document, stage, first), size, here: 'a' },
      start,
    );
    expect(next.markedAgain).toEqual(['p', 't']);
    expect(marks(next, 0, 'curve')[0]).toBe(marks(start, 0, 'curve')[0]);
    expect(before.handles[0]?.x).not.toBe(next.handles[0]?.x);
    expect(resolution.workedOut).toEqual(['a', 'p', 't']);
  });

  test('with six curves, two tiers, a secant with its table and a lens, too: only the lens samples what it shows', () => {
    const formulas = ['x^3/9 - x', 'sin(x)', 'x/2 + 1', '2cos(x)', 'e^(-x^2/4)', '1/(1 + x^2)'];
    const curves = formulas.map((formula, i) => [`f${i}`, given(i, `${'fgpqrs'[i] ?? ''}(x) = ${formula}`)]);
    const place = { on: 'f0', parameter: 'a' };
    const six = documentWith({
      ...(Object.fromEntries(curves) as Record<string, Entry>),
      a: slider(10, 'a', '1'),
      h: slider(11, 'h', '1'),
      tangent: makeEntry('tangent', { order: 12, ...place }),
      secant: makeEntry('secant', { order: 13, ...place, step: 'h' }),
      lens: makeEntry('lens', { order: 14, ...place }),
      slope: makeEntry('derivative', { order: 15, of: 'f0', tier: 'slope' }),
    });
    const first = resolve(six, emptyStage);
    const start = buildScene({ document: six, stage: emptyStage, resolution: first, size, here: 'a' });
    const stage = withValue(emptyStage, 'a', '1.2');
    const resolution = resolve(six, stage, first);
    const next = buildScene({ document: six, stage, resolution, size, here: 'a' }, start);
    expect(resolution.workedOut).toEqual(['a', 'tangent', 'secant', 'lens']);
    expect(next.markedAgain).toEqual(['tangent', 'secant', 'lens']);
    const curvesOf = (scene: Scene) => scene.tiers.flatMap((_, i) => marks(scene, i, 'curve'));
    expect(curvesOf(next)).toHaveLength(7);
    curvesOf(next).forEach((curve, i) => expect(curve).toBe(curvesOf(start)[i]));
  });

  test('the same input gives the same scene', () => {
    expect(JSON.stringify(sceneOf(document).tiers)).toBe(JSON.stringify(scene.tiers));
  });

  test.each([
    ['on a desk', 800, 600, 1],
    ['on a phone', 374, 454, 2],
    ['on a wide screen', 1600, 900, 1],
  ])(
    'labels cover neither a curve nor one another and stay in sight, %s',
    (_where, width, height, density) => {
      const resolution = resolve(document, emptyStage);
      for (const at of ['-1', '0.5', '1', '1.5', '2.2']) {
        const stage = withValue(emptyStage, 'a', at);
        const { tiers } = buildScene({
          document,
          stage,
          resolution: resolve(document, stage, resolution),
          size: { width, height, density, furniture: true },
          here: 'a',
        });
        for (const { labels, marks: drawn } of tiers) {
          for (const box of labels) {
            expect(box.left).toBeGreaterThanOrEqual(0);
            expect(box.left + box.width).toBeLessThanOrEqual(width);
            expect(box.top).toBeGreaterThanOrEqual(0);
            expect(box.top + box.height).toBeLessThanOrEqual(height);
            const covered = drawn
              .flatMap((mark) => (mark.kind === 'curve' ? mark.runs : []))
              .flatMap((run) =>
                [...run].flatMap((x, i) => (i % 2 === 0 ? [[x, run[i + 1] as number] as const] : [])),
              )
              .filter(
                ([x, y]) =>
                  x > box.left && x < box.left + box.width && y > box.top && y < box.top + box.height,
              );
            expect({ at, label: box.label.text, covered: covered.length }).toMatchObject({ covered: 0 });
            const others = labels.filter((other) => other !== box);
            const touching = others.filter(
              (other) =>
                box.left < other.left + other.width &&
                other.left < box.left + box.width &&
                box.top < other.top + other.height &&
                other.top < box.top + box.height,
            );
            expect(touching).toEqual([]);
          }
        }
      }
    },
  );
});

describe('windows', () => {
  const view = new TierView(
    't',
    { left: 50, top: 20, width: 400, height: 300 },
    { from: -2, to: 6 },
    { from: -1, to: 5 },
    { decimals: 3, decimalMark: '.' },
    1,
  );

  test('pixels and coordinates are inverse', () => {
    for (const x of [-2, 0.3, 6]) expect(view.fromX(view.toX(x))).toBeCloseTo(x, 12);
    for (const y of [-1, 0.3, 5]) expect(view.fromY(view.toY(y))).toBeCloseTo(y, 12);
  });

  test('zooming keeps the place under the pointer', () => {
    const { from, to } = zoomed({ from: -2, to: 6 }, 1, 0.5);
    expect((1 - from) / (to - from)).toBeCloseTo(3 / 8, 12);
  });

  test('Fit shows the zeros and the low point; with typed x-limits it chooses the height alone', () => {
    const document = { ...tangentDocument(), x: { from: 100, to: 200 } };
    const fitted = (from: Document) => fitEdits(from, resolve(from, emptyStage), 'both', from.x);
    const x = fitted(document).find((edit) => edit.at === 'document')?.new as { from: number; to: number };
    expect(x.from).toBeLessThan(-1 / 3);
    expect(x.to).toBeGreaterThan(2);
    const kept = fitted({ ...document, xTyped: true });
    expect(kept.some((edit) => edit.at === 'document')).toBe(false);
    expect([...new Set(kept.map((edit) => edit.at === 'field' && edit.id))]).toEqual(['tier-f', 'slope']);
  });

  test('ticks are round by themselves, or as typed', () => {
    expect(ticksOf({ from: -2, to: 3.5 }, { spacing: null }, 6).map(({ text }) => text)).toEqual([
      '−2',
      '−1',
      '0',
      '1',
      '2',
      '3',
    ]);
    expect(ticksOf({ from: 0, to: 2 }, { spacing: 0.25 }, 6).map(({ value }) => value)).toEqual([
      0, 0.25, 0.5, 0.75, 1, 1.25, 1.5, 1.75, 2,
    ]);
    expect(ticksOf({ from: 0, to: 1e7 }, { spacing: null }, 5).at(-1)?.text).toBe('1·10⁷');
    expect(ticksOf({ from: 0, to: 1000 }, { spacing: 0.001 }, 5).length).toBeLessThan(20);
  });
});

describe('picking a curve', () => {
  const scene = sceneOf(tangentDocument());
  const view = scene.tiers[0]?.view as TierView;

  test('a press beside the curve lands on it, within a tolerance', () => {
    const [x, y] = [view.toX(0), view.toY(-2)];
    const near = nearestCurve(scene, x, y - 9, 14);
    expect(near).toMatchObject({ entry: 'f', tier: 'tier-f', x });
    expect(near?.y).toBeCloseTo(y, 0);
    expect(nearestCurve(scene, x, y - 120, 14)).toBeNull();
  });
});

describe('the small picture', () => {
  test('is the same scene as SVG, without anything but drawing in it', () => {
    const svg = smallPicture(tangentDocument());
    expect(svg).toMatch(/^<svg xmlns="http:\/\/www.w3.org\/2000\/svg" viewBox="0 0 320 200"/);
    expect(svg).toContain('stroke="#2f3fa3"');
    expect(svg).not.toMatch(/NaN|Infinity|<text|<script/);
  });

  test('of an empty or broken demonstration is still a picture', () => {
    expect(smallPicture({ ...tangentDocument('f(x) = )('), title: '<b>' })).toMatch(/<\/svg>$/);
  });
});

describe('labels', () => {
  const frame = { left: 0, top: 0, width: 800, height: 500 };
  const marksWith = (run: readonly number[]): Mark[] => [
    { kind: 'label', x: 400, y: 250, text: '(1, 1)', tone: 'f' },
    { kind: 'curve', entry: 'f', runs: [Float64Array.from(run)], tone: 'f', dash: [], weight: 2 },
  ];
  test.each([
    ['far beyond every window', [400, 250, 4e15, -4e15, 1e300, 1e300, 410, 260]],
    ['to where numbers end', [400, 250, 1.7e308, -1.7e308, -1.7e308, 1.7e308, 410, 260]],
    ['through what is no number', [400, 250, NaN, NaN, Infinity, 0, 410, 260]],
  ])('find their places beside a curve that leads %s', (_where, run) => {
    expect(placeLabels(marksWith(run), frame)).toHaveLength(1);
  });

  const label = (x: number, text: string, isSpare = true): Mark => {
    return { kind: 'label', x, y: 120, text, tone: 'f', isSpare };
  };
  const narrow = { left: 0, top: 0, width: 300, height: 240 };

  test('of many in little room as many as there is room for are there, and what stands alone is', () => {
    const many = Array.from({ length: 48 }, (_, i) => label(4 + 6 * i, `(${i}.000, 1.000)`));
    const placed = placeLabels([...many, label(150, 'A = 2', false)], narrow);
    expect(placed.length).toBeGreaterThan(4);
    expect(placed.length).toBeLessThan(30);
    for (const { left, width } of placed) expect([left >= 0, left + width <= 300]).toEqual([true, true]);
    expect(placed.map(({ label: { text } }) => text)).toContain('A = 2');
    for (const a of placed)
      for (const b of placed)
        if (a !== b)
          expect(
            Math.abs(a.left - b.left) >= (a.left < b.left ? a.width : b.width) ||
              Math.abs(a.top - b.top) >= a.height,
          ).toBe(true);
  });

  test('a place is labelled once with the same text, and with each text of its own', () => {
    const placed = placeLabels([label(50, '(0, 0)'), label(50.2, '(0, 0)'), label(50, 'P')], narrow);
    expect(placed.map(({ label: { text } }) => text)).toEqual(['(0, 0)', 'P']);
  });
});
