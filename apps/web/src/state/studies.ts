import { chooseYRange, rational } from '@yperkine/core';
import {
  applyChange,
  curveOf,
  curvesDrawn,
  decimalText,
  fineStep,
  lastOrder,
  makeEntry,
  nearestDecimal,
  nearestPosition,
  newTier,
  parameterOf,
  placeOfStudy,
  plottedOf,
  resolve,
  roundStep,
  shownX,
  sliderScale,
  type Edit,
  type EntryKindName,
  type EntryOf,
  type Id,
} from '@yperkine/demonstration';
import { added, freeName, newId, nextFamily, setField } from './actions.ts';
import { curvesOf } from './curves.ts';
import { parameterEntry } from './givens.ts';
import { limitText, usualEnds, usualPlace, usualStep } from './usualInterval.ts';
import type { Workbench } from './workbench.ts';

/** Studies of a curve that is there: what is put in, with its sliders and tiers. Each is one change. */

/** Letters that a new place on the x-axis takes. */
const placeLetters = 'abcdkmn';

/**
 * The slider of a place on a curve: the one its studies share already, or a new one.
 * @param before edits that are made in the same change, whose names are taken
 */
export function placeParameter(
  workbench: Workbench,
  on: Id,
  at: number | undefined,
  before: readonly Edit[] = [],
): { id: Id; edits: Edit[] } {
  const { document, stage } = workbench.state;
  const shared = Object.values(document.entries).find((entry) => placeOfStudy(entry)?.on === on);
  const place = shared && placeOfStudy(shared);
  if (place && at === undefined) return { id: place.parameter, edits: [] };
  const { from, to } = shownX(document, stage);
  const step = fineStep(...usualEnds(workbench, on));
  const limits = { from: Number(from.toPrecision(6)), to: Number(to.toPrecision(6)) };
  const draft = parameterEntry(
    document,
    freeName(workbench, lettersLeft(before)),
    '0',
    limits.from,
    limits.to,
    step,
  );
  if (draft.kind !== 'parameter') throw new TypeError('a slider was expected');
  const scale = sliderScale(draft);
  const wanted = at ?? usualPlace(workbench, on);
  const value = typeof scale === 'string' ? String(limits.from) : nearestPosition(wanted, scale);
  const id = newId();
  return { id, edits: [added(id, { ...draft, order: draft.order + before.length, value, start: value })] };
}

/** The letters for places that some edits do not take. */
function lettersLeft(before: readonly Edit[]): string {
  const taken = before.flatMap((edit) =>
    edit.at === 'entries' && edit.new?.kind === 'parameter' ? [edit.new.name] : [],
  );
  return [...placeLetters].filter((letter) => !taken.includes(letter)).join('');
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
  const { id, edits } = stepParameter(workbench, on);
  addStudy(workbench, 'secant', on, at, { fields: { step: id }, edits });
}

/** The step that a curve's quotients share already, or a new one. */
function stepParameter(workbench: Workbench, on: Id): { id: Id; edits: Edit[] } {
  const shared = stepOf(workbench, on);
  if (shared !== undefined) return { id: shared, edits: [] };
  const { document, stage } = workbench.state;
  const { from, to } = shownX(document, stage);
  const reach = usualStep(workbench, on);
  const entry = makeEntry('parameter', {
    order: lastOrder(document.entries) + 0.5,
    name: freeName(workbench, stepLetters),
    value: limitText(reach),
    from: '0',
    to: decimalText(rational.fromDouble(Math.max(2, Math.ceil((to - from) / 2)))),
    step: limitText(Math.min(0.001, reach / 100)),
    repeat: 'once',
  });
  const id = newId();
  return { id, edits: [added(id, entry)] };
}

/** Letters that a quotient as a function of its own takes. */
const quotientLetters = 'qrsuvw';

/** The numerical derivative of a curve, on the tier of its true derivative if that is drawn, else on a tier of its own. */
export function addDifferenceQuotient(workbench: Workbench, of: Id): void {
  const { document } = workbench.state;
  const { id: step, edits } = stepParameter(workbench, of);
  const curve = curveOf(workbench.current(), of);
  const truth = curvesOf(workbench.current()).find(
    (other) => other.curve.name === curve?.name && other.curve.order === curve.order + 1,
  );
  const tier = truth?.curve.tier ?? newId();
  const id = newId();
  const name = freeName(workbench, quotientLetters);
  const family = nextFamily(document);
  const entry = makeEntry('differenceQuotient', {
    order: lastOrder(document.entries) + 1,
    of,
    step,
    name,
    tier,
    family,
  });
  const all = [...edits, added(id, entry)];
  workbench.change(truth ? all : [...tierFor(workbench, tier, id, all), ...all]);
}

/** A new tier for a curve that some edits put in, with a window that shows it. */
export function tierFor(workbench: Workbench, tier: Id, curveId: Id, edits: readonly Edit[]): Edit[] {
  const { document, stage } = workbench.state;
  const frame = newTier(lastOrder(document.tiers), { from: -5, to: 5 });
  const opened: Edit = { at: 'tiers', id: tier, old: null, new: frame };
  const preview = applyChange(document, { id: 'preview', edits: [opened, ...edits] });
  const { answers } = workbench.current();
  const drawn = curvesDrawn(resolve(preview, stage, undefined, answers), curveId);
  const curve = drawn.find((one) => one.tier === tier);
  const y = curve
    ? chooseYRange([plottedOf(curve, shownX(document, stage))], shownX(document, stage))
    : frame.y;
  return [{ ...opened, new: newTier(frame.order, y) }];
}

/** Where a curve agrees with another: the one on its tier, else the last of all others. */
export function addAgreement(workbench: Workbench, on: Id): void {
  const { document, stage } = workbench.state;
  const curves = curvesOf(workbench.current());
  const curve = curves.find(({ id }) => id === on)?.curve;
  const others = curves.filter(({ id }) => id !== on).reverse();
  const other = others.find((one) => one.curve.tier === curve?.tier) ?? others[0];
  if (!other)
    return workbench.tell('There is only one function so far: type a second one to compare it with.');
  const { from, to } = shownX(document, stage);
  const limits = { from: limitText(from), to: limitText(to) };
  const order = lastOrder(document.entries) + 1;
  workbench.change([added(newId(), makeEntry('agreement', { order, on, with: other.id, ...limits }))]);
}

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

/** The step of a curve's secants and quotients, if it has any. */
export function stepOf(workbench: Workbench, on: Id): Id | undefined {
  for (const entry of Object.values(workbench.state.document.entries)) {
    if (entry.kind === 'secant' && entry.on === on) return entry.step;
    if (entry.kind === 'differenceQuotient' && entry.of === on) return entry.step;
  }
  return undefined;
}

/** Gives a step one of its usual values, widening the slider where it does not reach so far. */
export function setStep(workbench: Workbench, step: Id, value: string): void {
  const entry = workbench.state.document.entries[step];
  if (entry?.kind !== 'parameter') return;
  workbench.stop(step);
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
  workbench.change(derivativeEdits(workbench, of).edits);
}

/** What puts that derivative in, and its id. */
export function derivativeEdits(workbench: Workbench, of: Id): { id: Id; edits: Edit[] } {
  const tier = newId();
  const order = lastOrder(workbench.state.document.entries);
  const entry = makeEntry('derivative', { order, of, tier });
  const id = newId();
  const edits = [added(id, entry)];
  return { id, edits: [...tierFor(workbench, tier, id, edits), ...edits] };
}
