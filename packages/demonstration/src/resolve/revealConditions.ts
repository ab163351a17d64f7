import { printCondition, tree, truthAlone } from '@yperkine/core';
import type { Directory } from '../entries/names.ts';
import { conditionOf } from './visibility.ts';

/**
 * What a reveal has to do with a condition: nothing; it is one of those that show the entry, alone or joined with others
 * by `and` or `or`; or it is somewhere inside.
 */
export type RevealUse = 'none' | 'shows' | 'inside';

type Joint = 'and' | 'or';

/** The parts of a condition that are joined by one word. */
const partsOf = (condition: tree.Condition, joint: Joint): readonly tree.Condition[] =>
  condition.kind === joint
    ? [...partsOf(condition.left, joint), ...partsOf(condition.right, joint)]
    : [condition];

const isReveal = (part: tree.Condition, name: string): boolean =>
  part.kind === 'comparison' && truthAlone(part) === name;

/** The word that joins a reveal to the rest of a condition; null where it stands deeper or not at all. */
const jointOf = (condition: tree.Condition, name: string): Joint | null =>
  (['and', 'or'] as const).find((joint) => partsOf(condition, joint).some((part) => isReveal(part, name))) ??
  null;

export function revealUse(text: string, name: string, directory: Directory): RevealUse {
  if (text.trim() === '') return 'none';
  const reading = conditionOf(text, directory);
  if (!reading.ok) return 'none';
  if (jointOf(reading.value, name) !== null) return 'shows';
  const names = tree.comparedIn(reading.value).flatMap((part) => [...tree.mentioned(part).names]);
  return names.includes(name) ? 'inside' : 'none';
}

/**
 * The condition with a reveal put in or taken out. Beside other reveals it is one more that shows the entry; beside any
 * other condition, it has to be on as well. Null where the condition cannot be read or the reveal stands deeper.
 */
export function withRevealUse(
  text: string,
  name: string,
  isWanted: boolean,
  directory: Directory,
): string | null {
  const { truths } = directory.scope;
  const own = tree.comparison(tree.name(name), ['=', tree.number(1)]);
  if (text.trim() === '') return isWanted ? printCondition(own, truths) : '';
  const reading = conditionOf(text, directory);
  if (!reading.ok) return null;
  const condition = reading.value;
  const joint = jointOf(condition, name);
  if ((joint !== null) === isWanted) return text;
  if (isWanted) {
    const isOfReveals = partsOf(condition, 'or').every(
      (part) => part.kind === 'comparison' && truths?.has(truthAlone(part) ?? ''),
    );
    return printCondition({ kind: isOfReveals ? 'or' : 'and', left: condition, right: own }, truths);
  }
  const [first, ...rest] = partsOf(condition, joint as Joint).filter((part) => !isReveal(part, name));
  if (!first) return '';
  const left = rest.reduce((joined, right) => ({ kind: joint as Joint, left: joined, right }), first);
  return printCondition(left, truths);
}

/** The condition with a reveal's name replaced; null where it cannot be read. */
export function withRevealRenamed(
  text: string,
  from: string,
  to: string,
  directory: Directory,
): string | null {
  if (text.trim() === '') return text;
  const reading = conditionOf(text, directory);
  if (!reading.ok) return null;
  const renamed = tree.mapCondition(reading.value, (part) => tree.substitute(part, from, tree.name(to)));
  if (renamed === reading.value) return text;
  return printCondition(renamed, new Set([...(directory.scope.truths ?? []), to]));
}
