import { readCondition as conditionOf } from './conditions.ts';
import { fromLatex, looksLikeLatex, type Converted } from './latexText.ts';
import { canonicalName, emptyScope, isReserved, withVariables, type Scope } from './names.ts';
import { Parser } from './parser.ts';
import { fail, reading, type Problem, type Reading } from './problem.ts';
import { longestText, tokenize, type Token } from './tokens.ts';
import type { Condition, Expression } from './tree.ts';

/** A text that gives a name a meaning: f(x) = … (with a variable) or a = … (without). */
export interface Definition {
  readonly name: string;
  readonly variable: string | undefined;
  readonly body: Expression;
}

/** What one line of text says. */
export type Statement =
  | { readonly kind: 'expression'; readonly body: Expression }
  | { readonly kind: 'condition'; readonly condition: Condition }
  | { readonly kind: 'value'; readonly name: string; readonly body: Expression }
  | {
      readonly kind: 'function';
      readonly name: string;
      readonly variables: readonly string[];
      readonly body: Expression;
    }
  /** f″(x) = …: a function given by one of its derivatives. */
  | {
      readonly kind: 'givenDerivative';
      readonly name: string;
      readonly variable: string;
      readonly order: number;
      readonly body: Expression;
    }
  | { readonly kind: 'point'; readonly name: string; readonly x: Expression; readonly y: Expression }
  /** An equation in x and y. */
  | { readonly kind: 'equation'; readonly left: Expression; readonly right: Expression };

/** A text in tokens, with the way back to the places of the text that was typed. */
interface Prepared {
  readonly text: string;
  readonly tokens: readonly Token[];
}

/** Reads LaTeX as well as the typed notation; problems are reported at their place in what was typed. */
function readText<T>(typed: string, read: (prepared: Prepared) => T): Reading<T> {
  if (otherLetters.test(typed)) return readConverted(typed, inPlainLetters, (text) => readText(text, read));
  if (looksLikeLatex(typed))
    return readConverted(typed, fromLatex, (text) => reading(() => read(prepare(text))));
  return reading(() => read(prepare(typed)));
}

/** Reads a text in another form; problems are reported at their place in what was typed. */
function readConverted<T>(
  typed: string,
  convert: (text: string) => Converted,
  read: (text: string) => Reading<T>,
): Reading<T> {
  const converted = reading(() => {
    if (typed.length > longestText) fail('tooLong', 0, typed.length);
    return convert(typed);
  });
  if (!converted.ok) return converted;
  const { text, places } = converted.value;
  const result = read(text);
  return result.ok ? result : { ok: false, problem: atPlaces(result.problem, places, typed) };
}

/** Italic, bold and wide letters, digits and signs as they come from documents and other keyboards. */
const otherLetters = /[\u{1d400}-\u{1d7ff}ℎℓℯℴ\uff01-\uff5e]/u;

function inPlainLetters(typed: string): Converted {
  let text = '';
  const places: number[] = [];
  let at = 0;
  for (const character of typed) {
    const plain = otherLetters.test(character) ? character.normalize('NFKC') : character;
    text += plain;
    for (let i = 0; i < plain.length; i++) places.push(at + Math.min(i, character.length - 1));
    at += character.length;
  }
  return { text, places: [...places, typed.length] };
}

/** A correction of converted text would not fit what was typed. */
function atPlaces({ code, from, to, subject }: Problem, places: readonly number[], typed: string): Problem {
  const start = places[from] ?? typed.length;
  return { code, from: start, to: Math.max(start, places[to] ?? typed.length), subject };
}

function prepare(text: string): Prepared {
  const tokens = tokenize(text);
  if (tokens.length === 1) fail('empty', 0, 0);
  return { text, tokens };
}

/**
 * Reads an expression such as `3x^2 - 5x - 2`, in the typed notation or as LaTeX.
 * @param scope the names that may be used
 * @returns the tree, or the first problem with its range in the text
 */
export function readExpression(text: string, scope: Scope = emptyScope): Reading<Expression> {
  return readText(text, (prepared) => new Parser(prepared.tokens, prepared.text, scope).readAll());
}

/** Reads a condition such as `0 ≤ x < 3 and x ≠ 1`. */
export function readCondition(text: string, scope: Scope = emptyScope): Reading<Condition> {
  return readText(text, (prepared) => wholeCondition(prepared, scope));
}

function wholeCondition({ tokens, text }: Prepared, scope: Scope): Condition {
  const parser = new Parser(tokens, text, scope);
  const condition = conditionOf(parser);
  parser.expectEnd();
  return condition;
}

/**
 * Reads a definition such as `f(x) = 3x^2` or `a = 3`. The variable of the head is known in the body
 * and shadows a parameter of the same name.
 */
export function readDefinition(text: string, scope: Scope = emptyScope): Reading<Definition> {
  return readText(text, (prepared) => {
    const head = readHead(prepared);
    const body = bodyAfter(prepared, head.length, scope, head.variable === undefined ? [] : [head.variable]);
    return { name: head.name, variable: head.variable, body };
  });
}

function bodyAfter(
  { tokens, text }: Prepared,
  start: number,
  scope: Scope,
  variables: readonly string[],
): Expression {
  const body = tokens.slice(start);
  if (body[0]?.kind === 'end') fail('bodyMissing', body[0].from, body[0].to);
  return new Parser(body, text, withVariables(scope, variables)).readAll();
}

export interface Head {
  readonly name: string;
  readonly variable: string | undefined;
}

/**
 * Whether a text sets out to define something, however badly: an equals sign outside of brackets, bounds and conditions,
 * or f: x ↦. A text that cannot be split into signs is judged by its equals sign.
 */
export function isDefinition(text: string): boolean {
  const result = readText(
    text,
    ({ tokens }) => headPattern(tokens) !== undefined || equalsOutside(tokens) >= 0,
  );
  return result.ok ? result.value : text.includes('=');
}

/** The name that a text sets out to define, even while its body cannot be read; undefined without a head. */
export function headOf(text: string): Head | undefined {
  const result = readText(text, readHead);
  return result.ok ? { name: result.value.name, variable: result.value.variable } : undefined;
}

function readHead({ tokens, text }: Prepared): Head & { length: number } {
  const head = headPattern(tokens);
  if (!head || head.variables.length > 1 || head.order > 0) {
    const equals = tokens.findIndex((token) => token.text === '=');
    const end = (equals > 0 ? tokens[equals - 1] : tokens.at(-1))?.to ?? 0;
    return fail('headNotUnderstood', 0, end, text.slice(0, end).trim());
  }
  const name = definable(head.name, text);
  const [variable] = head.variables.map((token) => definable(token, text));
  return { name, variable, length: head.length };
}

interface HeadPattern {
  readonly name: Token;
  readonly order: number;
  readonly variables: readonly Token[];
  /** Tokens up to and with the equals sign. */
  readonly length: number;
}

/** name =, name(x) =, name(x, y) =, name″(x) = or name: x ↦ at the beginning of a text. */
function headPattern(tokens: readonly Token[]): HeadPattern | undefined {
  const name = tokens[0];
  if (name?.kind !== 'letters') return undefined;
  const mapped = tokens[2];
  if (tokens[1]?.text === ':' && mapped?.kind === 'letters' && tokens[3]?.text === '↦')
    return { name, order: 0, variables: [mapped], length: 4 };
  let at = 1;
  let order = 0;
  for (; tokens[at]?.kind === 'sign' && /^'+$/.test(tokens[at]?.text ?? ''); at++)
    order += tokens[at]?.text.length ?? 0;
  const variables: Token[] = [];
  if (tokens[at]?.text === '(') {
    do {
      const variable = tokens[at + 1];
      if (variable?.kind !== 'letters') return undefined;
      variables.push(variable);
      at += 2;
    } while (tokens[at]?.text === ',');
    if (tokens[at]?.text !== ')') return undefined;
    at++;
  }
  const isHead = tokens[at]?.text === '=' && (order === 0 || variables.length === 1);
  return isHead ? { name, order, variables, length: at + 1 } : undefined;
}

function definable(token: Token, text: string): string {
  if (token.kind !== 'letters') throw new TypeError('only letters name something');
  const name = canonicalName(token.text, token.index);
  if (isReserved(name)) fail('reservedName', token.from, token.to, text.slice(token.from, token.to));
  return name;
}

/** Names of the plane's axes: y = 3x and x = 4 are equations, not definitions. */
const axes = new Set(['x', 'y']);

/**
 * Reads one line whatever it says: a definition, a point, an equation in x and y, a condition or an expression.
 * @param scope the names that may be used; x and y need not be among them
 */
export function readStatement(text: string, scope: Scope = emptyScope): Reading<Statement> {
  return readText(text, (prepared) => statement(prepared, scope));
}

function statement(prepared: Prepared, scope: Scope): Statement {
  const head = headPattern(prepared.tokens);
  if (head && !isEquationHead(head, scope)) return definition(prepared, head, scope);
  const plane = withVariables(scope, ['x', 'y']);
  const equals = equalsOutside(prepared.tokens);
  if (equals > 0) return equation(prepared, equals, plane);
  if (hasRelation(prepared.tokens)) return { kind: 'condition', condition: wholeCondition(prepared, plane) };
  rejectNamelessPoint(prepared, plane);
  return { kind: 'expression', body: new Parser(prepared.tokens, prepared.text, plane).readAll() };
}

/** x = 4 and y = 3x; f(x) = 3 where f is known already asks where f is 3. */
function isEquationHead({ name, variables }: HeadPattern, scope: Scope): boolean {
  if (name.kind !== 'letters') return false;
  const canonical = canonicalName(name.text, name.index);
  const isAxis = axes.has(canonical) && variables.length === 0;
  return isAxis || (variables.length > 0 && scope.names.has(canonical) && !scope.functions.has(canonical));
}

function definition(prepared: Prepared, head: HeadPattern, scope: Scope): Statement {
  const name = definable(head.name, prepared.text);
  const variables = head.variables.map((token) => definable(token, prepared.text));
  const [variable] = variables;
  if (variable === undefined) {
    const point = pointAfter(prepared, head.length, scope);
    if (point) return { kind: 'point', name, ...point };
    return { kind: 'value', name, body: bodyAfter(prepared, head.length, scope, []) };
  }
  const body = bodyAfter(prepared, head.length, scope, variables);
  return head.order > 0
    ? { kind: 'givenDerivative', name, variable, order: head.order, body }
    : { kind: 'function', name, variables, body };
}

/** The (a, b) of a point: one bracket around all with one comma directly inside. */
function pointAfter(
  { tokens, text }: Prepared,
  start: number,
  scope: Scope,
): { x: Expression; y: Expression } | undefined {
  const body = tokens.slice(start);
  const parser = new Parser(body, text, scope);
  if (body[0]?.text !== '(' || parser.closingOf(0) !== body.length - 2) return undefined;
  let depth = 0;
  const commas = body.flatMap((token, i) => {
    if (token.text === '(') depth++;
    if (token.text === ')') depth--;
    return token.text === ',' && depth === 1 ? [i] : [];
  });
  if (commas.length === 0) return undefined;
  const [comma] = commas as [number];
  if (commas.length > 1) fail('pointNotUnderstood', body[0].from, body.at(-1)?.to ?? 0);
  return { x: parser.part(1, comma, {}), y: parser.part(comma + 1, body.length - 2, {}) };
}

function rejectNamelessPoint(prepared: Prepared, scope: Scope): void {
  if (!pointAfter(prepared, 0, scope)) return;
  const written = prepared.text.trim();
  fail('pointWithoutName', 0, prepared.text.length, written, `P = ${written}`);
}

const clauseWords = new Set(['if', 'for', 'and', 'or', 'not']);

/** The index of the one equals sign outside of brackets and conditions; −1 for none. */
function equalsOutside(tokens: readonly Token[]): number {
  let depth = 0;
  for (let i = 0; i < tokens.length; i++) {
    const token = tokens[i] as Token;
    if (token.kind === 'letters' && clauseWords.has(token.text)) return -1;
    if (token.text === '(') depth++;
    if (token.text === ')') depth--;
    if (token.text === '=' && depth === 0 && !isOfPlace(tokens, i)) return i;
  }
  return -1;
}

/** The sign of `at x = 3` behind a derivative. */
const isOfPlace = (tokens: readonly Token[], equals: number): boolean => tokens[equals - 2]?.text === 'at';

const relations = new Set(['<', '>', '≤', '≥', '≠', '=']);

/** Whether a relation stands outside of brackets before any piece or domain begins. */
function hasRelation(tokens: readonly Token[]): boolean {
  let depth = 0;
  for (const [i, token] of tokens.entries()) {
    if (token.kind === 'letters' && (token.text === 'if' || token.text === 'for')) return false;
    if (token.text === '(') depth++;
    if (token.text === ')') depth--;
    if (depth === 0 && token.text === ',') return false;
    const isRelation = token.kind === 'sign' && relations.has(token.text) && !isOfPlace(tokens, i);
    if (depth === 0 && isRelation) return true;
  }
  return tokens.some((token) => token.kind === 'letters' && ['and', 'or', 'not'].includes(token.text));
}

function equation({ tokens, text }: Prepared, equals: number, scope: Scope): Statement {
  const parser = new Parser(tokens, text, scope);
  const left = parser.part(0, equals, {});
  const sign = tokens[equals] as Token;
  if (tokens[equals + 1]?.kind === 'end') fail('bodyMissing', sign.to, sign.to);
  const right = new Parser(tokens.slice(equals + 1), text, scope).readAll();
  return { kind: 'equation', left, right };
}
