import {
  canonicalName,
  headOf,
  isDefinition,
  isReserved,
  rational,
  readDefinition,
  readExpression,
  readStatement,
  sentence,
  tree,
  type Problem,
  type Range,
  type Rational,
  type Scope,
} from '@yperkine/core';
import {
  applyChange,
  couldBeSlider,
  firstTier,
  fitEdits,
  isGivenDerivative,
  lastOrder,
  decimalText,
  makeEntry,
  nearestMultiple,
  readPoints,
  resolve,
  roundStep,
  shownX,
  shownY,
  writePoints,
  type Document,
  type Edit,
  type Entry,
  type EntryOf,
  type Id,
} from '@yperkine/demonstration';
import { curvesOf } from './curves.ts';
import { added, freeName, newId, nextFamily } from './actions.ts';
import type { Workbench } from './workbench.ts';

/** What is typed at the foot of the working becomes a given: a function, a slider, a value. Each is one change. */

export type Addition =
  | { readonly ok: true }
  | {
      readonly ok: false;
      readonly message: string;
      readonly problem?: Problem;
      readonly missingName?: string;
    };

/** The variable of a function of which only the formula was typed. */
const bareVariable = 'x';

/** Letters that a new function takes, in the order of textbooks. */
export const functionLetters = 'fghpqrsuvw';

/** Takes the next given: a function, a number with a slider, or a bare formula that gets a name. */
export function addGiven(workbench: Workbench, typed: string): Addition {
  const { scope, idOf } = workbench.current().directory;
  const list = /^\s*(\p{L}\w*)\s*\(\s*(\p{L}\w*)\s*\)\s+through\s+(.*)$/su.exec(typed);
  if (list) return addThroughPoints(workbench, list[1], list[2], list[3]);
  if (isGivenDerivative(typed)) return addGivenDerivative(workbench, typed);
  if (isValue(typed, scope)) return addValue(workbench, typed);
  const text = isDefinition(typed)
    ? typed
    : `${freeName(workbench, functionLetters)}(${bareVariable}) = ${typed}`;
  const shift = text.length - typed.length;
  if (!typed.trim()) return refused(readExpression(typed), 0);
  const reading = readDefinition(text, scope);
  if (!reading.ok) return refused(reading, shift);
  const { name, variable, body } = reading.value;
  if (idOf.has(name)) return takenName(name);
  if (variable !== undefined) {
    return addCurve(workbench, (place) => makeEntry('function', { ...place, text }));
  }
  const number = literalText(body);
  return number === null ? addValue(workbench, text) : addParameter(workbench, number, name);
}

/** A bare formula without a variable that is more than a number: f'(3), 3 + 4, a limit, a sum. */
function isValue(typed: string, scope: Scope): boolean {
  if (isDefinition(typed)) return false;
  const reading = readExpression(typed, scope);
  if (!reading.ok) return false;
  const { names, functions } = tree.mentioned(reading.value);
  return functions.size > 0 || (reading.value.kind !== 'number' && !names.has(bareVariable));
}

function addValue(workbench: Workbench, text: string): Addition {
  const order = lastOrder(workbench.state.document.entries);
  return putIn(workbench, [added(newId(), makeEntry('value', { order, text }))]);
}

/** A function through points: typed with its name as p(x) through (0, 1), (2, 3), or with the next free name and four points. */
export function addThroughPoints(
  workbench: Workbench,
  name: string = freeName(workbench, functionLetters),
  variable = usualVariable(workbench),
  typed: string = firstPoints(workbench),
): Addition {
  const reading = readPoints(typed);
  if (!reading.ok) return { ok: false, message: reading.message };
  const head = functionHead(name, variable);
  if (typeof head === 'string') return { ok: false, message: head };
  const { idOf } = workbench.current().directory;
  if (idOf.has(head.name)) return takenName(head.name);
  return addCurve(workbench, (place) => makeEntry('throughPoints', { ...place, ...head, points: typed }));
}

/** The variable that the functions so far have: they share the axis. */
const usualVariable = (workbench: Workbench): string =>
  curvesOf(workbench.current())[0]?.curve.variable ?? 'x';

/** Four points in the middle of the window that is shown, for a start. */
function firstPoints(workbench: Workbench): string {
  const { document, stage } = workbench.state;
  const [across, up] = [shownX(document, stage), shownY(document, stage, firstTier)];
  const inside = (range: Range, share: number): Rational =>
    nearestMultiple(range.from + share * (range.to - range.from), roundStep(range, 20));
  const points = [0.4, 0.7, 0.5, 0.8].map((share, i) => ({
    x: inside(across, (i + 1) / 5),
    y: inside(up, share),
  }));
  return writePoints(points);
}

/** A function in two pieces that meet in the middle of the window, opened to be changed. */
export function addInPieces(workbench: Workbench): void {
  const { from, to } = shownX(workbench.state.document, workbench.state.stage);
  const join = nearestMultiple((from + to) / 2 + (to - from) / 10, roundStep({ from, to }, 10));
  const [at, twice] = [join, rational.add(join, join)].map(decimalText);
  const x = usualVariable(workbench);
  const name = freeName(workbench, functionLetters);
  const text = `${name}(${x}) = ${x} if ${x} < ${at ?? ''}; ${twice ?? ''} - ${x} otherwise`;
  const id = newId();
  addCurve(workbench, (place) => makeEntry('function', { ...place, text }), [], id);
  workbench.openEntry(id);
}

/** A function's name and variable as formulas write them, or the sentence that says why they cannot be these. */
export function functionHead(name: string, variable: string): { name: string; variable: string } | string {
  if (isReserved(name)) return `“${name}” already has a meaning; please choose another name.`;
  if (isReserved(variable)) return `“${variable}” already has a meaning; please choose another variable.`;
  const head = headOf(`${name}(${variable}) = 0`);
  if (head?.variable === undefined) {
    return 'Name and variable are a letter each, such as f and x, or a letter with an index.';
  }
  if (head.name === head.variable) return 'Name and variable must differ.';
  return { name: head.name, variable: head.variable };
}

/** What the dialog for data settles. */
export type DataSettings = Pick<
  EntryOf<'data'>,
  'name' | 'variable' | 'table' | 'x' | 'y' | 'shape' | 'unit'
> & { readonly xUnit: string };

/** A function from the rows of a table, or new rows for one that is there. The unit of x is the whole document's. */
export function addData(
  workbench: Workbench,
  { xUnit, ...settings }: DataSettings,
  into: Id | null,
): Addition {
  const { document } = workbench.state;
  const head = functionHead(settings.name, settings.variable);
  if (typeof head === 'string') return { ok: false, message: head };
  const taken = workbench.current().directory.idOf.get(head.name);
  if (taken !== undefined && taken !== into) return takenName(head.name);
  const named = { ...settings, ...head };
  const unit: Edit = { at: 'document', field: 'xUnit', old: document.xUnit, new: xUnit };
  const known = into === null ? undefined : document.entries[into];
  if (into === null || known?.kind !== 'data') {
    return addCurve(workbench, (place) => makeEntry('data', { ...place, ...named }), [unit]);
  }
  return putIn(workbench, [
    ...Object.entries(named).map(([field, value]): Edit => {
      const old = (known as Readonly<Record<string, unknown>>)[field];
      return { at: 'field', of: 'entries', id: into, field, old, new: value };
    }),
    unit,
  ]);
}

/** A function of which only a derivative is given. */
function addGivenDerivative(workbench: Workbench, text: string): Addition {
  const { scope, idOf } = workbench.current().directory;
  const reading = readStatement(text, scope);
  if (!reading.ok) return refusal(reading.problem, 0);
  if (reading.value.kind === 'givenDerivative' && idOf.has(reading.value.name)) {
    return takenName(reading.value.name);
  }
  return addCurve(workbench, (place) => makeEntry('givenDerivative', { ...place, text }));
}

/** Where a given curve belongs: at the end of the working, in the first tier, in the next colour. */
interface CurvePlace {
  readonly order: number;
  readonly tier: Id;
  readonly family: number;
}

/** Puts in a given curve; the first one of a document gets its window in the same change. */
function addCurve(
  workbench: Workbench,
  make: (place: CurvePlace) => Entry,
  more: readonly Edit[] = [],
  id = newId(),
): Addition {
  const { document, stage } = workbench.state;
  const isFirst = !Object.values(document.entries).some((entry) => 'family' in entry);
  const tier = document.tiers[firstTier] ? firstTier : (Object.keys(document.tiers)[0] ?? firstTier);
  const place = { order: lastOrder(document.entries), tier, family: nextFamily(document) };
  const edits = [...more, added(id, make(place))];
  if (isFirst) {
    const after = applyChange(document, { id: 'preview', edits });
    edits.push(...fitEdits(after, resolve(after, stage), 'both', shownX(document, stage)));
  }
  return putIn(workbench, edits);
}

/** Makes the change, or says at its place why the document does not take it. */
function putIn(workbench: Workbench, edits: readonly Edit[]): Addition {
  const message = workbench.refusalOf(edits);
  if (message !== null) return { ok: false, message };
  workbench.change(edits);
  return { ok: true };
}

const takenName = (name: string): Addition => ({
  ok: false,
  message: `“${name}” is already taken; please choose another name.`,
});

/** The number that a definition gives, where it is one; null for a formula. */
function literalText(body: tree.Expression): string | null {
  const isMinus = body.kind === 'negate';
  const number = isMinus ? body.operand : body;
  return number.kind === 'number' ? `${isMinus ? '-' : ''}${number.text}` : null;
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

/** The value and limits of a new slider around a typed number. */
function addParameter(workbench: Workbench, value: string, name: string): Addition {
  const exact = rational.parseDecimal(value) ?? rational.zero;
  const reach = Math.max(5, 10 ** Math.ceil(Math.log10(Math.abs(rational.toNumber(exact)) || 1)));
  return putIn(workbench, [
    added(newId(), parameterEntry(workbench.state.document, name, value, -reach, reach, '0.1')),
  ]);
}

export function parameterEntry(
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
