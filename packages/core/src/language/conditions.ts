import { isWordToken } from './cursor.ts';
import type { Reader } from './reader.ts';
import { fail } from './problem.ts';
import type { Token } from './tokens.ts';
import * as tree from './tree.ts';
import type { Condition, Expression, Piece, Relation } from './tree.ts';

const relations: readonly string[] = ['<', '≤', '>', '≥', '=', '≠'];

/** Whether a comma may stand for `if` and `for`, as in “1/x, x ≠ 0”, or separates arguments. */
export type Commas = 'separate' | 'condition';

/**
 * An expression with its pieces or its domain: `x^2 if x < 0; 2x + 1 otherwise`, `x(12-x)/5 for 0 ≤ x ≤ 12`.
 * A domain behind all pieces holds for the whole.
 */
export function readPieces(parser: Reader, commas: Commas = 'separate'): Expression {
  let result = readPieceList(parser, commas);
  while (parser.isWord('for')) {
    parser.take();
    result = tree.piecewise([{ value: result, condition: readCondition(parser) }]);
  }
  return result;
}

function readPieceList(parser: Reader, commas: Commas): Expression {
  const first = readPiece(parser, commas);
  if (first.condition === undefined) return first.value;
  const pieces: Piece[] = [];
  let next: { value: Expression; condition: Condition | 'otherwise' | undefined } = first;
  for (;;) {
    if (next.condition === undefined) fail('wordMissing', parser.token.from, parser.token.to, 'if');
    if (next.condition === 'otherwise') {
      if (parser.isSign(';')) fail('otherwiseNotLast', parser.token.from, parser.token.to);
      return pieces.length === 0 ? next.value : tree.piecewise(pieces, next.value);
    }
    pieces.push({ value: next.value, condition: next.condition });
    if (commas === 'condition' && parser.isSign(',') && parser.ahead(1)?.text === ';') parser.take();
    if (!parser.isSign(';')) return tree.piecewise(pieces);
    parser.take();
    next = readPiece(parser, commas);
  }
}

function readPiece(
  parser: Reader,
  commas: Commas,
): { value: Expression; condition: Condition | 'otherwise' | undefined } {
  if (parser.isWord('otherwise')) {
    parser.take();
    return { value: parser.sum(), condition: 'otherwise' };
  }
  const value = parser.sum();
  const follows = commas === 'condition' ? behindComma(parser) : null;
  if (follows) parser.take();
  if (follows === 'relation') return { value, condition: readCondition(parser) };
  if (parser.isWord('otherwise')) {
    parser.take();
    return { value, condition: 'otherwise' };
  }
  if (parser.isWord('if')) {
    parser.take();
    return { value, condition: readCondition(parser) };
  }
  return { value, condition: undefined };
}

/** What stands behind a comma that is no separator: a word that begins a condition, or a comparison; null otherwise. */
function behindComma(parser: Reader): 'word' | 'relation' | null {
  if (!parser.isSign(',')) return null;
  if (isWordToken(parser.ahead(1), 'if', 'for', 'otherwise')) return 'word';
  let depth = 0;
  for (let i = parser.position + 1; i < parser.all.length; i++) {
    const token = parser.all[i] as Token;
    if (depth === 0 && isRelation(token)) return 'relation';
    if (token.kind !== 'sign') continue;
    if (token.text === '(') depth++;
    if (token.text === ')' && --depth < 0) return null;
    if (depth === 0 && (token.text === ',' || token.text === ';')) return null;
  }
  return null;
}

/** A condition: `or` binds least, then `and`, then `not`. */
export function readCondition(parser: Reader): Condition {
  let left = readConjunction(parser);
  while (parser.isWord('or')) {
    parser.take();
    left = { kind: 'or', left, right: readConjunction(parser) };
  }
  return left;
}

function readConjunction(parser: Reader): Condition {
  let left = readNegation(parser);
  while (parser.isWord('and')) {
    parser.take();
    left = { kind: 'and', left, right: readNegation(parser) };
  }
  return left;
}

function readNegation(parser: Reader): Condition {
  if (parser.isWord('not')) {
    parser.take();
    return parser.nested(() => ({ kind: 'not', operand: readNegation(parser) }));
  }
  if (!opensCondition(parser)) return readComparison(parser);
  const open = parser.take();
  const inside = parser.nested(() => readCondition(parser));
  parser.close(open);
  return inside;
}

/** Whether the bracket ahead holds a condition rather than an expression: a relation or a word directly inside. */
function opensCondition(parser: Reader): boolean {
  if (!parser.isSign('(')) return false;
  const end = parser.closingOf(parser.position);
  let depth = 0;
  for (let i = parser.position; i < end; i++) {
    const token = parser.all[i] as Token;
    if (token.kind === 'sign' && token.text === '(') depth++;
    else if (token.kind === 'sign' && token.text === ')') depth--;
    else if (depth === 1 && isWordToken(token, 'if', 'for', 'otherwise')) return false;
    else if (depth === 1 && (isRelation(token) || isWordToken(token, 'and', 'or', 'not'))) return true;
    else if (isWordToken(token, 'and', 'or', 'not')) return true;
  }
  return false;
}

const isRelation = (token: Token): boolean => token.kind === 'sign' && relations.includes(token.text);

function readComparison(parser: Reader): Condition {
  const operands = [comparable(parser)];
  const found: Relation[] = [];
  while (parser.isSign(...relations)) {
    found.push(parser.take().text as Relation);
    operands.push(comparable(parser));
  }
  if (found.length > 0) return { kind: 'comparison', operands, relations: found };
  const [alone] = operands as [Expression];
  if (alone.kind === 'name' && parser.scope.truths?.has(alone.name))
    return tree.comparison(alone, ['=', tree.number(1)]);
  return fail('conditionExpected', parser.token.from, parser.token.to);
}

/** A side of a comparison; ±∞ may stand there. */
function comparable(parser: Reader): Expression {
  return parser.withInfinity(() => parser.sum());
}
