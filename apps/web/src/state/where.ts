import {
  curveOf,
  decimalText,
  isGivenAlone,
  lastOrder,
  makeEntry,
  nearestDecimal,
  shownX,
  type EntryKindName,
  type EntryOf,
  type Id,
  type NearFeature,
} from '@yperkine/demonstration';
import { added, freeName, newId } from './actions.ts';
import { curvesOf } from './curves.ts';
import { addStudy, derivativeEdits, placeParameter, tierFor } from './studies.ts';
import { limitText, usualInterval } from './usualInterval.ts';
import type { Workbench } from './workbench.ts';

/** Studies that ask where: each put in over an interval that makes sense for its curve, as one change. */

/** Kinds that stand on a curve over an interval. */
type IntervalKind = {
  [K in EntryKindName]: EntryOf<K> extends { on: Id; from: string; to: string } ? K : never;
}[EntryKindName];

/** Puts in a study of a curve over its usual interval; returns its id. */
export function addOverInterval<K extends IntervalKind>(
  workbench: Workbench,
  kind: K,
  on: Id,
  fields: Partial<EntryOf<K>> = {},
): Id {
  const order = lastOrder(workbench.state.document.entries) + 1;
  const id = newId();
  const all = { order, on, ...usualInterval(workbench, on), ...fields };
  workbench.change([added(id, makeEntry(kind, all as never))]);
  return id;
}

/** A condition that is worth looking at first: where the curve rises. */
export function addHolds(workbench: Workbench, on: Id, condition?: string): void {
  const curve = curveOf(workbench.current(), on);
  if (!curve) return;
  const slope = `${curve.name}${"'".repeat(curve.order + 1)}(${curve.variable}) > 0`;
  addOverInterval(workbench, 'holds', on, { condition: condition ?? slope });
}

/** Where a curve meets the next other curve, or 0 where there is none. */
export function addSolutions(workbench: Workbench, on: Id): void {
  const curves = curvesOf(workbench.current());
  const own = curves.find(({ id }) => id === on)?.curve;
  const other = curves.find(({ id, curve }) => id !== on && curve.tier === own?.tier)?.curve;
  const equals = other ? `${other.name}${"'".repeat(other.order)}(${other.variable})` : '0';
  addOverInterval(workbench, 'solutions', on, { equals });
}

/** A tenth of what is shown, rounded: dots that are far enough apart to hide something. */
export function addCoarse(workbench: Workbench, on: Id): void {
  const { document, stage } = workbench.state;
  const { from, to } = shownX(document, stage);
  const step = Number(((to - from) / 10).toPrecision(1));
  addOverInterval(workbench, 'coarse', on, { step: decimalText(nearestDecimal(step)) });
}

/** Reads a derivative's graph; of a function itself, its derivative is drawn in the same change. */
export function addReading(workbench: Workbench, on: Id): void {
  const curve = curveOf(workbench.current(), on);
  if (!curve) return;
  const drawn = curvesOf(workbench.current()).find(
    (other) => other.curve.name === curve.name && other.curve.order === 1,
  );
  const own = curve.order > 0 ? on : drawn?.id;
  const { id, edits } = own === undefined ? derivativeEdits(workbench, on) : { id: own, edits: [] };
  const order = lastOrder(workbench.state.document.entries) + 2;
  const reading = makeEntry('reading', { order, on: id, ...usualInterval(workbench, on) });
  workbench.change([...edits, added(newId(), reading)]);
}

/** The function behind a derivative that is given alone, on a tier of its own. */
export function addOriginal(workbench: Workbench, of: Id): void {
  const { document } = workbench.state;
  const curve = curveOf(workbench.current(), of);
  if (!curve || !isGivenAlone(curve)) {
    workbench.tell('This is for a function of which a derivative alone is given.');
    return;
  }
  const tier = newId();
  const id = newId();
  const entry = makeEntry('original', { order: lastOrder(document.entries) + 1, of, tier });
  const edits = [added(id, entry)];
  workbench.change([...tierFor(workbench, tier, id, edits), ...edits]);
}

/** The nearest point to a place beside the curve, with the segment at a slider's place. */
export function addNearest(workbench: Workbench, on: Id, at?: number): void {
  const { document, stage } = workbench.state;
  const curve = curveOf(workbench.current(), on);
  if (!curve) return;
  const { from, to } = shownX(document, stage);
  const y = stage.y[curve.tier] ?? document.tiers[curve.tier]?.y ?? { from: -5, to: 5 };
  const round = (range: { from: number; to: number }, share: number): string =>
    decimalText(nearestDecimal(Number((range.from + (range.to - range.from) * share).toPrecision(2))));
  const points = `(${round({ from, to }, 0.6)}, ${round(y, 0.75)})`;
  addStudy(workbench, 'nearest', on, at, {
    fields: { points, start: points, ...usualInterval(workbench, on) },
  });
}

/** The distance of a nearest-point study as a function, on a tier of its own. */
export function addDistance(workbench: Workbench, of: Id): void {
  const { document } = workbench.state;
  const tier = newId();
  const id = newId();
  const name = freeName(workbench, 'DABCEFGH');
  const entry = makeEntry('distance', { order: lastOrder(document.entries) + 1, of, name, tier });
  const edits = [added(id, entry)];
  workbench.change([...tierFor(workbench, tier, id, edits), ...edits]);
}

/** The mean value theorem between two places of their own, a quarter in from either side. */
export function addMeanValue(workbench: Workbench, on: Id): void {
  const interval = usualInterval(workbench, on);
  const [from, to] = [Number(interval.from), Number(interval.to)];
  const left = placeParameter(workbench, on, from + (to - from) / 4);
  const right = placeParameter(workbench, on, to - (to - from) / 4, left.edits);
  const order = lastOrder(workbench.state.document.entries) + 3;
  const study = makeEntry('meanValue', { order, on, left: left.id, right: right.id });
  workbench.change([...left.edits, ...right.edits, added(newId(), study)]);
  workbench.choose(left.id);
}

/** How far around a feature that is kept is looked at, as a share of the window. */
const keptShare = 0.02;

/** Keeps what was clicked: as key points of that kind, or as a crossing, on a short interval around it. */
export function keepFeature(workbench: Workbench, on: Id, feature: NearFeature): void {
  const { document, stage } = workbench.state;
  const shown = shownX(document, stage);
  const reach = Math.min((shown.to - shown.from) * keptShare, feature.room);
  const around = { from: limitText(feature.x - reach), to: limitText(feature.x + reach) };
  const other = feature.other === null ? undefined : curveOf(workbench.current(), feature.other);
  if (feature.kind === 'crossing' && other) {
    const equals = `${other.name}${"'".repeat(other.order)}(${other.variable})`;
    addOverInterval(workbench, 'solutions', on, { equals, ...around });
    return;
  }
  const shows = { maximum: 'maxima', minimum: 'minima', zero: 'zeros', crossing: 'zeros' } as const;
  addOverInterval(workbench, 'keyPoints', on, { shows: [shows[feature.kind]], ...around });
}

/** The window moved, and where it must be widened, so that a place lies well inside it. */
export function jumpTo(workbench: Workbench, tier: Id, x: number, y: number | null): void {
  const { document, stage } = workbench.state;
  const across = shownX(document, stage);
  const up = stage.y[tier] ?? document.tiers[tier]?.y;
  const centred = (range: { from: number; to: number }, at: number) => {
    const half = (range.to - range.from) / 2;
    return { from: at - half, to: at + half };
  };
  workbench.showWindows(centred(across, x), up && y !== null ? { [tier]: centred(up, y) } : {});
  workbench.settleWindows('jump');
}
