import type { Canonical } from './canonical.ts';
import { expanded, factored } from './expand.ts';
import {
  hasWaves,
  inSinesAndCosines,
  quotientNames,
  withQuotientsNamed,
  withSquaresJoined,
} from './identities.ts';
import { mapped } from './parts.ts';
import { written, type NumberStyle } from './written.ts';
import { printText } from '../language/printText.ts';
import { children, type Expression } from '../language/tree.ts';

/** Decimals where a decimal was typed, fractions otherwise. */
export function numberStyle(node: Expression): NumberStyle {
  if (node.kind === 'number') return node.text.includes('.') ? 'decimal' : 'fraction';
  return children(node).some((part) => numberStyle(part) === 'decimal') ? 'decimal' : 'fraction';
}

/** Characters of a form beyond which it is written as it is: no arrangement makes it a formula to be read. */
const longestArranged = 4000;

/** As it is, multiplied out, with common factors taken out, those of inner sums too. */
function arrangements(form: Canonical): Canonical[] {
  const multipliedOut = expanded(form);
  return [form, multipliedOut, factored(form), factored(multipliedOut), mapped(form, factored)];
}

/** Further forms that the identities of circular functions lead to, made only where an identity applies. */
function circular(form: Canonical, plain: readonly Canonical[]): Canonical[] {
  const inSines = hasWaves(form, quotientNames) ? [expanded(inSinesAndCosines(form))] : [];
  const joined = [...plain, mapped(factored(form), expanded), ...inSines].flatMap((candidate) => {
    const next = withSquaresJoined(candidate);
    return next.key === candidate.key && !inSines.includes(candidate) ? [] : [next];
  });
  return [...plain, ...joined, ...joined.map(factored)]
    .map((candidate) => withQuotientsNamed(candidate))
    .filter((candidate) => !plain.includes(candidate));
}

/** The form that makes the shortest text: as it is, multiplied out, with common factors taken out; on a tie, the first. */
export function shortest(form: Canonical, style: NumberStyle): Expression {
  if (form.key.length > longestArranged) return written(form, style);
  const plain = arrangements(form);
  const forms = hasWaves(form) ? [...plain, ...circular(form, plain)] : plain;
  const distinct = [...new Map(forms.map((candidate) => [candidate.key, candidate])).values()];
  const texts = distinct.map((candidate) => {
    const expression = written(candidate, style);
    return { expression, length: printText(expression).length };
  });
  return texts.reduce((best, next) => (next.length < best.length ? next : best)).expression;
}
