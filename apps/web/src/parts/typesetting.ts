import katex from 'katex';
import 'katex/dist/katex.min.css';

/** Em that anything typeset may be large, macros that are expanded, and braces that lie in each other. */
const maxSize = 40;
const maxExpand = 1000;
const deepest = 200;

/** How deep the braces of a text lie in each other. */
function depthOf(latex: string): number {
  let depth = 0;
  let most = 0;
  for (const character of latex) {
    if (character === '{') most = Math.max(most, ++depth);
    else if (character === '}') depth--;
  }
  return most;
}

/** Characters of LaTeX that are typeset at most: a longer formula holds the page up, and nobody reads it. */
export const longest = 4000;

/** LaTeX as markup; null for what cannot be typeset, is too long, or would take the typesetter too deep. */
export function typeset(latex: string): string | null {
  if (latex.length > longest || depthOf(latex) > deepest) return null;
  try {
    return katex.renderToString(latex, {
      throwOnError: false,
      output: 'htmlAndMathml',
      maxSize,
      maxExpand,
    });
  } catch {
    return null;
  }
}

/** The same in an element, without React. */
export function typesetInto(element: HTMLElement, latex: string): void {
  const markup = typeset(latex);
  if (markup === null) element.textContent = latex;
  else element.innerHTML = markup;
}
