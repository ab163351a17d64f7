import { naturalLogarithm } from '../functions/exponential.ts';
import { builtIn } from '../functions/table.ts';
import type { Relation } from '../language/tree.ts';
import { rationalPowerValue } from '../numbers/jet.ts';
import { and, choose, compare, generalPower, or, quotient } from './values.ts';

/** Loops over rows: one operation for a block of points. */
export type Row = Float64Array;
const at = (row: Row, i: number): number => row[i] as number;

/** Coefficients by ascending power, up to the sixth as one loop without an inner one. */
export function polynomialRow(coefficients: readonly number[], x: Row, out: Row, count: number): void {
  const [c0 = 0, c1 = 0, c2 = 0, c3 = 0, c4 = 0, c5 = 0, c6 = 0] = coefficients;
  switch (coefficients.length) {
    case 1:
      out.fill(c0, 0, count);
      return;
    case 2:
      for (let i = 0; i < count; i++) out[i] = c1 * at(x, i) + c0;
      return;
    case 3:
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = (c2 * v + c1) * v + c0;
      }
      return;
    case 4:
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = ((c3 * v + c2) * v + c1) * v + c0;
      }
      return;
    case 5:
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = (((c4 * v + c3) * v + c2) * v + c1) * v + c0;
      }
      return;
    case 6:
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = ((((c5 * v + c4) * v + c3) * v + c2) * v + c1) * v + c0;
      }
      return;
    case 7:
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = (((((c6 * v + c5) * v + c4) * v + c3) * v + c2) * v + c1) * v + c0;
      }
      return;
    default:
      hornerRow(coefficients, x, out, count);
  }
}

function hornerRow(coefficients: readonly number[], x: Row, out: Row, count: number): void {
  const degree = coefficients.length - 1;
  const leading = coefficients[degree] as number;
  const next = coefficients[degree - 1] as number;
  const third = coefficients[degree - 2] as number;
  for (let i = 0; i < count; i++) {
    const v = at(x, i);
    out[i] = (leading * v + next) * v + third;
  }
  let k = degree - 3;
  for (; k >= 1; k -= 2) {
    const [a, b] = [coefficients[k] as number, coefficients[k - 1] as number];
    for (let i = 0; i < count; i++) {
      const v = at(x, i);
      out[i] = (at(out, i) * v + a) * v + b;
    }
  }
  if (k === 0) {
    const last = coefficients[0] as number;
    for (let i = 0; i < count; i++) out[i] = at(out, i) * at(x, i) + last;
  }
}

export function binaryRow(
  op: 'add' | 'subtract' | 'multiply' | 'divide' | 'power' | 'guard' | 'and' | 'or',
  a: Row,
  b: Row,
  out: Row,
  count: number,
): void {
  switch (op) {
    case 'add':
      for (let i = 0; i < count; i++) out[i] = at(a, i) + at(b, i);
      return;
    case 'subtract':
      for (let i = 0; i < count; i++) out[i] = at(a, i) - at(b, i);
      return;
    case 'multiply':
      for (let i = 0; i < count; i++) out[i] = at(a, i) * at(b, i);
      return;
    case 'divide':
      for (let i = 0; i < count; i++) out[i] = quotient(at(a, i), at(b, i));
      return;
    case 'power':
      for (let i = 0; i < count; i++) out[i] = generalPower(at(a, i), at(b, i));
      return;
    case 'guard':
      for (let i = 0; i < count; i++) out[i] = Number.isNaN(at(b, i)) ? NaN : at(a, i);
      return;
    case 'and':
      for (let i = 0; i < count; i++) out[i] = and(at(a, i), at(b, i));
      return;
    case 'or':
      for (let i = 0; i < count; i++) out[i] = or(at(a, i), at(b, i));
  }
}

export function compareRow(relation: Relation, a: Row, b: Row, out: Row, count: number): void {
  for (let i = 0; i < count; i++) out[i] = compare(relation, at(a, i), at(b, i));
}

export function chooseRow(truth: Row, a: Row, b: Row, out: Row, count: number): void {
  for (let i = 0; i < count; i++) out[i] = choose(at(truth, i), at(a, i), at(b, i));
}

/** By squaring from the highest binary digit of the exponent down, a whole row at a time. */
export function integerPowerRow(a: Row, n: number, out: Row, count: number): void {
  const digits = Math.abs(n).toString(2);
  if (n === 0) return void out.fill(1, 0, count);
  for (let i = 0; i < count; i++) out[i] = at(a, i);
  for (const digit of digits.slice(1)) {
    for (let i = 0; i < count; i++) out[i] = at(out, i) * at(out, i);
    if (digit === '1') for (let i = 0; i < count; i++) out[i] = at(out, i) * at(a, i);
  }
  if (n < 0) for (let i = 0; i < count; i++) out[i] = quotient(1, at(out, i));
}

export function mapRow(f: (x: number) => number, a: Row, out: Row, count: number): void {
  for (let i = 0; i < count; i++) out[i] = f(at(a, i));
}

export function rationalPowerRow(a: Row, p: number, q: number, out: Row, count: number): void {
  for (let i = 0; i < count; i++) out[i] = rationalPowerValue(at(a, i), p, q);
}

/** Hot functions have loops of their own, which the machine compiles without a call through a variable. */
export function callRow(name: string, operands: readonly Row[], out: Row, count: number): void {
  const [a, b] = operands as [Row, Row | undefined];
  switch (name) {
    case 'sin':
      for (let i = 0; i < count; i++) out[i] = Math.sin(at(a, i));
      return;
    case 'cos':
      for (let i = 0; i < count; i++) out[i] = Math.cos(at(a, i));
      return;
    case 'exp':
      for (let i = 0; i < count; i++) out[i] = Math.exp(at(a, i));
      return;
    case 'ln':
      for (let i = 0; i < count; i++) out[i] = naturalLogarithm(at(a, i));
      return;
    case 'sqrt':
      for (let i = 0; i < count; i++) out[i] = Math.sqrt(at(a, i));
      return;
    case 'abs':
      for (let i = 0; i < count; i++) out[i] = Math.abs(at(a, i));
      return;
    default: {
      const { value } = builtIn(name);
      if (b) for (let i = 0; i < count; i++) out[i] = value(at(a, i), at(b, i));
      else for (let i = 0; i < count; i++) out[i] = value(at(a, i));
    }
  }
}

/** Functions common enough to be worked out in one loop with their argument. */
export const isHot = (name: string): boolean =>
  name === 'sin' || name === 'cos' || name === 'exp' || name === 'ln' || name === 'sqrt';

/** A hot function of a polynomial of the third degree at most. */
export function callOfCubicRow(
  name: string,
  coefficients: readonly number[],
  x: Row,
  out: Row,
  count: number,
): void {
  const [c0 = 0, c1 = 0, c2 = 0, c3 = 0] = coefficients;
  switch (name) {
    case 'sin':
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = Math.sin(((c3 * v + c2) * v + c1) * v + c0);
      }
      return;
    case 'cos':
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = Math.cos(((c3 * v + c2) * v + c1) * v + c0);
      }
      return;
    case 'exp':
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = Math.exp(((c3 * v + c2) * v + c1) * v + c0);
      }
      return;
    case 'ln':
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = naturalLogarithm(((c3 * v + c2) * v + c1) * v + c0);
      }
      return;
    case 'sqrt':
      for (let i = 0; i < count; i++) {
        const v = at(x, i);
        out[i] = Math.sqrt(((c3 * v + c2) * v + c1) * v + c0);
      }
      return;
    default:
      throw new TypeError(`${name} is not hot`);
  }
}

/** The quotient of two polynomials of the third degree at most. */
export function quotientOfCubicsRow(
  above: readonly number[],
  below: readonly number[],
  x: Row,
  out: Row,
  count: number,
): void {
  const [a0 = 0, a1 = 0, a2 = 0, a3 = 0] = above;
  const [b0 = 0, b1 = 0, b2 = 0, b3 = 0] = below;
  if (a3 === 0 && b3 === 0) {
    for (let i = 0; i < count; i++) {
      const v = at(x, i);
      out[i] = quotient((a2 * v + a1) * v + a0, (b2 * v + b1) * v + b0);
    }
    return;
  }
  for (let i = 0; i < count; i++) {
    const v = at(x, i);
    out[i] = quotient(((a3 * v + a2) * v + a1) * v + a0, ((b3 * v + b2) * v + b1) * v + b0);
  }
}
