import { ownNames } from './ownNames.ts';
import { emptyScope, greekLetters, otherSpelling } from './names.ts';
import { fail } from './problem.ts';

/** A LaTeX text in the typed notation; `places[i]` is where the i-th character comes from, one more for the end. */
export interface Converted {
  readonly text: string;
  readonly places: readonly number[];
}

/** Commands, groups below, and bounds or targets below a sign. */
const latex =
  /\\[A-Za-z,;:!{|([%]|_\{|[∫∑∏]\s*[_₀-₉₋]|(?<!\p{L})(?:lim\s*_|(?:sum|prod)\s*_\s*[({]|int\s*_[^\s^]+\s*\^)/u;
/** Dollar signs around the whole, and the brackets that stand for them. */
const wrapping = /^(\s*)(\$\$?|\\\(|\\\[)(.*?)(\$\$?|\\\)|\\\])(\s*)$/su;

export const looksLikeLatex = (text: string): boolean => latex.test(text) || wrapping.test(text);

const signs = ownNames<string>({
  cdot: '·',
  times: '×',
  div: '÷',
  le: '≤',
  leq: '≤',
  leqslant: '≤',
  ge: '≥',
  geq: '≥',
  geqslant: '≥',
  lt: '<',
  gt: '>',
  ne: '≠',
  neq: '≠',
  mapsto: '↦',
  colon: ':',
  bmod: ' mod ',
  to: '→',
  rightarrow: '→',
  infty: '∞',
  pi: 'π',
  partial: '∂',
  prime: '′',
  circ: '°',
  degree: '°',
  lvert: '|',
  rvert: '|',
  vert: '|',
  mid: '|',
  lbrace: '(',
  rbrace: ')',
  land: ' and ',
  wedge: ' and ',
  lor: ' or ',
  vee: ' or ',
  neg: ' not ',
  lnot: ' not ',
});
/** Commands that only space or size. */
const silent = new Set([
  'left',
  'right',
  'big',
  'Big',
  'bigl',
  'bigr',
  'Bigl',
  'Bigr',
  'displaystyle',
  'textstyle',
  'limits',
  'quad',
  'qquad',
  'thinspace',
  'mathstrut',
  'middle',
]);
/** Commands whose group is read as it stands. */
const transparent = new Set([
  'mathrm',
  'operatorname',
  'mathit',
  'mathbf',
  'text',
  'textrm',
  'mbox',
  'mathop',
]);
const belowLine = '₀₁₂₃₄₅₆₇₈₉₋';
const aboveLine = '⁰¹²³⁴⁵⁶⁷⁸⁹⁻ⁿ';
const onLine = '0123456789-n';

/**
 * LaTeX as it is pasted from papers, in the typed notation. Unknown commands are problems at their place.
 * Works in one pass over the text.
 */
export function fromLatex(text: string): Converted {
  return new LatexReader(text).all();
}

class LatexReader {
  private at = 0;
  private depth = 0;
  private out = '';
  private readonly places: number[] = [];

  private readonly source: string;

  constructor(typed: string) {
    this.source = typed.replace(
      wrapping,
      (_, before: string, open: string, inside: string, close: string, after) =>
        [before, ' '.repeat(open.length), inside, ' '.repeat(close.length), after].join(''),
    );
  }

  all(): Converted {
    while (this.at < this.source.length) this.item();
    return { text: this.out, places: [...this.places, this.source.length] };
  }

  private emit(text: string, from = this.at): void {
    for (let i = 0; i < text.length; i++) this.places.push(Math.min(from + i, this.source.length));
    this.out += text;
  }

  /** Takes back the last characters written. */
  private drop(count: number): void {
    this.out = this.out.slice(0, -count);
    this.places.length = this.out.length;
  }

  /** One character, group or command. */
  private item(): void {
    if (++this.depth > deepest) fail('tooNested', 0, this.source.length);
    const character = this.source[this.at] as string;
    if (character === '\\') this.command();
    else if (character === '{') this.group('(', ')');
    else if (character === '^') this.raised();
    else if (character === '_') this.index();
    else if (character === '~' || character === '&') this.skip(' ');
    else if ('∫∑∏'.includes(character)) this.bare(character);
    else if (character === 'l' && this.startsWord(/^lim\s*_/)) this.limit(this.at, 'lim'.length);
    else if (this.startsBounds()) this.wordWithBounds();
    else if (character === '}') fail('bracketNotOpened', this.at, this.at + 1, '', '');
    else this.skip(character);
    this.depth--;
  }

  /** An integral or sum sign in one character, with its bounds as LaTeX writes them or as they are typed. */
  private bare(sign: string, length = 1): void {
    const start = this.at;
    this.at += length;
    this.spaces();
    if (/[_₀-₉₋]/.test(this.source[this.at] ?? '')) this.bounds(sign, start);
    else this.emit(sign, start);
  }

  /** Takes one character of the source and writes something for it. */
  private skip(text: string): void {
    this.emit(text);
    this.at++;
  }

  private spaces(): void {
    while (/\s/.test(this.source[this.at] ?? '')) this.at++;
  }

  /** A group in braces, or the one character or command that stands in place of one. */
  private group(open: string, close: string): void {
    this.spaces();
    const start = this.at;
    if (this.source[this.at] !== '{') {
      if (this.at >= this.source.length) fail('unexpectedEnd', start, start);
      this.emit(open);
      this.item();
      return this.emit(close);
    }
    this.at++;
    this.emit(open, start);
    while (this.source[this.at] !== '}') {
      if (this.at >= this.source.length) fail('bracketNotClosed', start, this.source.length);
      this.item();
    }
    this.at++;
    this.emit(close, this.at - 1);
  }

  /** The text of a group, as it stands. */
  private rawGroup(): string {
    this.spaces();
    if (this.source[this.at] !== '{') return '';
    const start = this.at;
    for (let depth = 0; this.at < this.source.length; this.at++) {
      if (this.source[this.at] === '{') depth++;
      if (this.source[this.at] === '}' && --depth === 0) return this.source.slice(start + 1, this.at++);
    }
    return fail('bracketNotClosed', start, this.source.length);
  }

  private raised(): void {
    const rest = this.source.slice(this.at + 1).trimStart();
    const mark = /^(?:\{\s*\\(circ|prime)\s*\}|\\(circ|prime)(?![A-Za-z]))/.exec(rest);
    if (mark) {
      this.emit(mark[1] === 'circ' || mark[2] === 'circ' ? '°' : '′');
      this.at = this.source.length - rest.length + mark[0].length;
      return;
    }
    // f^{(4)} is a fourth derivative, with one bracket.
    const order = /^\{\s*(\(\d{1,2}\))\s*\}/.exec(rest);
    if (order) {
      this.emit(`^${order[1] ?? ''}`);
      this.at = this.source.length - rest.length + order[0].length;
      return;
    }
    this.skip('^');
    // Without a group the exponent is read as it is typed: x^12 is a power of twelve.
    if (/^\s*[{\\]/.test(this.source.slice(this.at))) this.group('(', ')');
  }

  /** An index belongs to the name before it: a_{max} is a_max. */
  private index(): void {
    const start = this.at;
    this.at++;
    if (this.at >= this.source.length) fail('unexpectedEnd', start, start + 1, '_');
    const raw = this.source[this.at] === '{' ? this.rawGroup() : (this.source[this.at++] ?? '');
    if (raw.includes('=') && this.out.endsWith('|')) {
      // The bar behind d/dx (…) with the place below it.
      this.drop(1);
      return this.emit(` at ${raw} `, start);
    }
    this.emit(`_${raw.replace(/\\(?:mathrm|text)\b\s*\{?|[{}\s]/g, '')}`, start);
    this.emit(' ', this.at - 1);
  }

  private command(): void {
    const start = this.at;
    const name = /^\\([A-Za-z]+|.)/su.exec(this.source.slice(this.at))?.[1] ?? '';
    this.at += 1 + name.length;
    if (/^[,;:!\s]$/.test(name)) return this.emit(' ', start);
    if (name === '{' || name === '}') return this.emit(name === '{' ? '(' : ')', start);
    if (name === '%') return this.emit('%', start);
    if (name === '|') return this.emit('|', start);
    if (name === '\\') return this.emit(';', start);
    if (name === 'quad' && this.out.endsWith(',')) {
      // A domain behind a comma.
      this.drop(1);
      return this.emit(' for ', start);
    }
    if (silent.has(name)) return this.delimiter(name);
    if (transparent.has(name)) return this.words(start);
    const sign = signs[name];
    if (sign !== undefined) return this.emit(sign, start);
    this.structure(name, start);
  }

  /** A full stop behind \left or \right stands for no delimiter. */
  private delimiter(name: string): void {
    if ((name === 'left' || name === 'right') && this.source[this.at] === '.') this.at++;
    this.emit(' ', Math.max(0, this.at - 1));
  }

  private words(start: number): void {
    const raw = this.rawGroup().trim();
    // The upright d of an integral belongs to the variable behind it.
    this.emit(raw === 'd' ? ' d' : ` ${raw} `, start);
  }

  private structure(name: string, start: number): void {
    switch (name) {
      case 'frac':
      case 'dfrac':
      case 'tfrac':
        return this.fraction(start);
      case 'sqrt':
        return this.root(start);
      case 'begin':
        return this.cases(start);
      case 'int':
        return this.bounds('∫', start);
      case 'sum':
        return this.bounds('∑', start);
      case 'prod':
        return this.bounds('∏', start);
      case 'binom':
      case 'dbinom':
      case 'tbinom':
        return this.binomial(start);
      case 'lim':
        return this.limit(start);
      case 'lfloor':
      case 'lceil':
        return this.emit(name === 'lfloor' ? ' floor(' : ' ceil(', start);
      case 'rfloor':
      case 'rceil':
        return this.emit(')', start);
      default:
        return this.named(name, start);
    }
  }

  private named(name: string, start: number): void {
    const letter = greekLetters[name];
    // \Delta x is the name Δx.
    if (name === 'Delta' && /^\s+[A-Za-z](?![A-Za-z])/.test(this.source.slice(this.at, this.at + 20)))
      this.spaces();
    if (letter) return this.emit(letter, start);
    if (!otherSpelling(name, '', emptyScope)) fail('latexNotUnderstood', start, this.at, `\\${name}`);
    const follows = this.source[this.at] === '_' ? '' : ' ';
    this.emit(` ${name}${follows}`, start);
  }

  private binomial(start: number): void {
    this.emit(' binomial(', start);
    this.group('(', ')');
    this.emit(',');
    this.group('(', ')');
    this.emit(')');
  }

  /** A fraction; d over dx is a derivative. */
  private fraction(start: number): void {
    const leibniz =
      /^\s*\{\s*(\\partial|\\mathrm\s*\{d\}|d)\s*(?:\^\s*\{?\s*(\d+)\s*\}?)?\s*\}\s*\{\s*(?:\\partial|\\mathrm\s*\{d\}|d)\s*([A-Za-z])\s*(?:\^\s*\{?\s*\d+\s*\}?)?\s*\}/.exec(
        this.source.slice(this.at, this.at + 80),
      );
    if (leibniz) {
      const d = leibniz[1] === '\\partial' ? '∂' : 'd';
      const power = leibniz[2] ? `^${leibniz[2]}` : '';
      this.emit(` ${d}${power}/${d}${leibniz[3] ?? ''}${power} `, start);
      this.at += leibniz[0].length;
      return;
    }
    this.emit('(', start);
    this.group('(', ')');
    this.emit('/');
    this.group('(', ')');
    this.emit(')');
  }

  private root(start: number): void {
    const degree = /^\s*\[([^\]]*)\]/.exec(this.source.slice(this.at));
    if (degree) this.at += degree[0].length;
    this.emit(degree ? ` root(${degree[1] ?? ''}, ` : ' sqrt(', start);
    this.group('(', ')');
    this.emit(')');
  }

  /** `\begin{cases} value & condition \\ … \end{cases}` as pieces. */
  private cases(start: number): void {
    const kind = this.rawGroup();
    if (kind !== 'cases') fail('latexNotUnderstood', start, this.at, `\\begin{${kind}}`);
    const end = this.source.indexOf('\\end{cases}', this.at);
    if (end < 0) fail('bracketNotClosed', start, this.source.length);
    this.emit('(', start);
    while (this.at < end) {
      const rest = this.source.slice(this.at, end);
      if (/^\\\\\s*$/.test(rest)) break;
      if (this.source[this.at] === '&')
        this.emit(
          /^&\s*(?:\\(?:text|mathrm|mbox)\s*\{\s*(?:if|otherwise|else|for|when)|\\?otherwise)/.test(rest)
            ? ' '
            : ' if ',
        );
      if (this.source[this.at] === '&') this.at++;
      else if (/^\\(?:text|mathrm|mbox)\s*\{\s*(?:else|for|when)\s*\}/.test(rest)) this.caseWord(rest);
      else this.item();
    }
    this.at = end + '\\end{cases}'.length;
    this.emit(')');
  }

  private caseWord(rest: string): void {
    const word = /^\\\w+\s*\{\s*(\w+)\s*\}/.exec(rest) as RegExpExecArray;
    this.emit(word[1] === 'else' ? ' otherwise ' : ' if ');
    this.at += word[0].length;
  }

  /** \int_{a}^{b} as ∫[a, b], \sum_{i=1}^{n} as ∑[i = 1, n]. */
  private bounds(sign: string, start: number): void {
    this.emit(` ${sign}`, start);
    this.spaces();
    if (this.source.startsWith('\\limits', this.at)) this.at += '\\limits'.length;
    this.emit('[', start);
    if (!this.smallBound(belowLine)) this.boundAfter('_', sign, start);
    this.emit(',');
    this.spaces();
    if (!this.smallBound(aboveLine)) this.boundAfter('^', sign, start);
    this.emit('] ');
  }

  private boundAfter(mark: '_' | '^', sign: string, start: number): void {
    if (this.source[this.at] !== mark) fail('boundsMissing', start, this.at, sign);
    this.at++;
    this.spaces();
    // The brackets around k = 1 are braces.
    if (mark === '_' && sign !== '∫' && this.source[this.at] === '(') this.bracketed(true);
    else this.bound();
    this.spaces();
  }

  /** A bound in characters below or above the line, as in ∫₀¹. */
  private smallBound(characters: string): boolean {
    const start = this.at;
    let plain = '';
    for (; characters.includes(this.source[this.at] ?? ' '); this.at++)
      plain += onLine[characters.indexOf(this.source[this.at] as string)] ?? '';
    this.emit(plain, start);
    return plain !== '';
  }

  /** A bound without braces is a whole number or what stands in brackets: ∫_0^12 ends at 12, not at 1. */
  private bound(): void {
    this.spaces();
    const number = /^[-−]?\d+(?:\.\d+)?/.exec(this.source.slice(this.at))?.[0];
    if (number !== undefined) {
      this.emit(number, this.at);
      this.at += number.length;
    } else if (this.source[this.at] === '(') this.bracketed();
    else this.group(' ', ' ');
  }

  private bracketed(isUnwrapped = false): void {
    const start = this.at;
    let depth = 0;
    do {
      const character = this.source[this.at];
      if (character === undefined) fail('bracketNotClosed', start, this.source.length);
      depth += character === '(' ? 1 : character === ')' ? -1 : 0;
      const isOuter = this.at === start || depth === 0;
      if (isUnwrapped && isOuter) this.at++;
      else this.item();
    } while (depth > 0);
  }

  private startsWord(word: RegExp): boolean {
    const isInsideName = /\p{L}$/u.test(this.source.slice(Math.max(0, this.at - 1), this.at));
    return !isInsideName && word.test(this.source.slice(this.at, this.at + 40));
  }

  private startsBounds(): boolean {
    return this.startsWord(/^(?:(?:sum|prod)\s*_\s*[({]|int\s*_[^\s^]+\s*\^)/);
  }

  /** sum_{k=1}^4 is ∑, prod_{k=1}^4 is ∏, int_0^1 is ∫. */
  private wordWithBounds(): void {
    const [word = ''] = /^\w+?(?=\s*_)/.exec(this.source.slice(this.at)) ?? [];
    this.bare(word === 'sum' ? '∑' : word === 'prod' ? '∏' : '∫', word.length);
  }

  /** \lim_{x \to a^+} as lim[x → a+]. */
  private limit(start: number, length = 0): void {
    this.at += length;
    this.spaces();
    if (this.source.startsWith('\\limits', this.at)) this.at += '\\limits'.length;
    this.spaces();
    if (this.source[this.at] !== '_') fail('limitTarget', start, this.at);
    this.at++;
    this.emit(' lim', start);
    const from = this.out.length;
    this.spaces();
    if (this.source[this.at] === '(') this.bracketed();
    else this.group('[', ']');
    const inside = this.out.slice(from);
    const side = /\^?\(?([+-])\)?[\])]$/.exec(inside);
    if (!side) return this.emit(' ');
    this.out = this.out.slice(0, from + side.index) + (side[1] ?? '');
    this.places.length = this.out.length;
    this.emit(`${inside.startsWith('[') ? ']' : ')'} `);
  }
}

const deepest = 400;
