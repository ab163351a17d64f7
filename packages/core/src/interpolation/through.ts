import { literal } from '../algebra/literal.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import * as tree from '../language/tree.ts';
import type { ExactPoint, Shape } from '../language/table.ts';
import type { Expression } from '../language/tree.ts';

/**
 * The function through given points, as a formula in pieces from the first to the last of them: a broken line, or the
 * natural cubic spline, whose slope and bend have no jump. All coefficients are exact, so that values, slopes and key
 * points of it are proved like those of any other formula.
 * @param points at least two, with x in ascending order and no two alike
 */
export function through(points: readonly ExactPoint[], shape: Shape, variable: string): Expression {
  const x = tree.name(variable);
  const bends = shape === 'smooth' ? naturalBends(points) : points.map(() => rational.zero);
  const pieces = points.slice(1).map((right, i) => {
    const left = points[i] as ExactPoint;
    const value = cubic(left, right, bends[i] as Rational, bends[i + 1] as Rational, x);
    const condition = tree.comparison(literal(left.x), ['≤', x], ['≤', literal(right.x)]);
    return { value, condition };
  });
  return tree.piecewise(pieces);
}

/**
 * The cubic between two points with the given second derivatives there, as powers of the distance from the left one.
 * Source: Burden & Faires, Numerical Analysis (9th ed.), section 3.5.
 */
function cubic(
  left: ExactPoint,
  right: ExactPoint,
  leftBend: Rational,
  rightBend: Rational,
  x: Expression,
): Expression {
  const { add, divide, multiply, subtract } = rational;
  const width = subtract(right.x, left.x);
  const chord = divide(subtract(right.y, left.y), width);
  const mean = divide(add(multiply(leftBend, two), rightBend), six);
  const coefficients = [
    left.y,
    subtract(chord, multiply(mean, width)),
    divide(leftBend, two),
    divide(subtract(rightBend, leftBend), multiply(six, width)),
  ];
  return polynomialFrom(left.x, coefficients, x);
}

/** Coefficients, ascending, as a polynomial in the distance of an argument from a knot. */
export function polynomialFrom(
  knot: Rational,
  coefficients: readonly Rational[],
  argument: Expression,
): Expression {
  const distance = rational.isZero(knot) ? argument : tree.subtract(argument, literal(knot));
  const terms = coefficients.flatMap((coefficient, k) => termOf(coefficient, k, distance));
  return terms.length === 0 ? tree.number(0) : terms.reduce(tree.add);
}

const two = rational.rational(2);
const six = rational.rational(6);

function termOf(coefficient: Rational, k: number, distance: Expression): Expression[] {
  if (rational.isZero(coefficient)) return [];
  if (k === 0) return [literal(coefficient)];
  const power = k === 1 ? distance : tree.power(distance, tree.number(k));
  return [rational.isOne(coefficient) ? power : tree.multiply(literal(coefficient), power)];
}

/** The second derivatives of the natural spline at its points: 0 at both ends (Thomas's algorithm). */
function naturalBends(points: readonly ExactPoint[]): Rational[] {
  const { add, divide, multiply, subtract } = rational;
  const n = points.length - 1;
  const at = (i: number): ExactPoint => points[i] as ExactPoint;
  const width = (i: number): Rational => subtract(at(i + 1).x, at(i).x);
  const chord = (i: number): Rational => divide(subtract(at(i + 1).y, at(i).y), width(i));
  const upper: Rational[] = [rational.zero];
  const right: Rational[] = [rational.zero];
  for (let i = 1; i < n; i++) {
    const middle = multiply(two, add(width(i - 1), width(i)));
    const pivot = subtract(middle, multiply(width(i - 1), upper[i - 1] as Rational));
    const wanted = multiply(six, subtract(chord(i), chord(i - 1)));
    upper.push(divide(width(i), pivot));
    right.push(divide(subtract(wanted, multiply(width(i - 1), right[i - 1] as Rational)), pivot));
  }
  const bends = points.map(() => rational.zero);
  for (let i = n - 1; i >= 1; i--) {
    bends[i] = subtract(right[i] as Rational, multiply(upper[i] as Rational, bends[i + 1] as Rational));
  }
  return bends;
}
