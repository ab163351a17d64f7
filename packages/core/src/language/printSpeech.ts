import { builtIn } from '../functions/table.ts';
import { greekLetters } from './names.ts';
import { strength, strengthOf } from './printText.ts';
import type { BinderNode, Condition, DerivativeNode, Expression, PiecewiseNode, Relation } from './tree.ts';
import { writtenSpline } from './tree.ts';

const greekWords = new Map(Object.entries(greekLetters).map(([word, letter]) => [letter, word]));

/** A name as it is spoken: Greek letters by name, capitals said as such, the index behind "sub". */
function spokenName(name: string): string {
  const [base = '', index] = name.split('_');
  const isChange = base.length > 1 && base.startsWith('Δ');
  const letters = isChange
    ? `Delta ${base.slice(1)}`
    : [...base].map((letter) => greekWords.get(letter) ?? letter).join('');
  const isCapital = letters.length === 1 && letters !== letters.toLowerCase();
  const spoken = isCapital ? `capital ${letters}` : letters;
  return index === undefined ? spoken : `${spoken} sub ${index}`;
}

/** The tree in spoken English, with words where a listener could not hear where a part ends. */
export function printSpeech(node: Expression): string {
  switch (node.kind) {
    case 'number':
      return spokenNumber(node.text);
    case 'constant':
      return { pi: 'pi', e: 'e', infinity: 'infinity' }[node.name];
    case 'name':
      return spokenName(node.name);
    case 'negate':
      return `minus ${grouped(node.operand, strength.term)}`;
    case 'add':
      return `${grouped(node.left, strength.sum)} plus ${grouped(node.right, strength.term)}`;
    case 'subtract':
      return `${grouped(node.left, strength.sum)} minus ${grouped(node.right, strength.term)}`;
    case 'multiply':
      return spokenProduct(node.left, node.right);
    case 'divide':
      return spokenFraction(node.left, node.right);
    case 'power':
      return spokenPower(node.base, node.exponent);
    case 'call':
      return spokenCall(node.name, node.arguments);
    case 'apply':
      return `${spokenFunction(node.name, node.orders)} of ${node.arguments.map(argument).join(' and ')}`;
    case 'spline':
      return printSpeech(writtenSpline(node));
    case 'piecewise':
      return spokenPieces(node);
    case 'summation':
    case 'product':
    case 'integral':
    case 'limit':
      return spokenBinder(node);
    case 'derivative':
      return spokenDerivative(node);
    case 'distance':
      return `the distance from ${spokenName(node.from)} to ${spokenName(node.to)}`;
  }
}

function spokenNumber(text: string): string {
  const [digits = '', exponent] = text.split('E');
  const mantissa = digits.startsWith('.') ? `0${digits}` : digits;
  const decimal = mantissa.replace('.', ' point ').trim();
  if (exponent === undefined) return decimal;
  return `${decimal} times 10 to the power of ${exponent.replace('-', 'minus ').replace('+', '')}`;
}

/** A pause tells that the argument of a function before it is over: sine of 2, times 3. */
function spokenProduct(left: Expression, right: Expression): string {
  const first = isOpen(left) ? `${printSpeech(left)},` : factor(left, strength.product);
  return `${first} times ${factor(right, strength.power)}`;
}

/** Whether an expression ends with the argument of a function that is said without an end. */
function isOpen(node: Expression): boolean {
  if (node.kind === 'multiply') return isOpen(node.right);
  if (node.kind === 'power') return isOpen(node.base);
  return node.kind === 'call' && ['operator', 'indexed'].includes(builtIn(node.name).notation.kind);
}

/** A factor or base: roots and absolute values say where they end. */
function factor(node: Expression, least: number): string {
  if (node.kind === 'call') {
    const { notation, spoken } = builtIn(node.name);
    const [first] = node.arguments;
    const end = notation.kind === 'fence' ? `end ${spoken}` : notation.kind === 'root' ? 'end root' : '';
    if (end !== '' && first && isSimple(node.arguments.at(-1) as Expression))
      return `${printSpeech(node)}, ${end}`;
  }
  return grouped(node, least);
}

function grouped(node: Expression, least: number): string {
  const spoken = printSpeech(node);
  return strengthOf(node) < least ? `the quantity ${spoken}, end quantity` : spoken;
}

/** An argument: said plainly where it is one number, name or product, else as a quantity. */
const argument = (node: Expression): string => grouped(node, strength.product);

const isSimple = (node: Expression): boolean =>
  node.kind === 'number' || node.kind === 'constant' || node.kind === 'name';

function spokenFraction(left: Expression, right: Expression): string {
  if (isSimple(left) && isSimple(right)) return `${printSpeech(left)} over ${printSpeech(right)}`;
  return `the fraction ${printSpeech(left)} over ${printSpeech(right)}, end fraction`;
}

function spokenPower(base: Expression, exponent: Expression): string {
  if (base.kind === 'call' && exponent.kind === 'number') {
    const { notation, spoken } = builtIn(base.name);
    const isOperator = notation.kind === 'operator';
    if (isOperator) return `${raised(spoken, exponent)} of ${argument(base.arguments[0] as Expression)}`;
  }
  return raised(factor(base, strength.atom), exponent);
}

function raised(spoken: string, exponent: Expression): string {
  if (exponent.kind === 'number' && exponent.text === '2') return `${spoken} squared`;
  if (exponent.kind === 'number' && exponent.text === '3') return `${spoken} cubed`;
  const power = `${spoken} to the power of ${printSpeech(exponent)}`;
  return isSimple(exponent) ? power : `${power}, end power`;
}

function spokenCall(name: string, args: readonly Expression[]): string {
  const { notation, spoken } = builtIn(name);
  const [first, second] = args as [Expression, Expression];
  switch (notation.kind) {
    case 'operator':
      return `${spoken} of ${argument(first)}`;
    case 'indexed':
      return `${spoken} to base ${argument(first)} of ${argument(second)}`;
    case 'listed':
      return name === 'mod'
        ? `the remainder of ${argument(first)} divided by ${argument(second)}`
        : `the ${spoken} of ${args.map(argument).join(' and ')}`;
    case 'fence':
      return closed(`the ${spoken} of`, first, `end ${spoken}`);
    case 'root':
      if (notation.degree === 'argument') {
        return closed(`the root of degree ${printSpeech(first)} of`, second, 'end root');
      }
      return closed(`the ${spoken} of`, first, 'end root');
    case 'exponential':
      return isSimple(first)
        ? `e to the power of ${printSpeech(first)}`
        : `e to the power of ${printSpeech(first)}, end power`;
    case 'suffix':
      return `${grouped(first, strength.atom)} ${spoken}`;
  }
}

const closed = (opening: string, inside: Expression, closing: string): string =>
  isSimple(inside) ? `${opening} ${printSpeech(inside)}` : `${opening} ${printSpeech(inside)}, ${closing}`;

const primes = ['', ' prime', ' double prime', ' triple prime'];

function spokenFunction(name: string, orders: readonly number[]): string {
  const spoken = spokenName(name);
  if (orders.length > 1) {
    const partials = orders.flatMap((order, i) =>
      Array.from({ length: order }, () => `the partial derivative in argument ${i + 1} of `),
    );
    return partials.join('') + spoken;
  }
  const order = orders[0] ?? 0;
  return order < primes.length
    ? `${spoken}${primes[order] ?? ''}`
    : `the ${ordinal(order)} derivative of ${spoken}`;
}

const firstOrdinals = ['', 'first', 'second', 'third', 'fourth', 'fifth'];

function ordinal(n: number): string {
  const word = firstOrdinals[n];
  if (word) return word;
  const suffix = n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${suffix}`;
}

function spokenPieces({ pieces, otherwise }: PiecewiseNode): string {
  const [first] = pieces;
  if (first && pieces.length === 1 && !otherwise) {
    return `${printSpeech(first.value)}, for ${spokenCondition(first.condition)}`;
  }
  const parts = pieces.map(
    ({ value, condition }) => `${printSpeech(value)} if ${spokenCondition(condition)}`,
  );
  if (otherwise) parts.push(`${printSpeech(otherwise)} otherwise`);
  return `by cases: ${parts.join('; ')}`;
}

const relationWords: Readonly<Record<Relation, string>> = {
  '<': 'is less than',
  '≤': 'is at most',
  '>': 'is greater than',
  '≥': 'is at least',
  '=': 'equals',
  '≠': 'is not equal to',
};

/** A condition in spoken English; a chain goes on with "which". */
export function spokenCondition(condition: Condition): string {
  switch (condition.kind) {
    case 'comparison':
      return condition.operands
        .map((operand, i) => {
          const relation = condition.relations[i - 1];
          if (relation === undefined) return printSpeech(operand);
          return `${i > 1 ? ', which ' : ' '}${relationWords[relation]} ${printSpeech(operand)}`;
        })
        .join('');
    case 'and':
    case 'or':
      return `${spokenCondition(condition.left)} ${condition.kind} ${spokenCondition(condition.right)}`;
    case 'not':
      return `it is not true that ${spokenCondition(condition.operand)}`;
  }
}

const sideWords = { left: ' from the left', right: ' from the right', both: '' } as const;

function spokenBinder(node: BinderNode): string {
  const variable = spokenName(node.variable);
  const body = argument(node.body);
  switch (node.kind) {
    case 'summation':
      return `the sum for ${variable} from ${printSpeech(node.from)} to ${printSpeech(node.to)} of ${body}`;
    case 'product':
      return `the product for ${variable} from ${printSpeech(node.from)} to ${printSpeech(node.to)} of ${body}`;
    case 'integral':
      return `the integral from ${printSpeech(node.from)} to ${printSpeech(node.to)} of ${body}, d ${variable}`;
    case 'limit':
      return `the limit as ${variable} approaches ${printSpeech(node.target)}${sideWords[node.side]} of ${body}`;
  }
}

function spokenDerivative({ variable, order, isPartial, body, at }: DerivativeNode): string {
  const which = `${order > 1 ? `${ordinal(order)} ` : ''}${isPartial ? 'partial ' : ''}derivative`;
  const written = `the ${which} with respect to ${spokenName(variable)} of ${argument(body)}`;
  const isAtItself = at.kind === 'name' && at.name === variable;
  return isAtItself ? written : `${written}, at ${spokenName(variable)} equal to ${printSpeech(at)}`;
}
