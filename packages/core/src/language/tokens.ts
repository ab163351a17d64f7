import { ownNames } from './ownNames.ts';
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
  /** A fraction in one character, as ½. */
  | { readonly kind: 'fraction'; readonly text: string; readonly from: number; readonly to: number }
  | { readonly kind: 'superscript'; readonly text: string; readonly from: number; readonly to: number }
  | { readonly kind: 'sign'; readonly text: string; readonly from: number; readonly to: number }
  | { readonly kind: 'end'; readonly text: ''; readonly from: number; readonly to: number };

export const longestText = 10_000;

/** Characters that mean the same as a plainer one. */
const sameAs = ownNames<string>({
  '−': '-',
  '–': '-',
  '—': '-',
  '‐': '-',
  '‑': '-',
  '‒': '-',
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
  '‘': "'",
  '´': "'",
  '`': "'",
  ʹ: "'",
  ʼ: "'",
  '″': "''",
  '”': "''",
  '“': "''",
  '"': "''",
  '‴': "'''",
  '⩽': '≤',
  '⩾': '≥',
  '⟶': '→',
});

/** Signs of two characters. */
const pairs = ownNames<string>({
  '**': '^',
  '<=': '≤',
  '>=': '≥',
  '!=': '≠',
  '->': '→',
  ':=': '=',
});

const superscripts = ownNames<string>({
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
  '⁺': '+',
  '⁽': '(',
  '⁾': ')',
  ...Object.fromEntries(
    [...'ᵃᵇᶜᵈᵉᶠᵍʰⁱʲᵏˡᵐⁿᵒᵖʳˢᵗᵘᵛʷˣʸᶻ'].map((raised, i) => [raised, 'abcdefghijklmnoprstuvwxyz'[i]]),
  ),
  ᵅ: 'α',
  ᵝ: 'β',
  ᵞ: 'γ',
  ᵟ: 'δ',
  ᶿ: 'θ',
  ᶲ: 'φ',
  ᵡ: 'χ',
});

const fractions = ownNames<string>({
  '½': '1/2',
  '⅓': '1/3',
  '⅔': '2/3',
  '¼': '1/4',
  '¾': '3/4',
  '⅕': '1/5',
  '⅖': '2/5',
  '⅗': '3/5',
  '⅘': '4/5',
  '⅙': '1/6',
  '⅚': '5/6',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
});

const subscripts = '₀₁₂₃₄₅₆₇₈₉';
/** Digits; narrow and protected spaces stand between groups of three (ISO 80000-1). */
const numberPattern =
  /(?:(?:[1-9]\d{0,2}(?:[\u00a0\u2009\u202f]\d{3})+(?!\d)|\d+)\.?\d*|\.\d+)(?:E[+-]?\d+)?/y;
const groupSpaces = /[\u00a0\u2009\u202f]/g;
const letterPattern = /\p{L}/u;
/** Characters without ink: zero-width spaces and the signs for "applied to" and "times" that are never seen. */
const invisible = /[\u200b\u2060-\u2064\ufeff]/u;
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
  "''",
  "'''",
  '√',
  '∛',
  '°',
  '<',
  '>',
  '≤',
  '≥',
  '≠',
  ';',
  '→',
  '∞',
  '∫',
  '∑',
  '∏',
  '∂',
  '⌊',
  '⌋',
  '⌈',
  '⌉',
  '%',
  ':',
  '↦',
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
    if (/\s/u.test(character) || invisible.test(character)) {
      at += character.length;
      continue;
    }
    const read =
      readNumber(text, at) ??
      readLetters(text, at) ??
      readSuperscripts(text, at) ??
      readFraction(at, character) ??
      readSign(text, at, character);
    tokens.push(...[read].flat());
    at = tokens.at(-1)?.to ?? text.length;
  }
  tokens.push({ kind: 'end', text: '', from: text.length, to: text.length });
  return tokens;
}

function readNumber(text: string, from: number): Token | undefined {
  numberPattern.lastIndex = from;
  const match = numberPattern.exec(text);
  if (!match) return undefined;
  const to = from + match[0].length;
  const rest = text.slice(to, to + 40);
  const comma = /^,(\d+)/.exec(rest);
  if (comma && !match[0].includes('.') && isOutsideBrackets(text, to)) rejectComma(text, from, to, comma[0]);
  const power = /^e[+-]\d+/.exec(rest)?.[0];
  if (power) {
    const written = `${match[0]}${power}`;
    fail('powerOrConstant', from, to + power.length, written, `${match[0]}E${power.slice(1)}`);
  }
  return { kind: 'number', text: match[0].replace(/\.(?=E|$)/, '').replace(groupSpaces, ''), from, to };
}

/** A decimal comma; before three digits it may as well stand for thousands. */
export function rejectComma(text: string, from: number, to: number, fraction: string): never {
  const end = to + fraction.length;
  const [whole, digits] = [text.slice(from, to), fraction.slice(1)];
  if (/^\d{3}$/.test(digits) && /^[1-9]\d{0,2}$/.test(whole))
    fail('commaOfThousands', from, end, `${whole},${digits}`);
  fail('decimalComma', from, end, text.slice(from, end), `${whole}.${digits}`);
}

/** A comma between digits separates arguments only inside a bracket. */
function isOutsideBrackets(text: string, at: number): boolean {
  let depth = 0;
  for (let i = 0; i < at; i++) {
    if ('([{'.includes(text[i] as string)) depth++;
    else if (')]}'.includes(text[i] as string)) depth--;
  }
  return depth <= 0;
}

function readLetters(text: string, from: number): Token | undefined {
  let to = from;
  while (to < text.length) {
    const character = String.fromCodePoint(text.codePointAt(to) ?? 0);
    if (!letterPattern.test(character) || superscripts[character] || sameAs[character]) break;
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

/** Raised characters: a whole number or a sign as it is, anything else (the −x of e⁻ˣ) as a power in brackets. */
function readSuperscripts(text: string, from: number): Token | Token[] | undefined {
  let to = from;
  let plain = '';
  while (to < text.length && superscripts[text[to] ?? ''] !== undefined) {
    plain += superscripts[text[to] ?? ''] ?? '';
    to++;
  }
  if (to === from) return undefined;
  if (/^(?:-?\d+|[+-])$/.test(plain)) return { kind: 'superscript', text: plain, from, to };
  const sign = (written: string, place: number): Token => ({
    kind: 'sign',
    text: written,
    from: place,
    to: place,
  });
  const raised = tokenize(plain)
    .slice(0, -1)
    .flatMap(withPowers)
    .map((token) => ({ ...token, from: token.from + from, to: token.to + from }));
  const inside = /^\([^()]*\)$/.test(plain) ? raised : [sign('(', from), ...raised, { ...sign(')', to) }];
  return [sign('^', from), ...inside];
}

/** Among raised characters a digit behind a letter is its power: e⁻ˣ² is e^(−x²). */
function withPowers(token: Token): Token[] {
  if (token.kind !== 'letters' || token.index === '') return [token];
  const to = token.to - token.index.length;
  return [
    { ...token, index: '', to },
    { kind: 'superscript', text: token.index, from: to, to: token.to },
  ];
}

function readFraction(from: number, character: string): Token | undefined {
  const fraction = fractions[character];
  return fraction === undefined ? undefined : { kind: 'fraction', text: fraction, from, to: from + 1 };
}

function readSign(text: string, from: number, character: string): Token {
  const to = from + character.length;
  const pair = pairs[text.slice(from, from + 2)];
  if (pair !== undefined) return { kind: 'sign', text: pair, from, to: from + 2 };
  const partial = /^∂(?:_([12])|([₁₂]))/u.exec(text.slice(from, from + 3));
  if (partial) {
    const argument = partial[1] ?? String(subscripts.indexOf(partial[2] ?? ''));
    return { kind: 'sign', text: `∂${argument}`, from, to: from + partial[0].length };
  }
  const plain = sameAs[character] ?? character;
  if (!signs.has(plain)) fail('unexpectedCharacter', from, to, character);
  return { kind: 'sign', text: plain, from, to };
}
