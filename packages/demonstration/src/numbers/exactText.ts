import { exactForm, tree, type Expression, type KnownNumber, type Rational } from '@yperkine/core';

/** Characters that an exact form may take beside its decimal value; a longer one explains nothing. */
const longest = 10;
const mostDigits = 3;
const superscripts = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/**
 * A number without names as a line of plain text, as a person writes it: √2, 64/3, 5π/6, e², ln 2. Null where it would
 * take more than a line of plain text can show.
 */
export function exactText(form: Expression): string | null {
  const text = written(form);
  return text !== null && [...text].length <= longest ? text : null;
}

/**
 * The exact form of a formula at rational values of its names, beside the number that it comes to: only where that
 * number is no decimal that could be shown itself.
 */
export function exactTextOf(
  body: Expression,
  values: ReadonlyMap<string, Rational>,
  number: KnownNumber,
): string | null {
  if (isPlain(number)) return null;
  const form = exactForm(body, values);
  return form && exactText(form);
}

/** The same of an exact form that is there already. */
export const textOfForm = (form: Expression, number: KnownNumber): string | null =>
  isPlain(number) ? null : exactText(form);

/** Whether a number is none, or one that its digits show whole. */
const isPlain = ({ value, exact }: KnownNumber): boolean =>
  !Number.isFinite(value) || (exact !== null && isDecimal(exact));

/** Whether the decimal digits of a fraction come to an end. */
function isDecimal({ denominator }: Rational): boolean {
  let rest = denominator;
  while (rest % 2n === 0n) rest /= 2n;
  while (rest % 5n === 0n) rest /= 5n;
  return rest === 1n;
}

function written(node: Expression): string | null {
  switch (node.kind) {
    case 'number':
      return new RegExp(`^\\d{1,${mostDigits}}$`).test(node.text) ? node.text : null;
    case 'constant':
      return node.name === 'pi' ? 'π' : node.name === 'e' ? 'e' : null;
    case 'negate':
      return joined('−', inBrackets(node.operand, isSum(node.operand)));
    case 'add':
      return joined(written(node.left), ' + ', inBrackets(node.right, node.right.kind === 'negate'));
    case 'subtract':
      return joined(written(node.left), ' − ', inBrackets(node.right, isSum(node.right)));
    case 'multiply':
      return joined(
        inBrackets(node.left, isSum(node.left)),
        startsWithDigit(node.right) ? '·' : node.right.kind === 'call' && node.right.name === 'ln' ? ' ' : '',
        inBrackets(node.right, isSum(node.right) || node.right.kind === 'divide'),
      );
    case 'divide':
      return joined(
        inBrackets(node.left, isSum(node.left)),
        '/',
        inBrackets(
          node.right,
          isSum(node.right) || node.right.kind === 'multiply' || node.right.kind === 'divide',
        ),
      );
    case 'power':
      return joined(inBrackets(node.base, isCompound(node.base)), raised(node.exponent));
    case 'call':
      return calledText(node);
    default:
      return null;
  }
}

const joined = (...parts: readonly (string | null)[]): string | null =>
  parts.every((part) => part !== null) ? parts.join('') : null;

function inBrackets(node: Expression, isNeeded: boolean): string | null {
  const text = written(node);
  return isNeeded ? joined('(', text, ')') : text;
}

const isSum = ({ kind }: Expression): boolean => kind === 'add' || kind === 'subtract' || kind === 'negate';
const isCompound = (node: Expression): boolean =>
  !['number', 'constant'].includes(node.kind) || tree.children(node).length > 0;

function startsWithDigit(node: Expression): boolean {
  const [first = node] = tree.children(node);
  return node.kind === 'number' || (node.kind !== 'call' && first !== node && startsWithDigit(first));
}

/** A whole exponent in small raised digits. */
function raised(exponent: Expression): string | null {
  const isNegative = exponent.kind === 'negate';
  const size = isNegative ? exponent.operand : exponent;
  if (size.kind !== 'number' || !/^\d{1,2}$/.test(size.text)) return null;
  return (isNegative ? '⁻' : '') + [...size.text].map((digit) => superscripts[Number(digit)]).join('');
}

function calledText({ name, arguments: [argument] }: tree.CallNode): string | null {
  if (!argument) return null;
  if (name === 'sqrt' || name === 'cbrt') {
    return joined(name === 'sqrt' ? '√' : '∛', inBrackets(argument, isCompound(argument)));
  }
  return name === 'ln' ? joined('ln ', inBrackets(argument, isCompound(argument))) : null;
}
