import {
  inOrder,
  limits,
  shownMoment,
  type Document,
  type Edit,
  type EntryOf,
  type Id,
  type Step,
} from '@yperkine/demonstration';
import { newId } from './actions.ts';
import type { Workbench } from './workbench.ts';

/** The stops of a presentation. Each is one change. */

/** The parts of what is shown that a step sets or leaves as they are. */
export type StepPart = 'values' | 'reveals' | 'windows';
const parts: readonly StepPart[] = ['values', 'reveals', 'windows'];

export const stepIdsOf = ({ steps }: Document): Id[] => inOrder(steps).map(([id]) => id);

/** What is shown this moment. */
function momentNow(workbench: Workbench) {
  const { document, stage } = workbench.state;
  return shownMoment(document, stage, workbench.current());
}

const stepEdit = (id: Id, step: Step, field: keyof Step, value: unknown): Edit => ({
  at: 'field',
  of: 'steps',
  id,
  field,
  old: step[field],
  new: value,
});

/** Keeps what is shown as a step behind the one that was shown last, or behind all others. */
export function keepStep(workbench: Workbench): void {
  const { document, step } = workbench.state;
  const all = inOrder(document.steps);
  if (all.length >= limits.steps) {
    workbench.tell(`A demonstration has ${limits.steps} steps at most.`);
    return;
  }
  const found = all.findIndex(([id]) => id === step);
  const at = found < 0 ? all.length : found + 1;
  const id = newId();
  const kept: Step = { order: at + 1, title: '', ...momentNow(workbench), clearsTrails: false };
  const ids = all.map(([other]) => other);
  workbench.change([
    { at: 'steps', id, old: null, new: kept },
    ...orderEdits(document, [...ids.slice(0, at), id, ...ids.slice(at)]),
  ]);
  workbench.standAt(id);
}

/** The edits that number the steps in the given order. */
const orderEdits = ({ steps }: Document, ids: readonly Id[]): Edit[] =>
  ids.flatMap((id, i) => {
    const step = steps[id];
    return step && step.order !== i + 1 ? [stepEdit(id, step, 'order', i + 1)] : [];
  });

/** Replaces what a step sets by what is shown; what it leaves as it is, it still leaves. */
export function retakeStep(workbench: Workbench, id: Id): void {
  const step = workbench.state.document.steps[id];
  if (!step) return;
  const now = momentNow(workbench);
  const set = parts.filter((part) => step[part] !== null);
  workbench.change(set.map((part) => stepEdit(id, step, part, now[part])));
}

/** Lets a step set a part, to what is shown now, or leave it as it is. */
export function setStepPart(workbench: Workbench, id: Id, part: StepPart, isSet: boolean): void {
  setStep(workbench, id, part, isSet ? momentNow(workbench)[part] : null);
}

export function setStep(workbench: Workbench, id: Id, field: keyof Step, value: unknown): void {
  const step = workbench.state.document.steps[id];
  if (step) workbench.change([stepEdit(id, step, field, value)]);
}

/** Moves a step one place earlier or later. */
export function moveStep(workbench: Workbench, id: Id, by: -1 | 1): void {
  const { document } = workbench.state;
  const ids = stepIdsOf(document);
  const to = ids.indexOf(id) + by;
  if (to < 0 || to >= ids.length) return;
  const others = ids.filter((other) => other !== id);
  workbench.change(orderEdits(document, [...others.slice(0, to), id, ...others.slice(to)]));
}

export function removeStep(workbench: Workbench, id: Id): void {
  const { document } = workbench.state;
  const step = document.steps[id];
  if (!step) return;
  const ids = stepIdsOf(document);
  const at = ids.indexOf(id);
  workbench.change([{ at: 'steps', id, old: step, new: null }]);
  workbench.standAt(ids[at - 1] ?? null);
  workbench.tell(`Deleted: ${titleOfStep(step, at)}.`, true);
}

/** What a step is called: its title, or its place among the steps. */
export const titleOfStep = ({ title }: Step, at: number): string => title || `Step ${at + 1}`;

/** The next step or the one before; the first one where none has been shown. */
export function stepBeside({ state: { document, step } }: Workbench, by: -1 | 1): Id | undefined {
  const ids = stepIdsOf(document);
  return ids[step === null ? 0 : ids.indexOf(step) + by];
}

/** The reveals that a step switches on and that are off. */
export function revealedBy({ state: { document } }: Workbench, id: Id): EntryOf<'reveal'>[] {
  const wanted = Object.entries(document.steps[id]?.reveals ?? {});
  return wanted.flatMap(([reveal, isOn]) => {
    const entry = document.entries[reveal];
    return isOn && entry?.kind === 'reveal' && !entry.switchedOn ? [entry] : [];
  });
}
