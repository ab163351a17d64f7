import { chooseYRange, rational } from '@yperkine/core';
import {
  applyChange,
  curveOf,
  decimalText,
  fineStep,
  firstTier,
  lastOrder,
  makeEntry,
  nearestDecimal,
  nearestPosition,
  parameterOf,
  placeOfStudy,
  resolve,
  roundStep,
  shownX,
  sliderScale,
  type Edit,
  type EntryKindName,
  type EntryOf,
  type Id,
} from '@yperkine/demonstration';
import { added, freeName, newId, setField } from './actions.ts';
import { parameterEntry } from './givens.ts';
import type { Workbench } from './workbench.ts';

/** Studies of a curve that is there: what is put in, with its sliders and tiers. Each is one change. */

/** Letters that a new place on the x-axis takes. */
const placeLetters = 'abcdkmn';

/** The slider of a place on a curve: the one its studies share already, or a new one. */
function placeParameter(workbench: Workbench, on: Id, at: number | undefined): { id: Id; edits: Edit[] } {
  const { document, stage } = workbench.state;
  const shared = Object.values(document.entries).find((entry) => placeOfStudy(entry)?.on === on);
  const place = shared && placeOfStudy(shared);
  if (place && at === undefined) return { id: place.parameter, edits: [] };
  const { from, to } = shownX(document, stage);
  const step = fineStep(from, to);
  const limits = { from: Number(from.toPrecision(6)), to: Number(to.toPrecision(6)) };
  const draft = parameterEntry(
    document,
    freeName(workbench, placeLetters),
    '0',
    limits.from,
    limits.to,
    step,
  );
  if (draft.kind !== 'parameter') throw new TypeError('a slider was expected');
  const scale = sliderScale(draft);
  const wanted = at ?? from + (to - from) * 0.7;
  const value = typeof scale === 'string' ? String(limits.from) : nearestPosition(wanted, scale);
  const id = newId();
  return { id, edits: [added(id, { ...draft, value })] };
}

/** Kinds of entries that stand on a curve at the value of a parameter. */
type PlaceKind = {
  [K in EntryKindName]: EntryOf<K> extends { on: Id; parameter: Id } ? K : never;
}[EntryKindName];

/**
 * Puts in a study of a curve at a place.
 * @param at the x of the place; without it the curve's own slider is used, if it has one
 * @param more settings of its own, and changes that belong to it
 */
export function addStudy<K extends PlaceKind>(
  workbench: Workbench,
  kind: K,
  on: Id,
  at?: number,
  more: { readonly fields?: Partial<EntryOf<K>>; readonly edits?: readonly Edit[] } = {},
): void {
  const { id, edits } = placeParameter(workbench, on, at);
  const order = lastOrder(workbench.state.document.entries) + 1;
  const study = makeEntry(kind, { order, on, parameter: id, ...more.fields } as never);
  workbench.change([...edits, ...(more.edits ?? []), added(newId(), study)]);
  workbench.choose(id);
}

/** Letters that the step of a secant takes. */
const stepLetters = 'hkd';

/** A secant of a curve with the step that its others have, or a new one. */
export function addSecant(workbench: Workbench, on: Id, at?: number): void {
  const { document, stage } = workbench.state;
  const shared = stepOf(workbench, on);
  if (shared !== undefined) return addStudy(workbench, 'secant', on, at, { fields: { step: shared } });
  const { from, to } = shownX(document, stage);
  const reach = 10 ** Math.floor(Math.log10((to - from) / 2));
  const entry = makeEntry('parameter', {
    order: lastOrder(document.entries) + 0.5,
    name: freeName(workbench, stepLetters),
    value: decimalText(rational.fromDouble(Math.max(1, reach))),
    from: '0',
    to: decimalText(rational.fromDouble(Math.max(2, Math.ceil((to - from) / 2)))),
    step: '0.001',
    repeat: 'once',
  });
  const id = newId();
  addStudy(workbench, 'secant', on, at, { fields: { step: id }, edits: [added(id, entry)] });
}

/** A limit of an interval as a setting, in as many digits as one likes to read. */
const limitText = (value: number): string => decimalText(nearestDecimal(value, 6));

/** Where a curve has a given slope, over the window that is shown; the slope itself is typed in the card. */
export function addSlopeEquals(workbench: Workbench, on: Id): void {
  const { document, stage } = workbench.state;
  const { from, to } = shownX(document, stage);
  const limits = { from: limitText(from), to: limitText(to) };
  const order = lastOrder(document.entries) + 1;
  workbench.change([added(newId(), makeEntry('slopeEquals', { order, on, ...limits }))]);
}

/** A table of a curve, its slope and bend over the window that is shown, in about ten rows. */
export function addValueTable(workbench: Workbench, on: Id): void {
  const { document, stage } = workbench.state;
  const curve = curveOf(workbench.current(), on);
  if (!curve) return;
  const { from, to } = shownX(document, stage);
  const step = roundStep({ from, to }, 10);
  const decimal = (value: number): string => decimalText(nearestDecimal(value));
  const limits = { from: decimal(Math.ceil(from / step) * step), to: decimal(Math.floor(to / step) * step) };
  const columns = [0, 1, 2]
    .map((k) => `${curve.name}${"'".repeat(curve.order + k)}(${curve.variable})`)
    .join('; ');
  const order = lastOrder(document.entries) + 1;
  workbench.change([
    added(newId(), makeEntry('valueTable', { order, on, ...limits, step: decimal(step), columns })),
  ]);
}

/** The step of a curve's secants, if it has any. */
export function stepOf(workbench: Workbench, on: Id): Id | undefined {
  const secant = Object.values(workbench.state.document.entries).find(
    (entry) => entry.kind === 'secant' && entry.on === on,
  );
  return secant?.kind === 'secant' ? secant.step : undefined;
}

/** Gives a step one of its usual values, widening the slider where it does not reach so far. */
export function setStep(workbench: Workbench, step: Id, value: string): void {
  const entry = workbench.state.document.entries[step];
  if (entry?.kind !== 'parameter') return;
  workbench.stop();
  const together = newId();
  if (Number(value) > Number(entry.to)) setField(workbench, step, 'to', value, together);
  workbench.setValue(step, value, together);
}

/** The smallest step that the closing motion comes to; at 0 there would be no secant left. */
const closed = 0.001;

/** Lets a step shrink until the two points nearly meet, slower and slower. */
export function closeUp(workbench: Workbench, step: Id): void {
  const parameter = parameterOf(workbench.current(), step);
  if (!parameter) return;
  const { value } = parameter.value;
  const start = Math.abs(value) > closed * 2 ? value : Math.min(1, rational.toNumber(parameter.scale.to));
  workbench.playRun(step, {
    from: start,
    to: Math.sign(start || 1) * closed,
    start,
    seconds: 6,
    repeat: 'once',
    pace: 'closing',
  });
}

/** The derivative of a curve in a tier of its own under the others. */
export function addDerivative(workbench: Workbench, of: Id): void {
  const { document, stage } = workbench.state;
  const tier = newId();
  const order = lastOrder(document.entries);
  const entry = makeEntry('derivative', { order, of, tier });
  const frame = { order: lastOrder(document.tiers), y: { from: -5, to: 5 }, yTicks: null };
  const id = newId();
  const preview = applyChange(document, {
    id: 'preview',
    edits: [{ at: 'tiers', id: tier, old: null, new: frame }, added(id, entry)],
  });
  const curve = curveOf(resolve(preview, stage), id);
  const y = curve ? chooseYRange([curve], shownX(document, stage)) : frame.y;
  workbench.change([{ at: 'tiers', id: tier, old: null, new: { ...frame, y } }, added(id, entry)]);
}

/** Whether a derivative is drawn in another tier than the curve that it is of. */
export function isInOwnTier(workbench: Workbench, id: Id): boolean {
  const entry = workbench.state.document.entries[id];
  const of = entry?.kind === 'derivative' ? curveOf(workbench.current(), entry.of) : undefined;
  return entry?.kind === 'derivative' && of?.tier !== entry.tier;
}

/** Draws a derivative in the tier of its function, or in a tier of its own; a tier that is left empty goes. */
export function moveDerivative(workbench: Workbench, id: Id): void {
  const { document, stage } = workbench.state;
  const entry = document.entries[id];
  if (entry?.kind !== 'derivative') return;
  const of = curveOf(workbench.current(), entry.of);
  const own = curveOf(workbench.current(), id);
  if (!of || !own) return;
  const moved = (tier: Id): Edit => ({
    at: 'field',
    of: 'entries',
    id,
    field: 'tier',
    old: entry.tier,
    new: tier,
  });
  if (of.tier === entry.tier) {
    const tier = newId();
    const y = chooseYRange([own], shownX(document, stage));
    const frame = { order: lastOrder(document.tiers), y, yTicks: null };
    return workbench.change([{ at: 'tiers', id: tier, old: null, new: frame }, moved(tier)]);
  }
  const isUsed = Object.entries(document.entries).some(
    ([other, drawn]) => other !== id && 'tier' in drawn && drawn.tier === entry.tier,
  );
  const left = document.tiers[entry.tier];
  const removal: Edit[] =
    isUsed || !left || entry.tier === firstTier
      ? []
      : [{ at: 'tiers', id: entry.tier, old: left, new: null }];
  workbench.change([moved(of.tier), ...removal]);
}
