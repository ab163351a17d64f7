import {
  compile,
  isReserved,
  latexFunction,
  latexName,
  rational,
  Spline,
  tree,
  type ExactPoint,
} from '@yperkine/core';
import { z } from 'zod';
import { latex } from '../../numbers/line.ts';
import { curveMark } from '../curveMark.ts';
import type { Mark } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import type { TierView } from '../../marks/view.ts';
import { common, idSchema, limits, unitSchema } from '../../fields/fields.ts';
import { readUnit } from '../../units/unit.ts';
import { asStated, type StatedCurve } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { failed, worked } from '../outcome.ts';
import { mostColumns, mostRows, pointsIn, readCsv, type RowFault } from './csv.ts';
import { inThousands } from '../../numbers/inThousands.ts';

const columnSchema = z
  .int()
  .min(0)
  .max(mostColumns - 1);

const dataSchema = z.strictObject({
  ...common,
  kind: z.literal('data'),
  name: z.string().min(1).max(60),
  variable: z.string().min(1).max(60),
  /** The table as it came, as comma-separated values. */
  table: z.string().max(limits.data),
  /** Which columns are x and heights, from 0. */
  x: columnSchema,
  y: columnSchema,
  shape: z.enum(['broken', 'smooth']),
  tier: idSchema,
  family: z.int().min(0).max(9),
  unit: unitSchema,
});
export type DataEntry = z.infer<typeof dataSchema>;

export interface DataResult extends StatedCurve {
  readonly points: readonly ExactPoint[];
  /** The same as doubles. */
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  readonly faults: readonly RowFault[];
  /** What it was made from, so that nothing is read again while other things change. */
  readonly madeFrom: Pick<DataEntry, 'table' | 'x' | 'y' | 'shape' | 'name' | 'variable'>;
}

/** A function through measured points: the rows of a table. */
export const dataKind: EntryKind<DataEntry, DataResult> = {
  schema: dataSchema,
  defaults: { variable: 'x', x: 0, y: 1, shape: 'broken', family: 0, unit: '' },
  standsOn: () => [],
  defines: ({ name }) => ({ name, isFunction: true }),
  head: ({ name, shape, family }) => ({
    heading: `Given: ${name} from data${shape === 'smooth' ? ', smooth' : ''}`,
    tone: toneOf(0, family),
  }),
  curve: (result) => result,
  say: asStated,

  workOut(entry, _context, previous) {
    const { name, variable, tier, family, unit } = entry;
    if (isReserved(name)) return failed(`“${name}” already has a meaning; please choose another name.`);
    const body = previous && isMadeFrom(previous, entry) ? previous : bodyOf(entry);
    if (typeof body === 'string') return failed(body);
    const head = `${latexFunction(name, 0)}(${latexName(variable)})`;
    const count = inThousands(body.points.length, '\\,');
    return worked({
      ...body,
      name,
      order: 0,
      family,
      variable,
      functions: new Map(),
      parameters: [],
      exactParameters: new Map(),
      latex: head,
      lines: [[latex(`${head}\\text{ goes through $${count}$ points}`)]],
      sentence: sentenceOf(entry, body.faults),
      tier,
      unit: readUnit(unit),
    });
  },

  marks: (id, _entry, result, tier) =>
    result.tier === tier.id ? [curveMark(id, result, tier), ...dotMarks(result, tier)] : [],
};

const isMadeFrom = ({ madeFrom }: DataResult, entry: DataEntry): boolean =>
  (Object.keys(madeFrom) as (keyof DataResult['madeFrom'])[]).every((key) => madeFrom[key] === entry[key]);

type Body = Pick<DataResult, 'points' | 'xs' | 'ys' | 'faults' | 'body' | 'program' | 'madeFrom'>;

/** The function through the rows, or the sentence that says why there is none. */
function bodyOf({ table, x, y, shape, name, variable }: DataEntry): Body | string {
  const csv = readCsv(table);
  if (csv.rows.length > mostRows) {
    return `This table has ${csv.rows.length} rows; a function takes at most ${mostRows} of them.`;
  }
  const { points, faults } = pointsIn(csv, x, y);
  if (points.length < 2) return 'At least two rows with two numbers are needed for a function.';
  const spline = Spline.through(points, shape, name);
  const body = tree.spline(spline, tree.name(variable));
  const [xs, ys] = [spline.knots, Float64Array.from(points, ({ y: height }) => rational.toNumber(height))];
  const madeFrom = { table, x, y, shape, name, variable };
  return { points, xs, ys, faults, body, program: compile(body, variable), madeFrom };
}

/** Faults that the sentence tells in full. */
const mostTold = 3;

function sentenceOf({ shape }: DataEntry, faults: readonly RowFault[]): string {
  const between =
    shape === 'broken'
      ? 'Between the readings it is straight.'
      : 'Smooth curve (natural cubic spline): a guess between the readings.';
  const told = faults.slice(0, mostTold).map(({ message }) => message);
  const others = faults.length - told.length;
  const rest = others > 0 ? `${others} more ${others === 1 ? 'row is' : 'rows are'} left out.` : '';
  return [between, ...told, rest].filter((part) => part !== '').join(' ');
}

/** Points beyond which their dots would run into one another. */
const mostDots = 400;

function dotMarks({ xs, ys, family }: DataResult, tier: TierView): Mark[] {
  const shown: number[] = [];
  for (let i = 0; i < xs.length && shown.length <= 2 * mostDots; i++) {
    const x = xs[i] as number;
    if (x >= tier.x.from && x <= tier.x.to) shown.push(tier.toX(x), tier.toY(ys[i] as number));
  }
  return shown.length > 2 * mostDots ? [] : [{ kind: 'dots', tone: toneOf(0, family), points: shown }];
}
