import { canonicalName, latexOfStatement, readStatement, type Problem } from '@yperkine/core';
import { remembered } from './formulaValue.ts';
import type { Directory } from './names.ts';

/** A piece of a text in which mathematics may stand. */
export type ProsePiece =
  | { readonly kind: 'words'; readonly text: string }
  /** $…$: typeset as it is. */
  | { readonly kind: 'mathematics'; readonly latex: string }
  /** {…}: a formula whose value is put in. */
  | { readonly kind: 'formula'; readonly text: string };

/** \$ and \{ are the signs themselves; a sign without its partner is one, too. */
const pieces = /\\([$\\{}])|\$([^$\n]+)\$|\{([^{}\n]+)\}/gu;

/**
 * A text in its pieces: `$x^2/2$` is mathematics in the typed notation or in LaTeX, `{f(a)}` a live value.
 * @param directory the names by which mathematics is read
 */
export const prosePieces = (text: string, directory: Directory): readonly ProsePiece[] =>
  remembered(directory, 'prose', text, () => split(text, directory));

function split(text: string, directory: Directory): ProsePiece[] {
  const result: ProsePiece[] = [];
  let words = '';
  let end = 0;
  const flush = () => {
    if (words !== '') result.push({ kind: 'words', text: words });
    words = '';
  };
  for (const match of text.matchAll(pieces)) {
    const [whole, escaped, mathematics, formula] = match;
    words += text.slice(end, match.index);
    end = match.index + whole.length;
    if (escaped !== undefined) words += escaped;
    else {
      flush();
      result.push(
        mathematics === undefined
          ? { kind: 'formula', text: (formula ?? '').trim() }
          : { kind: 'mathematics', latex: mathematicsLatex(mathematics.trim(), directory) },
      );
    }
  }
  words += text.slice(end);
  flush();
  return result;
}

/** Letters in a text need mean nothing; so many of them may be new. */
const mostLetters = 8;

/** Mathematics as LaTeX: what the notation can read is printed as a textbook does; anything else is LaTeX already. */
export function mathematicsLatex(text: string, { scope }: Directory): string {
  const names = new Set(scope.names);
  for (let i = 0; i <= mostLetters; i++) {
    const reading = readStatement(text, { ...scope, names });
    if (reading.ok) return latexOfStatement(reading.value);
    const letter = newLetter(reading.problem);
    if (letter === null) break;
    names.add(letter);
  }
  return text;
}

/** The single letter, with or without an index, that kept a text from being read. */
function newLetter({ code, subject }: Problem): string | null {
  const [, letter = '', index = ''] = /^(\p{L})_?(\w*)$/u.exec(subject) ?? [];
  return code === 'unknownName' && letter !== '' ? canonicalName(letter, index) : null;
}
