import { latexFunction, latexName, printLatex, type KnownNumber } from '@yperkine/core';
import { z } from 'zod';
import { latex, liveNumber, live, words, type Line, type Part } from '../../numbers/line.ts';
import { format } from '../../numbers/format.ts';
import { prosePieces, type ProsePiece } from '../prose.ts';
import type { Directory } from '../names.ts';
import { common, standingSchema, textSizeSchema, typedSchema, type Id } from '../../fields/fields.ts';
import { idsInText, typedValue } from '../formulaValue.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { worked, type EntryProblem } from '../outcome.ts';

const noteSchema = z.strictObject({
  ...common,
  kind: z.literal('note'),
  /** Words, $mathematics$, live {values} and {definition of f}; a new line is a new paragraph. */
  text: typedSchema,
  standing: standingSchema,
  size: textSizeSchema,
  /** Decimal places of its live values; null for the demonstration's. */
  decimals: z.int().min(0).max(12).nullable(),
});
export type NoteEntry = z.infer<typeof noteSchema>;

export interface NoteResult {
  /** What stands in its paragraphs, piece by piece. */
  readonly paragraphs: readonly (readonly Filled[])[];
  /** The first of its values that cannot be worked out, and why. */
  readonly fault: { readonly text: string; readonly problem: EntryProblem } | null;
}

/** A text of the teacher's own with typeset mathematics and live values in it. */
export const noteKind: EntryKind<NoteEntry, NoteResult> = {
  schema: noteSchema,
  defaults: { text: '', standing: { at: 'page' }, size: 'medium', decimals: null },
  standsOn: () => [],
  dependsOn: ({ text }, directory) =>
    paragraphsOf(text, directory).flatMap((pieces) => pieces.flatMap((piece) => idsIn(piece, directory))),
  head: () => ({ heading: 'Note', tone: 'ink' }),

  workOut(entry, context) {
    let fault: NoteResult['fault'] = null;
    const put = (piece: ProsePiece): readonly Filled[] => {
      if (piece.kind === 'words') return [words(piece.text)];
      if (piece.kind === 'mathematics') return [latex(piece.latex)];
      const filled = filledIn(piece.text, context);
      if (!('problem' in filled)) return filled;
      fault ??= { text: piece.text, problem: filled.problem };
      return [live('…')];
    };
    const paragraphs = paragraphsOf(entry.text, context.directory).map((pieces) => pieces.flatMap(put));
    return worked({ paragraphs, fault });
  },

  say({ paragraphs }, { decimals }, wording) {
    const rule = { ...wording.rule, decimals: decimals ?? wording.rule.decimals };
    const written = (piece: Filled): Part =>
      'value' in piece ? liveNumber(format(piece.value, rule).text, piece.value, piece.form) : piece;
    return { lines: paragraphs.map((pieces): Line => pieces.map(written)), sentence: '' };
  },

  marks: () => [],
};

/** A part as it stands, or a number that is still to be written. */
type Filled = Part | { readonly value: KnownNumber; readonly form: string | null };

const paragraphsOf = (text: string, directory: Directory): (readonly ProsePiece[])[] =>
  text.split('\n').map((paragraph) => prosePieces(paragraph, directory));

/** {definition of f}: the whole formula of a name. */
const definition = /^definition of (.+)$/u;
const nameIn = (text: string): string | undefined => definition.exec(text)?.[1]?.trim();

function idsIn(piece: ProsePiece, directory: Directory): readonly Id[] {
  if (piece.kind !== 'formula') return [];
  const name = nameIn(piece.text);
  if (name === undefined) return idsInText(piece.text, directory);
  const id = idOfName(name, directory);
  return id === undefined ? [] : [id];
}

/** The entry of a name as it is written: f, a_1 or a1. */
const idOfName = (name: string, { idOf }: Directory): Id | undefined =>
  idOf.get(name) ?? idOf.get(name.replace(/(\d+)$/, '_$1'));

/** What is put in for a value or a definition. */
function filledIn(
  text: string,
  context: WorkContext,
): readonly Filled[] | { readonly problem: EntryProblem } {
  const name = nameIn(text);
  if (name !== undefined) return definitionParts(name, context);
  const outcome = typedValue(text, context);
  if (!outcome.ok) return { problem: outcome.problem };
  const { value, form } = outcome.result;
  return [{ value, form }];
}

function definitionParts(
  name: string,
  context: WorkContext,
): readonly Filled[] | { readonly problem: EntryProblem } {
  const id = idOfName(name, context.directory);
  if (id === undefined)
    return { problem: { message: `There is nothing called “${name}” to show the definition of.` } };
  const curve = context.curve(id);
  if (curve) {
    const head = `${latexFunction(curve.name, curve.order)}(${latexName(curve.variable)})`;
    return [latex(`${head} = ${printLatex(curve.body)}`)];
  }
  const number = context.number(name);
  if (!number) return { problem: { message: `“${name}” cannot be worked out yet.`, isWaiting: true } };
  return [latex(`${latexName(name)} = `), { value: number, form: null }];
}
