import {
  printCondition,
  printText,
  readCondition,
  readDefinition,
  readExpression,
  sentence,
  type Scope,
} from '@yperkine/core';

/** One piece of a function as it is edited: its formula, and where it holds; empty for "otherwise". */
export interface PieceRow {
  readonly value: string;
  readonly condition: string;
}

export interface PiecesReading {
  /** Everything before the equals sign: f(x). */
  readonly head: string;
  readonly variable: string;
  readonly rows: readonly PieceRow[];
}

/** The pieces of a function's text; one row for a function of one piece. Null where the text cannot be read. */
export function readPieces(text: string, scope: Scope): PiecesReading | null {
  const reading = readDefinition(text, scope);
  if (!reading.ok || reading.value.variable === undefined) return null;
  const { body, name, variable } = reading.value;
  const head = `${name}(${variable})`;
  if (body.kind !== 'piecewise') return { head, variable, rows: [{ value: printText(body), condition: '' }] };
  const rows = body.pieces.map(({ value, condition }) => ({
    value: printText(value),
    condition: printCondition(condition),
  }));
  const last = body.otherwise ? [{ value: printText(body.otherwise), condition: '' }] : [];
  return { head, variable, rows: [...rows, ...last] };
}

/** The rows as the text of the function. */
export function writePieces(head: string, rows: readonly PieceRow[]): string {
  const [only] = rows;
  if (only && rows.length === 1 && only.condition.trim() === '') return `${head} = ${only.value}`;
  const parts = rows.map(({ value, condition }) =>
    condition.trim() === '' ? `(${value}) otherwise` : `(${value}) if ${condition}`,
  );
  return `${head} = ${parts.join('; ')}`;
}

/** What is wrong with a row, in a sentence; null where nothing is. */
export function faultOfRow(
  { value, condition }: PieceRow,
  isLast: boolean,
  variable: string,
  scope: Scope,
): string | null {
  const inside = { ...scope, names: new Set([...scope.names, variable]) };
  const formula = readExpression(value, inside);
  if (!formula.ok) return sentence(formula.problem);
  if (condition.trim() === '') {
    return isLast ? null : 'Only the last piece may hold otherwise; say where this one holds, such as x < 2.';
  }
  const where = readCondition(condition, inside);
  return where.ok ? null : sentence(where.problem);
}
