import {
  compare,
  evaluateAt,
  exactTruth,
  readCondition,
  TooLarge,
  tree,
  truthOf,
  type Rational,
  type Reading,
} from '@yperkine/core';
import { functionsMentioned, idsMentioned, parameterValues, unreadable } from '../entries/formula.ts';
import { compiled, remembered } from '../entries/formulaValue.ts';
import type { WorkContext } from '../entries/kind.ts';
import type { EntryProblem } from '../entries/outcome.ts';
import { inOrder, type Document, type Id } from '../schema/document.ts';
import type { Directory } from '../entries/names.ts';

/** Whether an entry is shown just now, and why not. */
export interface Visibility {
  /** Whether its marks are on the graphs. */
  readonly isShown: boolean;
  /** Whether its condition holds, and that of its heading; an entry that was hidden by hand may hold all the same. */
  readonly holds: boolean;
  /** Whether no reveal keeps it away: what a moving point left behind stays while only its moment is over. */
  readonly isRevealed: boolean;
  /** What is wrong with its condition; such an entry is shown. */
  readonly problem: EntryProblem | null;
}

const always: Visibility = { isShown: true, holds: true, isRevealed: true, problem: null };

export type Visibilities = ReadonlyMap<Id, Visibility>;

/** What each entry's visibility is, a heading's holding for all under it. The same map comes back while nothing changed. */
export function visibilitiesOf(
  document: Document,
  contextFor: (id: Id) => WorkContext,
  previous: Visibilities | undefined,
): Visibilities {
  const result = new Map<Id, Visibility>();
  let group = always;
  for (const [id, entry] of inOrder(document.entries)) {
    const own = entry.shownWhen.trim() === '' ? always : ofCondition(entry.shownWhen, contextFor(id));
    const isHeading = entry.kind === 'heading';
    const visibility = joined(own, isHeading ? always : group, entry.hidden);
    if (isHeading) group = visibility;
    result.set(id, kept(visibility, previous?.get(id)));
  }
  const isSame = previous?.size === result.size && [...result].every(([id, one]) => previous.get(id) === one);
  return isSame ? previous : result;
}

function joined(own: Visibility, group: Visibility, isHidden: boolean): Visibility {
  if (!isHidden && group.isShown && group.isRevealed) return own;
  return {
    isShown: own.isShown && group.isShown && !isHidden,
    holds: own.holds && group.holds,
    isRevealed: own.isRevealed && group.isRevealed && !isHidden,
    problem: own.problem,
  };
}

function kept(now: Visibility, before: Visibility | undefined): Visibility {
  const isSame =
    before !== undefined &&
    before.isShown === now.isShown &&
    before.holds === now.holds &&
    before.isRevealed === now.isRevealed &&
    before.problem?.message === now.problem?.message;
  return isSame ? before : now;
}

/** The condition that a text is; a reveal's name alone asks whether it is on. */
export const conditionOf = (text: string, directory: Directory): Reading<tree.Condition> =>
  remembered(directory, 'condition', text, () => readCondition(text, directory.scope));

/** The entries that a condition mentions; none while it cannot be read. */
export function idsInCondition(text: string, directory: Directory): readonly Id[] {
  if (text.trim() === '') return [];
  const reading = conditionOf(text, directory);
  return reading.ok ? tree.comparedIn(reading.value).flatMap((part) => idsMentioned(part, directory)) : [];
}

function ofCondition(text: string, context: WorkContext): Visibility {
  const reading = conditionOf(text, context.directory);
  if (!reading.ok) return withProblem(unreadable(reading.problem));
  const condition = reading.value;
  const holds = truthOf(condition, (comparison) => isTrue(comparison, context)) === true;
  const { truths } = context.directory.scope;
  const isOfReveals = (comparison: tree.ComparisonNode): boolean =>
    comparison.operands.every((operand) =>
      [...tree.mentioned(operand).names].every((name) => truths?.has(name)),
    );
  const isRevealed =
    truthOf(condition, (comparison) => (isOfReveals(comparison) ? isTrue(comparison, context) : null)) !==
    false;
  return { isShown: holds, holds, isRevealed, problem: null };
}

const withProblem = (outcome: ReturnType<typeof unreadable>): Visibility => ({
  ...always,
  problem: outcome.ok ? null : outcome.problem,
});

/** Whether a comparison holds: by exact numbers where they reach, else by doubles; null where a side has no value. */
function isTrue(comparison: tree.ComparisonNode, context: WorkContext): boolean | null {
  const sides = comparison.operands.map((operand) => valueIn(operand, context));
  const exact = new Map(sides.flatMap(({ exact }) => [...exact]));
  const exactly = exactTruth(comparison, exact);
  if (exactly !== null) return exactly;
  const truths = comparison.relations.map((relation, i) =>
    compare(relation, sides[i]?.value ?? NaN, sides[i + 1]?.value ?? NaN),
  );
  return truths.some(Number.isNaN) ? null : truths.every((truth) => truth === 1);
}

interface Side {
  readonly value: number;
  readonly exact: ReadonlyMap<string, Rational>;
}

function valueIn(operand: tree.Expression, context: WorkContext): Side {
  const functions = functionsMentioned(operand, context);
  if (!functions) return { value: NaN, exact: new Map() };
  try {
    const { program } = compiled(operand, functions);
    const { parameters, exactParameters } = parameterValues(program.parameters, context);
    return { value: evaluateAt(program, 0, parameters), exact: exactParameters };
  } catch (error) {
    if (error instanceof TooLarge) return { value: NaN, exact: new Map() };
    throw error;
  }
}
