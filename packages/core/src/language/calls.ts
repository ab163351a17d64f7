import * as tree from './tree.ts';
import type { Expression } from './tree.ts';
import { Cursor, type Piece } from './cursor.ts';
import { meaningOf } from './names.ts';
import { fail } from './problem.ts';
import { rejectComma, type Token } from './tokens.ts';
import { builtIn } from '../functions/table.ts';

/** Reads names and what belongs to them: the arguments and powers of functions, primes, partial derivatives. */
export abstract class CallReader extends Cursor {
  protected openBars = 0;

  protected abstract exponent(): Expression;
  protected abstract primary(): Expression;
  protected abstract suffixed(base: Expression): Expression;
  protected abstract powered(): Expression;
  protected abstract startsFactor(): boolean;
  protected abstract startsConstruct(): boolean;
  protected abstract rejectNumbersSideBySide(): void;
  protected abstract argument(): Expression;
  /** What stands between an opening bracket, already taken, and its closing one. */
  protected abstract insideBracket<T>(open: Token, read: () => T): T;

  /** The next name of a run of letters. */
  protected named(): Expression {
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
      case 'point':
        return fail('pointHere', piece.from, piece.to, this.text.slice(piece.from, piece.to));
    }
  }

  private builtInCall(piece: Piece, functionName: string): Expression {
    const spelling = this.text.slice(piece.from, piece.to);
    const exponent = this.exponentBeforeArgument(spelling, piece);
    const count = builtIn(functionName).argumentCount;
    const base = functionName === 'logBase' ? [this.baseOfLogarithm(piece)] : [];
    const args = pairedUp(functionName, [...base, ...this.argumentsOf(spelling, piece)]);
    if (args.length < count.least || args.length > count.most) {
      this.rejectDecimalComma(piece);
      fail('wrongArgumentCount', piece.from, piece.to, spelling);
    }
    const result = this.inAngles(tree.call(functionName, ...args));
    return exponent ? tree.power(result, exponent) : result;
  }

  /** Where angles are degrees, sin x is sin(x°), and the value of arcsin x is how many degrees it is. */
  private inAngles(call: tree.CallNode): Expression {
    const [argument] = call.arguments;
    if (this.scope.angles !== 'degrees' || !argument) return call;
    if (ofAngle.has(call.name) && !isDegrees(argument))
      return tree.call(call.name, tree.call('degrees', argument));
    return toAngle.has(call.name) ? tree.divide(call, oneDegree) : call;
  }

  /** The 2 of sin^2 x or sin² x. */
  private exponentBeforeArgument(spelling: string, piece: Piece): Expression | undefined {
    if (this.pieces.length > 0) return undefined;
    let exponent: Expression | undefined;
    if (this.token.kind === 'superscript') exponent = this.raisedNumber();
    else if (this.isSign('^')) {
      this.take();
      exponent = this.isSign('-') ? this.exponent() : this.suffixed(this.primary());
    }
    if (exponent?.kind === 'negate') {
      fail('inversePower', piece.from, this.tokens[this.at - 1]?.to ?? piece.to, spelling, `arc${spelling}`);
    }
    return exponent;
  }

  /** The number of a superscript; a sign alone is none. */
  protected raisedNumber(): Expression {
    const { text, from, to } = this.take();
    if (!/\d/.test(text)) fail('unexpectedSign', from, to, this.text.slice(from, to));
    return text.startsWith('-') ? tree.negate(tree.number(text.slice(1))) : tree.number(text);
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
      if (this.isSign(')')) this.rejectMissingArgument(spelling, piece, this.token.to);
      return this.insideBracket(open, () => this.argumentList());
    }
    return [this.nested(() => this.bareArgument(spelling, piece))];
  }

  private argumentList(): Expression[] {
    const args = [this.argument()];
    while (this.isSign(',')) {
      this.take();
      args.push(this.argument());
    }
    return args;
  }

  private rejectMissingArgument(spelling: string, piece: Piece, to = piece.to): never {
    fail('functionWithoutArgument', piece.from, to, spelling, `${spelling}(x)`);
  }

  /** sin 2x, sin x^2, sin −x, ln sin x: an argument without brackets. */
  private bareArgument(spelling: string, piece: Piece): Expression {
    if (this.isSign('-') && this.pieces.length === 0) {
      this.take();
      return tree.negate(this.bareArgument(spelling, piece));
    }
    if (!this.startsFactor()) this.rejectMissingArgument(spelling, piece);
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
    return this.token.kind === 'number' || this.token.kind === 'fraction';
  }

  protected override peekPiece(): Piece | undefined {
    const isName = this.pieces.length > 0 || (this.startsFactor() && !this.startsConstruct());
    return isName ? super.peekPiece() : undefined;
  }

  /** f(x), f′(x), f^(4)(x) for a defined function. */
  private application(piece: Piece, functionName: string): Expression {
    const spelling = this.text.slice(piece.from, piece.to);
    const order = this.pieces.length > 0 ? 0 : this.derivativeOrder();
    const args = this.definedArguments(piece, functionName, spelling);
    if (order > 0 && args.length > 1) fail('wrongArgumentCount', piece.from, piece.to, spelling);
    return tree.applyAll(
      functionName,
      args.map(() => order),
      args,
    );
  }

  /** sin(1,5): the comma between digits that made one argument too many. */
  private rejectDecimalComma({ to }: Piece, functionName?: string): void {
    if (functionName !== undefined && (this.scope.argumentCounts?.get(functionName) ?? 1) === 2) return;
    const written = /^\s*\(\s*[-−]?(\d+)(,\d+)\s*\)/.exec(this.text.slice(to, this.token.from));
    if (!written) return;
    const from = to + written[0].search(/\d/);
    rejectComma(this.text, from, from + (written[1] ?? '').length, written[2] ?? '');
  }

  /** The bracketed arguments of a defined function, as many as it has. */
  private definedArguments(piece: Piece, functionName: string, spelling: string): Expression[] {
    if (!this.isSign('(')) {
      const end = this.tokens[this.at - 1]?.to ?? piece.to;
      const written = this.text.slice(piece.from, this.pieces.length > 0 ? piece.to : end);
      const called = `${written}(${this.scope.variable ?? 'x'})`;
      fail('missingFunctionBracket', piece.from, piece.from + written.length, spelling, called);
    }
    const args = this.argumentsOf(spelling, piece);
    if (args.length === 2) this.rejectDecimalComma(piece, functionName);
    if (args.length !== (this.scope.argumentCounts?.get(functionName) ?? 1)) {
      fail('wrongArgumentCount', piece.from, piece.to, spelling);
    }
    return args;
  }

  /** ∂₁g(u, v): the partial derivative of a defined function with respect to its first argument. */
  protected partialApplication(first: Token): Expression {
    const orders = [0, 0];
    for (let token = first; ; token = this.take()) {
      const argument = token.text === '∂1' ? 0 : 1;
      orders[argument] = (orders[argument] as number) + 1;
      if (!this.isSign('∂1', '∂2')) break;
    }
    const piece = this.peekPiece();
    if (piece?.meaning.kind !== 'function') {
      return fail('unexpectedSign', this.token.from, this.token.to, this.spelled(this.token));
    }
    this.pieces.shift();
    const spelling = this.text.slice(piece.from, piece.to);
    const args = this.definedArguments(piece, piece.meaning.name, spelling);
    if (args.length !== 2) fail('wrongArgumentCount', piece.from, piece.to, spelling);
    return tree.applyAll(piece.meaning.name, orders, args);
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

const ofAngle: ReadonlySet<string> = new Set(['sin', 'cos', 'tan', 'cot', 'sec', 'csc']);
const toAngle: ReadonlySet<string> = new Set(
  ['sin', 'cos', 'tan', 'cot', 'sec', 'csc'].map((name) => `arc${name}`),
);
const oneDegree = tree.call('degrees', tree.number(1));
export const isDegrees = (node: Expression): boolean => node.kind === 'call' && node.name === 'degrees';

/** Whether a quotient is the number of degrees of an inverse function already, as it is printed: arcsin(x)/1°. */
export const isCountOfDegrees = (node: Expression): boolean =>
  node.kind === 'divide' && node.left.kind === 'call' && toAngle.has(node.left.name) && isDegrees(node.right);

/** min(a, b, c) as min(a, min(b, c)); any other list as it is. */
function pairedUp(functionName: string, args: Expression[]): Expression[] {
  const [first, ...rest] = args;
  const isLong = (functionName === 'min' || functionName === 'max') && first && rest.length > 1;
  return isLong ? [first, tree.call(functionName, ...pairedUp(functionName, rest))] : args;
}
