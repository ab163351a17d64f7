import * as tree from './tree.ts';
import type { Expression } from './tree.ts';
import { readPieces } from './conditions.ts';
import { constructAt, readPrimes } from './constructs.ts';
import { CallReader, isCountOfDegrees, isDegrees } from './calls.ts';
import { isWord, meaningOf, withVariables } from './names.ts';
import { ownNames } from './ownNames.ts';
import type { PartOptions, Reader } from './reader.ts';
import { fail } from './problem.ts';
import type { Token } from './tokens.ts';

/** Long chains make deep trees too; everything that walks a tree may recurse this far. */
const deepestTree = 1000;

/**
 * Reads one expression from tokens by recursive descent.
 *
 * Products without a sign have the strength of a written product and run from left to right;
 * powers run from right to left; the argument of a function without brackets is the product of
 * numbers, names and powers that follows.
 */
export class Parser extends CallReader implements Reader {
  private allowsInfinity = false;

  /** The whole token list as one expression; anything left over is a problem at its place. */
  readAll(): Expression {
    const result = readPieces(this, 'condition');
    this.expectEnd();
    if (depthOf(result) > deepestTree) fail('tooLarge', 0, this.text.length);
    return result;
  }

  expectEnd(): void {
    const rest = this.token;
    if (rest.kind !== 'end') this.rejectLeftover(rest);
  }

  /** The tokens from `from` up to `to`, exclusive, as an expression of their own. */
  part(from: number, to: number, { variable, infinity = false, lastLetters = 0 }: PartOptions): Expression {
    const tokens = this.tokens.slice(from, to);
    const next = this.tokens[to] as Token;
    let end = tokens.at(-1)?.to ?? next.from;
    if (lastLetters > 0 && next.kind === 'letters') {
      end = next.from + lastLetters;
      tokens.push({ ...next, text: next.text.slice(0, lastLetters), index: '', to: end });
    }
    if (tokens.length === 0) fail('unexpectedEnd', next.from, next.to);
    tokens.push({ kind: 'end', text: '', from: end, to: end });
    const scope = variable === undefined ? this.scope : withVariables(this.scope, [variable]);
    const parser = new Parser(tokens, this.text, scope, this.nesting + 1, this.count);
    return parser.nested(() => (infinity ? parser.withInfinity(() => parser.readAll()) : parser.readAll()));
  }

  /** Runs a reading step in which a further name is known. */
  binding<T>(variable: string, read: () => T): T {
    const outer = this.scope;
    this.scope = withVariables(outer, [variable]);
    const result = read();
    this.scope = outer;
    return result;
  }

  /** Runs a reading step in which ±∞ may stand. */
  withInfinity<T>(read: () => T): T {
    const before = this.allowsInfinity;
    this.allowsInfinity = true;
    const result = read();
    this.allowsInfinity = before;
    return result;
  }

  knows(variable: string): boolean {
    return this.scope.names.has(variable);
  }

  private rejectLeftover(rest: Token): never {
    if (rest.text === ')') fail('bracketNotOpened', rest.from, rest.to, '', '');
    if (rest.text === '=') fail('secondEquals', rest.from, rest.to);
    if (/^'+$/.test(rest.text)) fail('primesWithoutBracket', rest.from, rest.to);
    if (['<', '>', '≤', '≥', '≠'].includes(rest.text)) this.rejectRelation(rest);
    fail('unexpectedSign', rest.from, rest.to, this.text.slice(rest.from, rest.to));
  }

  /** x² (1 ≤ x ≤ 3): where the comparison stands in a bracket at the end, it is one that could follow a `for`. */
  private rejectRelation(relation: Token): never {
    const open = this.openedBracket();
    const close = open ? this.closingOf(this.tokens.indexOf(open)) : -1;
    const isAtEnd = close > 0 && this.tokens[close + 1]?.kind === 'end';
    const variable = this.scope.variable ?? 'x';
    if (!open || !isAtEnd) fail('relationHere', relation.from, relation.to, variable);
    const end = this.tokens[close] as Token;
    fail('relationHere', open.from, end.to, variable, `for ${this.text.slice(open.to, end.from).trim()}`);
  }

  /** The innermost bracket that is open at this place. */
  private openedBracket(): Token | undefined {
    const open: Token[] = [];
    for (const token of this.tokens.slice(0, this.at)) {
      if (token.kind !== 'sign') continue;
      if (token.text === '(') open.push(token);
      if (token.text === ')') open.pop();
    }
    return open.at(-1);
  }

  /** x² [1, 3]: an interval behind a formula is where the formula is to hold. */
  private rejectInterval(open: Token): void {
    const close = this.closingOf(this.tokens.indexOf(open));
    const end = this.tokens[close];
    const ends = end && this.text.slice(open.to, end.from).split(',');
    if (this.text[open.from] !== '[' || ends?.length !== 2 || this.tokens[close + 1]?.kind !== 'end') return;
    const variable = this.scope.variable ?? 'x';
    const [from = '', to = ''] = ends.map((side) => side.trim());
    fail('relationHere', open.from, end?.to ?? open.to, variable, `for ${from} ≤ ${variable} ≤ ${to}`);
  }

  sum(): Expression {
    return this.nested(() => {
      let left = this.leadingTerm();
      while (this.isSign('+', '-')) {
        const kind = this.take().text === '+' ? 'add' : 'subtract';
        left = tree.binary(kind, left, this.product());
      }
      return left;
    });
  }

  /** The first term of a sum: a minus sign before it stands for the whole term, −x/2 = −(x/2). */
  private leadingTerm(): Expression {
    if (!this.isSign('-')) return this.product();
    this.take();
    return tree.negate(this.isSign('-') ? this.nested(() => this.leadingTerm()) : this.product());
  }

  product(): Expression {
    let left = this.signed();
    for (;;) {
      if (this.isSign('*', '/')) {
        const kind = this.take().text === '*' ? 'multiply' : 'divide';
        const right = this.signed();
        const isTold = this.scope.angles === 'degrees' && isCountOfDegrees(left) && isDegrees(right);
        left = isTold && kind === 'divide' ? left : tree.binary(kind, left, right);
      } else if (this.isRemainder()) {
        this.pieces = [];
        left = tree.call('mod', left, this.signed());
      } else if (this.startsFactor()) {
        this.rejectNumbersSideBySide();
        left = tree.multiply(left, this.powered());
      } else return left;
    }
  }

  /** x mod 2: the name of the remainder between two numbers, rather than before two in brackets. */
  private isRemainder(): boolean {
    const piece = this.peekPiece();
    if (piece?.meaning.kind !== 'builtIn' || piece.meaning.name !== 'mod' || this.pieces.length > 1)
      return false;
    const close = this.isBehindPiece('(') ? this.closingOf(this.at) : -1;
    let depth = 0;
    return !this.tokens.slice(this.at, Math.max(this.at, close)).some(({ kind, text }) => {
      if (kind === 'sign' && text === '(') depth++;
      if (kind === 'sign' && text === ')') depth--;
      return text === ',' && depth === 1;
    });
  }

  private isBehindPiece(sign: string): boolean {
    return this.token.kind === 'sign' && this.token.text === sign;
  }

  protected rejectNumbersSideBySide(): void {
    const previous = this.tokens[this.at - 1];
    if (this.pieces.length > 0 || this.token.kind !== 'number' || previous?.kind !== 'number') return;
    let to = this.at;
    while (/^\d{3}(?:\.\d*)?$/.test(this.tokens[to]?.text ?? '')) to++;
    const last = this.tokens[Math.max(to - 1, this.at)] as Token;
    const both = this.text.slice(previous.from, last.to);
    const isGrouped = to > this.at && /^[1-9]\d{0,2}$/.test(previous.text);
    if (isGrouped) fail('spacedNumber', previous.from, last.to, both, both.replace(/\s/g, ''));
    fail(
      'numbersSideBySide',
      previous.from,
      this.token.to,
      this.spelled(previous),
      `${previous.text}*${this.token.text}`,
    );
  }

  private signed(): Expression {
    if (!this.isSign('+', '-')) return this.powered();
    return this.nested(() => {
      const isMinus = this.take().text === '-';
      const operand = this.signed();
      return isMinus ? tree.negate(operand) : operand;
    });
  }

  /** Whether the current token can begin a factor, so that a product without a sign goes on. */
  protected startsFactor(): boolean {
    if (this.pieces.length > 0) return true;
    const { kind, text } = this.token;
    if (kind === 'number' || kind === 'fraction') return true;
    if (kind === 'letters') return !isWord(text) && !this.isPlaceOfDerivative();
    if (kind !== 'sign') return false;
    if (text === '|') return this.openBars === 0;
    return ['(', '√', '∛', '⌊', '⌈', '∫', '∑', '∏', '∂', '∂1', '∂2', '∞'].includes(text);
  }

  /** The `at x = 3` behind a derivative is not a product of a and t. */
  private isPlaceOfDerivative(): boolean {
    return this.token.text === 'at' && this.ahead(1)?.kind === 'letters' && this.ahead(2)?.text === '=';
  }

  /** A number, name or bracket with its powers. */
  factor(): Expression {
    return this.powered();
  }

  protected powered(): Expression {
    const base = this.suffixed(this.primary());
    if (this.pieces.length > 0 || !this.isSign('^')) return base;
    this.take();
    return this.nested(() => tree.power(base, this.exponent()));
  }

  protected exponent(): Expression {
    if (this.isSign('-')) {
      this.take();
      return tree.negate(this.exponent());
    }
    return this.powered();
  }

  /** Superscripts, factorials and degree signs directly behind a factor. */
  protected suffixed(base: Expression): Expression {
    let result = base;
    while (this.pieces.length === 0) {
      if (this.token.kind === 'superscript') result = tree.power(result, this.raisedNumber());
      else if (this.isSign('%')) result = this.hundredths(result);
      else if (this.isSign('!')) {
        this.take();
        result = tree.call('factorial', result);
      } else if (this.isSign('°')) {
        this.take();
        result = tree.call('degrees', result);
      } else break;
    }
    return result;
  }

  private hundredths(count: Expression): Expression {
    const sign = this.take();
    const isRemainder = count.kind !== 'number' || this.token.kind === 'number';
    if (isRemainder && this.startsFactor()) fail('remainderSign', sign.from, sign.to, 'mod(x, 2)');
    return tree.divide(count, tree.number('100'));
  }

  /** 3⅓ is 3 + ⅓. */
  private mixedNumber(whole: Expression): Expression {
    if (this.token.kind !== 'fraction') return whole;
    const isWhole = whole.kind === 'number' && /^\d+$/.test(whole.text);
    if (!isWhole)
      fail('numbersSideBySide', this.token.from, this.token.to, this.spelled(this.token, this.token));
    return tree.add(whole, fractionOf(this.take().text));
  }

  protected primary(): Expression {
    if (this.pieces.length > 0) return this.named();
    const construct = constructAt(this);
    if (construct) return this.nested(() => construct(this));
    if (this.token.kind === 'letters' && !isWord(this.token.text)) return this.named();
    const token = this.take();
    if (token.kind === 'number') return this.mixedNumber(tree.number(token.text));
    if (token.kind === 'fraction') return fractionOf(token.text);
    if (token.kind === 'sign') {
      if (token.text === '∂1' || token.text === '∂2') return this.partialApplication(token);
      if (token.text === '∞') {
        if (!this.allowsInfinity) fail('infinityHere', token.from, token.to);
        return tree.constant('infinity');
      }
      if (token.text === '(') return this.bracketed(token);
      if (token.text === '|') return this.bars(token);
      if (token.text === '⌊') return this.rounded(token, 'floor', '⌋');
      if (token.text === '⌈') return this.rounded(token, 'ceil', '⌉');
      if (token.text === '√') return tree.call('sqrt', this.rootArgument());
      if (token.text === '∛') return tree.call('cbrt', this.rootArgument());
    }
    return this.rejectStart(token);
  }

  private rejectStart(token: Token): never {
    if (token.kind === 'end') {
      const previous = this.tokens[this.at - 1];
      if (!previous) fail('empty', 0, 0);
      fail('unexpectedEnd', previous.from, token.to, this.text.slice(previous.from, previous.to));
    }
    const before = this.tokens[this.at - 2];
    if (token.text === ')' && before?.text === '(') fail('emptyBracket', before.from, token.to);
    if (token.text === ')' && this.openBrackets() < 0) fail('bracketNotOpened', token.from, token.to, '', '');
    fail('unexpectedSign', token.from, token.to, this.text.slice(token.from, token.to));
  }

  private openBrackets(): number {
    const signs = this.tokens.slice(0, this.at).filter((token) => token.kind === 'sign');
    return signs.filter((s) => s.text === '(').length - signs.filter((s) => s.text === ')').length;
  }

  private rootArgument(): Expression {
    return this.suffixed(this.primary());
  }

  private bracketed(open: Token): Expression {
    if (this.isSign(')')) fail('emptyBracket', open.from, this.token.to);
    const inside = this.insideBracket(open, () => readPieces(this, 'condition'));
    return this.isSign("'", "''", "'''") ? readPrimes(this, inside) : inside;
  }

  private rounded(open: Token, name: 'floor' | 'ceil', close: string): Expression {
    const barsOutside = this.openBars;
    this.openBars = 0;
    const inside = readPieces(this);
    if (!this.isSign(close)) {
      const end = this.text.trimEnd().length;
      fail('bracketNotClosed', open.from, end, '', `${this.text.slice(open.from, end)}${close}`);
    }
    this.take();
    this.openBars = barsOutside;
    return tree.call(name, inside);
  }

  protected insideBracket<T>(open: Token, read: () => T): T {
    const barsOutside = this.openBars;
    this.openBars = 0;
    const inside = read();
    this.close(open);
    this.openBars = barsOutside;
    return inside;
  }

  protected argument(): Expression {
    return readPieces(this);
  }

  protected startsConstruct(): boolean {
    return constructAt(this) !== undefined;
  }

  close(open: Token): void {
    const { kind } = this.token;
    const opening = this.text[open.from] ?? '(';
    if (this.isSign(')')) this.take();
    else if (kind === 'end') {
      // The one brace before the cases of a function stays open.
      if (opening === '{' && this.spelled(open).includes(';')) return;
      const end = this.text.trimEnd().length;
      const closing = closingOf[opening] ?? ')';
      fail('bracketNotClosed', open.from, end, '', `${this.text.slice(open.from, end)}${closing}`);
    } else {
      if (this.isSign(',')) this.rejectInterval(open);
      this.rejectLeftover(this.token);
    }
  }

  /** Whether a second bar opens bars of its own, as in ||x| − 2|, rather than closing empty ones. */
  private opensInnerBars(): boolean {
    const next = this.tokens[this.at + 1];
    if (next?.kind === 'sign') return ['(', '|', '√', '∛', '⌊', '⌈', '-', '+'].includes(next.text);
    return next?.kind === 'number' || next?.kind === 'letters';
  }

  private bars(open: Token): Expression {
    const distance = this.distance();
    if (distance) return distance;
    this.openBars++;
    if (this.isSign('|') && !this.opensInnerBars()) fail('emptyBracket', open.from, this.token.to);
    const inside = this.sum();
    if (!this.isSign('|')) {
      const end = this.text.trimEnd().length;
      fail('barNotClosed', open.from, end, '', `${this.text.slice(open.from, end)}|`);
    }
    this.take();
    this.openBars--;
    return tree.call('abs', inside);
  }

  /** |PQ|: two points and nothing else between bars. */
  private distance(): Expression | undefined {
    const letters = this.token;
    if (letters.kind !== 'letters' || this.ahead(1)?.text !== '|' || !this.scope.points) return undefined;
    for (let length = 1; length < letters.text.length; length++) {
      const from = meaningOf(letters.text.slice(0, length), '', this.scope);
      const to = meaningOf(letters.text.slice(length), letters.index, this.scope);
      if (from?.kind === 'point' && to?.kind === 'point') {
        this.skip(2);
        return { kind: 'distance', from: from.name, to: to.name };
      }
    }
    return undefined;
  }
}

const closingOf = ownNames<string>({ '(': ')', '[': ']', '{': '}' });

/** ½ as one half. */
function fractionOf(text: string): Expression {
  const [numerator = '', denominator = ''] = text.split('/');
  return tree.divide(tree.number(numerator), tree.number(denominator));
}

/** The depth of a tree, found without recursion. */
function depthOf(root: Expression): number {
  let depth = 0;
  let level: readonly Expression[] = [root];
  while (level.length > 0) {
    depth++;
    level = level.flatMap(tree.children);
  }
  return depth;
}
