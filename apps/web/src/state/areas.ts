import { evaluateAt, knownNumber, numberFormula, printText, rational, signChange } from '@yperkine/core';
import {
  curveOf,
  decimalText,
  format,
  lastOrder,
  makeEntry,
  nearestDecimal,
  parameterOf,
  shownX,
  withoutNoise,
  type CurveResult,
  type Edit,
  type EntryOf,
  type Id,
  type SumResult,
} from '@yperkine/demonstration';
import { added, freeName, newId } from './actions.ts';
import { curvesOf } from './curves.ts';
import { addStudy, tierFor } from './studies.ts';
import { limitText, usualInterval } from './usualInterval.ts';
import { addOverInterval } from './where.ts';
import type { Workbench } from './workbench.ts';

/** Studies that ask how much, and what can be done to the parts of a sum. Each is one change. */

/** Letters that a number of parts takes. */
const countLetters = 'nNkm';

/** A rectangle sum of a curve over its usual interval, with a slider for the number of parts. */
export function addSum(workbench: Workbench, on: Id): void {
  const order = lastOrder(workbench.state.document.entries);
  const parts = newId();
  const count = makeEntry('parameter', {
    order,
    name: freeName(workbench, countLetters),
    value: '10',
    from: '1',
    to: '1000',
    step: '1',
    spread: 'doubling',
    whole: true,
    repeat: 'once',
    motion: 'steps',
    pause: '1.5',
  });
  const sum = makeEntry('sum', { order: order + 1, on, parts, ...usualInterval(workbench, on) });
  workbench.change([added(parts, count), added(newId(), sum)]);
  workbench.choose(parts);
}

/** The area between a curve and the next other one, over as much as both are shown. */
export function addAreaBetween(workbench: Workbench, on: Id): void {
  const curves = curvesOf(workbench.current());
  const tier = curves.find(({ id }) => id === on)?.curve.tier;
  const other = curves.find(({ id, curve }) => id !== on && curve.tier === tier);
  if (!other) {
    workbench.tell('This needs a second function on the same graph: type one to compare it with.');
    return;
  }
  addOverInterval(workbench, 'areaBetween', on, { with: other.id, ...crossings(workbench, on, other.curve) });
}

/** Places at which a curve is looked at for crossings. */
const looks = 400;

/** From the first to the last crossing in the window, where there are two: what the curves enclose. */
function crossings(
  workbench: Workbench,
  on: Id,
  other: CurveResult,
): { readonly from: string; readonly to: string } | null {
  const curve = curveOf(workbench.current(), on);
  if (!curve) return null;
  const { document, stage } = workbench.state;
  const shown = shownX(document, stage);
  const difference = (x: number): number =>
    evaluateAt(curve.program, x, curve.parameters) - evaluateAt(other.program, x, other.parameters);
  const at = (i: number): number => shown.from + ((shown.to - shown.from) * i) / looks;
  const found = Array.from({ length: looks }, (_, i) => i).flatMap((i) => {
    const [a, b] = [at(i), at(i + 1)];
    if (difference(a) === 0) return [a];
    return difference(a) * difference(b) < 0 ? [signChange(difference, a, b)] : [];
  });
  const [first, last] = [found[0], found.at(-1)];
  if (first === undefined || last === undefined || first === last) return null;
  return { from: placeText(first), to: placeText(last) };
}

/** A place found by search as what it stands for: 2, √5 or a decimal. */
function placeText(x: number): string {
  const text = printText(numberFormula(x)).replace(/sqrt\((\w+)\)/, '√$1');
  return /^-?√?[\d.]{1,6}$/.test(text) ? text : limitText(x);
}

/** The running total of a curve on a tier of its own, from the left end of its usual interval. */
export function addRunningTotal(workbench: Workbench, on: Id, at?: number): void {
  const tier = newId();
  const id = newId();
  const { from } = usualInterval(workbench, on);
  const name = freeName(workbench, 'AFSTGH');
  const fields = { name, tier, from };
  const trial = makeEntry('runningTotal', { order: 0, on, parameter: on, ...fields });
  const edits = tierFor(workbench, tier, id, totalPreview(workbench, id, trial));
  addStudy(workbench, 'runningTotal', on, at, { fields, edits });
}

/** The edits by which the window of a total is chosen before its slider is there. */
function totalPreview(workbench: Workbench, id: Id, entry: EntryOf<'runningTotal'>): Edit[] {
  const slider = newId();
  const order = lastOrder(workbench.state.document.entries);
  const place = makeEntry('parameter', { order, name: 'x_total', value: entry.from });
  return [added(slider, place), added(id, { ...entry, parameter: slider })];
}

/** Lets the place in each part be moved by a slider from 0 to 1. */
export function addFraction(workbench: Workbench, id: Id): void {
  const entry = workbench.state.document.entries[id];
  if (entry?.kind !== 'sum') return;
  const name = freeName(workbench, 'cqrsw');
  const slider = makeEntry('parameter', {
    order: lastOrder(workbench.state.document.entries),
    name,
    value: rational.parseDecimal(entry.fraction) ? entry.fraction : '0.25',
    from: '0',
    to: '1',
    step: '0.01',
  });
  const parameter = newId();
  workbench.change([added(parameter, slider), edit(id, 'fraction', entry.fraction, name)]);
  workbench.choose(parameter);
}

/** How the error of a sum falls as n grows. */
export function addSumErrors(workbench: Workbench, of: Id): void {
  const order = lastOrder(workbench.state.document.entries);
  workbench.change([added(newId(), makeEntry('sumErrors', { order, of }))]);
}

/** How many doublings there is room for at least. */
const fewestDoublings = 3;

/** Lets the number of parts double again and again, up to the slider's end. */
export function doubleUp(workbench: Workbench, parts: Id): void {
  const entry = workbench.state.document.entries[parts];
  const parameter = parameterOf(workbench.current(), parts);
  if (!parameter || entry?.kind !== 'parameter') return;
  const start = Math.max(1, Math.round(parameter.value.value));
  const to = Math.max(Number(entry.to), start * 2 ** fewestDoublings);
  const seconds = Number(entry.pause);
  workbench.playRun(parts, { from: 1, to, start, seconds, repeat: 'once', pace: 'doubling' });
  workbench.choose(parts);
}

/** Numbers as a list in a document. */
const listText = (numbers: Iterable<number>): string =>
  [...numbers].map((x) => decimalText(nearestDecimal(x))).join('; ');

const edit = (id: Id, field: string, old: unknown, now: unknown): Edit => ({
  at: 'field',
  of: 'entries',
  id,
  field,
  old,
  new: now,
});

/** The result of a sum as it is shown this moment, with its parts. */
export function sumOf(
  workbench: Workbench,
  id: Id,
): (SumResult & { sum: NonNullable<SumResult['sum']> }) | null {
  const outcome = workbench.current().entries.get(id)?.outcome;
  const result = outcome?.ok ? (outcome.result as SumResult) : null;
  return result?.sum ? { ...result, sum: result.sum } : null;
}

/** Puts new ends between the parts; sample points of one's own go, since they belong to the old parts. */
function setCuts(
  workbench: Workbench,
  id: Id,
  inner: readonly number[],
  picks: readonly number[] = [],
): void {
  const entry = workbench.state.document.entries[id];
  if (entry?.kind !== 'sum') return;
  workbench.change([
    edit(id, 'cuts', entry.cuts, listText(inner)),
    edit(id, 'picks', entry.picks, listText(picks)),
  ]);
}

/** Equal parts again, with the sample points of the rule. */
export const evenOut = (workbench: Workbench, id: Id): void => setCuts(workbench, id, []);

/** Gives one part a sample point of its own; the others keep theirs. A sentence where it lies outside. */
export function setPick(workbench: Workbench, id: Id, index: number, x: number): string | null {
  const result = sumOf(workbench, id);
  const entry = workbench.state.document.entries[id];
  if (!result || entry?.kind !== 'sum') return null;
  const [from, to] = [result.sum.ends[index] as number, result.sum.ends[index + 1] as number];
  if (!(x >= from && x <= to)) return outside(workbench, from, to, 'The sample point lies in its part');
  const points = Array.from(result.sum.xs, (old, i) => (i === index ? x : old));
  workbench.change([edit(id, 'picks', entry.picks, listText(points))]);
  return null;
}

/** Moves the right end of a part; a sentence where it would pass its neighbours. */
export function setEnd(workbench: Workbench, id: Id, index: number, x: number): string | null {
  const result = sumOf(workbench, id);
  if (!result) return null;
  const { ends } = result.sum;
  const [before, behind] = [ends[index] as number, ends[index + 2] as number];
  if (!(x > before && x < behind))
    return outside(workbench, before, behind, 'The end lies between its neighbours');
  const inner = Array.from(ends.subarray(1, -1), (old, i) => (i === index ? x : old));
  setCuts(workbench, id, inner);
  return null;
}

function outside(workbench: Workbench, from: number, to: number, sentence: string): string {
  const { rule } = workbench.current();
  const text = (x: number): string => format(knownNumber(x), rule).text;
  return `${sentence}: from ${text(from)} to ${text(to)}.`;
}

/** Halves a part. */
export function addPart(workbench: Workbench, id: Id, index: number): void {
  const result = sumOf(workbench, id);
  if (!result) return;
  const { ends } = result.sum;
  const middle = ((ends[index] as number) + (ends[index + 1] as number)) / 2;
  const inner = [...ends.subarray(1, -1), middle].sort((a, b) => a - b);
  setCuts(workbench, id, inner);
}

/** Joins a part with the next one. */
export function removePart(workbench: Workbench, id: Id, index: number): void {
  const result = sumOf(workbench, id);
  if (!result || result.sum.xs.length < 2) return;
  const gone = Math.min(index, result.sum.xs.length - 2);
  setCuts(
    workbench,
    id,
    [...result.sum.ends.subarray(1, -1)].filter((_, i) => i !== gone),
  );
}

/** All rectangles of a sum as CSV. */
export function sumCsv({ sum, curve }: SumResult): string {
  const x = curve.variable;
  const head = ['i', 'from', 'to', `${x}*`, 'height', 'width', 'area'];
  const rows = sum
    ? Array.from(sum.xs, (at, i) => {
        const [from, to] = [sum.ends[i] as number, sum.ends[i + 1] as number];
        return [i + 1, from, to, at, sum.heights[i], to - from, sum.areas[i]];
      })
    : [];
  return [head, ...rows, ['total', '', '', '', '', '', sum?.total ?? '']]
    .map((row) => row.map((cell) => (typeof cell === 'number' ? withoutNoise(cell) : cell)).join(','))
    .join('\r\n');
}
