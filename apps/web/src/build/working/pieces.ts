import {
  canonicalName,
  isReserved,
  printCondition,
  printText,
  readCondition,
  readDefinition,
  readExpression,
  sentence,
  tree,
  type Expression,
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

/**
 * The rows with another variable, where that is what was typed: a letter that is not known here and stands in none of
 * the fields in which the old variable stands. Null where there is no such letter, or more than one.
 */
export function withTypedVariable(
  rows: readonly PieceRow[],
  variable: string,
  scope: Scope,
): { readonly variable: string; readonly rows: readonly PieceRow[] } | null {
  const known = { ...scope, names: new Set([...scope.names, variable]) };
  const unknown = new Set(rows.flatMap(fieldsOf).flatMap((text) => unknownLetter(text, known) ?? []));
  const [typed] = unknown;
  if (typed === undefined || unknown.size > 1 || isReserved(typed)) return null;
  const both = { ...scope, names: new Set([...known.names, typed]) };
  const isMixed = rows.flatMap(fieldsOf).some((text) => {
    const names = mentionedIn(text, both);
    return names.has(typed) && names.has(variable);
  });
  if (isMixed) return null;
  const renamed = (part: Expression): Expression => tree.substitute(part, variable, tree.name(typed));
  return {
    variable: typed,
    rows: rows.map(({ value, condition }) => {
      const [formula, where] = [readExpression(value, both), readCondition(condition, both)];
      return {
        value:
          formula.ok && mentionedIn(value, both).has(variable) ? printText(renamed(formula.value)) : value,
        condition:
          where.ok && mentionedIn(condition, both).has(variable)
            ? printCondition(tree.mapCondition(where.value, renamed))
            : condition,
      };
    }),
  };
}

const fieldsOf = ({ value, condition }: PieceRow): string[] => [value, condition];

/** The name, a letter with or without a number, that a field cannot be read for. */
function unknownLetter(text: string, scope: Scope): string | null {
  const formula = readExpression(text, scope);
  const where = readCondition(text, scope);
  if (formula.ok || where.ok) return null;
  const problem = [formula.problem, where.problem].find(({ code }) => code === 'unknownName');
  const [, letter, index = ''] = /^(\p{L})(\d*)$/u.exec(problem?.subject ?? '') ?? [];
  return letter === undefined ? null : canonicalName(letter, index);
}

/** The names in a field, be it a formula or a condition; none while it cannot be read. */
function mentionedIn(text: string, scope: Scope): ReadonlySet<string> {
  const formula = readExpression(text, scope);
  const where = readCondition(text, scope);
  const parts = formula.ok ? [formula.value] : where.ok ? tree.comparedIn(where.value) : [];
  return new Set(parts.flatMap((part) => [...tree.mentioned(part).names]));
}
