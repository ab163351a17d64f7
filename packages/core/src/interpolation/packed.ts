import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { Spline } from './spline.ts';
import type { ExactPoint, Shape, Table } from '../language/table.ts';

/** What a table is made of again, in place of its worked-out pieces. */
export interface PackedSpline {
  readonly name: string;
  readonly order: number;
  readonly points: readonly ExactPoint[];
  readonly shape: Shape;
}

/**
 * A formula whose tables are plain data, so that it can be sent to a worker; `unpacked` makes them tables again.
 * In between nothing but copying may be done with it.
 */
export const packed = (formula: Expression): Expression =>
  withSplines(formula, ({ name, order, points, shape }) => ({ name, order, points, shape }) as Table);

export const unpacked = (formula: Expression): Expression =>
  withSplines(formula, ({ name, order, points, shape }: PackedSpline) => {
    let spline: Table = Spline.through(points, shape, name);
    for (let k = 0; k < order; k++) spline = spline.derivative;
    return spline;
  });

function withSplines(formula: Expression, change: (table: Table) => Table): Expression {
  const inner = tree.mapChildren(formula, (part) => withSplines(part, change));
  return inner.kind === 'spline' ? tree.spline(change(inner.spline), inner.argument) : inner;
}
