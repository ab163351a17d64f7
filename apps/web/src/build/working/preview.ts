import {
  isDefinition,
  latexFunction,
  latexName,
  printLatex,
  readDefinition,
  readExpression,
  readStatement,
  latexOfStatement,
  type Scope,
} from '@yperkine/core';
import { isGivenDerivative } from '@yperkine/demonstration';

/** The typed text as LaTeX, or null while it cannot be read. */
export function previewOf(text: string, scope: Scope): string | null {
  if (!isDefinition(text)) {
    const names = new Set([...scope.names, 'x']);
    const reading = readExpression(text, { ...scope, names });
    return reading.ok ? printLatex(reading.value) : null;
  }
  if (isGivenDerivative(text)) {
    const statement = readStatement(text, scope);
    return statement.ok ? latexOfStatement(statement.value) : null;
  }
  const reading = readDefinition(text, scope);
  if (!reading.ok) return null;
  const { name, variable, body } = reading.value;
  const head = variable === undefined ? latexName(name) : `${latexFunction(name, 0)}(${latexName(variable)})`;
  return `${head} = ${printLatex(body)}`;
}
