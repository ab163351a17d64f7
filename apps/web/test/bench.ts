import {
  answersNow,
  emptyDocument,
  type Entry,
  type EntryKindName,
  type EntryOf,
} from '@yperkine/demonstration';
import { addGiven } from '../src/state/givens.ts';
import { addStudy } from '../src/state/studies.ts';
import { Workbench } from '../src/state/workbench.ts';

/** A workbench whose frames are run by the test. */
export function underTest() {
  let time = 0;
  let asked: ((time: number) => void)[] = [];
  const workbench = new Workbench(emptyDocument(), (callback) => asked.push(callback), {
    answersWith: () => answersNow(),
  });
  const frame = (milliseconds = 16) => {
    time += milliseconds;
    const now = asked;
    asked = [];
    now.forEach((callback) => callback(time));
  };
  const idOf = (kind: string) =>
    Object.entries(workbench.state.document.entries).find(([, entry]) => entry.kind === kind)?.[0] ?? '';
  const result = <T>(kind: string): T => {
    const outcome = workbench.current().entries.get(idOf(kind))?.outcome;
    if (!outcome?.ok) throw new Error(outcome?.problem.message);
    return outcome.result as T;
  };
  /** The entries of a kind, in the order in which they were put in. */
  const all = <K extends EntryKindName>(kind: K): EntryOf<K>[] =>
    Object.values(workbench.state.document.entries)
      .filter((entry: Entry): entry is Extract<Entry, EntryOf<K>> => entry.kind === kind)
      .sort((a, b) => a.order - b.order);
  return { workbench, frame, idOf, result, all, isAsked: () => asked.length > 0 };
}

export function withTangent(text = 'f(x) = 3x^2 - 5x - 2') {
  const bench = underTest();
  addGiven(bench.workbench, text);
  addStudy(bench.workbench, 'tangent', bench.idOf('function'), 1);
  bench.frame();
  return bench;
}
