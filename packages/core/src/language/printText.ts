import { builtIn } from '../functions/table.ts';
import type { Expression } from './tree.ts';

/** How tightly a node holds together; a part that binds less than its place asks gets brackets. */
export const strength = { sum: 1, product: 2, sign: 3, power: 4, atom: 5 } as const;

export function strengthOf(node: Expression): number {
  switch (node.kind) {
    case 'add':
    case 'subtract':
      return strength.sum;
    case 'negate':
      return strength.sum;
    case 'multiply':
    case 'divide':
      return strength.product;
    case 'power':
      return strength.power;
    case 'number':
      return node.text.includes('E') ? strength.product : strength.atom;
    case 'constant':
    case 'name':
    case 'call':
    case 'apply':
      return strength.atom;
  }
}

const constantTexts = { pi: 'π', e: 'e' } as const;

/** The tree as text that the reader reads back to the same tree. */
export function printText(node: Expression): string {
  switch (node.kind) {
    case 'number':
      return node.text;
    case 'constant':
      return constantTexts[node.name];
    case 'name':
      return node.name;
    case 'negate':
      return `-${bracketed(node.operand, strength.product)}`;
    case 'add':
      return `${printText(node.left)} + ${bracketed(node.right, strength.product)}`;
    case 'subtract':
      return `${printText(node.left)} - ${bracketed(node.right, strength.product)}`;
    case 'multiply':
      return printProduct(node.left, node.right);
    case 'divide':
      return `${bracketed(node.left, strength.product)}/${bracketed(node.right, strength.power)}`;
    case 'power':
      return `${bracketed(node.base, strength.atom)}^${bracketed(node.exponent, strength.atom)}`;
    case 'call':
      return printCall(node.name, node.arguments);
    case 'apply':
      return `${node.name}${printPrimes(node.order)}(${printText(node.argument)})`;
  }
}

const printPrimes = (order: number): string => (order <= 3 ? "'".repeat(order) : `^(${order})`);

function bracketed(node: Expression, least: number): string {
  const text = printText(node);
  return strengthOf(node) < least ? `(${text})` : text;
}

function printCall(name: string, args: readonly Expression[]): string {
  if (name === 'factorial') return `${bracketed(args[0] as Expression, strength.atom)}!`;
  const texts = args.map(printText);
  if (name === 'logBase' && isPlainBase(args[0] as Expression))
    return `log_${texts[0] ?? ''}(${texts[1] ?? ''})`;
  return `${builtIn(name).spellings[0] ?? name}(${texts.join(', ')})`;
}

const isPlainBase = (base: Expression): boolean =>
  base.kind === 'number' || base.kind === 'name' || base.kind === 'constant';

/** Signs are left out where the reader would put the same product together again. */
function printProduct(left: Expression, right: Expression): string {
  const first = bracketed(left, strength.product);
  const second = bracketed(right, strength.power);
  if (/^[\d.]/.test(second)) return `${first}*${second}`;
  const needsSpace = startsWithLetter(second) && !/^[\d.]+$/.test(first);
  return needsSpace ? `${first} ${second}` : `${first}${second}`;
}

const startsWithLetter = (text: string): boolean => /^\p{L}/u.test(text);
