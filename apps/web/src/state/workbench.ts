import type { Range } from '@yperkine/core';
import {
  applyAll,
  applyChange,
  calmed,
  conflictsBetween,
  emptyHistory,
  emptyStage,
  followedWindows,
  hereOf,
  positionOf,
  rebase,
  redo,
  remember,
  resolve,
  runOf,
  seal,
  shownX,
  shownY,
  slidersOf,
  Trails,
  undo,
  withValue,
  withoutValue,
  type Change,
  type Choice,
  type Conflict,
  type Document,
  type Edit,
  type FollowedWindows,
  type History,
  type Id,
  type ParameterResult,
  type Resolution,
  type Run,
  type Stage,
} from '@yperkine/demonstration';
import { nanoid } from 'nanoid';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { Frames } from './frames.ts';
import { Halting } from './halting.ts';
import { unfoldingEdits } from './folding.ts';
import { recordsAfter, type Records } from './records.ts';
import type { Saver, SaveState } from './saver.ts';

/** A parameter that moves by itself. */
export interface Playing {
  readonly run: Run;
  /** Time of the first frame; null before it. */
  readonly since: number | null;
}

/** A place that a dragged point caught on. */
export interface CaughtPlace {
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
  /** Places changed both here and in another window, waiting for the teacher's choice. */
  readonly conflicts: readonly Conflict[];
  /** A sentence about something that happened, to be read and dismissed. */
  readonly notice: Notice | null;
}

export interface Notice {
  readonly text: string;
  /** Whether it tells of the last change, which can be taken back. */
  readonly canUndo: boolean;
}

/** Document, stage and session of the open demonstration, and everything that may be done to them. */
export class Workbench {
  readonly store: StoreApi<WorkbenchState>;
  readonly frames: Frames;
  /** What moving points have left behind. */
  readonly trails = new Trails();
  private readonly halting = new Halting();
  private saver: Saver | null = null;
  private theirs: readonly Change[] = [];
  /** The windows that a secant asked for in the last frame. */
  private followed: FollowedWindows | null = null;
  /** The last state that was worked out: no state is worked out twice, whoever asks first. */
  private latest: Pick<WorkbenchState, 'document' | 'stage' | 'resolution'>;

  /** @param wantsCalm whether the person asked their system to reduce motion */
  constructor(
    document: Document,
    schedule: (callback: (time: number) => void) => unknown,
    private readonly wantsCalm: () => boolean = () => false,
  ) {
    this.latest = { document, stage: emptyStage, resolution: resolve(document, emptyStage) };
    this.store = createStore(() => ({
      ...this.latest,
      history: emptyHistory,
      here: hereOf(document),
      playing: {},
      caught: null,
      records: {},
      emphasis: null,
      open: null,
      choosing: null,
      importing: null,
      saveState: 'saved' as SaveState,
      conflicts: [],
      notice: null,
    }));
    this.frames = new Frames(schedule);
    this.frames.onFrame((time) => {
      this.advance(time);
      this.follow();
      this.workOut();
      this.observe(time);
    });
  }

  get state(): WorkbenchState {
    return this.store.getState();
  }

  /** Changes are given to the saver from now on. */
  saveWith(saver: Saver): void {
    this.saver = saver;
  }

  private set(part: Partial<WorkbenchState>): void {
    this.store.setState(part);
    this.frames.request();
  }

  /** Once a frame at most: only what depends on a change is worked out again. */
  private workOut(): void {
    const resolution = this.current();
    if (resolution !== this.state.resolution) this.store.setState({ resolution });
  }

  /** The resolution of the document as it stands this moment, not of the last frame. */
  current(): Resolution {
    const { document, stage } = this.state;
    const isNew = this.latest.document !== document || this.latest.stage !== stage;
    if (isNew) {
      const resolution = resolve(document, stage, this.latest.resolution);
      this.latest = { document, stage, resolution };
    }
    return this.latest.resolution;
  }

  /**
   * Does what a person asked for, as one step of the history.
   * @param together changes in a row with the same key are undone as one
   */
  change(edits: readonly Edit[], together?: string): void {
    const real = edits.filter((edit) => JSON.stringify(edit.old) !== JSON.stringify(edit.new));
    if (real.length === 0) return;
    const change: Change = { id: nanoid(), edits: [...real, ...unfoldingEdits(this.state.document, real)] };
    this.apply(change);
    const { history, notice } = this.state;
    // What was told of an earlier change could no longer be taken back by one step.
    this.set({ history: remember(history, change, together), notice: notice?.canUndo ? null : notice });
  }

  private apply(change: Change): void {
    const document = applyChange(this.state.document, change);
    const here =
      this.state.here !== null && document.entries[this.state.here] ? this.state.here : hereOf(document);
    this.set({ document, here });
    this.saver?.add(change);
  }

  /** Ends a run of changes that are undone as one. */
  seal(): void {
    this.store.setState({ history: seal(this.state.history) });
  }

  undo(): void {
    const step = undo(this.state.history, nanoid());
    if (step) this.travel(step);
  }

  redo(): void {
    const step = redo(this.state.history, nanoid());
    if (step) this.travel(step);
  }

  /** Ends every motion and everything that is shown beside the document, together with a change. */
  reset(edits: readonly Edit[]): void {
    this.stop();
    this.trails.clear();
    this.set({ stage: emptyStage, caught: null, records: {} });
    this.change(edits);
  }

  /** Takes away what moving points have left behind. */
  clearTrails(): void {
    this.trails.clear();
    this.frames.request();
  }

  /** Lets the least and greatest values so far of a number begin anew. */
  forgetRecord(id: Id): void {
    this.set({ records: without(this.state.records, id) });
  }

  private travel({ change, history }: { change: Change; history: History }): void {
    this.stop();
    this.apply(change);
    this.set({ history, stage: emptyStage });
  }

  choose(parameter: Id): void {
    this.set({ here: parameter });
  }
  emphasise(emphasis: Id | null): void {
    if (this.state.emphasis !== emphasis) this.set({ emphasis });
  }
  openEntry(open: Id | null): void {
    this.seal();
    this.set({ open });
  }
  choosing(choosing: WorkbenchState['choosing']): void {
    this.seal();
    this.set({ choosing });
  }
  importing(importing: WorkbenchState['importing']): void {
    this.seal();
    this.set({ importing });
  }
  tell(text: string | null, canUndo = false): void {
    this.set({ notice: text === null ? null : { text, canUndo } });
  }

  /** Shows a value without changing the document, as while something is dragged. */
  show(parameter: Id, value: string, caught: number | null = null): void {
    this.stop(parameter);
    this.set({
      stage: withValue(this.state.stage, parameter, value),
      caught: caught === null ? null : { parameter, value: caught },
      here: parameter,
    });
  }

  /** Shows the points of a function through points without changing the document. */
  showPoints(id: Id, points: string): void {
    this.set({ stage: withValue(this.state.stage, id, points) });
  }

  /** Makes the shown value of a parameter, or the shown points of a function, the document's. */
  settle(parameter: Id, together?: string): void {
    const { stage, document } = this.state;
    const shown = stage.values[parameter];
    const entry = document.entries[parameter];
    // What motion has reached stays shown; only what was set by hand goes into the document.
    if (typeof shown === 'number') return;
    this.set({ stage: withoutValue(stage, parameter), caught: null });
    if (typeof shown !== 'string') return;
    const field = entry?.kind === 'parameter' ? 'value' : entry?.kind === 'throughPoints' ? 'points' : null;
    if (!entry || field === null) return;
    const old = (entry as Readonly<Record<string, unknown>>)[field];
    this.change([{ at: 'field', of: 'entries', id: parameter, field, old, new: shown }], together);
  }

  setValue(parameter: Id, value: string, together?: string): void {
    this.show(parameter, value);
    this.settle(parameter, together);
  }

  /** Shows windows without changing the document, as while a graph is dragged. */
  showWindows(x: Range | null, y: Readonly<Record<Id, Range>>): void {
    const { stage } = this.state;
    this.set({ stage: { ...stage, x: x ?? stage.x, y: { ...stage.y, ...y } } });
  }

  settleWindows(together?: string): void {
    const { stage, document } = this.state;
    // Windows that follow a secant are shown and never stored.
    const following = this.followed ?? { x: null, y: {} };
    const edits: Edit[] =
      stage.x && !following.x ? [{ at: 'document', field: 'x', old: document.x, new: stage.x }] : [];
    for (const [id, y] of Object.entries(stage.y)) {
      const old = document.tiers[id]?.y;
      if (old && !(id in following.y)) edits.push({ at: 'field', of: 'tiers', id, field: 'y', old, new: y });
    }
    if (edits.length === 0) return;
    this.set({ stage: { ...stage, ...following } });
    this.change(edits, together);
  }

  /** Sets every slider in motion. */
  playAll(): void {
    const { document, here } = this.state;
    for (const [id] of slidersOf(document)) this.play(id);
    this.set({ here });
  }

  play(parameter: Id): void {
    const entry = this.state.document.entries[parameter];
    const resolved = this.current().entries.get(parameter);
    if (entry?.kind !== 'parameter' || !resolved?.outcome.ok) return;
    this.playRun(parameter, runOf(entry, resolved.outcome.result as ParameterResult));
    this.set({ here: parameter });
  }

  /** Moves a parameter through a run of its own. */
  playRun(parameter: Id, wanted: Run): void {
    const run = this.wantsCalm() ? calmed(wanted) : wanted;
    this.halting.reset();
    this.set({ playing: { ...this.state.playing, [parameter]: { run, since: null } } });
  }

  /** Stops one parameter, or everything that plays; the values stay where they are. */
  stop(parameter?: Id): void {
    const { playing } = this.state;
    if (parameter !== undefined && !(parameter in playing)) return;
    if (Object.keys(playing).length === 0) return;
    this.set({ playing: parameter === undefined ? {} : without(playing, parameter) });
  }

  togglePlay(parameter: Id): void {
    if (parameter in this.state.playing) this.stop(parameter);
    else this.play(parameter);
  }

  /** Keeps the windows as a secant asks for that keeps its size; gives the document's back when none does. */
  private follow(): void {
    const { document, stage } = this.state;
    const windows = followedWindows(document, this.current());
    const before = this.followed;
    this.followed = windows;
    if (!windows) return before ? this.set({ stage: { ...stage, x: null, y: {} } }) : undefined;
    const isShown =
      isSameRange(stage.x, windows.x) &&
      Object.entries(windows.y).every(([tier, y]) => isSameRange(stage.y[tier], y));
    if (!isShown) this.set({ stage: { ...stage, x: windows.x, y: { ...stage.y, ...windows.y } } });
  }

  private advance(time: number): void {
    let { playing } = this.state;
    if (Object.keys(playing).length === 0) return;
    const stage = this.stageAt(time);
    for (const [parameter, { run, since: begun }] of Object.entries(playing)) {
      const since = begun ?? time;
      const { isOver } = positionOf(run, (time - since) / 1000);
      playing = isOver ? without(playing, parameter) : { ...playing, [parameter]: { run, since } };
    }
    this.set({ stage, playing });
  }

  /** The stage with everything that plays at its place at a time. */
  private stageAt(time: number): Stage {
    let { stage } = this.state;
    for (const [parameter, { run, since }] of Object.entries(this.state.playing)) {
      stage = withValue(stage, parameter, positionOf(run, (time - (since ?? time)) / 1000).value);
    }
    return stage;
  }

  /** What a frame leaves behind: marks of moving points, new records, and the end of a motion at one of them. */
  private observe(time: number): void {
    const { document, stage, resolution, playing } = this.state;
    this.trails.record(resolution, {
      x: shownX(document, stage),
      y: (tier) => shownY(document, stage, tier),
    });
    const records = recordsAfter(this.state.records, resolution);
    if (records !== this.state.records) this.store.setState({ records });
    if (Object.keys(playing).length === 0) return;
    const at = (moment: number): Resolution => resolve(document, this.stageAt(moment), resolution);
    const turned = this.halting.watch(time, resolution, at);
    if (turned !== null) this.set({ stage: this.stageAt(turned), playing: {} });
  }

  saveStateIs(saveState: SaveState): void {
    this.set({ saveState });
  }

  /** Another window saved first. What can be joined is joined; the rest is asked. */
  takeIn(theirs: readonly Change[]): void {
    if (!this.saver) return;
    this.theirs = theirs;
    const conflicts = conflictsBetween(this.saver.waiting, theirs).filter(isWorthAsking);
    if (conflicts.length > 0) return this.set({ conflicts });
    this.join(() => 'mine');
    this.tell('Another window changed this demonstration too; both changes are kept.');
  }

  /** The teacher's choice, place by place; what was not asked stays as it is here. */
  decide(choices: ReadonlyMap<string, Choice>): void {
    this.set({ conflicts: [] });
    this.join(({ place }) => choices.get(place) ?? 'mine');
  }

  private join(choose: (conflict: Conflict) => Choice): void {
    const { saver, theirs } = this;
    if (!saver) return;
    const mine = rebase(saver.serverDocument, saver.waiting, theirs, choose);
    const server = applyAll(saver.serverDocument, theirs);
    const document = applyAll(server, mine);
    this.set({ document, stage: emptyStage, here: hereOf(document) });
    saver.rebased(saver.staleVersion, server, mine);
  }
}

const isSameRange = (a: Range | null | undefined, b: Range): boolean => a?.from === b.from && a.to === b.to;

function without<T>(map: Readonly<Record<Id, T>>, gone: Id): Readonly<Record<Id, T>> {
  const { [gone]: _left, ...others } = map;
  return others;
}

/** Windows are a matter of taste in each browser window: the last one stays, without a question. */
function isWorthAsking({ mine }: Conflict): boolean {
  if (mine.at === 'document') return !['x', 'xTicks', 'xTyped'].includes(mine.field);
  return !(mine.at === 'field' && mine.of === 'tiers');
}
