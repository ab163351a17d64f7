import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  bare,
  emptyDocument,
  emptyStage,
  isSameUnit,
  makeEntry,
  per,
  plainText,
  readUnit,
  resolve,
  times,
  unitText,
  withUnit,
  type Document,
  type Said,
  type Unit,
} from '../src/index.ts';
import { slider, toldIn } from './sample.ts';

describe('units of measurement', () => {
  test.each([
    ['m', 'm'],
    ['m/s', 'm/s'],
    ['m/s^2', 'm/s²'],
    ['m s⁻²', 'm/s²'],
    ['m/s/s', 'm/s²'],
    ['kg·m/s²', 'kg·m/s²'],
    ['kg*m/s^2', 'kg·m/s²'],
    ['L per min', 'L/min'],
    ['1/min', '1/min'],
    ['J/(kg·K)', 'J/(kg·K)'],
    ['°C', '°C'],
    ['cm^3', 'cm³'],
    ['', ''],
    ['fish & chips', 'fish & chips'],
    ['m//s', 'm//s'],
  ])('%s is printed %s', (typed, printed) => expect(unitText(readUnit(typed))).toBe(printed));

  test('units travel through slopes and areas, and come back', () => {
    const [flow, time] = [readUnit('L/min'), readUnit('min')];
    expect(unitText(per(flow, time))).toBe('L/min²');
    expect(unitText(per(flow, time, 2))).toBe('L/min³');
    expect(unitText(times(flow, time))).toBe('L');
    expect(unitText(per(time, time))).toBe('');
    expect(withUnit('2.500', per(flow, time))).toBe('2.500 L/min²');
    expect(withUnit('2.500', bare)).toBe('2.500');
  });

  test('a law: what is printed is read as the same unit (seed 20261125)', () => {
    const units = fc
      .uniqueArray(fc.tuple(fc.constantFrom('m', 's', 'kg', 'K', '°C'), fc.integer({ min: -9, max: 9 })), {
        selector: ([symbol]) => symbol,
      })
      .map((pairs) => new Map(pairs.filter(([, exponent]) => exponent !== 0)));
    fc.assert(
      fc.property(units, units, (a, b) => {
        expect(isSameUnit(readUnit(unitText(a)), a)).toBe(true);
        expect(isSameUnit(per(times(a, b), b), a)).toBe(true);
      }),
      { seed: 20261125 },
    );
  });
});

describe('units of formulas', () => {
  const documentWith = (value: string): Document => ({
    ...emptyDocument(),
    xUnit: 'min',
    entries: {
      flow: makeEntry('function', { order: 1, text: 'V(t) = 2t + 1', tier: 'tier-f', unit: 'L/min' }),
      level: makeEntry('function', { order: 2, text: 'h(t) = t^2', tier: 'tier-f', unit: 'cm' }),
      bare: makeEntry('function', { order: 3, text: 'u(t) = t', tier: 'tier-f' }),
      a: slider(4, 'a', '2', { unit: 'cm' }),
      value: makeEntry('value', { order: 5, text: value }),
    },
  });
  const valueOf = (text: string) => {
    const outcome = toldIn(resolve(documentWith(text), emptyStage), 'value');
    if (!outcome?.ok) throw new Error(outcome?.problem.message);
    return outcome.result as Said & { unit: Unit };
  };

  test.each([
    ['V(3)', 'L/min'],
    ["V'(3)", 'L/min²'],
    ["h''(1)", 'cm/min²'],
    ['2V(3)', 'L/min'],
    ['-V(3)/4 + 1', 'L/min'],
    ['V(3)h(1)', 'L·cm/min'],
    ['V(3)/h(1)', 'L/(min·cm)'],
    ['h(1)^2', 'cm²'],
    ['a + h(1)', 'cm'],
    ['h(1)/h(2)', ''],
    ['∫_0^2 V(t) dt', 'L'],
    ['abs(h(1) - h(3))', 'cm'],
    ['u(3)', ''],
    ['3 + 4', ''],
    ['sin(h(1))', ''],
  ])('%s is in %s', (text, unit) => expect(unitText(valueOf(text).unit)).toBe(unit));

  test('adding unlike units warns in a sentence and blocks nothing', () => {
    const { sentence, lines } = valueOf('V(3) + h(1)');
    expect(sentence).toBe('This adds L/min and cm, which are not the same kind of quantity.');
    expect(plainText(lines[0] ?? [])).toContain('8');
    expect(valueOf('V(3) + u(1) + 2').sentence).toBe('');
  });

  test('a stated unit stands before what would follow from the formula', () => {
    const document = documentWith('w(3)');
    const entries = {
      ...document.entries,
      w: makeEntry('function', { order: 4.5, text: 'w(t) = 2h(t)', tier: 'tier-f' }),
    };
    const unitOf = (stated: string) => {
      const changed = { ...document, entries: { ...entries, w: { ...entries.w, unit: stated } } };
      const outcome = toldIn(resolve(changed, emptyStage), 'value');
      return outcome?.ok ? unitText((outcome.result as Said & { unit: Unit }).unit) : '';
    };
    expect([unitOf(''), unitOf('dm')]).toEqual(['cm', 'dm']);
  });

  test('slopes of slopes, secants and their sentences carry them', () => {
    const document: Document = {
      ...documentWith('V(0)'),
      entries: {
        ...documentWith('V(0)').entries,
        slope: makeEntry('derivative', { order: 6, of: 'level', tier: 'tier-f' }),
        b: slider(7, 'b', '1'),
        h: slider(8, 'h_1', '1'),
        secant: makeEntry('secant', { order: 9, on: 'level', parameter: 'b', step: 'h' }),
        tangent: makeEntry('tangent', { order: 10, on: 'slope', parameter: 'b' }),
      },
    };
    const resolution = resolve(document, emptyStage);
    const textOf = (id: string) => {
      const outcome = toldIn(resolution, id);
      if (!outcome?.ok) throw new Error(outcome?.problem.message);
      const { lines, sentence } = outcome.result as Said;
      return [plainText(lines[0] ?? []), sentence];
    };
    expect(textOf('secant')[0]).toContain('3.000 cm/min');
    expect(textOf('secant')[1]).toContain('rises at an average of 3.000 cm/min.');
    expect(textOf('tangent')[0]).toContain('2.000 cm/min²');
  });
});
