import {
  closedTierEdits,
  familyCount,
  fitInSteps,
  headOfEntry,
  idsInCondition,
  firstTier,
  kindOf,
  shownX,
  type Directory,
  type Document,
  type Edit,
  type Entry,
  type FitScope,
  type Id,
} from '@yperkine/demonstration';
import { headOf, isReserved } from '@yperkine/core';
import { nanoid } from 'nanoid';
import { inStretches } from './breathe.ts';
import type { Workbench } from './workbench.ts';

/** What a teacher can do to any entry; givens and studies have files of their own. Each is one change. */

export const added = (id: Id, entry: Entry): Edit => ({ at: 'entries', id, old: null, new: entry });
export const newId = (): Id => nanoid(12);

/** The first letter that names nothing yet, with an index when all of them do: f, g, … f_1. */
export function freeName(workbench: Workbench, letters: string): string {
  const { idOf } = workbench.current().directory;
  for (let index = 0; ; index++) {
    const free = [...letters]
      .map((letter) => (index === 0 ? letter : `${letter}_${index}`))
      .find((name) => !idOf.has(name));
    if (free !== undefined) return free;
  }
}

/** The colours of the next function: every given one has a family, in turn. */
export const nextFamily = ({ entries }: Document): number =>
  Object.values(entries).filter((entry) => 'family' in entry).length % familyCount;

/** Replaces one field of an entry. */
export function setField(
  workbench: Workbench,
  id: Id,
  field: string,
  value: unknown,
  together?: string,
): void {
  const entry = workbench.state.document.entries[id];
  if (!entry) return;
  const old = (entry as Readonly<Record<string, unknown>>)[field];
  workbench.change([{ at: 'field', of: 'entries', id, field, old, new: value }], together);
}

/** Gives a result of an entry a name, or takes it away; a sentence where the name cannot be given. */
export function nameResult(workbench: Workbench, id: Id, key: string, typed: string): string | null {
  const entry = workbench.state.document.entries[id];
  if (!entry) return null;
  const { [key]: before, ...others } = entry.names;
  if (typed.trim() === '') {
    setField(workbench, id, 'names', others);
    return null;
  }
  if (isReserved(typed.trim())) return `“${typed.trim()}” already has a meaning; please choose another name.`;
  const head = headOf(`${typed} = 0`);
  if (!head || head.variable !== undefined)
    return 'A name is a letter, such as m, or a letter with an index, such as m_1.';
  const isTaken = workbench.current().directory.idOf.has(head.name) && head.name !== before;
  if (isTaken) return `“${head.name}” is already taken; please choose another name.`;
  setField(workbench, id, 'names', { ...others, [key]: head.name });
  return null;
}

/** Removes an entry, the studies that stand on it, and tiers and place sliders that nothing needs any more. */
export function removeEntry(workbench: Workbench, id: Id): void {
  const { document } = workbench.state;
  const gone = new Set([id]);
  for (let size = 0; size !== gone.size;) {
    size = gone.size;
    for (const [other, entry] of Object.entries(document.entries)) {
      if (standsOn(entry).some((base) => gone.has(base))) gone.add(other);
    }
  }
  const { directory } = workbench.current();
  for (const parameter of abandonedSliders(document, directory, gone)) gone.add(parameter);
  const edits: Edit[] = [...gone].flatMap((target): Edit[] => {
    const entry = document.entries[target];
    return entry ? [{ at: 'entries', id: target, old: entry, new: null }] : [];
  });
  const used = new Set(
    Object.entries(document.entries).flatMap(([other, entry]) =>
      'tier' in entry && !gone.has(other) ? [entry.tier] : [],
    ),
  );
  for (const tier of Object.keys(document.tiers)) {
    if (!used.has(tier) && tier !== firstTier) edits.push(...closedTierEdits(document, tier, gone));
  }
  const resolved = workbench.current().entries.get(id);
  workbench.change(edits);
  const others = gone.size - 1;
  const more = others === 0 ? '' : others === 1 ? ' and one entry with it' : ` and ${others} entries with it`;
  if (resolved) workbench.tell(`Deleted: ${headOfEntry(resolved).heading}${more}.`, true);
}

const standsOn = (entry: Entry): readonly Id[] => kindOf(entry).standsOn(entry);

/** Sliders that only served studies which go, and that no formula and no condition mentions. */
function abandonedSliders(document: Document, directory: Directory, gone: ReadonlySet<Id>): Id[] {
  const served = new Set(
    [...gone].flatMap((id) => (document.entries[id] ? standsOn(document.entries[id]) : [])),
  );
  const kept = Object.entries(document.entries).filter(([id]) => !gone.has(id));
  const needed = new Set(
    kept.flatMap(([, entry]) => [
      ...standsOn(entry),
      ...(kindOf(entry).dependsOn?.(entry, directory) ?? []),
      ...idsInCondition(entry.shownWhen, directory),
    ]),
  );
  return [...served].filter((id) => document.entries[id]?.kind === 'parameter' && !needed.has(id));
}

/** Gives every axis a good window, one after another; begins again where somebody changes something meanwhile. */
export async function fit(workbench: Workbench, scope: FitScope): Promise<void> {
  for (let tries = 0; tries < 3; tries++) {
    workbench.settleWindows();
    const { document, stage } = workbench.state;
    const steps = fitInSteps(document, workbench.current(), scope, shownX(document, stage));
    const edits = await inStretches(steps);
    if (workbench.state.document !== document) continue;
    workbench.change(edits);
    return;
  }
}
