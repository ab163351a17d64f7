import {
  kindOf,
  placeOfStudy,
  placesOf,
  resultsOf,
  type Entry,
  type Id,
  saidOf,
} from '@yperkine/demonstration';
import type { MenuAction } from '../../parts/ActionMenu.tsx';
import { removeEntry, setField } from '../../state/actions.ts';
import { duplicateEntry } from '../../state/duplicate.ts';
import { shownInWorking } from '../../state/folding.ts';
import { moveBy } from '../../state/order.ts';
import { setMoves } from '../../state/parameters.ts';
import { isInOwnTier, moveToTier, otherTiers } from '../../state/tiers.ts';
import { putOnGraph } from '../../state/texts.ts';
import { addTrail } from '../../state/trails.ts';
import type { Workbench } from '../../state/workbench.ts';
import { studyCards } from '../studies/table.ts';
import { isFormula } from './formulaEntry.ts';

/** A part of a card that is opened from its menu. */
export type Asked = 'names' | 'condition' | 'look';

/** What the menu of any entry offers, beside what its kind adds. */
export function cardActions(
  workbench: Workbench,
  id: Id,
  entry: Entry,
  ask: (part: Asked) => void,
): MenuAction[] {
  const draws = kindOf(entry).curve !== undefined;
  const own = studyCards.get(entry.kind)?.actions?.(workbench, id, entry) ?? [];
  return [
    ...(isFormula(entry) ? [{ label: 'Change the formula', run: () => workbench.openEntry(id) }] : []),
    ...(draws ? [{ label: 'Show more of it …', run: () => workbench.choosing({ on: id }) }] : []),
    ...own,
    ...placeActions(workbench, entry),
    ...trailActions(workbench, id),
    ...(resultsOf(workbench.current(), id).length > 0
      ? [{ label: 'Name a result …', run: () => ask('names') }]
      : []),
    ...(saysSomething(workbench, id, entry)
      ? [{ label: 'Put it on the graph', run: () => putOnGraph(workbench, id) }]
      : []),
    ...(draws ? tierActions(workbench, id) : []),
    {
      label: entry.hidden ? 'Show on the graph' : 'Hide on the graph',
      run: () => setField(workbench, id, 'hidden', !entry.hidden),
    },
    ...(entry.kind === 'heading' ? [] : [{ label: 'Look …', run: () => ask('look') }]),
    { label: 'Shown when …', run: () => ask('condition') },
    { label: 'Duplicate', run: () => duplicateEntry(workbench, id) },
    ...moveActions(workbench, id),
    { label: 'Delete', run: () => removeEntry(workbench, id), isDangerous: true },
  ];
}

function moveActions(workbench: Workbench, id: Id): MenuAction[] {
  const shown = shownInWorking(workbench.state.document);
  const at = shown.indexOf(id);
  return [
    ...(at > 0 ? [{ label: 'Move up', run: () => moveBy(workbench, shown, id, -1) }] : []),
    ...(at < shown.length - 1 ? [{ label: 'Move down', run: () => moveBy(workbench, shown, id, 1) }] : []),
  ];
}

/** Whether an entry has a line or sentence that can stand on the graph as a label. */
function saysSomething(workbench: Workbench, id: Id, entry: Entry): boolean {
  const said = saidOf(workbench.current(), id);
  return said !== undefined && !('standing' in entry) && (said.lines.length > 0 || said.sentence !== '');
}

/** A place is moved by a slider, by its point alone, or not at all. */
const moving = {
  slider: 'Move it by a slider',
  free: 'Move it by its point alone',
  fixed: 'Keep it fixed',
} as const;

function placeActions(workbench: Workbench, entry: Entry): MenuAction[] {
  const parameter = placeOfStudy(entry)?.parameter ?? '';
  const place = workbench.state.document.entries[parameter];
  if (place?.kind !== 'parameter') return [];
  return (Object.keys(moving) as (keyof typeof moving)[])
    .filter((moves) => moves !== place.moves)
    .map((moves) => ({ label: moving[moves], run: () => setMoves(workbench, parameter, moves) }));
}

/** Any of its points may leave marks while it moves. */
function trailActions(workbench: Workbench, id: Id): MenuAction[] {
  const spots = placesOf(workbench.current(), id);
  return spots.map(({ key, label }) => ({
    label: spots.length > 1 ? `Let ${label} leave a trail` : 'Let it leave a trail',
    run: () => addTrail(workbench, id, key),
  }));
}

/** Any curve may be laid on any tier. */
function tierActions(workbench: Workbench, id: Id): MenuAction[] {
  const others = otherTiers(workbench, id).map((tier) => ({
    label: `Draw it with ${tier.name}`,
    run: () => moveToTier(workbench, id, tier.id),
  }));
  return isInOwnTier(workbench, id)
    ? others
    : [...others, { label: 'Give it a tier of its own', run: () => moveToTier(workbench, id) }];
}
