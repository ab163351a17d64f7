import { describe, expect, test } from '@jest/globals';
import { evaluateAt, rational } from '@yperkine/core';
import {
  emptyDocument,
  emptyStage,
  isTable,
  likelyColumns,
  makeEntry,
  pointsIn,
  readCsv,
  resolve,
  type DataResult,
  type Document,
  type MarkOf,
  type PointResult,
  type TangentResult,
  plainText,
} from '../src/index.ts';
import { resultOf, sceneOf, slider } from './sample.ts';

const asNumbers = (text: string, x?: number, y?: number) => {
  const table = readCsv(text);
  const likely = likelyColumns(table);
  const { points, faults } = pointsIn(table, x ?? likely.x, y ?? likely.y);
  return {
    points: points.map((point) => [rational.toNumber(point.x), rational.toNumber(point.y)]),
    faults: faults.map(({ message }) => message),
  };
};

describe('a table of comma-separated values', () => {
  // RFC 4180, section 2: rules 3 (an optional header line), 5 to 7 (quoted fields, with commas and quotes inside).
  test('is read as the standard says, quoted fields and all', () => {
    const table = readCsv('"time, of day","level ""L"""\r\n0,"1.5"\r\n"2",3\r\n');
    expect(table.columns.map(({ name }) => name)).toEqual(['time, of day', 'level "L"']);
    expect(table.rows).toEqual([
      { number: 2, cells: ['0', '1.5'] },
      { number: 3, cells: ['2', '3'] },
    ]);
  });

  test.each([
    ['commas', '0,1.5\n2,3'],
    ['semicolons and decimal commas', '0;1,5\n2;3'],
    ['decimal commas everywhere', '0,0;1,5\n2,0;3,0'],
    ['commas beside a note with a semicolon', '0,1.5,"a; b"\n2,3,"c; d; e"'],
    ['upright bars', '0|1.5\n2|3'],
    ['tabs, as a spreadsheet copies', '0\t1.5\n2\t3'],
    ['a byte order mark and empty lines', '\ufeff0,1.5\n\n2,3\n\n'],
    ['a true minus, exponents and blanks', ' 0 , 15e-1\n2, +3'],
    ['a heading', 't,level\n0,1.5\n2,3'],
    ['rows out of order', '2,3\n0,1.5'],
  ])('%s', (_what, text) => {
    expect(asNumbers(text)).toEqual({
      points: [
        [0, 1.5],
        [2, 3],
      ],
      faults: [],
    });
  });

  test('units stand in headings in several ways', () => {
    const { columns } = readCsv('time (min),level [cm],flow in L/min,note\n1,2,3,4');
    expect(columns).toEqual([
      { name: 'time', unit: 'min' },
      { name: 'level', unit: 'cm' },
      { name: 'flow', unit: 'L/min' },
      { name: 'note', unit: '' },
    ]);
  });

  test('the columns with numbers are proposed, whatever stands before them', () => {
    expect(likelyColumns(readCsv('place,day,level\nsluice,1,2.5\nsluice,2,2.75'))).toEqual({ x: 1, y: 2 });
  });

  test('bad rows are named with their number and the reason, and the others count', () => {
    const { points, faults } = asNumbers('t,level\n0,1\n1,n/a\n2,\n3,4\n3,5\nx,6\n4,7');
    expect(points).toEqual([
      [0, 1],
      [3, 4],
      [4, 7],
    ]);
    expect(faults).toEqual([
      'Row 3 is left out: “n/a” is not a number.',
      'Row 4 is left out: it has nothing under level.',
      'Row 6 is left out: t = 3 stands in row 5 already.',
      'Row 7 is left out: “x” is not a number.',
    ]);
  });

  test('a heading that is longer than any unit is a name, and columns have an end', () => {
    const long = 'x'.repeat(41);
    expect(readCsv(`time (${long}),level (m)\n0,1`).columns).toEqual([
      { name: `time (${long})`, unit: '' },
      { name: 'level', unit: 'm' },
    ]);
    expect(readCsv(Array.from({ length: 1500 }, (_, i) => i).join()).columns).toHaveLength(1000);
  });

  test('a number that no double holds is left out', () => {
    expect(asNumbers('0,1\n1,1e400\n2,3').faults).toEqual(['Row 2 is left out: “1e400” is not a number.']);
  });

  test.each([
    ['1,2\n3,4', true],
    ['t\tlevel\n0\t1\n1\t2', true],
    ['f(x) = x^2', false],
    ['f(x) = x^2\n+ 3', false],
    ['1, 2', false],
    ['words, more words\nand, others', false],
  ])('%j is a table: %s', (text, expected) => expect(isTable(text)).toBe(expected));
});

const withTable = (table: string, more: object = {}): Document => ({
  ...emptyDocument(),
  xUnit: 'min',
  x: { from: 0, to: 4 },
  entries: {
    data: makeEntry('data', {
      order: 1,
      name: 'L',
      variable: 't',
      table,
      tier: 'tier-f',
      unit: 'cm',
      ...more,
    }),
    a: slider(2, 'a', '1.5'),
    point: makeEntry('point', { order: 3, on: 'data', parameter: 'a' }),
    tangent: makeEntry('tangent', { order: 4, on: 'data', parameter: 'a' }),
  },
});
describe('a function from data', () => {
  const document = withTable('t,level\n0,1\n1,3\n2,6\nlost,1\n4,6');

  test('is a function like any other: value, slope, units', () => {
    const { program, sentence } = resultOf<DataResult>(document, 'data');
    expect(evaluateAt(program, 1.5)).toBe(4.5);
    expect(sentence).toBe('Between the readings it is straight. Row 5 is left out: “lost” is not a number.');
    expect(resultOf<PointResult>(document, 'point').sentence).toBe(
      'The point lies on the curve at t = 1.5 min, at the height 4.500 cm.',
    );
    expect(resultOf<TangentResult>(document, 'tangent').sentence).toBe(
      'At t = 1.5 min, L is rising at a rate of 3.000 cm/min.',
    );
    expect(plainText(resultOf<TangentResult>(document, 'tangent').lines[1] ?? [])).toBe(
      'y = 3t (y in cm, t in min)',
    );
  });

  test('shows its rows as dots, as long as they do not run into one another', () => {
    const dotsOf = (of: Document) =>
      sceneOf(of).tiers[0]?.marks.find((mark): mark is MarkOf<'dots'> => mark.kind === 'dots')?.points.length;
    expect(dotsOf(document)).toBe(8);
    const many = Array.from({ length: 500 }, (_, i) => `${i / 200},${i % 7}`).join('\n');
    expect(dotsOf(withTable(many))).toBeUndefined();
  });

  test.each([
    ['1,2', 'At least two rows with two numbers are needed for a function.'],
    [
      Array.from({ length: 20_001 }, (_, i) => `${i},1`).join('\n'),
      'This table has 20001 rows; a function takes at most 20000 of them.',
    ],
  ])('too little or too much is said in a sentence', (table, message) => {
    const outcome = resolve(withTable(table), emptyStage).entries.get('data')?.outcome;
    expect(outcome).toMatchObject({ ok: false, problem: { message } });
  });

  test('ten thousand rows are read once, however often other things move', () => {
    const rows = Array.from({ length: 10_000 }, (_, i) => `${i / 10},${i % 17}`).join('\n');
    const before = resolve(withTable(rows), emptyStage);
    const after = resolve(withTable(rows, { unit: 'm' }), { ...emptyStage, values: { a: '2' } }, before);
    const programs = [before, after].map(({ entries }) => {
      const outcome = entries.get('data')?.outcome;
      return outcome?.ok ? (outcome.result as DataResult).program : null;
    });
    expect(programs[0]).not.toBeNull();
    expect(programs[1]).toBe(programs[0]);
  });
});
