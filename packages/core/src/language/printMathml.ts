import { builtIn } from '../functions/table.ts';
import { greekLetters } from './names.ts';
import { strength, strengthOf } from './printText.ts';
import type { BinderNode, Condition, DerivativeNode, Expression, PiecewiseNode } from './tree.ts';
import { writtenSpline } from './tree.ts';

const escape = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
const element = (tag: string, ...children: readonly string[]): string =>
  `<${tag}>${children.join('')}</${tag}>`;
const row = (...children: readonly string[]): string => element('mrow', ...children);
const sign = (text: string): string => element('mo', escape(text));
const digits = (text: string): string => element('mn', text);
const words = (text: string): string => element('mtext', escape(text));
const fenced = (inside: string, open = '(', close = ')'): string => row(sign(open), inside, sign(close));
/** The sign for "applied to", which has no ink. */
const applied = sign('\u2061');
const times = sign('\u2062');

/** A name as MathML: the index below. */
function identifier(name: string): string {
  const [base = '', index] = name.split('_');
  const letter = element('mi', escape(greekLetters[base] ?? base));
  if (index === undefined) return letter;
  return element('msub', letter, /^\d+$/.test(index) ? digits(index) : element('mi', escape(index)));
}

/** A tree, or content that is written already, as a MathML Core `math` element for inline text. */
export function mathmlOf(content: Expression | string): string {
  const inside = typeof content === 'string' ? content : print(content);
  return `<math xmlns="http://www.w3.org/1998/Math/MathML">${inside}</math>`;
}

function print(node: Expression): string {
  switch (node.kind) {
    case 'number':
      return printNumber(node.text);
    case 'constant':
      return element('mi', { pi: 'π', e: 'e', infinity: '∞' }[node.name]);
    case 'name':
      return identifier(node.name);
    case 'negate':
      return row(sign('−'), bracketed(node.operand, strength.term));
    case 'add':
      return row(bracketed(node.left, strength.sum), sign('+'), bracketed(node.right, strength.term));
    case 'subtract':
      return row(bracketed(node.left, strength.sum), sign('−'), bracketed(node.right, strength.term));
    case 'multiply':
      return printProduct(node.left, node.right);
    case 'divide':
      return element('mfrac', print(node.left), print(node.right));
    case 'power':
      return printPower(node.base, node.exponent);
    case 'call':
      return printCall(node.name, node.arguments);
    case 'apply':
      return row(printApplied(node.name, node.orders), applied, fenced(list(node.arguments)));
    case 'spline':
      return print(writtenSpline(node));
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
      return fenced(row(identifier(node.from), identifier(node.to)), '|', '|');
  }
}

function printNumber(text: string): string {
  const [mantissa = '', exponent] = text.split('E');
  if (exponent === undefined) return digits(mantissa);
  return row(digits(mantissa), sign('·'), element('msup', digits('10'), digits(exponent.replace('+', ''))));
}

function bracketed(node: Expression, least: number): string {
  return strengthOf(node) < least ? fenced(print(node)) : print(node);
}

const list = (args: readonly Expression[]): string =>
  args.length === 1 ? print(args[0] as Expression) : row(args.map(print).join(sign(',')));

function printProduct(left: Expression, right: Expression): string {
  const isNumberBehind = right.kind === 'number' || (right.kind === 'power' && right.base.kind === 'number');
  return row(
    bracketed(left, strength.product),
    isNumberBehind ? sign('·') : times,
    bracketed(right, strength.power),
  );
}

function printPower(base: Expression, exponent: Expression): string {
  if (base.kind === 'call') {
    const { notation } = builtIn(base.name);
    if (notation.kind === 'operator' && exponent.kind === 'number') {
      const raised = element('msup', operatorName(base.name), print(exponent));
      return row(raised, applied, argument(base.arguments[0] as Expression));
    }
    if (notation.kind !== 'fence' && notation.kind !== 'root') {
      return element('msup', fenced(print(base)), print(exponent));
    }
  }
  const isTall = base.kind === 'divide';
  return element('msup', isTall ? fenced(print(base)) : bracketed(base, strength.atom), print(exponent));
}

const operatorName = (name: string): string => element('mi', builtIn(name).spellings[0] ?? name);

/** An argument with brackets unless it is a single number or name. */
function argument(node: Expression): string {
  const isPlain = node.kind === 'number' || node.kind === 'constant' || node.kind === 'name';
  return isPlain ? print(node) : fenced(print(node));
}

function printCall(name: string, args: readonly Expression[]): string {
  const { notation } = builtIn(name);
  const [first, second] = args as [Expression, Expression];
  switch (notation.kind) {
    case 'operator':
      return row(operatorName(name), applied, argument(first));
    case 'indexed':
      return row(
        element('msub', element('mi', notation.symbol), print(first)),
        applied,
        fenced(print(second)),
      );
    case 'listed':
      return row(operatorName(name), applied, fenced(list(args)));
    case 'fence':
      return fenced(print(first), notation.open.symbol, notation.close.symbol);
    case 'root':
      if (notation.degree === 2) return element('msqrt', print(first));
      return notation.degree === 'argument'
        ? element('mroot', print(second), print(first))
        : element('mroot', print(first), digits(String(notation.degree)));
    case 'exponential':
      return element('msup', element('mi', 'e'), print(first));
    case 'suffix':
      return row(bracketed(first, strength.atom), sign(notation.symbol));
  }
}

function printApplied(name: string, orders: readonly number[]): string {
  if (orders.length > 1) {
    const partials = orders.flatMap((order, i) =>
      Array.from({ length: order }, () => element('msub', sign('∂'), digits(String(i + 1)))),
    );
    return row(...partials, identifier(name));
  }
  const order = orders[0] ?? 0;
  if (order === 0) return identifier(name);
  const mark = order <= 3 ? sign('′'.repeat(order)) : fenced(digits(String(order)));
  return element('msup', identifier(name), mark);
}

function printPieces({ pieces, otherwise }: PiecewiseNode): string {
  const [first] = pieces;
  if (first && pieces.length === 1 && !otherwise) {
    return row(print(first.value), sign(','), printMathmlCondition(first.condition));
  }
  const rows = pieces.map(({ value, condition }) => [
    print(value),
    row(words('if '), printMathmlCondition(condition)),
  ]);
  if (otherwise) rows.push([print(otherwise), words('otherwise')]);
  const table = element(
    'mtable',
    ...rows.map((cells) => element('mtr', ...cells.map((cell) => element('mtd', cell)))),
  );
  return row(sign('{'), table);
}

/** A condition as MathML content, without the `math` element around it. */
export function printMathmlCondition(condition: Condition): string {
  switch (condition.kind) {
    case 'comparison':
      return row(
        ...condition.operands.map((operand, i) => {
          const relation = condition.relations[i - 1];
          return relation === undefined ? print(operand) : sign(relation) + print(operand);
        }),
      );
    case 'and':
    case 'or': {
      const side = (part: Condition): string =>
        part.kind === 'or' && condition.kind === 'and'
          ? fenced(printMathmlCondition(part))
          : printMathmlCondition(part);
      return row(side(condition.left), words(` ${condition.kind} `), side(condition.right));
    }
    case 'not':
      return row(words('not '), fenced(printMathmlCondition(condition.operand)));
  }
}

function printBinder(node: BinderNode): string {
  const variable = identifier(node.variable);
  const body = bracketed(node.body, strength.product);
  switch (node.kind) {
    case 'summation':
    case 'product': {
      const below = row(variable, sign('='), print(node.from));
      const large = sign(node.kind === 'product' ? '∏' : '∑');
      return row(element('munderover', large, below, print(node.to)), body);
    }
    case 'integral':
      return row(
        element('msubsup', sign('∫'), print(node.from), print(node.to)),
        body,
        element('mi', 'd'),
        variable,
      );
    case 'limit': {
      const mark = { left: '−', right: '+', both: '' }[node.side];
      const target = mark ? element('msup', print(node.target), sign(mark)) : print(node.target);
      return row(element('munder', element('mi', 'lim'), row(variable, sign('→'), target)), applied, body);
    }
  }
}

function printDerivative({ variable, order, isPartial, body, at }: DerivativeNode): string {
  const d = isPartial ? sign('∂') : element('mi', 'd');
  const power = (base: string): string => (order > 1 ? element('msup', base, digits(String(order))) : base);
  const operator = element('mfrac', power(d), row(d, power(identifier(variable))));
  const written = row(operator, fenced(print(body)));
  const isAtItself = at.kind === 'name' && at.name === variable;
  if (isAtItself) return written;
  return element('msub', row(written, sign('|')), row(identifier(variable), sign('='), print(at)));
}
