import {
  canonicalName,
  chooseYRange,
  headOf,
  isReserved,
  rational,
  readDefinition,
  readExpression,
  sentence,
  type Problem,
} from '@yperkine/core';
import {
  couldBeSlider,
  curveOf,
  fineStep,
  firstTier,
  fitEdits,
  lastOrder,
  nearestPosition,
  resolve,
  shownX,
  sliderScale,
  applyChange,
  type Document,
  type Edit,
  type Entry,
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

const nameOf = (entry: Entry): string | undefined =>
  entry.kind === 'parameter' ? entry.name : entry.kind === 'function' ? headOf(entry.text)?.name : undefined;

/** Takes the next given: a function, a number with a slider, or a bare formula that gets a name. */
export function addGiven(workbench: Workbench, typed: string): Addition {
  const { document } = workbench.state;
  const { scope } = workbench.current().directory;
  const text = typed.includes('=') ? typed : `${freeName(document, functionLetters)}(x) = ${typed}`;
  const shift = text.length - typed.length;
  if (!typed.trim()) return refused(readExpression(typed), 0);
  const reading = readDefinition(text, scope);
  if (!reading.ok) return refused(reading, shift);
  const { name, variable } = reading.value;
  if (Object.values(document.entries).some((entry) => nameOf(entry) === name)) {
    return { ok: false, message: `“${name}” is already taken; please choose another name.` };
  }
  return variable === undefined ? addParameter(workbench, text, name) : addFunction(workbench, text);
}

function refused(
  reading: ReturnType<typeof readExpression> | ReturnType<typeof readDefinition>,
  shift: number,
): Addition {
  if (reading.ok) return { ok: true };
  const { problem } = reading;
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
  const isFirst = !Object.values(document.entries).some(({ kind }) => kind === 'function');
  const tier = document.tiers[firstTier] ? firstTier : (Object.keys(document.tiers)[0] ?? firstTier);
  const entry: Entry = { kind: 'function', order: lastOrder(document.entries), text, tier };
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
  const value = text
    .slice(text.indexOf('=') + 1)
    .trim()
    .replace('−', '-');
  const exact = rational.parseDecimal(value);
  if (!exact) return { ok: false, message: `A slider starts at a number: write ${name} = 3.` };
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
  return {
    kind: 'parameter',
    order: lastOrder(document.entries),
    name,
    value,
    from: String(from),
    to: String(to),
    step,
    seconds: '8',
    repeat: 'thereAndBack',
  };
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
  const shared = Object.values(document.entries).find(
    (entry) => (entry.kind === 'point' || entry.kind === 'tangent') && entry.on === on,
  );
  if (shared && 'parameter' in shared && at === undefined) return { id: shared.parameter, edits: [] };
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

/** @param at the x of the place; without it the curve's own slider is used, if it has one */
export function addPoint(workbench: Workbench, on: Id, at?: number): void {
  const { id, edits } = placeParameter(workbench, on, at);
  const order = lastOrder(workbench.state.document.entries) + 1;
  workbench.change([...edits, added(newId(), { kind: 'point', order, on, parameter: id })]);
  workbench.choose(id);
}

export function addTangent(workbench: Workbench, on: Id, at?: number): void {
  const { id, edits } = placeParameter(workbench, on, at);
  const order = lastOrder(workbench.state.document.entries) + 1;
  workbench.change([...edits, added(newId(), { kind: 'tangent', order, on, parameter: id, triangle: true })]);
  workbench.choose(id);
}

/** The derivative of a curve in a tier of its own under the others. */
export function addDerivative(workbench: Workbench, of: Id): void {
  const { document, stage } = workbench.state;
  const tier = newId();
  const order = lastOrder(document.entries);
  const entry: Entry = { kind: 'derivative', order, of, degree: 1, tier };
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

function standsOn(entry: Entry): Id[] {
  switch (entry.kind) {
    case 'function':
    case 'parameter':
      return [];
    case 'point':
    case 'tangent':
      return [entry.on, entry.parameter];
    case 'derivative':
      return [entry.of];
  }
}

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
    const isMentioned = kept.some(
      ([, other]) => other.kind === 'function' && other.text.includes(entry.name),
    );
    return !isServing && !isMentioned;
  });
}

export function fit(workbench: Workbench, scope: FitScope): void {
  const { document, stage } = workbench.state;
  workbench.settleWindows();
  workbench.change(fitEdits(document, workbench.current(), scope, shownX(document, stage)));
}
