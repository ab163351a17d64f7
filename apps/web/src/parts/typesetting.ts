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

/**
 * Typesets LaTeX into an element. What cannot be typeset, or would take the typesetter too deep, stands there as it is
 * written.
 */
export function typesetInto(element: HTMLElement, latex: string): void {
  try {
    if (depthOf(latex) > deepest) throw new RangeError('too deep');
    katex.render(latex, element, { throwOnError: false, output: 'htmlAndMathml', maxSize, maxExpand });
  } catch {
    element.textContent = latex;
  }
}
