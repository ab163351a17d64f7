import { describe, expect, test } from '@jest/globals';
import {
  answersNow,
  buildScene,
  emptyStage,
  makeEntry,
  placesOf,
  resolve,
  Trails,
  usualLook,
  type Document,
  type Entry,
  type Resolution,
  type Stage,
} from '../src/index.ts';
import { documentWith, given, slider } from './sample.ts';

const windows = { x: { from: 0, to: 10 }, y: () => ({ from: -5, to: 5 }) };

/** A point on f at a with a trail; a moves, and a reveal may keep the point away. */
const withTrail = (point: Partial<Entry> = {}, trail: object = {}, text = 'f(x) = 0'): Document =>
  documentWith({
    f: given(1, text),
    a: slider(2, 'a', '0', { from: '0', to: '10' }),
    q: makeEntry('reveal', { order: 3, name: 'question_1', switchedOn: true }),
    p: makeEntry('point', { order: 4, on: 'f', parameter: 'a', ...(point as object) }),
    trail: makeEntry('trail', { order: 5, of: 'p', place: 'point', ...trail }),
  });

/** Lets a take its values one after the other, a frame each. */
function run(document: Document, values: readonly number[], trails = new Trails()) {
  let resolution: Resolution | undefined;
  let stage: Stage = emptyStage;
  for (const a of values) {
    stage = { ...emptyStage, values: { a } };
    resolution = resolve(document, stage, resolution, answersNow());
    trails.record(resolution, windows);
  }
  return { trails, stage, resolution: resolution as Resolution };
}
const xs = (trails: Trails): number[] => (trails.of('trail')?.places() ?? []).map(([x]) => x);

const sceneWith = (document: Document, { trails, stage, resolution }: ReturnType<typeof run>) =>
  buildScene({
    document,
    stage,
    resolution,
    trails,
    here: null,
    size: { width: 800, height: 500, density: 1, furniture: true },
  });
const trailIn = (document: Document, after: ReturnType<typeof run>) =>
  sceneWith(document, after).tiers[0]?.marks.find(({ kind }) => kind === 'dots' || kind === 'track');

describe('a trail', () => {
  test('is left by a point that moves, not by one that stands', () => {
    expect(xs(run(withTrail(), [1, 1, 1]).trails)).toEqual([]);
    expect(xs(run(withTrail(), [1, 2, 2, 3]).trails)).toEqual([1, 2, 3]);
  });

  test('has a mark only where the point has moved on by a little', () => {
    const crowded = Array.from({ length: 1001 }, (_, i) => 1 + i / 1000);
    expect(xs(run(withTrail(), crowded).trails).length).toBeLessThan(20);
    const line = run(withTrail({}, { drawn: 'line' }), crowded).trails;
    expect(xs(line).length).toBeGreaterThan(50);
  });

  test('keeps the newest marks up to its limit', () => {
    const { trails } = run(withTrail({}, { limit: 3 }), [1, 2, 3, 4, 5]);
    expect(xs(trails)).toEqual([3, 4, 5]);
  });

  test('stays as large as it was, however long the point moves', () => {
    const frames = Array.from({ length: 40_000 }, (_, i) => 5 + 4 * Math.sin(i / 10));
    const { trails } = run(withTrail(), frames);
    expect(xs(trails)).toHaveLength(500);
  });

  test('is not joined where the point jumps or was away', () => {
    const document = withTrail({ shownWhen: 'a < 3 or a > 5' }, { drawn: 'line' });
    const after = run(document, [1, 2, 2.9, 4, 5.1, 6]);
    expect(xs(after.trails)).toEqual([1, 2, 2.9, NaN, 5.1, 6]);
    expect(trailIn(document, after)).toMatchObject({ kind: 'track', runs: [{ length: 6 }, { length: 4 }] });
    const wrapped = run(withTrail({}, { drawn: 'line' }), [8, 9, 1, 2]);
    expect(xs(wrapped.trails)).toEqual([8, 9, NaN, 1, 2]);
  });

  test('outlives the moment of its point, but hides with a reveal that is off', () => {
    const document = withTrail({ shownWhen: 'a < 3 and question1' });
    const after = run(document, [1, 2, 4]);
    expect(after.resolution.visibilities.get('p')?.isShown).toBe(false);
    expect(trailIn(document, after)).toMatchObject({ kind: 'dots' });
    const off = {
      ...document,
      entries: { ...document.entries, q: makeEntry('reveal', { order: 3, name: 'question_1' }) },
    };
    const resolution = resolve(off, after.stage, after.resolution);
    const scene = buildScene(
      { document: off, stage: after.stage, resolution, trails: after.trails, here: null, size: sizeOf() },
      sceneWith(document, after),
    );
    expect(scene.tiers[0]?.marks.some(({ kind }) => kind === 'dots')).toBe(false);
    const again = run(document, [4], after.trails);
    expect(trailIn(document, again)).toMatchObject({ kind: 'dots' });
  });

  test('a hidden point leaves none', () => {
    expect(xs(run(withTrail({ hidden: true }), [1, 2, 3]).trails)).toEqual([]);
  });

  test('is cleared, and begins anew with the next movement', () => {
    const after = run(withTrail(), [1, 2, 3]);
    const { version } = after.trails;
    after.trails.clear();
    expect(after.trails.version).toBeGreaterThan(version);
    expect(xs(after.trails)).toEqual([]);
    expect(xs(run(withTrail(), [3, 4, 5], after.trails).trails)).toEqual([3, 4, 5]);
  });

  test('is not joined to what comes after the pen was lifted, however near that is', () => {
    const document = withTrail({}, { drawn: 'line' });
    const after = run(document, [1, 2, 3]);
    after.trails.lift();
    after.trails.lift();
    expect(xs(run(document, [4, 4], after.trails).trails)).toEqual([1, 2, 3, NaN]);
    expect(xs(run(document, [4, 5], after.trails).trails)).toEqual([1, 2, 3, NaN, 4, 5]);
  });

  test('goes with its entry', () => {
    const after = run(withTrail(), [1, 2, 3]);
    const { trail: _gone, ...entries } = withTrail().entries;
    after.trails.record(resolve({ ...withTrail(), entries }, emptyStage, undefined, answersNow()), windows);
    expect(after.trails.of('trail')).toBeUndefined();
  });

  test('wears the colour of its point or its own, as dots or as a line with a dash', () => {
    const plain = withTrail();
    expect(trailIn(plain, run(plain, [1, 2]))).toMatchObject({ tone: 'f' });
    const look = { ...usualLook, tone: 'h' as const, line: 'dashed' as const };
    const own = withTrail({}, { look, drawn: 'line' });
    expect(trailIn(own, run(own, [1, 2]))).toMatchObject({ tone: 'h', dash: [8, 5] });
  });

  test('so can a point that a function goes through, and a place that is found', () => {
    const document = documentWith({
      g: makeEntry('throughPoints', { order: 1, name: 'g', points: '(0, 1), (2, 3)', tier: 'tier-f' }),
      f: given(2, 'f(x) = x^2', 'slope'),
      k: slider(3, 'k', '2'),
      s: makeEntry('slopeEquals', { order: 4, on: 'f', level: 'k', from: '-5', to: '5' }),
    });
    const resolution = resolve(document, emptyStage, undefined, answersNow());
    expect(placesOf(resolution, 'g')).toMatchObject([
      { key: 'vertex 0', label: 'point 1', x: 0, y: 1 },
      { key: 'vertex 1', label: 'point 2', x: 2, y: 3 },
    ]);
    expect(placesOf(resolution, 's')).toMatchObject([{ key: 'place 0', x: 1, y: 1, tier: 'slope' }]);
  });

  test('both points of a secant can leave one', () => {
    const document = documentWith({
      f: given(1, 'f(x) = x^2/10'),
      a: slider(2, 'a', '1', { from: '0', to: '10' }),
      h: slider(3, 'h', '2'),
      s: makeEntry('secant', { order: 4, on: 'f', parameter: 'a', step: 'h' }),
      trail: makeEntry('trail', { order: 5, of: 's', place: 'second' }),
    });
    expect(xs(run(document, [1, 2, 3]).trails)).toEqual([3, 4, 5]);
  });
});

const sizeOf = () => ({ width: 800, height: 500, density: 1, furniture: true });
