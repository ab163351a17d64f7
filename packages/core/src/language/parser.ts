import * as tree from './tree.ts';
import type { Expression } from './tree.ts';
import { meaningOf, nearestName, type NameMeaning, type Scope } from './names.ts';
import { fail } from './problem.ts';
import type { Token } from './tokens.ts';
import { builtIn } from '../functions/table.ts';

const deepestNesting = 200;
/** Long chains make deep trees too; everything that walks a tree may recurse this far. */
const deepestTree = 1000;

interface Piece {
  readonly meaning: NameMeaning;
  readonly from: number;
  readonly to: number;
}

/**
 * Reads one expression from tokens by recursive descent.
 *
 * Products without a sign have the strength of a written product and run from left to right;
 * powers run from right to left; the argument of a function without brackets is the product of
 * numbers, names and powers that follows.
 */
export class Parser {
  private at = 0;
  private depth = 0;
  private openBars = 0;
  /** Names still to be read from the run of letters that is the current token. */
  private pieces: Piece[] = [];

  constructor(
    private readonly tokens: readonly Token[],
    private readonly text: string,
    private readonly scope: Scope,
  ) {}

  /** The whole token list as one expression; anything left over is a problem at its place. */
  readAll(): Expression {
    const result = this.sum();
    const rest = this.token;
    if (rest.kind !== 'end') this.rejectLeftover(rest);
    if (depthOf(result) > deepestTree) fail('tooLarge', 0, this.text.length);
    return result;
  }

  private get token(): Token {
    return this.tokens[this.at] as Token;
  }

  private isSign(...texts: string[]): boolean {
    return this.token.kind === 'sign' && texts.includes(this.token.text);
  }

  private take(): Token {
    const taken = this.token;
    if (taken.kind !== 'end') this.at++;
    return taken;
  }

  private rejectLeftover(rest: Token): never {
    if (rest.text === ')') fail('bracketNotOpened', rest.from, rest.to);
    if (rest.text === '=') fail('secondEquals', rest.from, rest.to);
    fail('unexpectedSign', rest.from, rest.to, this.text.slice(rest.from, rest.to));
  }

  private nested<T>(read: () => T): T {
    if (++this.depth > deepestNesting) fail('tooNested', 0, this.text.length);
    const result = read();
    this.depth--;
    return result;
  }

  private sum(): Expression {
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

  private product(): Expression {
    let left = this.signed();
    for (;;) {
      if (this.isSign('*', '/')) {
        const kind = this.take().text === '*' ? 'multiply' : 'divide';
        left = tree.binary(kind, left, this.signed());
      } else if (this.startsFactor()) {
        this.rejectNumbersSideBySide();
        left = tree.multiply(left, this.powered());
      } else return left;
    }
  }

  private rejectNumbersSideBySide(): void {
    const previous = this.tokens[this.at - 1];
    if (this.pieces.length > 0 || this.token.kind !== 'number' || !previous) return;
    if (previous.kind === 'number') {
      fail('numbersSideBySide', previous.from, this.token.to, this.text.slice(previous.from, this.token.to));
    }
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
  private startsFactor(): boolean {
    if (this.pieces.length > 0) return true;
    const { kind, text } = this.token;
    if (kind === 'number' || kind === 'letters') return true;
    if (kind !== 'sign') return false;
    if (text === '|') return this.openBars === 0;
    return text === '(' || text === '√' || text === '∛';
  }

  private powered(): Expression {
    const base = this.suffixed(this.primary());
    if (this.pieces.length > 0 || !this.isSign('^')) return base;
    this.take();
    return this.nested(() => tree.power(base, this.exponent()));
  }

  private exponent(): Expression {
    if (this.isSign('-')) {
      this.take();
      return tree.negate(this.exponent());
    }
    return this.powered();
  }

  /** Superscripts, factorials and degree signs directly behind a factor. */
  private suffixed(base: Expression): Expression {
    let result = base;
    while (this.pieces.length === 0) {
      if (this.token.kind === 'superscript') result = tree.power(result, signedNumber(this.take().text));
      else if (this.isSign('!')) {
        this.take();
        result = tree.call('factorial', result);
      } else if (this.isSign('°')) {
        this.take();
        result = tree.divide(tree.multiply(result, tree.constant('pi')), tree.number(180));
      } else break;
    }
    return result;
  }

  private primary(): Expression {
    if (this.pieces.length > 0 || this.token.kind === 'letters') return this.named();
    const token = this.take();
    if (token.kind === 'number') return tree.number(token.text);
    if (token.kind === 'sign') {
      if (token.text === '(') return this.bracketed(token);
      if (token.text === '|') return this.bars(token);
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
    if (token.text === ')' && this.openBrackets() < 0) fail('bracketNotOpened', token.from, token.to);
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
    const barsOutside = this.openBars;
    this.openBars = 0;
    if (this.isSign(')')) fail('emptyBracket', open.from, this.token.to);
    const inside = this.sum();
    this.close(open);
    this.openBars = barsOutside;
    return inside;
  }

  private close(open: Token): void {
    if (this.isSign(')')) this.take();
    else if (this.token.kind === 'end') fail('bracketNotClosed', open.from, open.to);
    else this.rejectLeftover(this.token);
  }

  /** Whether a second bar opens bars of its own, as in ||x| − 2|, rather than closing empty ones. */
  private opensInnerBars(): boolean {
    const next = this.tokens[this.at + 1];
    if (next?.kind === 'sign') return ['(', '|', '√', '∛', '-', '+'].includes(next.text);
    return next?.kind === 'number' || next?.kind === 'letters';
  }

  private bars(open: Token): Expression {
    this.openBars++;
    if (this.isSign('|') && !this.opensInnerBars()) fail('emptyBracket', open.from, this.token.to);
    const inside = this.sum();
    if (!this.isSign('|')) fail('barNotClosed', open.from, open.to);
    this.take();
    this.openBars--;
    return tree.call('abs', inside);
  }

  /** The next name of a run of letters. */
  private named(): Expression {
    if (this.pieces.length === 0) this.pieces = this.split(this.take());
    const piece = this.pieces.shift() as Piece;
    switch (piece.meaning.kind) {
      case 'constant':
        return tree.constant(piece.meaning.name);
      case 'name':
        return tree.name(piece.meaning.name);
      case 'builtIn':
        return this.builtInCall(piece, piece.meaning.name);
      case 'function':
        return this.application(piece, piece.meaning.name);
    }
  }

  /** Splits a run of letters by the longest name known at each place. */
  private split(token: Token): Piece[] {
    if (token.kind !== 'letters') throw new TypeError('only runs of letters are split');
    const letters = [...token.text];
    const pieces: Piece[] = [];
    let start = 0;
    let offset = token.from;
    while (start < letters.length) {
      const found = this.longestName(letters, start, token.index);
      if (!found) this.rejectName(token);
      const rest = letters.slice(start, start + found.length).join('');
      const to = start + found.length === letters.length ? token.to : offset + rest.length;
      pieces.push({ meaning: found.meaning, from: offset, to });
      start += found.length;
      offset += rest.length;
    }
    return pieces;
  }

  private longestName(letters: readonly string[], start: number, index: string) {
    for (let length = letters.length - start; length > 0; length--) {
      const isLast = start + length === letters.length;
      const spelling = letters.slice(start, start + length).join('');
      const meaning = meaningOf(spelling, isLast ? index : '', this.scope);
      if (meaning) return { meaning, length };
    }
    return undefined;
  }

  private rejectName(token: Token & { kind: 'letters' }): never {
    const subject = this.text.slice(token.from, token.to);
    const plainDigits = /^\d$/.test(token.index) && !subject.includes('_');
    if (plainDigits && meaningOf(token.text, '', this.scope)?.kind === 'name') {
      fail('unknownName', token.from, token.to, subject, `${token.text}^${token.index}`);
    }
    fail('unknownName', token.from, token.to, subject, nearestName(token.text, this.scope));
  }

  private builtInCall(piece: Piece, functionName: string): Expression {
    const spelling = this.text.slice(piece.from, piece.to);
    const exponent = this.exponentBeforeArgument(spelling, piece);
    const count = builtIn(functionName).argumentCount;
    const base = functionName === 'logBase' ? [this.baseOfLogarithm(piece)] : [];
    const args = [...base, ...this.argumentsOf(spelling, piece)];
    if (args.length < count.least || args.length > count.most) {
      fail('wrongArgumentCount', piece.from, piece.to, spelling);
    }
    const result = tree.call(functionName, ...args);
    return exponent ? tree.power(result, exponent) : result;
  }

  /** The 2 of sin^2 x or sin² x. */
  private exponentBeforeArgument(spelling: string, piece: Piece): Expression | undefined {
    if (this.pieces.length > 0) return undefined;
    let exponent: Expression | undefined;
    if (this.token.kind === 'superscript') exponent = signedNumber(this.take().text);
    else if (this.isSign('^')) {
      this.take();
      exponent = this.isSign('-') ? this.exponent() : this.suffixed(this.primary());
    }
    if (exponent?.kind === 'negate') {
      fail('inversePower', piece.from, this.tokens[this.at - 1]?.to ?? piece.to, spelling);
    }
    return exponent;
  }

  private baseOfLogarithm(piece: Piece): Expression {
    const index = this.text.slice(piece.from, piece.to).replace(/^log_?/, '');
    const digits = [...index].map((d) => ('₀₁₂₃₄₅₆₇₈₉'.includes(d) ? '₀₁₂₃₄₅₆₇₈₉'.indexOf(d) : d)).join('');
    if (/^\d+$/.test(digits)) return tree.number(digits);
    const meaning = meaningOf(index, '', this.scope);
    if (meaning?.kind === 'name') return tree.name(meaning.name);
    if (meaning?.kind === 'constant') return tree.constant(meaning.name);
    return fail('unknownName', piece.from, piece.to, index);
  }

  private argumentsOf(spelling: string, piece: Piece): Expression[] {
    if (this.pieces.length === 0 && this.isSign('(')) {
      const open = this.take();
      const barsOutside = this.openBars;
      this.openBars = 0;
      if (this.isSign(')')) fail('functionWithoutArgument', piece.from, this.token.to, spelling);
      const args = [this.sum()];
      while (this.isSign(',')) {
        this.take();
        args.push(this.sum());
      }
      this.close(open);
      this.openBars = barsOutside;
      return args;
    }
    return [this.nested(() => this.bareArgument(spelling, piece))];
  }

  /** sin 2x, sin x^2, sin −x, ln sin x: an argument without brackets. */
  private bareArgument(spelling: string, piece: Piece): Expression {
    if (this.isSign('-') && this.pieces.length === 0) {
      this.take();
      return tree.negate(this.bareArgument(spelling, piece));
    }
    if (!this.startsFactor()) fail('functionWithoutArgument', piece.from, piece.to, spelling);
    if (this.startsFunction()) return this.powered();
    let product = this.powered();
    while (this.startsPlainFactor()) {
      this.rejectNumbersSideBySide();
      product = tree.multiply(product, this.powered());
    }
    return product;
  }

  private startsFunction(): boolean {
    const piece = this.peekPiece();
    return piece?.meaning.kind === 'builtIn' || piece?.meaning.kind === 'function';
  }

  private startsPlainFactor(): boolean {
    const piece = this.peekPiece();
    if (piece) return piece.meaning.kind === 'name' || piece.meaning.kind === 'constant';
    return this.token.kind === 'number';
  }

  private peekPiece(): Piece | undefined {
    if (this.pieces.length === 0 && this.token.kind === 'letters') this.pieces = this.split(this.take());
    return this.pieces[0];
  }

  /** f(x), f′(x), f^(4)(x) for a defined function. */
  private application(piece: Piece, functionName: string): Expression {
    const spelling = this.text.slice(piece.from, piece.to);
    const order = this.pieces.length > 0 ? 0 : this.derivativeOrder();
    if (this.pieces.length > 0 || !this.isSign('(')) {
      fail('missingFunctionBracket', piece.from, piece.to, spelling);
    }
    const args = this.argumentsOf(spelling, piece);
    if (args.length !== 1) fail('wrongArgumentCount', piece.from, piece.to, spelling);
    return tree.apply(functionName, order, args[0] as Expression);
  }

  private derivativeOrder(): number {
    let order = 0;
    while (this.isSign("'", "''", "'''")) order += this.take().text.length;
    const [hat, open, digits, close, argument] = this.tokens.slice(this.at, this.at + 5);
    const isLeibniz =
      hat?.text === '^' &&
      open?.text === '(' &&
      digits?.kind === 'number' &&
      close?.text === ')' &&
      argument?.text === '(';
    if (order === 0 && isLeibniz && /^\d{1,2}$/.test(digits.text)) {
      this.at += 4;
      order = Number(digits.text);
    }
    return order;
  }
}

function signedNumber(text: string): Expression {
  return text.startsWith('-') ? tree.negate(tree.number(text.slice(1))) : tree.number(text);
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
