import { builtIn } from '../functions/table.ts';
import { strength, strengthOf } from './printText.ts';
import type { BinderNode, Condition, DerivativeNode, Expression, PiecewiseNode, Relation } from './tree.ts';
import { writtenSpline } from './tree.ts';
import { greekLetters } from './names.ts';

const greekCommands = new Map(Object.entries(greekLetters).map(([word, letter]) => [letter, `\\${word}`]));

/** A name as LaTeX: Greek as commands, words upright, the index below. */
export function latexName(name: string): string {
  const [base = '', index] = name.split('_');
  const letter = greekCommands.get(base) ?? changeOf(base) ?? (base.length > 1 ? `\\mathrm{${base}}` : base);
  if (index === undefined) return letter;
  return `${letter}_{${/^\p{L}{2,}$/u.test(index) ? `\\mathrm{${index}}` : index}}`;
}

/** Δx, the change of x, with the letter as a command and what changes in italics. */
function changeOf(base: string): string | undefined {
  const [first = '', ...rest] = base;
  return first === 'Δ' && rest.length === 1 ? `\\Delta ${rest.join('')}` : undefined;
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
      return constantCommands[node.name];
    case 'name':
      return latexName(node.name);
    case 'negate':
      return `-${bracketed(node.operand, strength.term)}`;
    case 'add':
      return `${bracketed(node.left, strength.sum)}+${bracketed(node.right, strength.term)}`;
    case 'subtract':
      return `${bracketed(node.left, strength.sum)}-${bracketed(node.right, strength.term)}`;
    case 'multiply':
      return printProduct(node.left, node.right);
    case 'divide':
      return `\\frac{${printLatex(node.left)}}{${printLatex(node.right)}}`;
    case 'power':
      return printPower(node.base, node.exponent);
    case 'call':
      return printCall(node.name, node.arguments, '');
    case 'apply':
      return printApplied(node.name, node.orders, node.arguments);
    case 'spline':
      return printLatex(writtenSpline(node));
    case 'piecewise':
      return printPieces(node);
    case 'summation':
    case 'product':
    case 'integral':
    case 'limit':
      return printBinder(node);
    case 'derivative':
      return printDerivative(node);
    case 'distance':
      return `\\left|${latexName(node.from)}${latexName(node.to)}\\right|`;
  }
}

const constantCommands = { pi: '\\pi', e: 'e', infinity: '\\infty' } as const;

function printApplied(name: string, orders: readonly number[], args: readonly Expression[]): string {
  const list = args.map(printLatex).join(', ');
  if (orders.length === 1) return `${latexFunction(name, orders[0] as number)}\\left(${list}\\right)`;
  const partials = orders.flatMap((order, i) =>
    order === 0 ? [] : [`\\partial_{${i + 1}}${order > 1 ? `^{${order}}` : ''}`],
  );
  return `${partials.join('')} ${latexName(name)}\\left(${list}\\right)`.trim();
}

function printPieces({ pieces, otherwise }: PiecewiseNode): string {
  const [first] = pieces;
  if (first && pieces.length === 1 && !otherwise) {
    return `${printLatex(first.value)},\\quad ${printLatexCondition(first.condition)}`;
  }
  const rows = pieces.map(
    ({ value, condition }) => `${printLatex(value)} & \\text{if } ${printLatexCondition(condition)}`,
  );
  if (otherwise) rows.push(`${printLatex(otherwise)} & \\text{otherwise}`);
  return `\\begin{cases}${rows.join('\\\\')}\\end{cases}`;
}

const relationCommands: Readonly<Record<Relation, string>> = {
  '<': '<',
  '>': '>',
  '=': '=',
  '≤': '\\le',
  '≥': '\\ge',
  '≠': '\\ne',
};

/** A condition as LaTeX, with its words set as text. */
export function printLatexCondition(condition: Condition): string {
  switch (condition.kind) {
    case 'comparison':
      return condition.operands
        .map((operand, i) => {
          const relation = condition.relations[i - 1];
          return `${relation === undefined ? '' : ` ${relationCommands[relation]} `}${printLatex(operand)}`;
        })
        .join('');
    case 'and':
    case 'or': {
      const side = (part: Condition): string =>
        part.kind === 'or' && condition.kind === 'and'
          ? `\\left(${printLatexCondition(part)}\\right)`
          : printLatexCondition(part);
      return `${side(condition.left)}\\text{ ${condition.kind} }${side(condition.right)}`;
    }
    case 'not':
      return `\\text{not }\\left(${printLatexCondition(condition.operand)}\\right)`;
  }
}

const sideMarks = { left: '^{-}', right: '^{+}', both: '' } as const;

function printBinder(node: BinderNode): string {
  const variable = latexName(node.variable);
  const body = bracketed(node.body, strength.product);
  switch (node.kind) {
    case 'summation':
      return `\\sum_{${variable}=${printLatex(node.from)}}^{${printLatex(node.to)}} ${body}`;
    case 'product':
      return `\\prod_{${variable}=${printLatex(node.from)}}^{${printLatex(node.to)}} ${body}`;
    case 'integral':
      return `\\int_{${printLatex(node.from)}}^{${printLatex(node.to)}} ${body}\\,\\mathrm{d}${variable}`;
    case 'limit':
      return `\\lim_{${variable}\\to ${printLatex(node.target)}${sideMarks[node.side]}} ${body}`;
  }
}

function printDerivative({ variable, order, isPartial, body, at }: DerivativeNode): string {
  const d = isPartial ? '\\partial ' : '\\mathrm{d}';
  const power = order > 1 ? `^{${order}}` : '';
  const written = `\\frac{${d}${power}}{${d}${latexName(variable)}${power}}\\left(${printLatex(body)}\\right)`;
  const isAtItself = at.kind === 'name' && at.name === variable;
  return isAtItself ? written : `\\left.${written}\\right|_{${latexName(variable)}=${printLatex(at)}}`;
}

function bracketed(node: Expression, least: number): string {
  const latex = printLatex(node);
  return strengthOf(node) < least ? `\\left(${latex}\\right)` : latex;
}

function printPower(base: Expression, exponent: Expression): string {
  const raised = `^{${printExponent(exponent)}}`;
  if (base.kind === 'call') {
    const { kind } = builtIn(base.name).notation;
    if (kind === 'operator' && exponent.kind === 'number') {
      return printCall(base.name, base.arguments, raised);
    }
    const isOpen = kind === 'operator' || kind === 'exponential' || kind === 'suffix';
    return isOpen ? `\\left(${printLatex(base)}\\right)${raised}` : `${printLatex(base)}${raised}`;
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
  const { notation } = builtIn(name);
  const argument = args[0] as Expression;
  // Asked for where it stands: printed twice at every depth, thirty roots in one another would take an hour.
  const text = (): string => printLatex(argument);
  switch (notation.kind) {
    case 'operator':
      return isPlainArgument(argument)
        ? `${notation.latex}${raised} ${text()}`
        : `${notation.latex}${raised}\\left(${text()}\\right)`;
    case 'indexed':
      return `${notation.latex}_{${text()}}\\left(${printLatex(args[1] as Expression)}\\right)`;
    case 'listed':
      return `${notation.latex}\\left(${args.map(printLatex).join(', ')}\\right)`;
    case 'fence':
      return `\\left${notation.open.latex}${text()}\\right${notation.close.latex}`;
    case 'root':
      return printRoot(notation.degree, args);
    case 'exponential':
      return `e^{${text()}}`;
    case 'suffix':
      return `${bracketed(argument, strength.atom)}${notation.latex}`;
  }
}

function printRoot(degree: number | 'argument', args: readonly Expression[]): string {
  const texts = args.map(printLatex);
  if (degree === 'argument') return `\\sqrt[${texts[0] ?? ''}]{${texts[1] ?? ''}}`;
  return degree === 2 ? `\\sqrt{${texts[0] ?? ''}}` : `\\sqrt[${degree}]{${texts[0] ?? ''}}`;
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
      return builtIn(node.name).notation.kind !== 'operator';
    default:
      return false;
  }
}

function printProduct(left: Expression, right: Expression): string {
  return printProductOf(left, bracketed(right, strength.power), right);
}

/** A product whose second factor is printed already. */
function printProductOf(left: Expression, second: string, right: Expression): string {
  const isClosed = endsOpen(left) && !isOperatorCall(right);
  const first = isClosed ? printClosed(left) : bracketed(left, strength.product);
  const needsDot = /^[\d.]/.test(second) || (left.kind === 'divide' && right.kind === 'divide');
  if (needsDot) return `${first}\\cdot ${second}`;
  return /[\d})]$/.test(first) ? `${first}${second}` : `${first} ${second}`;
}

/** A product or function that ends open, with its last argument in brackets: sin(2)·3 is not sin(2·3). */
function printClosed(node: Expression): string {
  if (node.kind === 'multiply') return printProductOf(node.left, printClosed(node.right), node.right);
  const raised = node.kind === 'power' ? `^{${printExponent(node.exponent)}}` : '';
  const call = node.kind === 'power' ? node.base : node;
  if (call.kind !== 'call') return printLatex(node);
  const { notation } = builtIn(call.name);
  const command = notation.kind === 'operator' ? notation.latex : '';
  return `${command}${raised}\\left(${call.arguments.map(printLatex).join(', ')}\\right)`;
}

function isOperatorCall(node: Expression): boolean {
  if (node.kind === 'power') return isOperatorCall(node.base);
  return node.kind === 'call' && builtIn(node.name).notation.kind === 'operator';
}

/** Whether the print ends in an argument without brackets, which a further factor would seem to join. */
function endsOpen(node: Expression): boolean {
  if (node.kind === 'multiply') return endsOpen(node.right);
  if (node.kind === 'power') return node.exponent.kind === 'number' && endsOpen(node.base);
  return node.kind === 'call' && isOperatorCall(node) && isPlainArgument(node.arguments[0] as Expression);
}
