import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { exactTruth, exactValue } from './exact.ts';
import { literal } from './literal.ts';
import { printText } from '../language/printText.ts';
import * as tree from '../language/tree.ts';
import type { Condition, Expression, Piece, PiecewiseNode, Relation } from '../language/tree.ts';

/**
 * The derivative of a piecewise function: each piece differentiated, without the places where two pieces
 * meet, unless value and slope are the same from both sides there.
 * @param differentiate the derivative of one piece
 */
export function derivativeOfPieces(
  node: PiecewiseNode,
  variable: string,
  differentiate: (part: Expression) => Expression,
): Expression {
  const slopes = tree.piecewise(
    node.pieces.map(({ value, condition }) => ({ value: differentiate(value), condition })),
    node.otherwise && differentiate(node.otherwise),
  );
  const joins = joinsOf(node, variable);
  return joins ? onStretches(node, slopes, variable, joins) : onInteriors(slopes);
}

/** The numbers that the variable is compared with, in ascending order; null where anything else is compared. */
export function joinsOf(node: PiecewiseNode, variable: string): Rational[] | null {
  const found = new Map<string, Rational>();
  for (const { condition } of node.pieces) {
    for (const operand of tree.comparedIn(condition)) {
      if (operand.kind === 'name' && operand.name === variable) continue;
      const value = exactValue(operand, new Map());
      if (!value) return null;
      found.set(rational.toText(value), value);
    }
  }
  return [...found.values()].sort(rational.compare);
}

/** The piece that holds at an exact value of the variable; undefined where none does. */
function pieceAt(node: PiecewiseNode, variable: string, x: Rational): Expression | undefined {
  const values = new Map([[variable, x]]);
  const found = node.pieces.find(({ condition }) => exactTruth(condition, values));
  return found ? found.value : node.otherwise;
}

/** An open stretch between two joins, or beyond the first or last, with the formula that holds on it. */
interface Stretch {
  readonly from: Rational | undefined;
  readonly to: Rational | undefined;
  readonly value: Expression | undefined;
}

/** Pieces over open stretches; the formula of a stretch takes in its right end where the derivative goes through. */
function onStretches(
  node: PiecewiseNode,
  slopes: PiecewiseNode,
  variable: string,
  joins: readonly Rational[],
): Expression {
  const smooth = new Set(joins.filter((join) => isSmoothAt(node, slopes, variable, join)));
  const stretches = stretchesOf(slopes, variable, joins);
  const [first] = stretches;
  if (first?.value && stretches.length === 1) return first.value;
  const defined = stretches.filter((stretch) => stretch.value !== undefined);
  if (defined.length === stretches.length) {
    const whole = asOneFormula(
      defined,
      variable,
      joins.filter((join) => !smooth.has(join)),
    );
    if (whole) return whole;
  }
  const pieces = defined.map((stretch): Piece => {
    const isClosed = stretch.to !== undefined && smooth.has(stretch.to);
    return { value: stretch.value as Expression, condition: stretchCondition(variable, stretch, isClosed) };
  });
  const takesAll = joins.every((join) => smooth.has(join)) && defined.length === stretches.length;
  return takesAll ? tree.piecewise(pieces.slice(0, -1), pieces.at(-1)?.value) : tree.piecewise(pieces);
}

/**
 * One formula that holds on all stretches, without the place at which it has a value and the function no slope; null
 * where there are several.
 */
function asOneFormula(
  stretches: readonly Stretch[],
  variable: string,
  open: readonly Rational[],
): Expression | null {
  const [formula, ...others] = stretches.map(({ value }) => value as Expression);
  if (!formula || !others.every((other) => printText(other) === printText(formula))) return null;
  const [left, ...more] = open.filter((place) => !dividesByZero(formula, new Map([[variable, place]])));
  if (!left) return formula;
  if (more.length > 0) return null;
  const elsewhere = tree.comparison(tree.name(variable), ['≠', literal(left)]);
  return tree.piecewise([{ value: formula, condition: elsewhere }]);
}

const dividesByZero = (node: Expression, values: ReadonlyMap<string, Rational>): boolean => {
  const below = node.kind === 'divide' ? exactValue(node.right, values) : null;
  return (
    (below !== null && rational.isZero(below)) ||
    tree.children(node).some((child) => dividesByZero(child, values))
  );
};

/** The stretches between joins, neighbours with one formula taken together. */
function stretchesOf(slopes: PiecewiseNode, variable: string, joins: readonly Rational[]): Stretch[] {
  const stretches: Stretch[] = [];
  for (let i = 0; i <= joins.length; i++) {
    const [from, to] = [joins[i - 1], joins[i]];
    const value = pieceAt(slopes, variable, insideOf(from, to));
    const before = stretches.at(-1);
    const goesOn = from && before && value === before.value && value === pieceAt(slopes, variable, from);
    if (goesOn) stretches[stretches.length - 1] = { ...before, to };
    else stretches.push({ from, to, value });
  }
  return stretches;
}

/** A number between two others, or beyond the one that is given. */
export function insideOf(from: Rational | undefined, to: Rational | undefined): Rational {
  if (from && to) return rational.divide(rational.add(from, to), rational.rational(2));
  if (from) return rational.add(from, rational.one);
  return to ? rational.subtract(to, rational.one) : rational.zero;
}

/** Whether value and slope agree from both sides, and with the value at the place itself; exact or not at all. */
function isSmoothAt(node: PiecewiseNode, slopes: PiecewiseNode, variable: string, x: Rational): boolean {
  const joins = joinsOf(node, variable) ?? [];
  const at = joins.findIndex((join) => rational.equals(join, x));
  const [left, right] = [insideOf(joins[at - 1], x), insideOf(x, joins[at + 1])];
  const values = new Map([[variable, x]]);
  const exactAt = (pieces: PiecewiseNode, place: Rational): Rational | null => {
    const piece = pieceAt(pieces, variable, place);
    return piece ? exactValue(piece, values) : null;
  };
  const heights = [left, x, right].map((place) => exactAt(node, place));
  const rises = [left, right].map((place) => exactAt(slopes, place));
  return allEqual(heights) && allEqual(rises);
}

function allEqual(values: readonly (Rational | null)[]): boolean {
  const [first] = values;
  return !!first && values.every((value) => value !== null && rational.equals(value, first));
}

function stretchCondition(variable: string, { from, to }: Stretch, isClosed: boolean): Condition {
  const x = tree.name(variable);
  const upTo = isClosed ? '≤' : '<';
  if (from && to) return tree.comparison(literal(from), ['<', x], [upTo, literal(to)]);
  if (from) return tree.comparison(x, ['>', literal(from)]);
  return tree.comparison(x, [upTo, literal(to as Rational)]);
}

/** Pieces whose conditions leave out the places where they begin to hold; each excludes those before it. */
function onInteriors({ pieces, otherwise }: PiecewiseNode): Expression {
  const before: Condition[] = [];
  const open: Piece[] = [];
  for (const { value, condition } of pieces) {
    open.push({ value, condition: allOf([...before, interior(condition, false)]) });
    before.push(interior(condition, true));
  }
  return otherwise
    ? tree.piecewise([...open, { value: otherwise, condition: allOf(before) }])
    : tree.piecewise(open);
}

const allOf = (conditions: readonly Condition[]): Condition =>
  conditions.reduce((left, right) => ({ kind: 'and', left, right }));

const strictly: Readonly<Record<Relation, Relation>> = {
  '<': '<',
  '≤': '<',
  '>': '>',
  '≥': '>',
  '=': '=',
  '≠': '≠',
};
const opposite: Readonly<Record<Relation, Relation>> = {
  '<': '>',
  '≤': '>',
  '>': '<',
  '≥': '<',
  '=': '≠',
  '≠': '=',
};

/** The inside of where a condition holds, or of where it does not. */
function interior(condition: Condition, isNegated: boolean): Condition {
  switch (condition.kind) {
    case 'not':
      return interior(condition.operand, !isNegated);
    case 'and':
    case 'or': {
      const isAnd = (condition.kind === 'and') !== isNegated;
      const [left, right] = [interior(condition.left, isNegated), interior(condition.right, isNegated)];
      return { kind: isAnd ? 'and' : 'or', left, right };
    }
    case 'comparison': {
      if (!isNegated) return { ...condition, relations: condition.relations.map((r) => strictly[r]) };
      const links = condition.relations.map((relation, i) =>
        tree.comparison(condition.operands[i] as Expression, [
          opposite[relation],
          condition.operands[i + 1] as Expression,
        ]),
      );
      return (links as Condition[]).reduce((left, right) => ({ kind: 'or', left, right }));
    }
  }
}
