import { describe, expect, test } from '@jest/globals';
import {
  emptyStage,
  entryKinds,
  makeEntry,
  plainText,
  resolve,
  type Document,
  type Entry,
  type MarkerResult,
  type NoteResult,
  type StatementResult,
  type TrialsResult,
} from '../src/index.ts';
import { documentWith, given, outcomeOf, resultOf, sceneOf, slider, linesOf } from './sample.ts';

const withEntry = (entry: Entry, more: Document['entries'] = {}): Document =>
  documentWith({
    f: given(1, 'f(x) = x^2/4'),
    a: slider(2, 'a', '3'),
    t: makeEntry('tangent', { order: 3, on: 'f', parameter: 'a' }),
    ...more,
    own: entry,
  });
const note = (text: string, more: object = {}) => withEntry(makeEntry('note', { order: 9, text, ...more }));
const said = (document: Document): string[] =>
  resultOf<NoteResult>(document, 'own').lines.map((line) => plainText(line));

describe('a note', () => {
  test('has live values, rounded as everywhere or by its own places', () => {
    expect(said(note('At {a} the height is {f(a)}.'))).toEqual(['At 3.000 the height is 2.250.']);
    expect(said(note('{f(a)} and {f(1/3)}', { decimals: 1 }))).toEqual(['2.3 and 2.8·10⁻²']);
    expect(said(note("slope {f'(a)}", { decimals: 5 }))).toEqual(['slope 1.50000']);
  });

  test('its values follow the slider', () => {
    const stage = { ...emptyStage, values: { a: 4 } };
    const { lines } = resultOf<NoteResult>(note('{f(a)}'), 'own', stage);
    expect(lines.map((line) => plainText(line))).toEqual(['4.000']);
  });

  test('shows a whole definition by reference: of a function, a slider, never of nothing', () => {
    expect(said(note('{definition of f}'))).toEqual(['f(x) = \\frac{x^{2}}{4}']);
    expect(said(note('{definition of a}'))).toEqual(['a = 3.000']);
    const { fault } = resultOf<NoteResult>(note('{definition of g}'), 'own');
    expect(fault?.problem.message).toBe('There is nothing called “g” to show the definition of.');
  });

  test('the definition is that of this moment', () => {
    const document = note('{definition of f}');
    const changed = { ...document, entries: { ...document.entries, f: given(1, 'f(x) = 7x') } };
    expect(said(changed)).toEqual(['f(x) = 7x']);
  });

  test('a value that cannot be worked out is told by its text; everything else stays', () => {
    const document = note('{a} and {2 +} and {f(a)}');
    expect(said(document)).toEqual(['3.000 and … and 2.250']);
    const { fault } = resultOf<NoteResult>(document, 'own');
    expect(fault?.text).toBe('2 +');
    expect(fault?.problem.message).toMatch(/\.$/);
  });

  test('a new line is a new paragraph', () => {
    expect(said(note('one\n\nthree'))).toEqual(['one', '', 'three']);
  });
});

describe('a statement on the graph', () => {
  const statement = (line: number | null) => withEntry(makeEntry('statement', { order: 9, of: 't', line }));
  test('says a line or the sentence of its entry, live', () => {
    const { lines } = resultOf<StatementResult>(statement(1), 'own');
    expect(lines.map((line) => plainText(line))).toEqual(['y = 1.5x − 2.25']);
    const { sentence } = resultOf<StatementResult>(statement(null), 'own');
    expect(sentence).toBe('At x = 3, f is rising by 1.500 for each unit of x.');
    const moved = resultOf<StatementResult>(statement(0), 'own', { ...emptyStage, values: { a: '1' } });
    expect(plainText(moved.lines[0] ?? [])).toContain('0.500');
  });
  test('a line that is no longer said is told, and without its entry it goes', () => {
    expect(outcomeOf(statement(7), 'own')).toMatchObject({
      result: { lines: [], sentence: 'Its entry no longer says this.' },
    });
    expect(entryKinds.statement.standsOn(statement(0).entries.own as never)).toEqual(['t']);
  });
});

describe('a large number', () => {
  const readout = (text: string) => withEntry(makeEntry('readout', { order: 9, text }));
  test('is the value of a formula with its unit', () => {
    const document = readout('f(a)');
    const metres = { ...document.entries.f, unit: 'm' } as Entry;
    const inMetres = { ...document, entries: { ...document.entries, f: metres } };
    expect(linesOf(inMetres, 'own')[0]).toContain('2.250 m');
  });
  test('stands after an equals sign only where it is the number itself', () => {
    expect(linesOf(readout('f(a)'), 'own')[0]).toContain(' = 2.25');
    expect(linesOf(readout('f(1/3)'), 'own')[0]).toContain(' ≈ ');
  });
  test('a formula that cannot be read is told', () => {
    expect(outcomeOf(readout('f(b)'), 'own')).toMatchObject({ ok: false, problem: { missingName: 'b' } });
  });
});

describe('a marker', () => {
  const marker = (x: string, y: string) => withEntry(makeEntry('marker', { order: 9, x, y, tier: 'tier-f' }));
  test('stands where its two formulas say, on its own tier alone', () => {
    const document = marker('a + 1', 'f(a + 1)');
    expect(resultOf<MarkerResult>(document, 'own')).toMatchObject({ x: { value: 4 }, y: { value: 4 } });
    const dots = sceneOf(document).tiers.map(
      ({ marks }) => marks.filter((mark) => mark.kind === 'dot' && mark.entry === 'own').length,
    );
    expect(dots).toEqual([1, 0]);
  });
  test('without a place it is not drawn, and says so', () => {
    const document = marker('a', 'sqrt(-a)');
    expect(resultOf<MarkerResult>(document, 'own').sentence).toBe('The marker has no place just now.');
    expect(sceneOf(document).tiers[0]?.marks.some((mark) => mark.kind === 'dot')).toBe(false);
  });
});

describe('a table of trials', () => {
  const trials = (rows: string[][], more: object = {}) =>
    withEntry(makeEntry('trials', { order: 9, columns: "a; f(a); f'(a)", rows, tier: 'tier-f', ...more }));
  test('says what a row would be now, in exact digits', () => {
    expect(resultOf<TrialsResult>(trials([]), 'own').now).toEqual(['3', '2.25', '1.5']);
    const third = { ...emptyStage, values: { a: '1/3' } };
    expect(outcomeOf(trials([]), 'a', third)).toBeDefined();
    const moving = resultOf<TrialsResult>(trials([]), 'own', { ...emptyStage, values: { a: 0.1 } });
    expect(moving.now[1]).toBe('0.0025');
  });
  test('shows the rows by the rounding rule; what had no value is a dash', () => {
    const { table } = resultOf<TrialsResult>(trials([['1', '0.25', ''], ['2']]), 'own');
    expect(table?.head).toEqual(['trial', 'a', 'f(a)', "f'(a)"]);
    expect(table?.rows.map(({ cells }) => cells)).toEqual([
      ['1', '1.000', '0.250', '–'],
      ['2', '2.000', '–', '–'],
    ]);
  });
  test('draws two columns against each other', () => {
    const plotted = trials(
      [
        ['1', '0.25', ''],
        ['2', '1', '1'],
        ['3', '', ''],
      ],
      {
        plot: { across: 0, up: 1 },
      },
    );
    const { tiers } = sceneOf(plotted);
    const dots = tiers[0]?.marks.find((mark) => mark.kind === 'dots');
    const view = tiers[0]?.view;
    expect(dots).toMatchObject({ points: [view?.toX(1), view?.toY(0.25), view?.toX(2), view?.toY(1)] });
    expect(tiers[1]?.marks.some((mark) => mark.kind === 'dots')).toBe(false);
  });
  test('an unknown name in a column is told', () => {
    const document = withEntry(makeEntry('trials', { order: 9, columns: 'k', tier: 'tier-f' }));
    expect(outcomeOf(document, 'own')).toMatchObject({ ok: false, problem: { missingName: 'k' } });
  });
});

test('texts are worked out again only when what they mention changed', () => {
  const document = withEntry(makeEntry('note', { order: 9, text: 'value {f(2)}' }));
  const first = resolve(document, emptyStage);
  const moved = resolve(document, { ...emptyStage, values: { a: '1' } }, first);
  expect(moved.workedOut).toContain('t');
  expect(moved.workedOut).not.toContain('own');
});
