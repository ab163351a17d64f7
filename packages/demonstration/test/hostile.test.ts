import { describe, expect, jest, test } from '@jest/globals';
import { Effort } from '@yperkine/core';
import {
  buildScene,
  day,
  documentSchema,
  emptyStage,
  fitEdits,
  headOfEntry,
  keepCurve,
  kindOf,
  makeEntry,
  paint,
  resolve,
  smallPicture,
  SvgSurface,
  type Document,
  type Scene,
} from '../src/index.ts';
import { hostileDocuments } from './hostile.ts';
import { given, tangentDocument } from './sample.ts';

const size = { width: 800, height: 600, density: 1, furniture: true };
const sceneOf = (document: Document, operations: number, previous?: Scene): Scene => {
  const resolution = previous ? resolutions.get(document) : undefined;
  const made = resolution ?? resolve(document, emptyStage);
  resolutions.set(document, made);
  const effort = new Effort(operations);
  return buildScene({ document, stage: emptyStage, resolution: made, size, here: null, effort }, previous);
};
const resolutions = new WeakMap<Document, ReturnType<typeof resolve>>();
const curvesIn = ({ tiers }: Scene) =>
  tiers.flatMap(({ marks }) => marks).flatMap((mark) => (mark.kind === 'curve' ? [mark] : []));

describe('no document keeps the view from opening', () => {
  test.each(Object.entries(hostileDocuments))(
    '%s',
    (_name, document) => {
      expect(documentSchema.safeParse(document).success).toBe(true);
      const resolution = resolve(document, emptyStage);
      const sound = resolution.entries.get('sound');
      expect(sound?.outcome.ok).toBe(true);
      for (const resolved of resolution.entries.values()) {
        expect(headOfEntry(resolved).heading).not.toBe('');
        if (!resolved.outcome.ok) expect(resolved.outcome.problem.message).toMatch(/(\.| …)$/);
      }
      const scene = buildScene({
        document,
        stage: emptyStage,
        resolution,
        size,
        here: null,
        effort: new Effort(4_000_000),
      });
      const surface = new SvgSurface(day);
      paint(scene, surface);
      expect(surface.toSvg(800, 600)).toMatch(/<\/svg>$/);
      expect(curvesIn(scene).map(({ entry }) => entry)).toContain('sound');
      expect(smallPicture(document)).toMatch(/<\/svg>$/);
    },
    60_000,
  );

  test('whatever one entry throws is its own sentence, and the others work', () => {
    const document = {
      ...tangentDocument(),
      entries: { ...tangentDocument().entries, n: makeEntry('note', { order: 9, text: 'x' }) },
    };
    const note = kindOf(makeEntry('note', { order: 1 })) as unknown as Record<string, () => never>;
    for (const [method, thrown, message] of [
      ['workOut', new TypeError('a fault'), /through a fault of the program/],
      ['workOut', new RangeError('Maximum call stack size exceeded'), /too large to be worked out/],
      ['head', new TypeError('a fault'), null],
      ['marks', new TypeError('a fault'), null],
      ['standsOn', new TypeError('a fault'), null],
    ] as const) {
      const broken = jest.spyOn(note, method).mockImplementation(() => {
        throw thrown;
      });
      try {
        const resolution = resolve(document, emptyStage);
        const outcome = resolution.entries.get('n')?.outcome;
        if (message) expect(outcome && !outcome.ok && outcome.problem.message).toMatch(message);
        expect(resolution.entries.get('t')?.outcome.ok).toBe(true);
        const scene = buildScene({ document, stage: emptyStage, resolution, size, here: null });
        expect(curvesIn(scene).length).toBeGreaterThan(0);
        expect(
          [...resolution.entries.values()].map((resolved) => headOfEntry(resolved).heading),
        ).toHaveLength(resolution.entries.size);
      } finally {
        broken.mockRestore();
      }
    }
  });
});

describe('a curve that a frame has no time for', () => {
  const slow = { ...tangentDocument('f(x) = sum k from 1 to 1000 of sin(k x)/k'), entries: {} } as Document;
  const document: Document = {
    ...slow,
    entries: { f: given(1, 'f(x) = sum k from 1 to 1000 of sin(k x)/k') },
  };

  test('is drawn roughly and wanted, until it is there; the picture is the same then as without haste', () => {
    const scene = sceneOf(document, 4_000_000);
    const [curve] = curvesIn(scene);
    expect({ isOld: curve?.isOld, wanted: scene.wanted.length }).toEqual({ isOld: true, wanted: 1 });
    expect(curve?.runs.flatMap((run) => [...run]).length).toBeGreaterThanOrEqual(2 * 25);
    const again = sceneOf(document, 4_000_000, scene);
    expect(again.wanted).toEqual(scene.wanted);
    const [wanted] = again.wanted;
    if (!wanted) throw new Error('nothing is wanted');
    const runs = [Float64Array.from([-2, 0, 0, 1, 3.5, 0])];
    keepCurve(wanted, { runs, isRough: false });
    const there = sceneOf(document, 4_000_000, again);
    const [drawn] = curvesIn(there);
    expect({ isOld: drawn?.isOld, wanted: there.wanted }).toEqual({ isOld: undefined, wanted: [] });
    const { tier } = wanted;
    expect([...(drawn?.runs[0] ?? [])].slice(2, 4)).toEqual([tier.toX(0), tier.toY(1)]);
  });

  test('moves with the window as it was last, until the new one is there', () => {
    const scene = sceneOf(document, 4_000_000);
    for (const wanted of scene.wanted)
      keepCurve(wanted, { runs: [Float64Array.from([-2, 0, 0, 1, 3.5, 0])], isRough: false });
    const panned = { ...document, x: { from: -1, to: 4.5 } };
    const moved = buildScene({
      document: panned,
      stage: emptyStage,
      resolution: resolutions.get(document) ?? resolve(document, emptyStage),
      size,
      here: null,
      effort: new Effort(4_000_000),
    });
    const [curve] = curvesIn(moved);
    const view = moved.tiers[0]?.view;
    expect(curve?.isOld).toBe(true);
    expect(curve?.runs[0]?.[2]).toBeCloseTo(view?.toX(0) ?? NaN, 6);
  });

  test.each([
    ['rough', { runs: [Float64Array.from([-2, 0, 3.5, 1])], isRough: true }],
    ['not to be had', null],
  ])(
    'that is %s even beside the page stays to be seen as rough, and is asked for no more',
    (_what, found) => {
      const own: Document = { ...document, x: { from: -3, to: found ? 3 : 4 } };
      const scene = sceneOf(own, 4_000_000);
      expect(scene.wanted).toHaveLength(1);
      for (const wanted of scene.wanted) keepCurve(wanted, found);
      const again = sceneOf(own, 4_000_000, scene);
      expect({ isOld: curvesIn(again)[0]?.isOld, wanted: again.wanted }).toEqual({ isOld: true, wanted: [] });
    },
  );

  test('ordinary curves are never in want of time: those of a demonstration together take a part of a frame', () => {
    const scene = sceneOf(tangentDocument(), 4_000_000);
    expect(scene.wanted).toEqual([]);
    expect(curvesIn(scene).every(({ isOld }) => !isOld)).toBe(true);
  });
});

describe('a window for a curve that takes too long', () => {
  test('is chosen from a few places, and holds them', () => {
    const document: Document = {
      ...tangentDocument(),
      entries: { f: given(1, 'f(x) = sum k from 1 to 2000 of sin(k x)/k') },
    };
    const resolution = resolve(document, emptyStage);
    const edits = fitEdits(document, resolution, 'both', document.x);
    const heights = edits.find((edit) => edit.at === 'field' && edit.field === 'y');
    // The sum is near (π − x)/2 from 0 to 2π (Fourier's series of the sawtooth), and odd.
    expect(heights?.new).toMatchObject({ from: expect.any(Number), to: expect.any(Number) });
    const { from, to } = heights?.new as { from: number; to: number };
    expect(from).toBeLessThan(-1);
    expect(to).toBeGreaterThan(1);
    expect(to).toBeLessThan(4);
  });
});
