import { describe, expect, test } from '@jest/globals';
import { buildScene } from '../src/scene/scene.ts';
import { Crowd } from '../src/scene/crowd.ts';
import {
  answersNow,
  emptyStage,
  makeEntry,
  paint,
  resolve,
  type Document,
  type Entry,
} from '../src/index.ts';
import { Recorder } from './recorder.ts';
import { slider, tangentDocument } from './sample.ts';

/** f(x) = x² with a = 1, h = 2 and one study, drawn. */
function drawn(study: Entry, x = { from: -4, to: 4 }) {
  const base = tangentDocument('f(x) = x^2', '1');
  const { f, a } = base.entries as { f: Entry; a: Entry };
  const document: Document = { ...base, x, entries: { f, a, h: slider(2.5, 'h', '2'), study } };
  const size = { width: 800, height: 600, density: 1, furniture: true };
  const scene = buildScene({
    document,
    stage: emptyStage,
    resolution: resolve(document, emptyStage, undefined, answersNow()),
    size,
    here: null,
  });
  const recorder = new Recorder();
  paint(scene, recorder);
  const view = scene.tiers[0]?.view;
  if (!view) throw new Error('no tier');
  const numbers = recorder.paths.flatMap(({ points }) => points.flat());
  expect(numbers.every(Number.isFinite)).toBe(true);
  return { ...recorder, view, scene, texts: recorder.texts.map(({ text }) => text) };
}

const onCurve = { order: 5, on: 'f', parameter: 'a' };

describe('what the studies of steepness draw', () => {
  test('the secant is a straight line through (1, 1) and (3, 9), from edge to edge', () => {
    const { paths, view } = drawn(makeEntry('secant', { ...onCurve, step: 'h' }));
    const at = (x: number, y: number) => [view.toX(x), view.toY(y)] as const;
    const [[ax, ay], [bx, by]] = [at(1, 1), at(3, 9)];
    const away = ([x, y]: readonly [number, number]) => Math.abs((x - ax) * (by - ay) - (y - ay) * (bx - ax));
    const lines = paths.filter(
      ({ points }) => points.length === 2 && points.every((point) => away(point) < 1),
    );
    expect(lines).toHaveLength(1);
    const { left, top, width, height } = view.frame;
    for (const [x, y] of lines[0]?.points ?? []) {
      const edge = Math.min(
        Math.abs(x - left),
        Math.abs(x - left - width),
        Math.abs(y - top),
        Math.abs(y - top - height),
      );
      expect(edge).toBeLessThan(1);
    }
  });

  test('the normal has the slope −1/2 where the tangent has the slope 2', () => {
    const { scene, view } = drawn(makeEntry('normal', onCurve));
    const line = scene.tiers[0]?.marks.find((mark) => mark.kind === 'line' && mark.entry === 'study');
    if (line?.kind !== 'line') throw new Error('no line');
    const slope = (view.fromY(line.y1) - view.fromY(line.y0)) / (view.fromX(line.x1) - view.fromX(line.x0));
    expect(slope).toBeCloseTo(-0.5, 9);
  });

  test('what is seen in the lens stays inside its rim', () => {
    const { paths, scene } = drawn(makeEntry('lens', onCurve));
    const lens = scene.tiers[0]?.marks.find((mark) => mark.kind === 'lens');
    if (lens?.kind !== 'lens') throw new Error('no lens');
    const rim = { left: lens.x - lens.radius, top: lens.y - lens.radius, width: 2 * lens.radius };
    const inside = paths.filter(({ clip }) => clip && clip.left === rim.left && clip.top === rim.top);
    expect(inside.length).toBeGreaterThan(0);
    expect(inside.every(({ clip }) => clip?.width === rim.width)).toBe(true);
  });

  test('each row of a table is a place on the curve', () => {
    const { scene, view } = drawn(
      makeEntry('valueTable', { order: 5, on: 'f', from: '-2', to: '2', step: '1', columns: 'f(x)' }),
    );
    const dots = scene.tiers[0]?.marks.filter((mark) => mark.kind === 'dot') ?? [];
    const places = dots.flatMap((mark) => (mark.kind === 'dot' ? [[mark.x, mark.y]] : []));
    expect(places).toHaveLength(5);
    for (const [i, [x = NaN, y = NaN]] of places.entries()) {
      expect(view.fromX(x)).toBeCloseTo(i - 2, 6);
      expect(view.fromY(y)).toBeCloseTo((i - 2) ** 2, 6);
    }
  });

  test('where the slope is 2, the one place gets its mark', () => {
    const { scene, view } = drawn(
      makeEntry('slopeEquals', { order: 5, on: 'f', from: '-4', to: '4', level: '2' }),
    );
    const dots = scene.tiers[0]?.marks.filter((mark) => mark.kind === 'dot') ?? [];
    const [dot] = dots;
    if (dot?.kind !== 'dot') throw new Error('no mark');
    expect(dots).toHaveLength(1);
    expect([view.fromX(dot.x), view.fromY(dot.y)].map((v) => v.toFixed(6))).toEqual(['1.000000', '1.000000']);
  });
});

describe('how crowded a place is', () => {
  const frame = { left: 40, top: 20, width: 400, height: 300 };
  /** A row of whole numbers that looks disordered (a linear congruence; Knuth, volume 2, 3.3.4, line 30). */
  const scattered = (count: number): number[] => {
    let seed = 12345;
    return Array.from({ length: 2 * count }, (_, i) => {
      seed = (seed * 1103515245 + 12345) % 2147483648;
      return i % 2 === 0 ? 40 + ((seed >> 8) % 400) : 20 + ((seed >> 8) % 300);
    });
  };
  const counted = (points: readonly number[], box: typeof frame, slack: number): number => {
    let count = 0;
    for (let i = 0; i < points.length; i += 2) {
      const [x, y] = [points[i] ?? NaN, points[i + 1] ?? NaN];
      if (x < box.left - slack || x > box.left + box.width + slack) continue;
      if (y >= box.top - slack && y <= box.top + box.height + slack) count++;
    }
    return count;
  };

  test('a box counts all points in it, and none further away than one cell', () => {
    const points = scattered(2000);
    const crowd = new Crowd(frame, [points.slice(0, 1500), points.slice(1500)]);
    for (let i = 0; i < 200; i++) {
      const box = { left: 40 + ((i * 37) % 360), top: 20 + ((i * 53) % 260), width: 5 + i / 4, height: 22 };
      const count = crowd.countIn(box);
      expect(count).toBeGreaterThanOrEqual(counted(points, box, 0));
      expect(count).toBeLessThanOrEqual(counted(points, box, 4));
    }
  });

  test('points and boxes far outside do no harm', () => {
    const crowd = new Crowd(frame, [[1e9, 3, -1e9, 5, NaN, 4, 100, 100]]);
    expect(crowd.countIn({ left: -1e6, top: -1e6, width: 2e6, height: 2e6 })).toBe(1);
    expect(crowd.countIn({ left: 5000, top: 5000, width: 10, height: 10 })).toBe(0);
    expect(new Crowd(frame, []).countIn(frame)).toBe(0);
  });
});
