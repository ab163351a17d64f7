import { builtIn } from '../functions/table.ts';
import { readExpression } from '../language/read.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

/** The formulas that rows of the table of functions carry, with arguments put in. */

const rowScope = { names: new Set(['x', 'y']), functions: new Set<string>() };

/** A row's boundaries with the arguments put in. */
export function boundariesOf({ name, arguments: args }: tree.CallNode): Expression[] {
  return (builtIn(name).boundaries ?? []).map((text) => formulaOf(text, args));
}

/** A formula of the table with the arguments put in for x and y. */
export function formulaOf(text: string, args: readonly Expression[]): Expression {
  const reading = readExpression(text, rowScope);
  if (!reading.ok) throw new TypeError(`a row of the table cannot be read: ${text}`);
  const [x, y] = args;
  const first = x ? tree.substitute(reading.value, 'x', tree.name('#1')) : reading.value;
  const second = y ? tree.substitute(first, 'y', y) : first;
  return x ? tree.substitute(second, '#1', x) : second;
}
