import { fail } from './problem.ts';

export type Token =
  | { readonly kind: 'number'; readonly text: string; readonly from: number; readonly to: number }
  /** A run of letters, not yet split into names. `index` is what follows as _… or as digits. */
  | {
      readonly kind: 'letters';
      readonly text: string;
      readonly index: string;
      readonly from: number;
      readonly to: number;
    }
  | { readonly kind: 'superscript'; readonly text: string; readonly from: number; readonly to: number }
  | { readonly kind: 'sign'; readonly text: string; readonly from: number; readonly to: number }
  | { readonly kind: 'end'; readonly text: ''; readonly from: number; readonly to: number };

export const longestText = 10_000;

/** Characters that mean the same as a plainer one. */
const sameAs: Readonly<Record<string, string>> = {
  '−': '-',
  '–': '-',
  '·': '*',
  '×': '*',
  '⋅': '*',
  '∙': '*',
  '÷': '/',
  '∕': '/',
  '⁄': '/',
  '[': '(',
  ']': ')',
  '{': '(',
  '}': ')',
  '′': "'",
  '’': "'",
};

const superscripts: Readonly<Record<string, string>> = {
  '⁰': '0',
  '¹': '1',
  '²': '2',
  '³': '3',
  '⁴': '4',
  '⁵': '5',
  '⁶': '6',
  '⁷': '7',
  '⁸': '8',
  '⁹': '9',
  '⁻': '-',
};

const subscripts = '₀₁₂₃₄₅₆₇₈₉';
const numberPattern = /(?:\d+\.?\d*|\.\d+)(?:E[+-]?\d+)?/y;
const letterPattern = /\p{L}/u;
const signs = new Set([
  '+',
  '-',
  '*',
  '/',
  '^',
  '(',
  ')',
  '|',
  '=',
  ',',
  '!',
  "'",
  '√',
  '∛',
  '°',
  '<',
  '>',
  '≤',
  '≥',
]);

/**
 * Splits a text into tokens. Runs in time linear in the text.
 * @throws a problem signal for a text that is too long or a character without meaning
 */
export function tokenize(text: string): Token[] {
  if (text.length > longestText) fail('tooLong', 0, text.length);
  const tokens: Token[] = [];
  let at = 0;
  while (at < text.length) {
    const character = String.fromCodePoint(text.codePointAt(at) ?? 0);
    if (/\s/u.test(character) || character === '\u200b') {
      at += character.length;
      continue;
    }
    const token =
      readNumber(text, at) ??
      readLetters(text, at) ??
      readSuperscript(text, at) ??
      readSign(text, at, character);
    tokens.push(token);
    at = token.to;
  }
  tokens.push({ kind: 'end', text: '', from: text.length, to: text.length });
  return tokens;
}

function readNumber(text: string, from: number): Token | undefined {
  numberPattern.lastIndex = from;
  const match = numberPattern.exec(text);
  if (!match) return undefined;
  const to = from + match[0].length;
  const comma = /^,(\d+)/.exec(text.slice(to));
  if (comma && !match[0].includes('.') && isOutsideBrackets(text, to)) {
    const end = to + comma[0].length;
    fail('decimalComma', from, end, text.slice(from, end), `${match[0]}.${comma[1] ?? ''}`);
  }
  return { kind: 'number', text: match[0], from, to };
}

/** A comma between digits separates arguments only inside a bracket. */
function isOutsideBrackets(text: string, at: number): boolean {
  let depth = 0;
  for (let i = 0; i < at; i++) {
    if (text[i] === '(') depth++;
    else if (text[i] === ')') depth--;
  }
  return depth <= 0;
}

function readLetters(text: string, from: number): Token | undefined {
  let to = from;
  while (to < text.length) {
    const character = String.fromCodePoint(text.codePointAt(to) ?? 0);
    if (!letterPattern.test(character)) break;
    to += character.length;
  }
  if (to === from) return undefined;
  const letters = text.slice(from, to);
  const { index, end } = readIndex(text, to);
  return { kind: 'letters', text: letters, index, from, to: end };
}

/** The index of a name: `_0`, `_max`, plain digits or subscript digits directly after the letters. */
function readIndex(text: string, at: number): { index: string; end: number } {
  const written = /^_(\p{L}+|\d+)/u.exec(text.slice(at, at + 40));
  if (written) return { index: written[1] ?? '', end: at + written[0].length };
  const digits = /^(?:\d+(?![\d.])|[₀-₉]+)/u.exec(text.slice(at, at + 40));
  if (!digits) return { index: '', end: at };
  const index = [...digits[0]]
    .map((d) => (subscripts.includes(d) ? String(subscripts.indexOf(d)) : d))
    .join('');
  return { index, end: at + digits[0].length };
}

function readSuperscript(text: string, from: number): Token | undefined {
  let to = from;
  let plain = '';
  while (to < text.length && superscripts[text[to] ?? ''] !== undefined) {
    plain += superscripts[text[to] ?? ''] ?? '';
    to++;
  }
  if (to === from) return undefined;
  if (!/^-?\d+$/.test(plain)) fail('unexpectedCharacter', from, to, text.slice(from, to));
  return { kind: 'superscript', text: plain, from, to };
}

function readSign(text: string, from: number, character: string): Token {
  const to = from + character.length;
  if (character === '*' && text[to] === '*') return { kind: 'sign', text: '^', from, to: to + 1 };
  if (character === '″') return { kind: 'sign', text: "''", from, to };
  if (character === '‴') return { kind: 'sign', text: "'''", from, to };
  const plain = sameAs[character] ?? character;
  if (!signs.has(plain)) fail('unexpectedCharacter', from, to, character);
  return { kind: 'sign', text: plain, from, to };
}
