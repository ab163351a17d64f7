import { canonicalName, emptyScope, isReserved, type Scope } from './names.ts';
import { Parser } from './parser.ts';
import { fail, reading, type Reading } from './problem.ts';
import { tokenize, type Token } from './tokens.ts';
import type { Expression } from './tree.ts';

/** A text that gives a name a meaning: f(x) = … (with a variable) or a = … (without). */
export interface Definition {
  readonly name: string;
  readonly variable: string | undefined;
  readonly body: Expression;
}

/**
 * Reads an expression such as `3x^2 - 5x - 2`.
 * @param scope the names that may be used
 * @returns the tree, or the first problem with its range in the text
 */
export function readExpression(text: string, scope: Scope = emptyScope): Reading<Expression> {
  return reading(() => new Parser(nonEmpty(tokenize(text)), text, scope).readAll());
}

/**
 * Reads a definition such as `f(x) = 3x^2` or `a = 3`. The variable of the head is known in the body
 * and shadows a parameter of the same name.
 */
export function readDefinition(text: string, scope: Scope = emptyScope): Reading<Definition> {
  return reading(() => {
    const tokens = nonEmpty(tokenize(text));
    const head = readHead(tokens, text);
    const body = tokens.slice(head.length);
    if (body[0]?.kind === 'end') fail('bodyMissing', body[0].from, body[0].to);
    const names = head.variable === undefined ? scope.names : new Set([...scope.names, head.variable]);
    const functions = new Set(scope.functions);
    if (head.variable !== undefined) functions.delete(head.variable);
    const expression = new Parser(body, text, { names, functions }).readAll();
    return { name: head.name, variable: head.variable, body: expression };
  });
}

export interface Head {
  readonly name: string;
  readonly variable: string | undefined;
}

/** The name that a text sets out to define, even while its body cannot be read; undefined without a head. */
export function headOf(text: string): Head | undefined {
  const result = reading(() => readHead(tokenize(text), text));
  return result.ok ? { name: result.value.name, variable: result.value.variable } : undefined;
}

function nonEmpty(tokens: Token[]): Token[] {
  if (tokens.length === 1) fail('empty', 0, 0);
  return tokens;
}

function readHead(tokens: readonly Token[], text: string): Head & { length: number } {
  const equals = tokens.findIndex((token) => token.text === '=');
  const head = equals < 0 ? [] : tokens.slice(0, equals);
  const [first, open, variable, close] = head;
  const isFunction =
    head.length === 4 && open?.text === '(' && variable?.kind === 'letters' && close?.text === ')';
  if (first?.kind !== 'letters' || !(head.length === 1 || isFunction)) {
    const end = head.at(-1)?.to ?? tokens.at(-1)?.to ?? 0;
    return fail('headNotUnderstood', 0, end, text.slice(0, end).trim());
  }
  const name = definable(first, text);
  const length = equals + 1;
  return isFunction
    ? { name, variable: definable(variable, text), length }
    : { name, variable: undefined, length };
}

function definable(token: Token, text: string): string {
  if (token.kind !== 'letters') throw new TypeError('only letters name something');
  const name = canonicalName(token.text, token.index);
  if (isReserved(name)) fail('reservedName', token.from, token.to, text.slice(token.from, token.to));
  return name;
}
