import { describe, expect, test } from '@jest/globals';
import {
  knownNumber,
  printText,
  rational,
  tangentAt,
  writtenNumber,
  type KnownNumber,
  type Tangent,
} from '../src/index.ts';
import { expression, program } from './scope.ts';

const tangentTo = (text: string, at: string) => {
  const exact = rational.parseDecimal(at);
  return tangentAt(
    { body: expression(text), variable: 'x', program: program(text) },
    knownNumber(Number(at), exact),
  );
};
const text = (r: rational.Rational | null) => r && rational.toText(r);

describe('the tangent at a point', () => {
  // Worked by hand with the power rule: f(1) = −4, f′(1) = 1, so y = x − 5.
  test('of a polynomial at a rational place is exact', () => {
    const tangent = tangentTo('3x^2-5x-2', '1');
    if (tangent.kind !== 'line') throw new Error(tangent.kind);
    expect(text(tangent.y.exact)).toBe('-4');
    expect(text(tangent.slope.exact)).toBe('1');
    expect(text(tangent.intercept.exact)).toBe('-5');
  });

  test('with a decimal place stays exact: 0.1 is one tenth', () => {
    const tangent = tangentTo('x^2', '0.1');
    if (tangent.kind !== 'line') throw new Error(tangent.kind);
    expect(text(tangent.slope.exact)).toBe('1/5');
    expect(tangent.slope.value).toBe(0.2);
  });

  test('of sin at 1 is not called exact', () => {
    const tangent = tangentTo('sin x', '1');
    if (tangent.kind !== 'line') throw new Error(tangent.kind);
    expect(tangent.slope).toEqual({ value: Math.cos(1), exact: null });
  });

  test('is level at a high point and vertical at a cube root’s zero', () => {
    expect(tangentTo('4 - x^2', '0')).toMatchObject({
      kind: 'line',
      slope: { value: 0 },
      intercept: { value: 4 },
    });
    expect(tangentTo('∛x', '0')).toMatchObject({ kind: 'vertical', x: { value: 0 } });
    expect(tangentTo('√x', '0')).toMatchObject({ kind: 'vertical' });
  });

  test('is vertical at a cusp: J. Stewart, Calculus, section 2.8 (from memory)', () => {
    expect(tangentTo('x^(2/3)', '0')).toMatchObject({ kind: 'vertical', side: 'both' });
  });

  test.each([
    ['x^(3/2)', '0', 'line', 'right'],
    ['x √x', '0', 'line', 'right'],
    ['√x', '0', 'vertical', 'right'],
    ['arcsin x', '1', 'vertical', 'left'],
    ['arcsin x', '-1', 'vertical', 'right'],
    ['√(1 - x^2)', '1', 'vertical', 'left'],
    ['x^2 if x ≤ 1', '1', 'line', 'left'],
    ['x^2 if 0 ≤ x ≤ 1', '0', 'line', 'right'],
    ['∛x', '0', 'vertical', 'both'],
    ['x^2', '0', 'line', 'both'],
    ['x |x|', '0', 'line', 'both'],
  ])('of %s at %s comes from the side where there is a curve', (text, x, kind, side) => {
    expect(tangentTo(text, x)).toMatchObject({ kind, side });
  });

  test('at a corner both sides have a slope, exact where it is', () => {
    const slopes = (text: string, x: string) => {
      const { left, right } = tangentTo(text, x) as Extract<Tangent, { kind: 'noSlope' }>;
      return [left, right].map((slope) => slope && printText(writtenNumber(slope)));
    };
    expect(slopes('|x|', '0')).toEqual(['-1', '1']);
    expect(slopes('|x^2 - 4|/3', '2')).toEqual(['-4/3', '4/3']);
    expect(slopes('max(x, 1)', '1')).toEqual(['0', '1']);
    expect(slopes('floor x', '1')).toEqual([null, '0']);
    expect(slopes('10^(-15) |x|', '0')).toEqual(['-1/1000000000000000', '1/1000000000000000']);
  });

  test('where a curve is glued together at a point the definition’s limit tells', () => {
    for (const piece of ['x^2 sin(1/x)', 'sin(x)/x - 1', 'e^(-1/x^2)']) {
      const tangent = tangentTo(`${piece} if x ≠ 0; 0 otherwise`, '0');
      expect(tangent).toMatchObject({ kind: 'line', side: 'both', slope: { value: 0 } });
      expect((tangent as { slope: KnownNumber }).slope.exact).not.toBeNull();
    }
    expect(tangentTo('x sin(1/x) if x ≠ 0; 0 otherwise', '0')).toMatchObject({ kind: 'noSlope', left: null });
  });

  test('does not exist at a corner, a jump, or where f has no value', () => {
    expect(tangentTo('|x|', '0').kind).toBe('noSlope');
    expect(tangentTo('floor x', '1').kind).toBe('noSlope');
    expect(tangentTo('ln x', '-1').kind).toBe('undefined');
    expect(tangentTo('1/x', '0').kind).toBe('undefined');
  });
});

describe('exact numbers', () => {
  test.each([
    ['1.50', '3/2'],
    ['-0.1', '-1/10'],
    ['1E-3', '1/1000'],
    ['2E3', '2000'],
    ['.5', '1/2'],
  ])('%s is %s', (decimal, fraction) => {
    expect(text(rational.parseDecimal(decimal))).toBe(fraction);
  });
  test.each(['', '.', '1.2.3', 'x', '1e3', '1E9999'])('“%s” is no number', (decimal) => {
    expect(rational.parseDecimal(decimal)).toBeNull();
  });
  test('decimals are written only where they end', () => {
    expect(rational.toDecimal(rational.rational(5, 4), 3)).toBe('1.25');
    expect(rational.toDecimal(rational.rational(-1, 1000), 3)).toBe('-0.001');
    expect(rational.toDecimal(rational.rational(1, 3), 3)).toBeNull();
  });
  test('roots are taken only where they are rational', () => {
    expect(text(rational.exactRoot(rational.rational(9, 4), 2))).toBe('3/2');
    expect(text(rational.exactRoot(rational.rational(-8), 3))).toBe('-2');
    expect(rational.exactRoot(rational.rational(2), 2)).toBeNull();
  });
  test('the nearest double, even far beyond the range of doubles on both sides of the line', () => {
    expect(rational.toNumber(rational.rational(3n * 10n ** 400n, 10n ** 400n))).toBe(3);
    expect(rational.toNumber(rational.rational(10n ** 400n, 3n * 10n ** 400n))).toBeCloseTo(1 / 3, 15);
    expect(rational.toNumber(rational.fromDouble(0.1))).toBe(0.1);
  });
});
