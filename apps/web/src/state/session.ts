import {
  emptyHistory,
  positionOf,
  withoutValue,
  withValue,
  type Change,
  type Conflict,
  type Document,
  type History,
  type Id,
  type Resolution,
  type Run,
  type Stage,
} from '@yperkine/demonstration';
import type { Records } from './records.ts';
import type { SaveState } from './saver.ts';

/** A parameter that moves by itself. */
interface Playing {
  readonly run: Run;
  /** Time of the first frame; null before it. */
  readonly since: number | null;
}

/** A place that a dragged point caught on. */
interface CaughtPlace {
  readonly parameter: Id;
  readonly value: number;
}

export interface WorkbenchState {
  readonly document: Document;
  readonly stage: Stage;
  readonly resolution: Resolution;
  readonly history: History;
  /** The parameter whose lane is chosen and that the reading line stands at. */
  readonly here: Id | null;
  /** The step of the presentation that was shown last. */
  readonly step: Id | null;
  /** What moves by itself just now: several parameters may at once. */
  readonly playing: Readonly<Record<Id, Playing>>;
  readonly caught: CaughtPlace | null;
  /** The least and greatest values so far of the numbers that are shown large. */
  readonly records: Records;
  /** The entry that the pointer or the focus is on. */
  readonly emphasis: Id | null;
  /** The entry whose formula is open in place. */
  readonly open: Id | null;
  /** The chooser is open, for the curve of this entry if one was meant. */
  readonly choosing: { readonly on: Id | null } | null;
  /** The table that is about to become a function, and the entry whose data it replaces; null while none is. */
  readonly importing: { readonly table: string; readonly into: Id | null } | null;
  readonly saveState: SaveState;
  /** Whether the browser keeps what is not saved yet. */
  readonly isKept: boolean;
  /** Places changed both here and in another window, waiting for the teacher's choice. */
  readonly conflicts: readonly Conflict[];
  /** A sentence about something that happened, to be read and dismissed. */
  readonly notice: Notice | null;
}

export interface Notice {
  readonly text: string;
  /** Whether it tells of the last change, which can be taken back. */
  readonly canUndo: boolean;
  /** What could not be saved, to be kept as a file. */
  readonly copy?: string;
}

/** A session at its beginning, apart from what is open. */
export const emptySession: Omit<WorkbenchState, 'document' | 'stage' | 'resolution' | 'here'> = {
  history: emptyHistory,
  step: null,
  playing: {},
  caught: null,
  records: {},
  emphasis: null,
  open: null,
  choosing: null,
  importing: null,
  saveState: 'saved',
  isKept: true,
  conflicts: [],
  notice: null,
};

/** The stage with everything that plays at its place at a time. */
export function stageAt(stage: Stage, playing: WorkbenchState['playing'], time: number): Stage {
  let next = stage;
  for (const [parameter, { run, since }] of Object.entries(playing)) {
    next = withValue(next, parameter, positionOf(run, (time - (since ?? time)) / 1000).value);
  }
  return next;
}

/** The stage without what was shown of an entry by hand, where a change says something else of it. */
export const withoutOverwritten = (stage: Stage, { edits }: Change): Stage =>
  edits.reduce(
    (left, edit) =>
      edit.at !== 'document' && typeof left.values[edit.id] === 'string' ? withoutValue(left, edit.id) : left,
    stage,
  );

/** The stage without what others have just settled: of that, the document's is shown. */
export function settledStage(stage: Stage, theirs: readonly Change[]): Stage {
  const edits = theirs.flatMap((change) => change.edits);
  const touched = edits.flatMap((edit) => (edit.at === 'document' ? [] : [edit.id]));
  const y = Object.fromEntries(Object.entries(stage.y).filter(([tier]) => !touched.includes(tier)));
  const isXTouched = edits.some((edit) => edit.at === 'document' && edit.field === 'x');
  return { ...touched.reduce(withoutValue, stage), y, x: isXTouched ? null : stage.x };
}

/** A map without one of its entries. */
export function without<T>(map: Readonly<Record<Id, T>>, gone: Id): Readonly<Record<Id, T>> {
  const { [gone]: _left, ...others } = map;
  return others;
}
