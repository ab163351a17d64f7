import { describe, expect, test } from '@jest/globals';
import { emptyScope } from '@yperkine/core';
import {
  curveOf,
  type AgreementResult,
  type DataResult,
  type DifferenceQuotientResult,
  type EntryOf,
} from '@yperkine/demonstration';
import { faultOfRow, readPieces, withTypedVariable, writePieces } from '../src/build/working/pieces.ts';
import { addData, addGiven, addInPieces, functionHead, type DataSettings } from '../src/state/givens.ts';
import { setMoves, setWhole, takeValue } from '../src/state/parameters.ts';
import {
  addAgreement,
  addDerivative,
  addDifferenceQuotient,
  addSecant,
  addStudy,
} from '../src/state/studies.ts';
import { setField } from '../src/state/actions.ts';
import { underTest, withTangent } from './bench.ts';

const settings: DataSettings = {
  name: 'L',
  variable: 't',
  table: 't,level\n0,1\n1,3\n2,n/a\n4,9',
  x: 0,
  y: 1,
  shape: 'broken',
  unit: 'cm',
  xUnit: 'min',
};

describe('a function from data', () => {
  test('comes with the unit of x and a window that shows all of it, in one change', () => {
    const { workbench, result } = underTest();
    expect(addData(workbench, settings, null)).toEqual({ ok: true });
    expect(result<DataResult>('data').points).toHaveLength(3);
    const { xUnit, x } = workbench.state.document;
    expect(xUnit).toBe('min');
    expect([x.from <= 0, x.to >= 4, x.to < 10]).toEqual([true, true, true]);
    workbench.undo();
    expect(workbench.state.document).toMatchObject({ xUnit: '', entries: {} });
  });

  test('new rows replace the old ones under everything that stands on them', () => {
    const { workbench, idOf, result, all } = underTest();
    addData(workbench, settings, null);
    addStudy(workbench, 'tangent', idOf('data'), 0.5);
    const id = idOf('data');
    expect(addData(workbench, { ...settings, table: '0,0\n4,8' }, id)).toEqual({ ok: true });
    expect([idOf('data'), all('tangent')[0]?.on]).toEqual([id, id]);
    expect(result<DataResult>('data').points).toHaveLength(2);
    workbench.undo();
    expect(result<DataResult>('data').points).toHaveLength(3);
  });

  test('a name that is taken is refused, its own is not', () => {
    const { workbench, idOf } = underTest();
    addData(workbench, settings, null);
    expect(addData(workbench, settings, null)).toEqual({
      ok: false,
      message: '“L” is already taken; please choose another name.',
    });
    expect(addData(workbench, settings, idOf('data'))).toEqual({ ok: true });
  });
});

describe('the name and variable of a function that is not a formula', () => {
  test.each([
    ['f', 'x', { name: 'f', variable: 'x' }],
    ['f1', 't', { name: 'f_1', variable: 't' }],
    ['sin', 'x', '“sin” already has a meaning; please choose another name.'],
    ['f', 'e', '“e” already has a meaning; please choose another variable.'],
    ['x', 'x', 'Name and variable must differ.'],
    ['', 'x', expect.stringContaining('a letter')],
    ['f g', 'x', expect.stringContaining('a letter')],
    ['f', '2', expect.stringContaining('a letter')],
  ])('%j of %j', (name, variable, expected) => expect(functionHead(name, variable)).toEqual(expected));

  test('are those that formulas find', () => {
    const { workbench, all } = underTest();
    addData(workbench, { ...settings, name: 'L1' }, null);
    expect(all('data')[0]?.name).toBe('L_1');
    expect(addGiven(workbench, 'L1(2)')).toEqual({ ok: true });
    expect(addGiven(workbench, 'q1(x) through (0, 1), (2, 3)')).toEqual({ ok: true });
    expect(addGiven(workbench, 'q1(1)')).toEqual({ ok: true });
    expect(addGiven(workbench, 'sin(x) through (0, 1), (2, 3)')).toMatchObject({
      ok: false,
      message: '“sin” already has a meaning; please choose another name.',
    });
  });
});

describe('a function in pieces', () => {
  test('begins with two pieces that meet in the window, open to be changed', () => {
    const { workbench, idOf } = underTest();
    addInPieces(workbench);
    const id = idOf('function');
    expect(workbench.state.open).toBe(id);
    expect(curveOf(workbench.current(), id)?.body.kind).toBe('piecewise');
    const reading = readPieces(
      (workbench.state.document.entries[id] as EntryOf<'function'>).text,
      emptyScope,
    );
    expect(reading?.rows).toEqual([
      { value: 'x', condition: 'x < 1' },
      { value: '2 - x', condition: '' },
    ]);
  });

  test.each([
    'f(x) = x^2',
    'f(x) = x^2 if x < 1; 3 - x otherwise',
    'f(x) = x^2 if x < 1; 3 if 1 ≤ x < 2 or x > 7; sin(x) otherwise',
    'h(t) = t(12 - t)/5 for 0 ≤ t ≤ 12',
    'f(x) = 1/x if not x = 0; 0 otherwise',
  ])('%s comes back the same through its rows', (text) => {
    const reading = readPieces(text, emptyScope);
    if (!reading) throw new Error(text);
    const again = readPieces(writePieces(reading.head, reading.rows), emptyScope);
    expect(again).toEqual(reading);
  });

  test.each([
    [{ value: 'x +', condition: '' }, true, 'Something is missing after “+”.'],
    [{ value: 'x', condition: 'x <' }, true, 'Something is missing after “<”.'],
    [
      { value: 'x', condition: '' },
      false,
      'Only the last piece may hold otherwise; say where this one holds, such as x < 2.',
    ],
    [{ value: 'x', condition: '' }, true, null],
    [{ value: 'x', condition: 'x < 1' }, false, null],
  ])('the row %j, last: %s', (row, isLast, message) =>
    expect(faultOfRow(row, isLast, 'x', emptyScope)).toBe(message),
  );
});

describe('pieces in a letter of their own', () => {
  const scope = { ...emptyScope, names: new Set(['a']) };
  const rows = (...texts: [string, string][]) => texts.map(([value, condition]) => ({ value, condition }));

  test('become a function of what is typed', () => {
    expect(withTypedVariable(rows(['x^2', 't < 2'], ['a x', '']), 'x', scope)).toEqual({
      variable: 't',
      rows: rows(['t^2', 't < 2'], ['a t', '']),
    });
    expect(withTypedVariable(rows(['t1^2', 'x < 2'], ['1', '']), 'x', scope)).toEqual({
      variable: 't_1',
      rows: rows(['t1^2', 't_1 < 2'], ['1', '']),
    });
    expect(withTypedVariable(rows(['3t', 'x < 2 or x = a'], ['1', '']), 'x', scope)?.rows).toEqual(
      rows(['3t', 't < 2 or t = a'], ['1', '']),
    );
  });

  test.each([
    ['nothing unknown', rows(['x^2', 'x < a'], ['1', ''])],
    ['two letters', rows(['t^2', 's < 2'], ['1', ''])],
    ['both in one field', rows(['x + t', 'x < 2'], ['1', ''])],
    ['both in one field, with a number', rows(['x + t1', 'x < 2'], ['1', ''])],
    ['a word', rows(['x', 'time < 2'], ['1', ''])],
    ['what cannot be read', rows(['x +', 'x < 2'], ['1', ''])],
    ['a letter with a meaning', rows(['x', 'e < 2'], ['1', ''])],
  ])('stay as they are with %s', (_name, list) => {
    expect(withTypedVariable(list, 'x', scope)).toBeNull();
  });
});

describe('a slider of whole numbers', () => {
  test('gets whole limits, a whole step and a whole value, in one change', () => {
    const { workbench, idOf, all } = underTest();
    addGiven(workbench, 'n = 2.6');
    setField(workbench, idOf('parameter'), 'from', '-1.5');
    setWhole(workbench, idOf('parameter'), true);
    expect(all('parameter')[0]).toMatchObject({ whole: true, value: '3', from: '-2', step: '1' });
    workbench.undo();
    expect(all('parameter')[0]).toMatchObject({ whole: false, value: '2.6', from: '-1.5', step: '0.1' });
  });
});

describe('a value that a study offers', () => {
  test('becomes that of the slider, whose limits go with it, in one change', () => {
    const { workbench, idOf, all } = underTest();
    addGiven(workbench, 'k = 1');
    setField(workbench, idOf('parameter'), 'to', '2');
    takeValue(workbench, 'k', '4/3');
    expect(all('parameter')[0]).toMatchObject({ value: '4/3', from: '-5', to: '2' });
    takeValue(workbench, 'k', '-22/3');
    expect(all('parameter')[0]).toMatchObject({ value: '-22/3', from: '-8' });
    takeValue(workbench, 'k', '7');
    expect(all('parameter')[0]).toMatchObject({ value: '7', to: '7' });
    workbench.undo();
    expect(all('parameter')[0]).toMatchObject({ value: '1', from: '-5', to: '2' });
  });

  test('is refused in a sentence where the name is no slider', () => {
    const { workbench } = underTest();
    addGiven(workbench, 'f(x) = x');
    takeValue(workbench, 'f', '3');
    expect(workbench.state.notice?.text).toBe('f is no slider, so it keeps its value.');
  });
});

describe('a place without a slider', () => {
  test('keeps what is shown when its slider goes', () => {
    const { workbench, idOf, all } = withTangent();
    const place = idOf('parameter');
    workbench.show(place, '1.25');
    setMoves(workbench, place, 'free');
    expect(all('parameter')[0]).toMatchObject({ moves: 'free', value: '1.25' });
    setMoves(workbench, place, 'fixed');
    expect(all('parameter')[0]).toMatchObject({ moves: 'fixed', value: '1.25' });
  });
});

describe('the numerical derivative', () => {
  test('is drawn with the true one and shares the step of the secants', () => {
    const { workbench, idOf, all, result } = underTest();
    addGiven(workbench, 'f(x) = x^2');
    addSecant(workbench, idOf('function'), 1);
    addDerivative(workbench, idOf('function'));
    addDifferenceQuotient(workbench, idOf('function'));
    expect(all('differenceQuotient')[0]?.step).toBe(all('secant')[0]?.step);
    expect(all('differenceQuotient')[0]?.tier).toBe(all('derivative')[0]?.tier);
    expect(result<DifferenceQuotientResult>('differenceQuotient').name).toBe('q');
  });

  test('comes with a step and a tier of its own where there is none', () => {
    const { workbench, idOf, all } = underTest();
    addGiven(workbench, 'f(x) = x^2');
    addDifferenceQuotient(workbench, idOf('function'));
    const [quotient] = all('differenceQuotient');
    expect(all('parameter')).toHaveLength(1);
    expect(Object.keys(workbench.state.document.tiers)).toContain(quotient?.tier);
    workbench.undo();
    expect(Object.keys(workbench.state.document.tiers)).toHaveLength(1);
  });
});

describe('where two functions agree', () => {
  test('the one on the same tier is meant first; alone, a function is told to need a second', () => {
    const { workbench, idOf, all, result } = underTest();
    addGiven(workbench, 'f(x) = x^2');
    addAgreement(workbench, idOf('function'));
    expect(all('agreement')).toHaveLength(0);
    expect(workbench.state.notice?.text).toContain('type a second one');
    addGiven(workbench, 'g(x) = x');
    addDerivative(workbench, idOf('function'));
    addAgreement(workbench, idOf('function'));
    expect(result<AgreementResult>('agreement').other.name).toBe('g');
    expect(result<AgreementResult>('agreement').found.solutions.map(({ value }) => value)).toEqual([0, 1]);
  });
});

describe('a window that follows h', () => {
  function following() {
    const bench = underTest();
    addGiven(bench.workbench, 'f(x) = x^2');
    addSecant(bench.workbench, bench.idOf('function'), 1);
    const step = bench.all('secant')[0]?.step ?? '';
    setField(bench.workbench, bench.idOf('secant'), 'windowFollows', true);
    const width = () => {
      const { x } = bench.workbench.state.stage;
      return x && x.to - x.from;
    };
    return { ...bench, step, width };
  }

  test('is shown, never stored, and gone when it is no longer asked for', () => {
    const { workbench, frame, step, width, idOf } = following();
    const stored = workbench.state.document.x;
    workbench.setValue(step, '0.1');
    frame();
    expect(width()).toBeCloseTo(0.1 / 0.35, 9);
    workbench.showWindows({ from: -1, to: 1 }, {});
    workbench.settleWindows();
    frame();
    expect(width()).toBeCloseTo(0.1 / 0.35, 9);
    expect(workbench.state.document.x).toBe(stored);
    setField(workbench, idOf('secant'), 'windowFollows', false);
    frame();
    expect(width()).toBeNull();
  });

  test('a tier that does not follow is panned and stored as ever', () => {
    const { workbench, frame, step, width, idOf } = following();
    addDerivative(workbench, idOf('function'));
    workbench.setValue(step, '0.1');
    frame();
    const [slope] = Object.keys(workbench.state.document.tiers).filter((id) => id !== 'tier-f');
    const wanted = { from: -1, to: 1 };
    workbench.showWindows({ from: 3, to: 4 }, { 'tier-f': { from: 7, to: 8 }, [slope ?? '']: wanted });
    frame();
    expect(workbench.state.stage.y['tier-f']).not.toEqual({ from: 7, to: 8 });
    workbench.settleWindows();
    frame();
    expect(workbench.state.document.tiers[slope ?? '']?.y).toEqual(wanted);
    expect(workbench.state.document.tiers['tier-f']?.y).not.toEqual({ from: 7, to: 8 });
    expect(width()).toBeCloseTo(0.1 / 0.35, 9);
  });

  test('a frame without a change sets nothing', () => {
    const { workbench, frame, step, isAsked } = following();
    workbench.setValue(step, '0.1');
    for (let i = 0; i < 4; i++) frame();
    expect(isAsked()).toBe(false);
  });
});

describe('a bare formula', () => {
  test.each([
    ['3 + 4', 7],
    ['lim[x → 0] sin(x)/x', 1],
    ['lim_{x→0} sin(x)/x', 1],
    ['sum i from 1 to 4 of 1/i', 25 / 12],
    ['∑[k = 1, 3] k', 6],
    ['∑_{k=1}^3 2^10', 3072],
    ['∏_{k=1}^4 k', 24],
    ['∫[0, 2] x^2 dx', 8 / 3],
    ['∫_0^1 x^10 dx', 1 / 11],
    ['sqrt(2)', Math.SQRT2],
    ['binomial(5, 2)', 10],
    ['10%', 0.1],
    ['7 mod 3', 1],
  ])('%s is a value', (text, value) => {
    const { workbench, all, result } = underTest();
    expect(addGiven(workbench, text)).toEqual({ ok: true });
    expect([all('value').length, all('function').length]).toEqual([1, 0]);
    expect(result<{ value: { value: number } }>('value').value.value).toBe(value);
  });

  test.each([
    ['f: x ↦ x²', 'function'],
    ['h(x) := x² − 1', 'function'],
    ['h(x) = 1/x, x ≠ 0', 'function'],
    ['h(x) = { x², x < 0; 2x, x ≥ 0', 'function'],
    ['b := 3', 'parameter'],
    ['$q(x) = x^2$', 'function'],
    ['c := 3 + 4', 'value'],
  ] as const)('%s is a %s', (text, kind) => {
    const { workbench, all } = underTest();
    expect(addGiven(workbench, text)).toEqual({ ok: true });
    expect(all(kind)).toHaveLength(1);
  });

  test.each(['x^2', '5', 'x'])('%s is a function', (text) => {
    const { workbench, all } = underTest();
    expect(addGiven(workbench, text)).toEqual({ ok: true });
    expect([all('value').length, all('function').length]).toEqual([0, 1]);
  });
});
