import { describe, expect, test } from '@jest/globals';
import type { SecantResult } from '@yperkine/demonstration';
import { addData, addGiven } from '../src/state/givens.ts';
import { removeEntry, setField } from '../src/state/actions.ts';
import {
  addCoarse,
  addDistance,
  addHolds,
  addMeanValue,
  addNearest,
  addOriginal,
  addOverInterval,
  addReading,
  addSolutions,
  jumpTo,
  keepFeature,
} from '../src/state/where.ts';
import { addDerivative, addSecant } from '../src/state/studies.ts';
import { usualInterval } from '../src/state/usualInterval.ts';
import { underTest } from './bench.ts';

/** A workbench with the given functions; the first one is what studies are made of. */
function withGiven(...texts: readonly string[]) {
  const bench = underTest();
  for (const text of texts) addGiven(bench.workbench, text);
  bench.frame();
  return { ...bench, on: bench.idOf('function') };
}

describe('the place of a new study', () => {
  test.each([
    'f(x) = x^2 for 0 ≤ x ≤ 1',
    'f(x) = √(x - 3)',
    'f(x) = ln(-x - 2)',
    'f(x) = √(9 - x^2) if x < -1; √(x - 4.9) otherwise',
    'f(x) = x for 2 ≤ x ≤ 2.2',
  ])('is on the curve, with the step of a secant: %s', (text) => {
    const { workbench, on, result } = withGiven(text);
    addSecant(workbench, on);
    const { secant } = result<SecantResult>('secant');
    expect([secant.from.y, secant.to.y, secant.slope].every(Number.isFinite)).toBe(true);
  });

  test('is within the readings of a table, however wide the window is', () => {
    const bench = underTest();
    const { workbench, idOf, result } = bench;
    const rows = Array.from({ length: 12 }, (_, i) => `${5 * i},${i * i}`).join('\n');
    const settings = { name: 'L', variable: 't', x: 0, y: 1, unit: 'cm', xUnit: 'min' };
    addData(workbench, { ...settings, shape: 'broken', table: `t,level\n${rows}` }, null);
    workbench.showWindows({ from: -10, to: 90 }, {});
    bench.frame();
    addSecant(workbench, idOf('data'));
    const { secant } = result<SecantResult>('secant');
    expect(secant.from.x).toBeGreaterThanOrEqual(0);
    expect(secant.to.x).toBeLessThanOrEqual(55);
    expect(Number.isFinite(secant.slope)).toBe(true);
  });
});

describe('the interval of a new study', () => {
  test('is the domain where the window shows its ends', () => {
    const { workbench, on } = withGiven('f(x) = x(12 - x)/5 for 0 <= x <= 12');
    expect(usualInterval(workbench, on)).toEqual({ from: '0', to: '12' });
  });

  test('is the window where the function goes on beyond it', () => {
    const { workbench, on } = withGiven('f(x) = x^2 - 1');
    const { from, to } = workbench.state.document.x;
    expect(usualInterval(workbench, on)).toEqual({ from: String(from), to: String(to) });
  });

  test('begins where a root begins', () => {
    const { workbench, on } = withGiven('f(x) = √x');
    expect(usualInterval(workbench, on).from).toBe('0');
  });
});

describe('what a study starts with', () => {
  test('a condition: where the curve rises', () => {
    const { workbench, on, all } = withGiven('g(t) = t^2');
    addHolds(workbench, on);
    expect(all('holds').map(({ condition }) => condition)).toEqual(["g'(t) > 0"]);
  });

  test('solutions: the other curve of the tier, or 0', () => {
    const one = withGiven('f(x) = x^2 - 1');
    addSolutions(one.workbench, one.on);
    expect(one.all('solutions').map(({ equals }) => equals)).toEqual(['0']);
    const two = withGiven('f(x) = x^2 - 1', 'g(x) = x');
    addSolutions(two.workbench, two.on);
    expect(two.all('solutions').map(({ equals }) => equals)).toEqual(['g(x)']);
  });

  test('joined dots: a tenth of the window apart', () => {
    const { workbench, on, all } = withGiven('f(x) = x^2 - 1');
    addCoarse(workbench, on);
    const { from, to } = workbench.state.document.x;
    expect(Number(all('coarse')[0]?.step)).toBeCloseTo((to - from) / 10, 0);
  });

  test('reading a function itself draws its derivative in the same change, and takes one that is there', () => {
    const { workbench, on, all } = withGiven('f(x) = x^2 - 1');
    addReading(workbench, on);
    expect([all('derivative').length, all('reading').length]).toEqual([1, 1]);
    workbench.undo();
    expect([all('derivative').length, all('reading').length]).toEqual([0, 0]);
    addDerivative(workbench, on);
    addReading(workbench, on);
    expect([all('derivative').length, all('reading').length]).toEqual([1, 1]);
  });

  test('the function behind a derivative is for derivatives that are given alone', () => {
    const { workbench, on, all } = withGiven('f(x) = x^2');
    addOriginal(workbench, on);
    expect(all('original')).toEqual([]);
    expect(workbench.state.notice?.text).toContain('a derivative alone is given');
  });

  test('the mean value theorem: two sliders of their own, in order', () => {
    const { workbench, on, all } = withGiven('f(x) = x^2');
    addMeanValue(workbench, on);
    const [a, b] = all('parameter');
    expect([a?.name, b?.name]).toEqual(['a', 'b']);
    expect(Number(a?.value)).toBeLessThan(Number(b?.value));
    workbench.undo();
    expect(all('parameter')).toEqual([]);
  });

  test('the distance goes with its nearest point, and its tier with it', () => {
    const { workbench, on, all, idOf } = withGiven('f(x) = x^2/4');
    addNearest(workbench, on);
    addDistance(workbench, idOf('nearest'));
    expect(Object.keys(workbench.state.document.tiers)).toHaveLength(2);
    removeEntry(workbench, idOf('nearest'));
    expect([all('nearest').length, all('distance').length]).toEqual([0, 0]);
    expect(Object.keys(workbench.state.document.tiers)).toHaveLength(1);
  });
});

describe('a feature that is kept', () => {
  test('is a key point of its kind on a short interval around it', () => {
    const { workbench, on, all } = withGiven('f(x) = 4 - x^2');
    keepFeature(workbench, on, { kind: 'maximum', x: 0, y: 4, other: null, room: Infinity });
    const [kept] = all('keyPoints');
    expect(kept?.shows).toEqual(['maxima']);
    expect(Number(kept?.from)).toBeLessThan(0);
    expect(Number(kept?.to)).toBeGreaterThan(0);
  });

  test('keeps clear of its neighbours of the same kind', () => {
    const { workbench, on, all } = withGiven('f(x) = x(x - 0.01)');
    keepFeature(workbench, on, { kind: 'zero', x: 0, y: 0, other: null, room: 0.005 });
    expect(Number(all('keyPoints')[0]?.to)).toBeLessThanOrEqual(0.005);
  });
});

test('the window jumps to a place without changing its width, as one step', () => {
  const { workbench, on } = withGiven('f(x) = x^2 - 1');
  addOverInterval(workbench, 'keyPoints', on);
  const before = workbench.state.document.x;
  jumpTo(workbench, 'tier-f', 40, 1599);
  const after = workbench.state.document.x;
  expect([(after.from + after.to) / 2, after.to - after.from]).toEqual([40, before.to - before.from]);
  const up = workbench.state.document.tiers['tier-f']?.y;
  expect(((up?.from ?? 0) + (up?.to ?? 0)) / 2).toBe(1599);
  workbench.undo();
  expect(workbench.state.document.x).toEqual(before);
});

test('a strip under a tier stands with its curve again when the tier goes', () => {
  const { workbench, on, idOf, all } = withGiven('f(x) = x^2');
  addDerivative(workbench, on);
  const strip = addOverInterval(workbench, 'signStrip', on);
  const tier = all('derivative')[0]?.tier ?? '';
  setField(workbench, strip, 'under', tier);
  removeEntry(workbench, idOf('derivative'));
  expect(all('signStrip').map(({ under }) => under)).toEqual([null]);
});
