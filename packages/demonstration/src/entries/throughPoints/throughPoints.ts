import {
  compile,
  isReserved,
  latexFunction,
  latexName,
  rational,
  through,
  type ExactPoint,
} from '@yperkine/core';
import { z } from 'zod';
import { latex } from '../../numbers/line.ts';
import { curveMark } from '../curveMark.ts';
import type { Mark } from '../../marks/mark.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, idSchema, typedSchema, unitSchema } from '../../fields/fields.ts';
import { asStated, type StatedCurve } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { readUnit } from '../../units/unit.ts';
import { failed, worked } from '../outcome.ts';
import { readPoints } from './pointList.ts';

const throughPointsSchema = z.strictObject({
  ...common,
  kind: z.literal('throughPoints'),
  name: z.string().min(1).max(60),
  variable: z.string().min(1).max(60),
  /** (0, 1), (2, 3.5), …: the points as typed, in any order. */
  points: typedSchema,
  /** The points that restoring the start gives back. */
  start: typedSchema,
  shape: z.enum(['broken', 'smooth']),
  tier: idSchema,
  family: z.int().min(0).max(9),
  /** The unit of its heights. */
  unit: unitSchema,
});
export type ThroughPointsEntry = z.infer<typeof throughPointsSchema>;

export interface ThroughPointsResult extends StatedCurve {
  readonly points: readonly ExactPoint[];
}

/** A function through points: a broken line, or a curve that is smooth through them. Every point can be dragged. */
export const throughPointsKind: EntryKind<ThroughPointsEntry, ThroughPointsResult> = {
  schema: throughPointsSchema,
  defaults: ({ points = '' }) => ({ start: points, variable: 'x', shape: 'broken', family: 0, unit: '' }),
  standsOn: () => [],
  defines: ({ name }) => ({ name, isFunction: true }),
  head: ({ name, shape, family }) => ({
    heading: `Given: ${name} through points${shape === 'smooth' ? ', smooth' : ''}`,
    tone: toneOf(0, family),
  }),
  curve: (result) => result,
  say: asStated,

  workOut(entry, { staged }, previous) {
    const { name, variable, shape, tier, family } = entry;
    if (isReserved(name)) return failed(`“${name}” already has a meaning; please choose another name.`);
    const reading = readPoints(typeof staged === 'string' ? staged : entry.points);
    if (!reading.ok) return failed(reading.message);
    const { points } = reading;
    const key = JSON.stringify([
      points.map(({ x, y }) => [rational.toText(x), rational.toText(y)]),
      shape,
      variable,
    ]);
    const isSame = previous !== undefined && keys.get(previous.program) === key;
    const body = isSame ? previous.body : through(points, shape, variable);
    const program = isSame ? previous.program : compile(body, variable);
    keys.set(program, key);
    const head = `${latexFunction(name, 0)}(${latexName(variable)})`;
    return worked({
      name,
      order: 0,
      family,
      variable,
      body,
      program,
      functions: new Map(),
      parameters: [],
      exactParameters: new Map(),
      latex: head,
      lines: [[latex(`${head}\\text{ goes through ${points.length} points}`)]],
      sentence:
        shape === 'broken'
          ? 'Between them it is straight.'
          : 'Smooth curve (natural cubic spline) through the points.',
      tier,
      unit: readUnit(entry.unit),
      points,
    });
  },

  places: ({ points, tier }) =>
    points.map(({ x, y }, index) => ({
      key: `vertex ${index}`,
      label: `point ${index + 1}`,
      x: rational.toNumber(x),
      y: rational.toNumber(y),
      tier,
    })),

  marks(id, _entry, result, tier) {
    if (result.tier !== tier.id) return [];
    const tone = toneOf(0, result.family);
    const vertices = result.points.map(({ x, y }, index): Mark => {
      const [px, py] = [tier.toX(rational.toNumber(x)), tier.toY(rational.toNumber(y))];
      return { kind: 'vertex', entry: id, index, x: px, y: py, tone };
    });
    return [curveMark(id, result, tier), ...vertices];
  },
};

/** What a program was made from, so that nothing is compiled again while other things move. */
const keys = new WeakMap<object, string>();
