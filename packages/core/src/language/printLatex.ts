import { builtIn } from '../functions/table.ts';
import { strength, strengthOf } from './printText.ts';
import type { Expression } from './tree.ts';
import { greekLetters } from './names.ts';

const greekCommands = new Map(Object.entries(greekLetters).map(([word, letter]) => [letter, `\\${word}`]));

/** A name as LaTeX: Greek as commands, words upright, the index below. */
export function latexName(name: string): string {
  const [base = '', index] = name.split('_');
  const letter = greekCommands.get(base) ?? (base.length > 1 ? `\\mathrm{${base}}` : base);
  if (index === undefined) return letter;
  return `${letter}_{${/^\p{L}{2,}$/u.test(index) ? `\\mathrm{${index}}` : index}}`;
}

/** A function's name with primes: f, f', f'', f^{(4)}. */
export function latexFunction(name: string, order: number): string {
  const base = latexName(name);
  return order <= 3 ? `${base}${"'".repeat(order)}` : `${base}^{(${order})}`;
}

/** Number text as LaTeX; a capital E becomes a power of ten. */
export function latexNumber(text: string): string {
  const [digits = '', exponent] = text.split('E');
  if (exponent === undefined) return digits;
  return `${digits}\\cdot 10^{${exponent.replace('+', '')}}`;
}

/** The tree as LaTeX, typeset as a textbook prints it: fractions, roots, sin² x. */
export function printLatex(node: Expression): string {
  switch (node.kind) {
    case 'number':
      return latexNumber(node.text);
    case 'constant':
      return node.name === 'pi' ? '\\pi' : 'e';
    case 'name':
      return latexName(node.name);
    case 'negate':
      return `-${bracketed(node.operand, strength.product)}`;
    case 'add':
      return `${printLatex(node.left)}+${bracketed(node.right, strength.product)}`;
    case 'subtract':
      return `${printLatex(node.left)}-${bracketed(node.right, strength.product)}`;
    case 'multiply':
      return printProduct(node.left, node.right);
    case 'divide':
      return `\\frac{${printLatex(node.left)}}{${printLatex(node.right)}}`;
    case 'power':
      return printPower(node.base, node.exponent);
    case 'call':
      return printCall(node.name, node.arguments, '');
    case 'apply':
      return `${latexFunction(node.name, node.order)}\\left(${printLatex(node.argument)}\\right)`;
  }
}

function bracketed(node: Expression, least: number): string {
  const latex = printLatex(node);
  return strengthOf(node) < least ? `\\left(${latex}\\right)` : latex;
}

function printPower(base: Expression, exponent: Expression): string {
  const raised = `^{${printExponent(exponent)}}`;
  if (base.kind === 'call') {
    const form = builtIn(base.name).latex;
    if (form.kind === 'operator' && exponent.kind === 'number')
      return printCall(base.name, base.arguments, raised);
    if (form.kind === 'operator' || base.name === 'exp') return `\\left(${printLatex(base)}\\right)${raised}`;
    return `${printLatex(base)}${raised}`;
  }
  const isFraction = base.kind === 'divide';
  return `${isFraction ? `\\left(${printLatex(base)}\\right)` : bracketed(base, strength.atom)}${raised}`;
}

/** A literal fraction stands on one line in an exponent: x^{2/3}. */
function printExponent(exponent: Expression): string {
  const isFraction =
    exponent.kind === 'divide' && exponent.left.kind === 'number' && exponent.right.kind === 'number';
  return isFraction ? `${printLatex(exponent.left)}/${printLatex(exponent.right)}` : printLatex(exponent);
}

function printCall(name: string, args: readonly Expression[], raised: string): string {
  const { latex } = builtIn(name);
  if (latex.kind === 'template') {
    if (name === 'factorial') return `${bracketed(args[0] as Expression, strength.atom)}!`;
    return latex.write(...args.map(printLatex));
  }
  const argument = args[0] as Expression;
  const text = printLatex(argument);
  return isPlainArgument(argument)
    ? `${latex.command}${raised} ${text}`
    : `${latex.command}${raised}\\left(${text}\\right)`;
}

/** An argument that needs no bracket in print: x, 2x, πt, a fraction. */
function isPlainArgument(node: Expression): boolean {
  switch (node.kind) {
    case 'number':
    case 'constant':
    case 'name':
      return true;
    case 'multiply':
      return (
        node.left.kind === 'number' &&
        !node.left.text.includes('.') &&
        isPlainArgument(node.right) &&
        node.right.kind !== 'number'
      );
    case 'power':
      return node.base.kind === 'name' && node.exponent.kind === 'number';
    case 'call':
      return builtIn(node.name).latex.kind === 'template';
    default:
      return false;
  }
}

function printProduct(left: Expression, right: Expression): string {
  const first = bracketed(left, strength.product);
  const second = bracketed(right, strength.power);
  const needsDot =
    /^[\d.]/.test(second) ||
    (left.kind === 'divide' && right.kind === 'divide') ||
    (endsOpen(left) && !isOperatorCall(right));
  if (needsDot) return `${first}\\cdot ${second}`;
  return /[\d})]$/.test(first) ? `${first}${second}` : `${first} ${second}`;
}

function isOperatorCall(node: Expression): boolean {
  if (node.kind === 'power') return isOperatorCall(node.base);
  return node.kind === 'call' && builtIn(node.name).latex.kind === 'operator';
}

/** Whether the print ends in an argument without brackets, which a further factor would seem to join. */
function endsOpen(node: Expression): boolean {
  if (node.kind === 'multiply') return endsOpen(node.right);
  if (node.kind === 'power') return node.exponent.kind === 'number' && endsOpen(node.base);
  return node.kind === 'call' && isOperatorCall(node) && isPlainArgument(node.arguments[0] as Expression);
}
