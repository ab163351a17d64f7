import {
  curveOf,
  firstTier,
  inOrder,
  lastOrder,
  makeEntry,
  placeOfStudy,
  slidersOf,
  type Entry,
  type EntryOf,
  type Id,
  type Standing,
} from '@yperkine/demonstration';
import { added, newId } from './actions.ts';
import type { Workbench } from './workbench.ts';

/** Words, numbers and marks that stand on the graphs. Each is one change. */

/** Entries that can stand on the graphs as a text. */
export type StandingEntry = EntryOf<'note' | 'statement' | 'readout'>;
export const isStanding = (entry: Entry): entry is StandingEntry => 'standing' in entry;

/** How far under one another texts are put that have not been moved yet, as a share of the height. */
const lineShare = 0.16;
const lowest = 0.9;

/** A place on the screen under the texts that stand there already. */
function freeStanding(workbench: Workbench, x: number): Standing {
  const taken = Object.values(workbench.state.document.entries).filter(
    (entry) => isStanding(entry) && entry.standing.at === 'screen',
  ).length;
  return { at: 'screen', x, y: Math.min(lowest, 0.09 + lineShare * taken) };
}

const nextOrder = (workbench: Workbench): number => lastOrder(workbench.state.document.entries);

/** An empty note, opened to be written. */
export function addNote(workbench: Workbench): void {
  const id = newId();
  const note = makeEntry('note', { order: nextOrder(workbench), standing: freeStanding(workbench, 0.12) });
  workbench.change([added(id, note)]);
  workbench.openEntry(id);
}

export function addHeading(workbench: Workbench): void {
  const id = newId();
  workbench.change([added(id, makeEntry('heading', { order: nextOrder(workbench), title: 'Part' }))]);
  workbench.openEntry(id);
}

/** Puts what an entry says on the graph as a label that can be moved. */
export function putOnGraph(workbench: Workbench, of: Id): void {
  const standing = freeStanding(workbench, 0.5);
  workbench.change([added(newId(), makeEntry('statement', { order: nextOrder(workbench), of, standing }))]);
}

/** The value of the first curve at the first place, or the first slider: what is most likely meant. */
function likelyFormulas(workbench: Workbench): { readonly across: string; readonly up: string } {
  const { document } = workbench.state;
  const resolution = workbench.current();
  const place = inOrder(document.entries).flatMap(([, entry]) => placeOfStudy(entry) ?? [])[0];
  const slider = document.entries[place?.parameter ?? ''] ?? slidersOf(document)[0]?.[1];
  const across = slider?.kind === 'parameter' ? slider.name : '1';
  const curve =
    (place && curveOf(resolution, place.on)) ??
    [...resolution.entries.keys()].map((id) => curveOf(resolution, id)).find((found) => found !== undefined);
  return { across, up: curve ? `${curve.name}${"'".repeat(curve.order)}(${across})` : across };
}

export function addReadout(workbench: Workbench): void {
  const { up } = likelyFormulas(workbench);
  const standing = freeStanding(workbench, 0.96);
  workbench.change([
    added(newId(), makeEntry('readout', { order: nextOrder(workbench), text: up, standing })),
  ]);
}

export function addMarker(workbench: Workbench): void {
  const { across, up } = likelyFormulas(workbench);
  const tier = firstTierOf(workbench);
  workbench.change([
    added(newId(), makeEntry('marker', { order: nextOrder(workbench), x: across, y: up, tier })),
  ]);
}

export function firstTierOf({ state: { document } }: Workbench): Id {
  return document.tiers[firstTier] ? firstTier : (inOrder(document.tiers)[0]?.[0] ?? firstTier);
}
