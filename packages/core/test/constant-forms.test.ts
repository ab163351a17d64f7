import { describe, expect, test } from '@jest/globals';
import { exactForm, printText, readExpression, tree, type Expression } from '../src/index.ts';
import * as balls from '../src/numbers/ball.ts';
import * as big from '../src/numbers/bigFloat.ts';
import { ballOfConstant } from '../src/limit/constantSign.ts';
import { cases } from '../../../tests/cases.ts';

function read(text: string): Expression {
  const reading = readExpression(text, { names: new Set<string>(), functions: new Set<string>() });
  if (!reading.ok) throw new Error(text);
  return reading.value;
}

const exact = (text: string): Expression | null => exactForm(read(text), new Map());

/** Whether two constants agree to 100 digits. */
function agrees(a: Expression, b: Expression): boolean {
  const difference = ballOfConstant(tree.subtract(a, b), 400);
  if (difference === null || difference === 'unsure' || !balls.isBall(difference)) return false;
  return Math.abs(big.toDouble(difference.middle)) < 1e-100;
}

describe('constants in the form of a textbook', () => {
  // Angles: NIST Digital Library of Mathematical Functions, table 4.17.1; the rest by hand. From memory.
  test.each([
    ['sin(π/12)', '(√(6) - √(2))/4'],
    ['cos(π/12)', '(√(2) + √(6))/4'],
    ['tan(π/12)', '2 - √(3)'],
    ['cot(π/12)', '√(3) + 2'],
    ['cos(7π/12)', '√(2)/4 - √(6)/4'],
    ['sin(π/8)', '√(2 - √(2))/2'],
    ['tan(3π/8)', '√(2) + 1'],
    ['tan(5π/8)', '-√(2) - 1'],
    ['sin(π/10)', '(√(5) - 1)/4'],
    ['cos(π/5)', '(√(5) + 1)/4'],
    ['sin(2π/5)', '√(2√(5) + 10)/4'],
    ['tan(π/5)', '√(5 - 2√(5))'],
    ['√(3 + 2√2)', '√(2) + 1'],
    ['√(7 - 4√3)', '2 - √(3)'],
    ['√(2 + √3)', '(√(2) + √(6))/2'],
    ['√(5 + 2√6)', '√(2) + √(3)'],
    ['1/√(3 - 2√2)', '√(2) + 1'],
    ['1/(√5 - 1)', '(√(5) + 1)/4'],
    ['3/(2√2 + √3)', '6√(2)/5 - 3√(3)/5'],
    ['|1 - √2|', '√(2) - 1'],
    ['|√(10) - √3|', '√(10) - √(3)'],
    ['arcsin(sin 3)', 'π - 3'],
    ['arcsin(sin(-10))', '10 - 3π'],
    ['arccos(cos 4)', '2π - 4'],
    ['arctan(tan 2)', '2 - π'],
    ['arcsin(sin(π/5))', 'π/5'],
    ['arccos(cos(9π/7))', '5π/7'],
    ['sinh(ln 2)', '3/4'],
    ['cosh(ln 3)', '5/3'],
    ['tanh(ln 8)', '63/65'],
    ['arsinh(3/4)', 'ln(2)'],
    ['arcosh(5/4)', 'ln(2)'],
    ['artanh(1/2)', 'ln(3)/2'],
    ['log_4(8)', '3/2'],
    ['log(1/1000)', '-3'],
    ['cos(arctan 2)', '√(5)/5'],
    ['tan(arccos(-1/3))', '-2√(2)'],
  ])('%s is %s', (text, form) => {
    const found = exact(text);
    expect(found && printText(found).replaceAll('sqrt', '√')).toBe(form);
    expect(found && agrees(found, read(text))).toBe(true);
  });

  test.each([
    // No such form, or no value.
    ['sin(π/24)', 'sin(π/24)'],
    ['√(1 + √3)', '√(√(3) + 1)'],
    ['√(2 - 2√2)', '√(2 - 2√(2))'],
    ['arsinh(1/3)', 'arsinh(1/3)'],
    ['log_4(7)', 'log_4(7)'],
    ['arcosh(1/2)', 'arcosh(1/2)'],
    ['artanh(2)', 'artanh(2)'],
    ['log_1(5)', 'log_1(5)'],
    ['arctan(tan(π/2))', 'arctan(1/0)'],
    ['tanh(ln(-2))', 'tanh(ln(-2))'],
    ['cos(7)', 'cos(7)'],
    ['1/(√2 - √2)', '1/0'],
    ['1/(e - 1)', '1/(e - 1)'],
    ['|e - π|', 'abs(e - π)'],
    ['arccot(cot 4)', 'arccot(cot(4))'],
  ])('%s stays %s', (text, form) => {
    const found = exact(text);
    expect(found && printText(found).replaceAll('sqrt', '√')).toBe(form);
  });

  test('every form agrees with what it stands for to a hundred digits', () => {
    let seed = 5;
    const random = (below: number): number => (seed = (seed * 48271) % 2147483647) % below;
    const fraction = (): string => `(${random(41) - 20}/${1 + random(12)})`;
    let shortened = 0;
    const count = cases(200, 600);
    for (let i = 0; i < count; i++) {
      const wave = ['sin', 'cos', 'tan', 'cot'][random(4)] ?? '';
      const parts = [8, 10, 12, 5][random(4)] ?? 1;
      const [a, b, c] = [1 + random(40), random(13) - 6, 2 + random(9)];
      const text = [
        `${wave}(${random(97) - 48}π/${parts})`,
        `√(${a} + ${b} √${c})`,
        `√(${b * b * c + 1} + ${2 * b} √${c})`,
        `arc${wave}(${wave}(${fraction()} + ${fraction()} π))`,
        `${['sinh', 'cosh', 'tanh'][random(3)] ?? ''}(${random(7) - 3} ln(${1 + random(9)}/${1 + random(9)}))`,
        `${['arsinh', 'arcosh', 'artanh'][random(3)] ?? ''}(${fraction()})`,
        `log_${1 + random(9)}(${1 + random(81)}/${1 + random(9)})`,
        `${wave}(arc${['sin', 'cos', 'tan'][random(3)] ?? ''}(${fraction()}))`,
      ][i % 8] as string;
      const form = exact(text);
      const value = ballOfConstant(read(text), 400);
      // Nothing is told of what has no value.
      if (!form || value === null || value === 'unsure') continue;
      if (!printText(form).includes('(') || /^[^a-z]*√/.test(printText(form))) shortened++;
      expect([text, printText(form), agrees(form, read(text))]).toEqual([text, printText(form), true]);
    }
    expect(shortened).toBeGreaterThan(count / 6);
  });
});
