import { rational, type ExactPoint, type Rational } from '@yperkine/core';
import { dsvFormat } from 'd3-dsv';
import { limits } from '../../fields/fields.ts';
import { decimalText } from '../../numbers/slider.ts';

/** Rows that one table may have. */
export const mostRows = 20_000;
/** Columns of a table that can be chosen from. */
export const mostColumns = 1000;

interface Column {
  /** As its heading says, without the unit; "Column 2" where there is no heading. */
  readonly name: string;
  /** The unit in its heading: level (m), flow in L/min. */
  readonly unit: string;
}

/** A table as it stands in a file: nothing is read as a number yet. */
export interface CsvTable {
  readonly columns: readonly Column[];
  readonly rows: readonly CsvRow[];
  /** Whether 1,5 is one and a half: where columns are parted by something else than commas. */
  readonly hasDecimalCommas: boolean;
}

interface CsvRow {
  /** Its number in the file, from 1. */
  readonly number: number;
  readonly cells: readonly string[];
}

/** Why a row gives no point, in a sentence. */
export interface RowFault {
  readonly row: number;
  readonly message: string;
}

export interface PointsOfTable {
  /** In ascending order of x. */
  readonly points: readonly ExactPoint[];
  readonly faults: readonly RowFault[];
}

/** Reads comma-separated values (RFC 4180), or what semicolons or tabs part; a first row without a number is the heading. */
export function readCsv(text: string): CsvTable {
  const clean = text.replace(/^\ufeff/, '').trimEnd();
  const delimiter = delimiterOf(clean);
  const rows = partedBy(delimiter, clean)
    .map((cells, i) => ({ number: i + 1, cells: cells.map((cell) => cell.trim()) }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''));
  const hasDecimalCommas = delimiter !== ',';
  const [first, ...others] = rows;
  const hasHeading = first !== undefined && !first.cells.some((cell) => numberIn(cell, hasDecimalCommas));
  const width = rows.reduce((most, { cells }) => Math.max(most, Math.min(cells.length, mostColumns)), 0);
  const columns = Array.from({ length: width }, (_, i) =>
    columnOf(hasHeading ? (first.cells[i] ?? '') : '', i),
  );
  return { columns, rows: hasHeading ? others : rows, hasDecimalCommas };
}

const partedBy = (delimiter: string, text: string): string[][] => dsvFormat(delimiter).parseRows(text);

/** What may part columns; where two serve equally well, the first: a comma may also be a decimal comma. */
const delimiters = ['\t', ';', '|', ','];
/** Characters by which it is told what parts the columns. */
const firstLook = 20_000;

/** What parts the columns: that by which most rows have two numbers, or else the heading most columns. */
function delimiterOf(text: string): string {
  const start = text.slice(0, firstLook);
  const suited = delimiters
    .filter((delimiter) => start.includes(delimiter))
    .map((delimiter) => {
      const rows = partedBy(delimiter, start);
      const isNumber = (cell: string): boolean => numberIn(cell.trim(), delimiter !== ',') !== null;
      const useful = rows.filter((cells) => cells.filter(isNumber).length > 1).length;
      return { delimiter, useful, columns: rows[0]?.length ?? 0 };
    })
    .sort((p, q) => q.useful - p.useful || (p.useful === 0 ? q.columns - p.columns : 0));
  return suited[0]?.delimiter ?? ',';
}

const headingPattern = /^(.*?)[\s,:]*(?:\((.+)\)|\[(.+)\]|\bin (.+))$/;

function columnOf(heading: string, index: number): Column {
  const [, name = heading, round = '', square = '', words = ''] = headingPattern.exec(heading) ?? [];
  const unit = round || square || words;
  // What is longer than any unit is part of the name.
  const isUnit = unit.length <= limits.unit;
  return { name: (isUnit ? name : heading) || `Column ${index + 1}`, unit: isUnit ? unit : '' };
}

/** A decimal with a true minus, an exponent in either case and, where asked, a decimal comma. */
function numberIn(cell: string, hasDecimalCommas: boolean): Rational | null {
  const plain = cell.replace('−', '-').replace('e', 'E').replace(/^\+/, '');
  const value = rational.parseDecimal(hasDecimalCommas ? plain.replace(',', '.') : plain);
  // Beyond the doubles there is nothing to draw.
  return value && Number.isFinite(rational.toNumber(value)) ? value : null;
}

/** The two columns that hold numbers first, as a guess at x and heights; the first two where there are none. */
export function likelyColumns({ columns, rows, hasDecimalCommas }: CsvTable): { x: number; y: number } {
  const isNumeric = (i: number): boolean => {
    const cells = rows.slice(0, 50).map(({ cells: row }) => row[i] ?? '');
    return cells.filter((cell) => numberIn(cell, hasDecimalCommas)).length * 2 > cells.length;
  };
  const [x = 0, y = x === 0 ? 1 : 0] = columns.map((_, i) => i).filter(isNumeric);
  return { x, y };
}

/** Whether a text is rows of numbers in columns rather than a formula. */
export function isTable(text: string): boolean {
  if (!/\S\s*\n\s*\S/.test(text)) return false;
  const table = readCsv(text);
  const { x, y } = likelyColumns(table);
  return table.columns.length > 1 && pointsIn(table, x, y).points.length > 1;
}

/** The points of two columns, with every row that gives none and why. Of two rows with one x the first counts. */
export function pointsIn(table: CsvTable, x: number, y: number): PointsOfTable {
  const { columns, rows, hasDecimalCommas } = table;
  const faults: RowFault[] = [];
  const found: { point: ExactPoint; row: number }[] = [];
  for (const { number, cells } of rows) {
    const values = [x, y].map((i) => numberIn(cells[i] ?? '', hasDecimalCommas));
    const wrong = values.findIndex((value) => value === null);
    if (wrong < 0) found.push({ point: { x: values[0] as Rational, y: values[1] as Rational }, row: number });
    else faults.push({ row: number, message: whyNot(number, cells, [x, y][wrong] as number, columns) });
  }
  found.sort((p, q) => rational.compare(p.point.x, q.point.x) || p.row - q.row);
  const points: ExactPoint[] = [];
  let before: (typeof found)[number] | undefined;
  for (const one of found) {
    if (before && rational.toNumber(before.point.x) === rational.toNumber(one.point.x)) {
      const at = `${columns[x]?.name ?? 'x'} = ${decimalText(one.point.x).replace('-', '−')}`;
      const message = `Row ${one.row} is left out: ${at} stands in row ${before.row} already.`;
      faults.push({ row: one.row, message });
      continue;
    }
    points.push(one.point);
    before = one;
  }
  return { points, faults: faults.sort((p, q) => p.row - q.row) };
}

function whyNot(row: number, cells: readonly string[], column: number, columns: readonly Column[]): string {
  const cell = cells[column];
  const why = cell
    ? `“${cell.slice(0, 20)}” is not a number`
    : `it has nothing under ${columns[column]?.name ?? `column ${column + 1}`}`;
  return `Row ${row} is left out: ${why}.`;
}
