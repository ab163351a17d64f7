import { canonicalName, isReserved, meaningOf } from './names.ts';
import type { Reader } from './reader.ts';
import { fail } from './problem.ts';
import type { Token } from './tokens.ts';
import * as tree from './tree.ts';
import type { Expression, Side } from './tree.ts';

/**
 * The reader of the limit, integral, sum or derivative that begins here; undefined where none does.
 * These are the constructs with a variable of their own.
 */
export function constructAt(parser: Reader): ((parser: Reader) => Expression) | undefined {
  const { token } = parser;
  const next = parser.ahead(1);
  if (token.kind === 'sign') {
    if (token.text === '∫') return readIntegral;
    if (token.text === '∑' || token.text === '∏') return readBracketedSum;
    return token.text === '∂' ? readPartial : undefined;
  }
  if (token.kind !== 'letters') return undefined;
  if (token.text === 'lim' && token.index === '') return readLimit;
  if (['binomial', 'binom'].includes(token.text) && next?.text === '(') return readBinomial;
  if (token.text === 'integral' && (next?.text === 'from' || !isKnown(parser, token))) return readIntegral;
  if (token.text === 'sum' && parser.ahead(2)?.text === 'from') return readSpokenSum;
  if (token.text === 'Σ' && next?.text === '(' && parser.ahead(3)?.text === '=') return readBracketedSum;
  return startsLeibniz(parser) ? readLeibniz : undefined;
}

const isKnown = ({ scope }: Reader, { text, index }: Token & { kind: 'letters' }): boolean =>
  meaningOf(text, index, scope) !== undefined;

/** The name that a construct binds. */
function bindable(parser: Reader, token: Token | undefined): string {
  if (token?.kind !== 'letters') {
    const place = token ?? parser.token;
    return fail('unexpectedSign', place.from, place.to, parser.spelled(place, place));
  }
  const name = canonicalName(token.text, token.index);
  if (isReserved(name)) fail('reservedName', token.from, token.to, parser.spelled(token, token));
  return name;
}

function expectSign(parser: Reader, sign: string): Token {
  if (!parser.isSign(sign)) {
    const { from, to } = parser.token;
    fail('unexpectedSign', from, to, parser.text.slice(from, to) || sign);
  }
  return parser.take();
}

function expectWord(parser: Reader, word: 'from' | 'to' | 'of'): void {
  if (!parser.isWord(word)) fail('wordMissing', parser.token.from, parser.token.to, word);
  parser.take();
}

/** lim[x → a] f(x), with a+ or a- for one side. The body is the product that follows. */
function readLimit(parser: Reader): Expression {
  const word = parser.take();
  if (!parser.isSign('(')) fail('limitTarget', word.from, word.to);
  const open = parser.position;
  const close = parser.closingOf(open);
  if (close < 0) fail('bracketNotClosed', parser.token.from, parser.text.length);
  parser.take();
  const variable = bindable(parser, parser.take());
  expectSign(parser, '→');
  const last = parser.all[close - 1] as Token;
  const side = close - 1 > parser.position ? sideOf(last) : 'both';
  const target = parser.part(parser.position, side === 'both' ? close : close - 1, { infinity: true });
  parser.skip(close + 1 - parser.position);
  return { kind: 'limit', variable, target, side, body: parser.binding(variable, () => parser.product()) };
}

function sideOf(token: Token): Side {
  if (token.text === '+' || token.text === '⁺') return 'right';
  return token.text === '-' || token.text === '⁻' ? 'left' : 'both';
}

/** ∫[a, b] f(t) dt, or `integral from a to b of f(t) dt`. */
function readIntegral(parser: Reader): Expression {
  const sign = parser.take();
  const { from, to } = parser.isWord('from') ? spokenBounds(parser) : bracketedBounds(parser, sign);
  const end = differentialAfter(parser, sign);
  const variable = end.variable;
  const body =
    end.index > parser.position || end.rest > 0
      ? parser.part(parser.position, end.index, { variable, lastLetters: end.rest })
      : tree.number(1);
  parser.skip(end.index + 1 - parser.position);
  return { kind: 'integral', variable, from, to, body };
}

function spokenBounds(parser: Reader): { from: Expression; to: Expression } {
  expectWord(parser, 'from');
  const from = parser.withInfinity(() => parser.sum());
  expectWord(parser, 'to');
  const to = parser.withInfinity(() => parser.sum());
  expectWord(parser, 'of');
  return { from, to };
}

function bracketedBounds(parser: Reader, sign: Token): { from: Expression; to: Expression } {
  if (!parser.isSign('(')) fail('boundsMissing', sign.from, sign.to, '∫');
  const open = parser.take();
  const from = parser.withInfinity(() => parser.sum());
  expectSign(parser, ',');
  const to = parser.withInfinity(() => parser.sum());
  parser.close(open);
  return { from, to };
}

interface Differential {
  /** Index of the token that ends with d and the variable. */
  readonly index: number;
  readonly variable: string;
  /** Letters of that token before the d: the x of `xdx`. */
  readonly rest: number;
}

/** The differential that ends the integral whose body begins here, past those of integrals inside. */
function differentialAfter(parser: Reader, sign: Token): Differential {
  let depth = 0;
  let open = 0;
  for (let i = parser.position; i < parser.all.length; i++) {
    const token = parser.all[i] as Token;
    if (token.text === '(') depth++;
    else if (token.text === ')' && --depth < 0) break;
    else if (depth === 0 && (token.text === '∫' || token.text === 'integral')) open++;
    else if (depth === 0 && token.kind === 'letters') {
      const found = differentialIn(parser, token, i);
      if (found && open === 0) return found;
      if (found) open--;
    }
  }
  const end = parser.text.length;
  return fail('differentialMissing', sign.from, end, '', `${parser.text.slice(sign.from, end)} dx`);
}

function differentialIn(
  parser: Reader,
  token: Token & { kind: 'letters' },
  index: number,
): Differential | undefined {
  const whole = /^d(\p{L}+)$/u.exec(token.text);
  if (isKnown(parser, token)) return undefined;
  if (whole) return { index, variable: canonicalName(whole[1] as string, token.index), rest: 0 };
  const tail = /^(\p{L}+)d(\p{L})$/u.exec(token.text);
  if (!tail) return undefined;
  return { index, variable: canonicalName(tail[2] as string, token.index), rest: (tail[1] as string).length };
}

/** `sum i from 1 to n of f(i)`; the body is the product that follows. */
function readSpokenSum(parser: Reader): Expression {
  parser.take();
  const variable = bindable(parser, parser.take());
  const { from, to } = spokenBounds(parser);
  const body = parser.binding(variable, () => parser.product());
  return { kind: 'summation', variable, from, to, body };
}

const isWholeNumber = (node: Expression): boolean =>
  node.kind === 'negate' ? isWholeNumber(node.operand) : node.kind === 'number' && /^\d+$/.test(node.text);

/** ∑[i = 1, n] f(i), or a product with ∏. */
function readBracketedSum(parser: Reader): Expression {
  const sign = parser.take();
  if (!parser.isSign('(')) fail('boundsMissing', sign.from, sign.to, sign.text === '∏' ? '∏' : '∑');
  const open = parser.take();
  const variable = bindable(parser, parser.take());
  expectSign(parser, '=');
  const from = parser.sum();
  if (sign.text === '∏' && !isWholeNumber(from)) fail('productStart', sign.from, parser.token.from);
  expectSign(parser, ',');
  const to = parser.sum();
  parser.close(open);
  const body = parser.binding(variable, () => parser.product());
  return { kind: sign.text === '∏' ? 'product' : 'summation', variable, from, to, body };
}

/** Whether d/dx, d²/dx² or d^2/dx^2 stands here, with dx no name of its own. */
function startsLeibniz(parser: Reader): boolean {
  const { token } = parser;
  if (token.kind !== 'letters' || token.text !== 'd' || token.index !== '') return false;
  const slash = parser.position + 1 + lengthOfPower(parser.all, parser.position + 1);
  const below = parser.all[slash + 1];
  return (
    parser.all[slash]?.text === '/' &&
    below?.kind === 'letters' &&
    /^d\p{L}/u.test(below.text) &&
    meaningOf(below.text, below.index, parser.scope) === undefined
  );
}

/** How many tokens a power such as ² or ^2 takes at this place. */
function lengthOfPower(tokens: readonly Token[], at: number): number {
  if (tokens[at]?.kind === 'superscript') return 1;
  return tokens[at]?.text === '^' && tokens[at + 1]?.kind === 'number' ? 2 : 0;
}

/** The order that a power after d or dx gives; 1 without a power. */
function takeOrder(parser: Reader): number {
  const length = lengthOfPower(parser.all, parser.position);
  if (length === 0) return 1;
  const token = parser.all[parser.position + length - 1] as Token;
  if (!/^[1-9]\d?$/.test(token.text)) fail('unexpectedSign', token.from, token.to, token.text);
  parser.skip(length);
  return Number(token.text);
}

function readLeibniz(parser: Reader): Expression {
  parser.take();
  const order = takeOrder(parser);
  expectSign(parser, '/');
  const below = parser.take();
  if (below.kind !== 'letters') throw new TypeError('startsLeibniz saw letters here');
  const variable = canonicalName(below.text.slice(1), below.index);
  return finishDerivative(parser, variable, order, false);
}

/** ∂/∂x f(x, y), and ∂²/∂x² f(x, y). */
function readPartial(parser: Reader): Expression {
  const sign = parser.take();
  const order = takeOrder(parser);
  if (!parser.isSign('/')) fail('derivativeVariable', sign.from, sign.to);
  parser.take();
  expectSign(parser, '∂');
  return finishDerivative(parser, bindable(parser, parser.take()), order, true);
}

/** What is differentiated: a bracket alone, or the product that follows; then perhaps `at x = 3`. */
function finishDerivative(parser: Reader, variable: string, order: number, isPartial: boolean): Expression {
  const below = takeOrder(parser);
  if (below !== order) {
    const token = parser.ahead(-1) as Token;
    fail('unexpectedSign', token.from, token.to, parser.spelled(token, token), String(order));
  }
  const isBracket = parser.isSign('(');
  const body = parser.binding(variable, () => (isBracket ? parser.factor() : parser.product()));
  const placed = isBracket || isPartial ? undefined : derivativeAt(body, variable, order);
  if (placed) return placed;
  return { kind: 'derivative', variable, order, isPartial, body, at: placeAfter(parser, variable) };
}

/** d/dx f(4) is f′(4): a function at a place that does not move. */
function derivativeAt(body: Expression, variable: string, order: number): Expression | undefined {
  const [place, ...more] = body.kind === 'apply' ? body.arguments : [];
  if (body.kind !== 'apply' || !place || more.length > 0 || tree.dependsOn(place, variable)) return undefined;
  return tree.applyAll(body.name, [(body.orders[0] ?? 0) + order], [place]);
}

/** (x²)′ and (x²)′(3): the derivative by the variable of the text, or by the only name that is there. */
export function readPrimes(parser: Reader, body: Expression): Expression {
  const first = parser.token;
  let order = 0;
  while (parser.isSign("'", "''", "'''")) order += parser.take().text.length;
  const { names } = tree.mentioned(body);
  const { variable: own } = parser.scope;
  const [only = own] = names;
  const variable = own !== undefined && names.has(own) ? own : only;
  const isKnown = variable === own || names.size === 1;
  if (variable === undefined || !isKnown) return fail('derivativeVariable', first.from, first.to);
  const at = parser.isSign('(') ? parser.factor() : tree.name(variable);
  return { kind: 'derivative', variable, order, isPartial: false, body, at };
}

/** n!/(k! (n − k)!), the number of ways to choose k of n. */
function readBinomial(parser: Reader): Expression {
  parser.take();
  const open = parser.take();
  const n = parser.sum();
  expectSign(parser, ',');
  const k = parser.sum();
  parser.close(open);
  const factorial = (of: Expression): Expression => tree.call('factorial', of);
  return tree.divide(factorial(n), tree.multiply(factorial(k), factorial(tree.subtract(n, k))));
}

function placeAfter(parser: Reader, variable: string): Expression {
  const [word, name, equals] = [parser.token, parser.ahead(1), parser.ahead(2)];
  const isPlace =
    word.text === 'at' &&
    name?.kind === 'letters' &&
    canonicalName(name.text, name.index) === variable &&
    equals?.text === '=';
  if (!isPlace) {
    if (!parser.knows(variable)) fail('unknownName', word.from, word.to, variable);
    return tree.name(variable);
  }
  parser.skip(3);
  return parser.sum();
}
