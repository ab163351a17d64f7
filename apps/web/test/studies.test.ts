import { describe, expect, test } from '@jest/globals';
import {
  type GivenDerivativeResult,
  type SecantResult,
  type SlopeEqualsResult,
  type TangentResult,
  type ThroughPointsResult,
  type ValueTableResult,
} from '@yperkine/demonstration';
import { nameResult, removeEntry, setField } from '../src/state/actions.ts';
import { addGiven, addThroughPoints } from '../src/state/givens.ts';
import {
  addDerivative,
  addSecant,
  addSlopeEquals,
  addStudy,
  addValueTable,
  closeUp,
  setStep,
  stepOf,
} from '../src/state/studies.ts';
import { isInOwnTier, moveToTier, otherTiers } from '../src/state/tiers.ts';
import { underTest, withTangent } from './bench.ts';

function withSecant() {
  const bench = underTest();
  addGiven(bench.workbench, 'f(x) = x^2');
  addSecant(bench.workbench, bench.idOf('function'), 1);
  const step = stepOf(bench.workbench, bench.idOf('function')) ?? '';
  const slope = () => bench.result<SecantResult>('secant').secant.slope;
  return { ...bench, step, slope };
}

describe('a secant', () => {
  test('comes with its place and its step, in one change', () => {
    const { workbench, all, step } = withSecant();
    expect(all('parameter').map(({ name }) => name)).toEqual(['a', 'h']);
    expect(all('secant')).toMatchObject([{ step }]);
    workbench.undo();
    expect(Object.values(workbench.state.document.entries).map(({ kind }) => kind)).toEqual(['function']);
  });

  test('a second one shares the step of the first; another curve gets its own', () => {
    const { workbench, idOf, all, step } = withSecant();
    addSecant(workbench, idOf('function'), 2);
    expect(all('secant').map((secant) => secant.step)).toEqual([step, step]);
    addGiven(workbench, 'g(x) = x^3');
    const g = Object.entries(workbench.state.document.entries).find(
      ([, entry]) => entry.kind === 'function' && entry.text.startsWith('g'),
    )?.[0];
    addSecant(workbench, g ?? '', 1);
    expect(all('parameter').map(({ name }) => name)).toContain('k');
  });

  test('has the slope ((1 + h)² − 1)/h = 2 + h, also for a step beyond the slider, which grows', () => {
    const { workbench, step, slope } = withSecant();
    setStep(workbench, step, '0.1');
    expect(slope()).toBeCloseTo(2.1, 12);
    setStep(workbench, step, '50');
    expect(slope()).toBeCloseTo(52, 12);
    expect(workbench.state.document.entries[step]).toMatchObject({ to: '50', value: '50' });
    workbench.undo();
    expect(slope()).toBeCloseTo(2.1, 12);
  });

  test('closes up to 0.001 and no further, slower and slower, and the document stays as it was', () => {
    const { workbench, frame, step, slope } = withSecant();
    setStep(workbench, step, '1');
    const before = workbench.state.document;
    closeUp(workbench, step);
    frame();
    const seen = Array.from({ length: 70 }, () => {
      frame(100);
      return slope() - 2;
    });
    expect(seen.at(-1)).toBeCloseTo(0.001, 9);
    const falls = seen.slice(1).map((h, i) => (seen[i] ?? 0) - h);
    expect(falls.every((fall) => fall >= -1e-12)).toBe(true);
    expect(falls[0]).toBeGreaterThan((falls[20] ?? 0) * 2);
    expect(workbench.state.document).toEqual(before);
  });

  test('going, it takes its step and its place along; a tangent at the place keeps the place', () => {
    const alone = withSecant();
    removeEntry(alone.workbench, alone.idOf('secant'));
    expect(alone.all('parameter')).toEqual([]);
    const shared = withSecant();
    addStudy(shared.workbench, 'tangent', shared.idOf('function'));
    removeEntry(shared.workbench, shared.idOf('secant'));
    expect(shared.all('parameter').map(({ name }) => name)).toEqual(['a']);
  });
});

describe('where the slope is k', () => {
  test('looks over the window that is shown, and again when the slope is changed', () => {
    const { workbench, idOf, result } = underTest();
    addGiven(workbench, 'f(x) = x^3/3 - x');
    addSlopeEquals(workbench, idOf('function'));
    // f′ = x² − 1: zero at ±1, three at ±2, below −1 nowhere.
    const places = () => result<SlopeEqualsResult>('slopeEquals').found.solutions.map(({ value }) => value);
    setField(workbench, idOf('slopeEquals'), 'from', '-4');
    setField(workbench, idOf('slopeEquals'), 'to', '4');
    setField(workbench, idOf('slopeEquals'), 'level', '0');
    expect(places()).toEqual([-1, 1]);
    setField(workbench, idOf('slopeEquals'), 'level', '3');
    expect(places()).toEqual([-2, 2]);
    setField(workbench, idOf('slopeEquals'), 'level', '-2');
    expect(places()).toEqual([]);
  });
});

describe('a table of values', () => {
  test('has round steps, about ten rows, and the columns of f, its slope and its bend', () => {
    const { workbench, idOf, all, result } = underTest();
    addGiven(workbench, 'f(x) = x^2');
    addValueTable(workbench, idOf('function'));
    const [table] = all('valueTable');
    expect(table?.columns).toBe("f(x); f'(x); f''(x)");
    const { xs } = result<ValueTableResult>('valueTable');
    expect(xs.length).toBeGreaterThanOrEqual(5);
    expect(xs.length).toBeLessThanOrEqual(25);
    expect(Number(table?.from) % Number(table?.step)).toBeCloseTo(0, 12);
  });

  test('a table of f′ begins one derivative further', () => {
    const { workbench, idOf, all } = underTest();
    addGiven(workbench, 'f(x) = x^2');
    addDerivative(workbench, idOf('function'));
    addValueTable(workbench, idOf('derivative'));
    expect(all('valueTable')[0]?.columns).toBe("f'(x); f''(x); f'''(x)");
  });
});

describe('the derivative in the tier of its function', () => {
  test('takes its own tier away with it, and gets one again', () => {
    const { workbench, idOf } = withTangent();
    addDerivative(workbench, idOf('function'));
    const tiers = () => Object.keys(workbench.state.document.tiers).length;
    expect([isInOwnTier(workbench, idOf('derivative')), tiers()]).toEqual([true, 2]);
    moveToTier(workbench, idOf('derivative'), 'tier-f');
    expect([isInOwnTier(workbench, idOf('derivative')), tiers()]).toEqual([false, 1]);
    moveToTier(workbench, idOf('derivative'));
    expect([isInOwnTier(workbench, idOf('derivative')), tiers()]).toEqual([true, 2]);
    workbench.undo();
    workbench.undo();
    expect([isInOwnTier(workbench, idOf('derivative')), tiers()]).toEqual([true, 2]);
  });

  test('any function may be laid on any tier: one worked out by hand over the computed one', () => {
    const { workbench, idOf } = underTest();
    addGiven(workbench, 'f(x) = x^3');
    addDerivative(workbench, idOf('function'));
    addGiven(workbench, 'g(x) = 3x^2');
    const { entries } = workbench.state.document;
    const hand = Object.keys(entries).find((id) => {
      const entry = entries[id];
      return entry?.kind === 'function' && entry.text.startsWith('g');
    });
    expect(otherTiers(workbench, hand ?? '').map(({ name }) => name)).toEqual(['f′']);
    const [slope] = otherTiers(workbench, hand ?? '');
    moveToTier(workbench, hand ?? '', slope?.id);
    expect(workbench.state.document.entries[hand ?? '']).toMatchObject({ tier: slope?.id });
    expect(isInOwnTier(workbench, idOf('derivative'))).toBe(false);
  });

  test('a tier that another curve is drawn in stays', () => {
    const { workbench, idOf } = withTangent();
    addDerivative(workbench, idOf('function'));
    addGiven(workbench, 'g(x) = x');
    const tier = workbench.state.document.entries[idOf('derivative')];
    const g = Object.entries(workbench.state.document.entries).find(
      ([, entry]) => entry.kind === 'function' && entry.text.startsWith('g'),
    )?.[0];
    setField(workbench, g ?? '', 'tier', tier?.kind === 'derivative' ? tier.tier : '');
    moveToTier(workbench, idOf('derivative'), 'tier-f');
    expect(Object.keys(workbench.state.document.tiers)).toHaveLength(2);
  });
});

describe('functions given otherwise', () => {
  test('through points: typed, or from the chooser with the next letter and four points in the window', () => {
    const { workbench, all, result } = underTest();
    expect(addGiven(workbench, 'p(t) through (0, 1), (2, 3)')).toEqual({ ok: true });
    expect(all('throughPoints')).toMatchObject([
      { name: 'p', variable: 't', points: '(0, 1), (2, 3)', family: 0 },
    ]);
    expect(result<ThroughPointsResult>('throughPoints').points).toHaveLength(2);
    addThroughPoints(workbench);
    expect(all('throughPoints')[1]).toMatchObject({ name: 'f', variable: 't', family: 1 });
    expect(all('throughPoints')[1]?.points.split('), (')).toHaveLength(4);
  });

  test('each kind of given curve takes the next colour', () => {
    const { workbench, all } = underTest();
    addGiven(workbench, "f''(x) = 6x");
    addGiven(workbench, 'g(x) = x');
    addGiven(workbench, 'p(x) through (0, 1), (2, 3)');
    expect(
      [...all('givenDerivative'), ...all('function'), ...all('throughPoints')].map(({ family }) => family),
    ).toEqual([0, 1, 2]);
  });

  test('only the first one sets the window', () => {
    const { workbench } = underTest();
    addGiven(workbench, "f''(x) = 6x");
    const { x, tiers } = workbench.state.document;
    addGiven(workbench, 'p(x) through (0, 1), (2000, 3)');
    expect(workbench.state.document.x).toBe(x);
    expect(workbench.state.document.tiers).toBe(tiers);
  });

  test.each([
    ['f(x) through (0, 1), (2, 3)', '“f” is already taken; please choose another name.'],
    ["f''(x) = 6x", '“f” is already taken; please choose another name.'],
    ["p''(x) = 6x +", 'Something is missing after “+”.'],
    ['p(x) through (0, 1), (2', /^./],
  ])('%s, where there is an f, changes nothing and says why', (typed, message) => {
    const { workbench } = withTangent();
    const before = workbench.state.document;
    const expected = typeof message === 'string' ? message : expect.stringMatching(message);
    expect(addGiven(workbench, typed)).toMatchObject({ ok: false, message: expected });
    expect(workbench.state.document).toBe(before);
  });

  test('a derivative alone has a slope to look at, and with start values a function to use', () => {
    const { workbench, idOf, result } = underTest();
    addGiven(workbench, "f''(x) = 6x");
    expect(result<GivenDerivativeResult>('givenDerivative').order).toBe(2);
    expect(addGiven(workbench, 'f(2)')).toMatchObject({ ok: false });
    setField(workbench, idOf('givenDerivative'), 'startAt', '1');
    setField(workbench, idOf('givenDerivative'), 'startValues', '2; 4');
    expect(addGiven(workbench, 'f(2)')).toEqual({ ok: true });
  });

  test('removing a function through points takes its tangent and its slider along', () => {
    const { workbench, idOf, result } = underTest();
    addThroughPoints(workbench, 'f', 'x', '(0, 0), (4, 8)');
    addStudy(workbench, 'tangent', idOf('throughPoints'), 1);
    expect(result<TangentResult>('tangent').at.setting).toBe('1');
    removeEntry(workbench, idOf('throughPoints'));
    expect(workbench.state.document.entries).toEqual({});
  });
});

describe('naming a result', () => {
  test('gives it to formulas, takes it away again, and refuses what is no name', () => {
    const { workbench, idOf, all } = withTangent();
    const tangent = idOf('tangent');
    expect(nameResult(workbench, tangent, 'slope', 'm1')).toBeNull();
    expect(all('tangent')[0]?.names).toEqual({ slope: 'm_1' });
    expect(addGiven(workbench, 'b = 2m1')).toEqual({ ok: true });
    expect(nameResult(workbench, tangent, 'intercept', 'm_1')).toContain('already taken');
    expect(nameResult(workbench, tangent, 'slope', 'm_1')).toBeNull();
    expect(nameResult(workbench, tangent, 'slope', 'sin')).toContain('already has a meaning');
    expect(nameResult(workbench, tangent, 'slope', '2 + 3')).toContain('A name is a letter');
    expect(all('tangent')[0]?.names).toEqual({ slope: 'm_1' });
    expect(nameResult(workbench, tangent, 'slope', '')).toBeNull();
    expect(all('tangent')[0]?.names).toEqual({});
  });
});
