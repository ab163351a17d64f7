import { builtIn } from '../functions/table.ts';
import type {
  BinderNode,
  ComparisonNode,
  Condition,
  DerivativeNode,
  Expression,
  PiecewiseNode,
} from './tree.ts';
import { writtenSpline } from './tree.ts';

/** How tightly a node holds together; a part that binds less than its place asks gets brackets. */
export const strength = { pieces: 0, sum: 1, term: 1.5, product: 2, sign: 3, power: 4, atom: 5 } as const;

export function strengthOf(node: Expression): number {
  switch (node.kind) {
    case 'piecewise':
      return strength.pieces;
    case 'add':
    case 'subtract':
    case 'negate':
      return strength.sum;
    // What stands behind a sum, an integral or a limit would be drawn into it.
    case 'summation':
    case 'product':
    case 'limit':
    case 'integral':
      return strength.term;
    case 'multiply':
    case 'divide':
    case 'derivative':
      return strength.product;
    case 'power':
      return strength.power;
    case 'number':
      return node.text.includes('E') ? strength.product : strength.atom;
    case 'call':
      return builtIn(node.name).notation.kind === 'suffix' ? strength.power : strength.atom;
    case 'constant':
    case 'name':
    case 'apply':
    case 'spline':
    case 'distance':
      return strength.atom;
  }
}

const constantTexts = { pi: 'π', e: 'e', infinity: '∞' } as const;

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
      return `-${bracketed(node.operand, strength.term)}`;
    case 'add':
      return `${bracketed(node.left, strength.sum)} + ${bracketed(node.right, strength.term)}`;
    case 'subtract':
      return `${bracketed(node.left, strength.sum)} - ${bracketed(node.right, strength.term)}`;
    case 'multiply':
      return printProduct(node.left, node.right);
    case 'divide':
      return `${bracketed(node.left, strength.product)}/${bracketed(node.right, strength.power)}`;
    case 'power':
      return `${bracketed(node.base, strength.atom)}^${bracketed(node.exponent, strength.atom)}`;
    case 'call':
      return printCall(node.name, node.arguments);
    case 'apply':
      return `${printApplied(node.name, node.orders)}(${node.arguments.map(printText).join(', ')})`;
    case 'spline':
      return printText(writtenSpline(node));
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
      return `|${node.from}${node.to}|`;
  }
}

function printApplied(name: string, orders: readonly number[]): string {
  if (orders.length > 1) {
    const partials = orders.flatMap((order, i) => Array.from({ length: order }, () => `∂_${i + 1} `));
    return `${partials.join('')}${name}`;
  }
  const order = orders[0] ?? 0;
  return `${name}${order <= 3 ? "'".repeat(order) : `^(${order})`}`;
}

function bracketed(node: Expression, least: number): string {
  const text = printText(node);
  const isOpen = node.kind === 'derivative' && hasPlace(node);
  return isOpen || strengthOf(node) < least ? `(${text})` : text;
}

function printCall(name: string, args: readonly Expression[]): string {
  const { notation, spellings } = builtIn(name);
  if (notation.kind === 'suffix') {
    return `${bracketed(args[0] as Expression, strength.atom)}${notation.symbol}`;
  }
  const texts = args.map(printText);
  if (name === 'logBase' && isPlainBase(args[0] as Expression))
    return `log_${texts[0] ?? ''}(${texts[1] ?? ''})`;
  return `${spellings[0] ?? name}(${texts.join(', ')})`;
}

const isPlainBase = (base: Expression): boolean =>
  (base.kind === 'number' && /^\d+$/.test(base.text)) || base.kind === 'name' || base.kind === 'constant';

/** Signs are left out where the reader would put the same product together again. */
function printProduct(left: Expression, right: Expression): string {
  const first = bracketed(left, strength.product);
  const second = bracketed(right, strength.power);
  if (/^[\d.|]/.test(second)) return `${first}*${second}`;
  // A bracket behind d/dx (…) or behind a name that ends in one would be read as more of it.
  if (second.startsWith('(') && left.kind === 'derivative') return `${first}*${second}`;
  const needsSpace = startsWithLetter(second) && !/^[\d.]+$/.test(first);
  return needsSpace ? `${first} ${second}` : `${first}${second}`;
}

const startsWithLetter = (text: string): boolean => /^\p{L}/u.test(text);

function printPieces({ pieces, otherwise }: PiecewiseNode): string {
  if (pieces.length === 1 && !otherwise) {
    const [{ value, condition }] = pieces as [PiecewiseNode['pieces'][number]];
    const isBare = strengthOf(value) > strength.pieces || isDomain(value);
    return `${isBare ? printText(value) : `(${printText(value)})`} for ${printCondition(condition)}`;
  }
  const texts = pieces.map(
    ({ value, condition }) => `${bracketed(value, strength.sum)} if ${printCondition(condition)}`,
  );
  if (otherwise) texts.push(`${bracketed(otherwise, strength.sum)} otherwise`);
  return texts.join('; ');
}

const isDomain = (node: Expression): boolean =>
  node.kind === 'piecewise' && node.pieces.length === 1 && !node.otherwise;

const conditionStrength = { or: 1, and: 2, not: 3, comparison: 4 } as const;

/**
 * A condition as text that the reader reads back to the same condition.
 * @param truths names that are 1 or 0, which say alone that they are 1
 */
export function printCondition(condition: Condition, truths: ReadonlySet<string> = new Set()): string {
  const part = (inner: Condition, least: number): string => {
    const text = printCondition(inner, truths);
    return conditionStrength[inner.kind] < least ? `(${text})` : text;
  };
  switch (condition.kind) {
    case 'comparison': {
      const alone = truthAlone(condition);
      if (alone !== null && truths.has(alone)) return alone.replace(/_(?=\d+$)/, '');
      return condition.operands
        .map((operand, i) => {
          const relation = condition.relations[i - 1];
          const text = bracketed(operand, strength.sum);
          return relation === undefined ? text : ` ${relation} ${text}`;
        })
        .join('');
    }
    case 'or':
      return `${part(condition.left, 1)} or ${part(condition.right, 2)}`;
    case 'and':
      return `${part(condition.left, 2)} and ${part(condition.right, 3)}`;
    case 'not':
      return `not ${part(condition.operand, 3)}`;
  }
}

/** The name of a comparison that says of a name that it is 1; null for any other. */
export function truthAlone({ operands: [first, second, ...more], relations }: ComparisonNode): string | null {
  const isOne = second?.kind === 'number' && second.text === '1';
  return first?.kind === 'name' && isOne && relations[0] === '=' && more.length === 0 ? first.name : null;
}

const sideTexts = { left: '-', right: '+', both: '' } as const;

function printBinder(node: BinderNode): string {
  switch (node.kind) {
    case 'summation':
      return `sum ${node.variable} from ${printText(node.from)} to ${printText(node.to)} of (${printText(node.body)})`;
    case 'product':
      return `∏[${node.variable} = ${printText(node.from)}, ${bracketed(node.to, strength.sum)}] (${printText(node.body)})`;
    case 'integral': {
      const bounds = `${bracketed(node.from, strength.sum)}, ${bracketed(node.to, strength.sum)}`;
      return `∫[${bounds}] (${printText(node.body)}) d${node.variable}`;
    }
    case 'limit': {
      const target = `${printText(node.target)}${sideTexts[node.side]}`;
      return `lim[${node.variable} → ${target}] (${printText(node.body)})`;
    }
  }
}

/** Behind the place of a derivative everything would belong to the place. */
const hasPlace = ({ at, variable }: DerivativeNode): boolean => at.kind !== 'name' || at.name !== variable;

function printDerivative(node: DerivativeNode): string {
  const { variable, order, isPartial, body, at } = node;
  const d = isPartial ? '∂' : 'd';
  const power = order > 1 ? `^${order}` : '';
  const written = `${d}${power}/${d}${variable}${power} (${printText(body)})`;
  return !hasPlace(node) ? written : `${written} at ${variable} = ${bracketed(at, strength.sum)}`;
}
