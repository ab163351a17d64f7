import {
  canonicalName,
  chooseYRange,
  isReserved,
  rational,
  readDefinition,
  readExpression,
  readStatement,
  sentence,
  tree,
  type Problem,
  type Scope,
} from '@yperkine/core';
import {
  couldBeSlider,
  curveOf,
  decimalText,
  familyCount,
  fineStep,
  firstTier,
  fitEdits,
  isGivenDerivative,
  kindOf,
  lastOrder,
  makeEntry,
  nearestPosition,
  parameterOf,
  placeOfStudy,
  readPoints,
  resolve,
  roundStep,
  shownX,
  sliderScale,
  applyChange,
  type Document,
  type Edit,
  type Entry,
  type EntryKindName,
  type EntryOf,
  type FitScope,
  type Id,
} from '@yperkine/demonstration';
import { nanoid } from 'nanoid';
import type { Workbench } from './workbench.ts';

/** What a teacher can do to a demonstration, each one change. */

export type Addition =
  | { readonly ok: true }
  | {
      readonly ok: false;
      readonly message: string;
      readonly problem?: Problem;
      readonly missingName?: string;
    };

const added = (id: Id, entry: Entry): Edit => ({ at: 'entries', id, old: null, new: entry });
const newId = (): Id => nanoid(12);

/** Letters that a new function or a new place on the x-axis takes, in the order of textbooks. */
const functionLetters = [...'fghpqrsuvw'];
const placeLetters = [...'abcdkmn'];

function freeName(document: Document, letters: readonly string[]): string {
  const taken = new Set(Object.values(document.entries).map(nameOf));
  for (let index = 0; ; index++) {
    const free = letters
      .map((letter) => (index === 0 ? letter : `${letter}_${index}`))
      .find((name) => !taken.has(name));
    if (free !== undefined) return free;
  }
}

const nameOf = (entry: Entry): string | undefined => kindOf(entry).defines?.(entry)?.name;

/** Takes the next given: a function, a number with a slider, or a bare formula that gets a name. */
export function addGiven(workbench: Workbench, typed: string): Addition {
  const { document } = workbench.state;
  const { scope } = workbench.current().directory;
  const list = /^\s*(\p{L}\w*)\s*\(\s*(\p{L}\w*)\s*\)\s+through\s+(.*)$/su.exec(typed);
  if (list) return addThroughPoints(workbench, list[1] ?? '', list[2] ?? '', list[3] ?? '');
  if (isGivenDerivative(typed)) return addGivenDerivative(workbench, typed);
  if (isValue(typed, scope)) return addValue(workbench, typed);
  const text = typed.includes('=') ? typed : `${freeName(document, functionLetters)}(x) = ${typed}`;
  const shift = text.length - typed.length;
  if (!typed.trim()) return refused(readExpression(typed), 0);
  const reading = readDefinition(text, scope);
  if (!reading.ok) return refused(reading, shift);
  const { name, variable } = reading.value;
  if (Object.values(document.entries).some((entry) => nameOf(entry) === name)) {
    return { ok: false, message: `“${name}” is already taken; please choose another name.` };
  }
  if (variable !== undefined) return addFunction(workbench, text);
  return literalText(text) === null ? addValue(workbench, text) : addParameter(workbench, text, name);
}

/** A bare formula that asks for a value of a function that is there: f'(3). */
function isValue(typed: string, scope: Scope): boolean {
  if (typed.includes('=')) return false;
  const reading = readExpression(typed, scope);
  return reading.ok && tree.mentioned(reading.value).functions.size > 0;
}

function addValue(workbench: Workbench, text: string): Addition {
  const order = lastOrder(workbench.state.document.entries);
  workbench.change([added(newId(), makeEntry('value', { order, text }))]);
  return { ok: true };
}

/** A function through points: typed with its name as p(x) through (0, 1), (2, 3), or with the next free name and four points. */
export function addThroughPoints(
  workbench: Workbench,
  name: string | null = null,
  variable = 'x',
  typed: string | null = null,
): Addition {
  const { document, stage } = workbench.state;
  const { from, to } = shownX(document, stage);
  if (name !== null && Object.values(document.entries).some((entry) => nameOf(entry) === name)) {
    return { ok: false, message: `“${name}” is already taken; please choose another name.` };
  }
  const reading = typed === null ? null : readPoints(typed);
  if (reading && !reading.ok) return { ok: false, message: reading.message };
  const quarter = roundStep({ from, to }, 5);
  const start = Math.ceil(from / quarter) * quarter;
  const first = [1, 3, 2, 4].map((y, i) => `(${roundText(start + (i + 0.5) * quarter)}, ${y})`).join(', ');
  const family = functionCount(document) % familyCount;
  const tier = document.tiers[firstTier] ? firstTier : (Object.keys(document.tiers)[0] ?? firstTier);
  const order = lastOrder(document.entries);
  const entry = makeEntry('throughPoints', {
    order,
    name: name ?? freeName(document, functionLetters),
    variable,
    points: typed ?? first,
    tier,
    family,
  });
  const edits = [added(newId(), entry)];
  if (functionCount(document) === 0) {
    const after = applyChange(document, { id: 'preview', edits });
    edits.push(...fitEdits(after, resolve(after, stage), 'both', shownX(document, stage)));
  }
  workbench.change(edits);
  return { ok: true };
}

/** A function of which only a derivative is given. */
function addGivenDerivative(workbench: Workbench, typed: string): Addition {
  const { document, stage } = workbench.state;
  const reading = readStatement(typed, workbench.current().directory.scope);
  if (!reading.ok) return refusal(reading.problem, 0);
  const family = functionCount(document) % familyCount;
  const tier = document.tiers[firstTier] ? firstTier : (Object.keys(document.tiers)[0] ?? firstTier);
  const entry = makeEntry('givenDerivative', {
    order: lastOrder(document.entries),
    text: typed,
    tier,
    family,
  });
  const edits = [added(newId(), entry)];
  if (functionCount(document) === 0) {
    const after = applyChange(document, { id: 'preview', edits });
    edits.push(...fitEdits(after, resolve(after, stage), 'both', shownX(document, stage)));
  }
  workbench.change(edits);
  return { ok: true };
}

/** How many functions are given. */
const functionCount = (document: Document): number =>
  Object.values(document.entries).filter((entry) => kindOf(entry).defines?.(entry)?.isFunction === true)
    .length;

/** The number behind the equals sign, where it is one; null for a formula. */
function literalText(text: string): string | null {
  const value = text
    .slice(text.indexOf('=') + 1)
    .trim()
    .replace('−', '-');
  return rational.parseDecimal(value) ? value : null;
}

function refused(
  reading: ReturnType<typeof readExpression> | ReturnType<typeof readDefinition>,
  shift: number,
): Addition {
  return reading.ok ? { ok: true } : refusal(reading.problem, shift);
}

function refusal(problem: Problem, shift: number): Addition {
  const moved = { ...problem, from: Math.max(0, problem.from - shift), to: Math.max(0, problem.to - shift) };
  return {
    ok: false,
    message: sentence(problem),
    problem: moved,
    ...(couldBeSlider(problem) ? { missingName: problem.subject } : {}),
  };
}

function addFunction(workbench: Workbench, text: string): Addition {
  const { document, stage } = workbench.state;
  const isFirst = functionCount(document) === 0;
  const tier = document.tiers[firstTier] ? firstTier : (Object.keys(document.tiers)[0] ?? firstTier);
  const family = functionCount(document) % familyCount;
  const entry = makeEntry('function', { order: lastOrder(document.entries), text, tier, family });
  const edits = [added(newId(), entry)];
  if (isFirst) {
    const after = applyChange(document, { id: 'preview', edits });
    edits.push(...fitEdits(after, resolve(after, stage), 'both', shownX(document, stage)));
  }
  workbench.change(edits);
  return { ok: true };
}

/** The value and limits of a new slider around a typed number. */
function addParameter(workbench: Workbench, text: string, name: string): Addition {
  const value = literalText(text) ?? '0';
  const exact = rational.parseDecimal(value) ?? rational.zero;
  const reach = Math.max(5, 10 ** Math.ceil(Math.log10(Math.abs(rational.toNumber(exact)) || 1)));
  workbench.change([
    added(newId(), parameterEntry(workbench.state.document, name, value, -reach, reach, '0.1')),
  ]);
  return { ok: true };
}

function parameterEntry(
  document: Document,
  name: string,
  value: string,
  from: number,
  to: number,
  step: string,
): Entry {
  const limits = { from: String(from), to: String(to), step };
  return makeEntry('parameter', { order: lastOrder(document.entries), name, value, ...limits });
}

/** Makes an unknown name a number with a slider. */
export function makeParameter(workbench: Workbench, typedName: string): void {
  const [letters = '', index = ''] = typedName.split('_');
  const digits = /^(\p{L}+)(\d+)$/u.exec(letters);
  const name = digits ? canonicalName(digits[1] ?? '', digits[2] ?? '') : canonicalName(letters, index);
  if (!isReserved(name))
    workbench.change([added(newId(), parameterEntry(workbench.state.document, name, '1', -5, 5, '0.1'))]);
}

/** The slider of a place on a curve: the one its studies share already, or a new one. */
function placeParameter(workbench: Workbench, on: Id, at: number | undefined): { id: Id; edits: Edit[] } {
  const { document, stage } = workbench.state;
  const shared = Object.values(document.entries).find((entry) => placeOfStudy(entry)?.on === on);
  const place = shared && placeOfStudy(shared);
  if (place && at === undefined) return { id: place.parameter, edits: [] };
  const { from, to } = shownX(document, stage);
  const step = fineStep(from, to);
  const limits = { from: Number(from.toPrecision(6)), to: Number(to.toPrecision(6)) };
  const draft = parameterEntry(document, freeName(document, placeLetters), '0', limits.from, limits.to, step);
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
const stepLetters = [...'hkd'];

/** A secant of a curve with the step that its others have, or a new one. */
export function addSecant(workbench: Workbench, on: Id, at?: number): void {
  const { document, stage } = workbench.state;
  const shared = stepOf(workbench, on);
  if (shared !== undefined) return addStudy(workbench, 'secant', on, at, { fields: { step: shared } });
  const { from, to } = shownX(document, stage);
  const reach = 10 ** Math.floor(Math.log10((to - from) / 2));
  const entry = makeEntry('parameter', {
    order: lastOrder(document.entries) + 0.5,
    name: freeName(document, stepLetters),
    value: decimalText(rational.fromDouble(Math.max(1, reach))),
    from: '0',
    to: decimalText(rational.fromDouble(Math.max(2, Math.ceil((to - from) / 2)))),
    step: '0.001',
    repeat: 'once',
  });
  const id = newId();
  addStudy(workbench, 'secant', on, at, { fields: { step: id }, edits: [added(id, entry)] });
}

/** A number with so many digits, as a setting. */
const roundText = (value: number, digits = 6): string =>
  String(Number(value.toPrecision(digits)))
    .toUpperCase()
    .replace('E+', 'E');

/** Where a curve has a given slope, over the window that is shown; the slope itself is typed in the card. */
export function addSlopeEquals(workbench: Workbench, on: Id): void {
  const { document, stage } = workbench.state;
  const { from, to } = shownX(document, stage);
  const [left, right] = [roundText(from), roundText(to)];
  const order = lastOrder(document.entries) + 1;
  workbench.change([added(newId(), makeEntry('slopeEquals', { order, on, from: left, to: right }))]);
}

/** A table of a curve, its slope and bend over the window that is shown, in about ten rows. */
export function addValueTable(workbench: Workbench, on: Id): void {
  const { document, stage } = workbench.state;
  const curve = curveOf(workbench.current(), on);
  if (!curve) return;
  const { from, to } = shownX(document, stage);
  const step = roundStep({ from, to }, 10);
  const decimal = (value: number): string => roundText(value, 12);
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
  if (Number(value) > Number(entry.to)) setField(workbench, step, 'to', value, `step ${step}`);
  workbench.setValue(step, value, `step ${step}`);
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
  for (const parameter of abandonedSliders(document, gone)) gone.add(parameter);
  const edits: Edit[] = [...gone].flatMap((target): Edit[] => {
    const entry = document.entries[target];
    return entry ? [{ at: 'entries', id: target, old: entry, new: null }] : [];
  });
  const used = new Set(
    Object.entries(document.entries).flatMap(([other, entry]) =>
      'tier' in entry && !gone.has(other) ? [entry.tier] : [],
    ),
  );
  for (const [tier, value] of Object.entries(document.tiers)) {
    if (!used.has(tier) && tier !== firstTier) edits.push({ at: 'tiers', id: tier, old: value, new: null });
  }
  workbench.change(edits);
}

const standsOn = (entry: Entry): readonly Id[] => kindOf(entry).standsOn(entry);

/** Sliders that only served studies which go, and that no formula mentions. */
function abandonedSliders(document: Document, gone: ReadonlySet<Id>): Id[] {
  const served = new Set(
    [...gone].flatMap((id) => (document.entries[id] ? standsOn(document.entries[id]) : [])),
  );
  const kept = Object.entries(document.entries).filter(([id]) => !gone.has(id));
  return [...served].filter((id) => {
    const entry = document.entries[id];
    if (entry?.kind !== 'parameter') return false;
    const isServing = kept.some(([, other]) => standsOn(other).includes(id));
    const isMentioned = kept.some(([, other]) => 'text' in other && other.text.includes(entry.name));
    return !isServing && !isMentioned;
  });
}

export function fit(workbench: Workbench, scope: FitScope): void {
  const { document, stage } = workbench.state;
  workbench.settleWindows();
  workbench.change(fitEdits(document, workbench.current(), scope, shownX(document, stage)));
}
