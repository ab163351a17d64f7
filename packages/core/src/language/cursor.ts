import {
  emptyScope,
  meaningOf,
  nearestName,
  isWordOfOtherSchool,
  otherSpelling,
  type NameMeaning,
  type Scope,
  type Word,
} from './names.ts';
import { fail } from './problem.ts';
import type { Token } from './tokens.ts';

const deepestNesting = 200;

/** One name of a run of letters, with its place in the text. */
export interface Piece {
  readonly meaning: NameMeaning;
  readonly from: number;
  readonly to: number;
}

/** Counts the steps of one reading, so that no text can take more than a bounded number of them. */
class StepCount {
  private taken = 0;

  /** @throws a problem signal when more than five million steps were taken */
  spend(steps: number, end: number): void {
    this.taken += steps;
    if (this.taken > mostSteps) fail('tooLarge', 0, end);
  }

  get steps(): number {
    return this.taken;
  }
}

const mostSteps = 5_000_000;

/** A place in a list of tokens, and the names that are still to be read from the run of letters before it. */
export class Cursor {
  protected at = 0;
  /** Names still to be read from the run of letters taken last. */
  protected pieces: Piece[] = [];

  constructor(
    protected tokens: readonly Token[],
    readonly text: string,
    public scope: Scope,
    private depth = 0,
    protected readonly count = new StepCount(),
  ) {
    this.spend(tokens.length);
  }

  protected spend(steps: number): void {
    this.count.spend(steps, this.text.length);
  }

  get token(): Token {
    return this.tokens[this.at] as Token;
  }

  get position(): number {
    return this.at;
  }

  get nesting(): number {
    return this.depth;
  }

  /** The token `distance` places ahead (or behind, below 0); the closing one beyond the end. */
  ahead(distance: number): Token | undefined {
    return this.tokens[this.at + distance];
  }

  /** All tokens, for looking ahead. */
  get all(): readonly Token[] {
    return this.tokens;
  }

  isSign(...texts: string[]): boolean {
    return this.pieces.length === 0 && this.token.kind === 'sign' && texts.includes(this.token.text);
  }

  isWord(...texts: Word[]): boolean {
    return this.pieces.length === 0 && isWordToken(this.token, ...texts);
  }

  take(): Token {
    this.spend(1);
    const taken = this.token;
    if (taken.kind !== 'end') this.at++;
    return taken;
  }

  skip(count: number): void {
    this.at = Math.min(this.tokens.length - 1, this.at + count);
  }

  spelled(from: { readonly from: number }, to: { readonly to: number } = this.token): string {
    return this.text.slice(from.from, to.to);
  }

  /** Runs a reading step one level deeper; too deep is a problem of the whole text. */
  nested<T>(read: () => T): T {
    if (++this.depth > deepestNesting) fail('tooNested', 0, this.text.length);
    const result = read();
    this.depth--;
    return result;
  }

  /** The index of the token that closes the bracket at `open`, or −1. */
  closingOf(open: number): number {
    let depth = 0;
    this.spend(this.tokens.length - open);
    for (let i = open; i < this.tokens.length; i++) {
      const token = this.tokens[i] as Token;
      if (token.kind !== 'sign') continue;
      if (token.text === '(') depth++;
      else if (token.text === ')' && --depth === 0) return i;
    }
    return -1;
  }

  protected peekPiece(): Piece | undefined {
    if (this.pieces.length === 0 && this.token.kind === 'letters') this.pieces = this.split(this.take());
    return this.pieces[0];
  }

  /** Splits a run of letters by the longest name known at each place. */
  protected split(token: Token): Piece[] {
    if (token.kind !== 'letters') throw new TypeError('only runs of letters are split');
    const known = meaningOf(token.text, token.index, this.scope);
    const plain = known ? token : inSmallLetters(token);
    const isBuiltIn = meaningOf(plain.text, '', emptyScope)?.kind === 'builtIn';
    const whole = known
      ? undefined
      : isWordOfOtherSchool(plain.text)
        ? this.splitByNames(plain, otherSpelling)
        : isBuiltIn && this.splitBeforeDigits(token, plain);
    if (whole) return whole;
    const byNames = this.splitByNames(plain, meaningOf);
    // The g of tg x may be a function, but nothing that it works on follows.
    const isCut = byNames?.at(-1)?.meaning.kind === 'function' && !/^['(^]/.test(this.token.text);
    return (
      (isCut ? null : byNames) ??
      this.splitByNames(plain, otherSpelling) ??
      byNames ??
      this.splitBeforeDigits(token, plain) ??
      this.rejectName(token)
    );
  }

  private splitByNames(token: LettersToken, meaning: typeof meaningOf): Piece[] | undefined {
    const letters = [...token.text];
    const pieces: Piece[] = [];
    let start = 0;
    let offset = token.from;
    while (start < letters.length) {
      const found = this.longestName(letters, start, token.index, meaning);
      if (!found) return undefined;
      const rest = letters.slice(start, start + found.length).join('');
      const to = start + found.length === letters.length ? token.to : offset + rest.length;
      pieces.push({ meaning: found.meaning, from: offset, to });
      start += found.length;
      offset += rest.length;
    }
    return pieces;
  }

  private longestName(letters: readonly string[], start: number, index: string, meaning: typeof meaningOf) {
    this.spend(longestName);
    for (let length = Math.min(longestName, letters.length - start); length > 0; length--) {
      const isLast = start + length === letters.length;
      const spelling = letters.slice(start, start + length).join('');
      const found = meaning(spelling, isLast ? index : '', this.scope);
      if (found) return { meaning: found, length };
    }
    return undefined;
  }

  /** sin2x is sin(2x): digits directly behind the name of a function begin its argument, unless a space ends it. */
  private splitBeforeDigits(token: LettersToken, plain: LettersToken): Piece[] | undefined {
    const written = this.text.slice(token.from, token.to);
    const digits = /\d+$/.exec(written)?.[0];
    if (digits === undefined || digits !== token.index || written.includes('_')) return undefined;
    const pieces = this.splitByNames({ ...plain, index: '', to: token.to - digits.length }, meaningOf);
    const endsWithSpace = /^\s+[\p{L}\d(]/u.test(this.text.slice(token.to, token.to + 20));
    if (pieces?.at(-1)?.meaning.kind !== 'builtIn' || endsWithSpace) return undefined;
    const number: Token = { kind: 'number', text: digits, from: token.to - digits.length, to: token.to };
    this.tokens = [...this.tokens.slice(0, this.at), number, ...this.tokens.slice(this.at)];
    return pieces;
  }

  private rejectName(token: LettersToken): never {
    const subject = this.text.slice(token.from, token.to);
    const before = this.tokens[this.at - 2];
    const isPowerOfTen = token.text === 'e' && /^\d+$/.test(token.index) && !subject.includes('_');
    if (isPowerOfTen && before?.kind === 'number' && before.to === token.from) {
      const written = `${before.text}E${token.index}`;
      fail('powerOfTen', before.from, token.to, written, written);
    }
    const plainDigits = /^\d$/.test(token.index) && !subject.includes('_');
    if (plainDigits && meaningOf(token.text, '', this.scope)?.kind === 'name') {
      fail('unknownName', token.from, token.to, subject, `${token.text}^${token.index}`);
    }
    const isPowerOfFunction = plainDigits && meaningOf(token.text, '', emptyScope)?.kind === 'builtIn';
    const nearest = isPowerOfFunction ? `${token.text}^${token.index}` : nearestName(token.text, this.scope);
    fail('unknownName', token.from, token.to, subject, nearest);
  }
}

type LettersToken = Token & { kind: 'letters' };

/** Sin and PI are not products of letters: a run that differs from a built-in name in capitals only is that name. */
function inSmallLetters(token: LettersToken): LettersToken {
  const lower = token.text.toLowerCase();
  const isKnown = meaningOf(lower, '', emptyScope) ?? otherSpelling(lower, '', emptyScope);
  return lower.length > 1 && isKnown ? { ...token, text: lower } : token;
}

/** Letters of a name that are compared at most, so that a long run of letters is split in bounded steps. */
const longestName = 60;

export const isWordToken = (token: Token | undefined, ...texts: Word[]): boolean =>
  token?.kind === 'letters' && token.index === '' && (texts as string[]).includes(token.text);
