import {
  compile,
  noFunctions,
  readCondition,
  readExpression,
  type Condition,
  type Expression,
  type Functions,
} from '../src/index.ts';

const scope = { names: new Set(['x', 'a', 'b', 't', 'h', 'x_0', 'level']), functions: new Set(['f', 'g']) };

/** Reads a text that the test knows to be readable. */
export function expression(text: string): Expression {
  const reading = readExpression(text, scope);
  if (!reading.ok) throw new Error(`${text}: ${JSON.stringify(reading.problem)}`);
  return reading.value;
}

/** The same of a condition. */
export function condition(text: string): Condition {
  const reading = readCondition(text, scope);
  if (!reading.ok) throw new Error(`${text}: ${JSON.stringify(reading.problem)}`);
  return reading.value;
}

/** The problem of a text that the test knows to be unreadable. */
export function problemOf(text: string) {
  const reading = readExpression(text, scope);
  if (reading.ok) throw new Error(`${text} was read`);
  return reading.problem;
}

export function program(text: string, order = 0, functions: Functions = noFunctions) {
  return compile(expression(text), 'x', functions, order);
}
