import type { Range } from '@yperkine/core';
import {
  accept,
  becomesNearlyFull,
  fullness,
  unfitSentence,
  unfitSize,
  applyAll,
  applyChange,
  atOnce,
  calmed,
  conflictsBetween,
  emptyHistory,
  emptyStage,
  followedWindows,
  hereOf,
  momentEdits,
  positionOf,
  rebase,
  redo,
  remember,
  resolve,
  resolveInSteps,
  runOf,
  seal,
  settledEdits,
  shownX,
  shownY,
  slidersOf,
  stageWithout,
  Trails,
  unanswered,
  undo,
  withValue,
  withoutValue,
  type Answers,
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
import { endlessStretch, goOn, type Stretch } from './breathe.ts';
import { Frames } from './frames.ts';
import { Halting } from './halting.ts';
import { unfoldingEdits } from './folding.ts';
import { recordsAfter } from './records.ts';
import {
  emptySession,
  settledStage,
  stageAt,
  without,
  withoutOverwritten,
  type WorkbenchState,
} from './session.ts';
import type { Saver, SaveState } from './saver.ts';

export type { WorkbenchState } from './session.ts';

export interface WorkbenchSettings {
  /** Whether the person asked their system to reduce motion. */
  readonly wantsCalm?: () => boolean;
  /** Where the answers to long questions come from, given what to call when there is a new one. */
  readonly answersWith?: (onNews: () => void) => Answers;
  /** What comes of the document with these answers, where that has been worked out already. */
  readonly first?: Resolution;
  /** How long one frame may work things out; what is left goes on in the next. */
  readonly stretch?: () => Stretch;
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
  private latest: Pick<WorkbenchState, 'document' | 'stage' | 'resolution'> & { readonly news: number };
  /** Goes up with every answer that comes in. */
  private news = 0;

  private readonly wantsCalm: () => boolean;
  private readonly stretch: () => Stretch;
  /** A frame that takes longer than its stretch: the last picture stays until it is done. */
  private unfinished: { readonly of: Document; readonly work: Generator<void, void> } | null = null;

  constructor(
    document: Document,
    schedule: (callback: (time: number) => void) => unknown,
    {
      wantsCalm = () => false,
      answersWith = () => unanswered,
      first,
      stretch = endlessStretch,
    }: WorkbenchSettings = {},
  ) {
    this.wantsCalm = wantsCalm;
    this.stretch = stretch;
    const answers = answersWith(() => {
      this.news++;
      this.frames.request();
    });
    const resolution = first ?? resolve(document, emptyStage, undefined, answers);
    this.latest = { document, stage: emptyStage, resolution, news: 0 };
    this.store = createStore(() => ({
      ...emptySession,
      document,
      stage: emptyStage,
      resolution,
      here: hereOf(document),
    }));
    this.frames = new Frames(schedule, stretch);
    this.frames.onFrame((time) => this.frame(time));
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

  private frame(time: number): void {
    const { document } = this.state;
    if (this.unfinished?.of !== document) this.unfinished = { of: document, work: this.frameInSteps(time) };
    const { done = false } = goOn(this.unfinished.work, this.stretch());
    if (done) this.unfinished = null;
    else this.frames.request();
  }

  /**
   * One frame: motion, what comes of it, and what it leaves behind. Everybody is told once, and only what depends on a
   * change is worked out again.
   */
  private *frameInSteps(time: number): Generator<void, void> {
    const before = this.state;
    const { document } = before;
    const advanced = this.advanced(time);
    const moved = yield* this.resolutionInSteps(document, advanced.stage);
    const windows = followedWindows(document, moved);
    let stage = this.following(advanced.stage, windows);
    let { playing } = advanced;
    let resolution = yield* this.resolutionInSteps(document, stage);
    const turned = yield* this.turningTime(time, before, stage, resolution);
    if (turned !== null) {
      stage = stageAt(stage, before.playing, turned);
      playing = {};
      resolution = yield* this.resolutionInSteps(document, stage);
    }
    this.showFrame(before, { stage, playing, resolution }, windows);
  }

  /** Shows what a frame came to, as far as nothing else was done while it was worked out. */
  private showFrame(
    before: WorkbenchState,
    { stage, playing, resolution }: Pick<WorkbenchState, 'stage' | 'playing' | 'resolution'>,
    windows: FollowedWindows | null,
  ): void {
    const { document } = before;
    const now = this.state;
    if (now.stage !== before.stage || now.playing !== before.playing) {
      // Something is dragged on meanwhile: it is followed in steps.
      if (resolution !== now.resolution) this.store.setState({ resolution });
      return this.frames.request();
    }
    this.followed = windows;
    this.trails.record(resolution, {
      x: shownX(document, stage),
      y: (tier) => shownY(document, stage, tier),
    });
    const records = recordsAfter(now.records, resolution);
    const isSame =
      stage === now.stage &&
      playing === now.playing &&
      resolution === now.resolution &&
      records === now.records;
    if (!isSame) this.store.setState({ stage, playing, resolution, records });
    if (Object.keys(playing).length > 0) this.frames.request();
  }

  /** How many answers to long questions have come in. */
  get newsCount(): number {
    return this.news;
  }

  /** The resolution of the document as it stands this moment, not of the last frame. */
  current(): Resolution {
    return this.resolutionFor(this.state.document, this.state.stage);
  }

  private resolutionFor(document: Document, stage: Stage): Resolution {
    return atOnce(this.resolutionInSteps(document, stage));
  }

  private *resolutionInSteps(document: Document, stage: Stage): Generator<void, Resolution> {
    const { latest, news } = this;
    const isKnown = latest.document === document && latest.stage === stage && latest.news === news;
    if (isKnown) return latest.resolution;
    const { answers } = latest.resolution;
    const resolution = yield* resolveInSteps(document, stage, latest.resolution, answers);
    this.latest = { document, stage, news, resolution };
    return resolution;
  }

  /**
   * Does what a person asked for, as one step of the history.
   * @param together changes in a row with the same key are undone as one
   * @returns whether the document took it; where it did not, a sentence says why and nothing has changed
   */
  change(edits: readonly Edit[], together?: string): boolean {
    const real = edits.filter((edit) => JSON.stringify(edit.old) !== JSON.stringify(edit.new));
    if (real.length === 0) return true;
    const change: Change = { id: nanoid(), edits: [...real, ...unfoldingEdits(this.state.document, real)] };
    const before = this.state.document;
    if (!this.apply(change)) return false;
    const { document, history, notice } = this.state;
    // What was told of an earlier change could no longer be taken back by one step.
    this.set({ history: remember(history, change, together), notice: notice?.canUndo ? null : notice });
    if (becomesNearlyFull(before, document)) this.tell(fullness(document));
    return true;
  }

  /** Why the document would not take edits, in a sentence; null where it would. */
  refusalOf(edits: readonly Edit[]): string | null {
    const { document } = this.state;
    const accepted = accept(document, { id: 'tried', edits: [...edits] });
    const unfit = accepted.ok ? unfitSize(document, accepted.document) : accepted.unfit;
    return unfit && unfitSentence(unfit);
  }

  /** What the server would refuse is refused here, so that nothing that has been accepted can be refused afterwards. */
  private apply(change: Change): boolean {
    const refusal = this.refusalOf(change.edits);
    if (refusal !== null) {
      this.tell(refusal);
      return false;
    }
    const document = applyChange(this.state.document, change);
    const here =
      this.state.here !== null && document.entries[this.state.here] ? this.state.here : hereOf(document);
    for (const edit of change.edits)
      if (edit.at === 'entries' && edit.new === null) this.state.resolution.answers.forget?.(edit.id);
    this.set({ document, here, stage: withoutOverwritten(this.state.stage, change) });
    this.saver?.add(change);
    return true;
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

  /** Shows a step of the presentation; going through several in a row is undone as one. */
  showStep(id: Id): void {
    const { document, stage } = this.state;
    const step = document.steps[id];
    if (!step) return;
    const values = step.values ?? {};
    for (const parameter of Object.keys(values)) this.stop(parameter);
    if (step.clearsTrails) this.trails.clear();
    else if (step.values) this.trails.lift();
    this.set({ stage: stageWithout(stage, values, step.windows), caught: null, step: id });
    this.change(momentEdits(document, step), 'step');
  }

  /** The step that is shown now; null for none. */
  standAt(step: Id | null): void {
    this.set({ step });
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
    if (this.apply(change)) this.set({ history, stage: emptyStage, step: null });
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

  /** Shows points or an interval of an entry without changing the document. */
  showText(id: Id, text: string): void {
    this.set({ stage: withValue(this.state.stage, id, text) });
  }

  /** Whether an entry has a result, or waits for one. */
  hasResult(id: Id, resolution = this.current()): boolean {
    const outcome = resolution.entries.get(id)?.outcome;
    return outcome !== undefined && (outcome.ok || outcome.problem.isWaiting === true);
  }

  /** Whether it would have one with points or an interval like this, as far as is known at once; nothing is shown. */
  canShow(id: Id, text: string): boolean {
    const { document, stage } = this.state;
    const now = this.current();
    // Nobody is asked for what is only tried.
    const { answers } = now;
    const silent: Answers = { ...unanswered, version: (of) => answers.version(of) };
    return this.hasResult(id, resolve(document, withValue(stage, id, text), now, silent));
  }

  /** Looks at one part of an entry, such as a strip of a sum; null for none. */
  lookAt(id: Id, part: number | null): void {
    const { stage } = this.state;
    this.set({ stage: part === null ? withoutValue(stage, id) : withValue(stage, id, part) });
  }

  /** Makes the shown value of a parameter, or the shown points or interval of an entry, the document's. */
  settle(parameter: Id, together?: string): void {
    const { stage, document } = this.state;
    const shown = stage.values[parameter];
    // What motion has reached stays shown; only what was set by hand goes into the document.
    if (typeof shown === 'number') return;
    this.set({ stage: withoutValue(stage, parameter), caught: null });
    if (typeof shown === 'string') this.change(settledEdits(document, parameter, shown), together);
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

  /** The stage with the windows that a secant asks for which keeps its size; the document's again when none does. */
  private following(stage: Stage, windows: FollowedWindows | null): Stage {
    if (!windows) return this.followed ? { ...stage, x: null, y: {} } : stage;
    const isShown =
      isSameRange(stage.x, windows.x) &&
      Object.entries(windows.y).every(([tier, y]) => isSameRange(stage.y[tier], y));
    return isShown ? stage : { ...stage, x: windows.x, y: { ...stage.y, ...windows.y } };
  }

  /** Everything that plays at its place in time. */
  private advanced(time: number): Pick<WorkbenchState, 'stage' | 'playing'> {
    const { stage } = this.state;
    let { playing } = this.state;
    for (const [parameter, { run, since }] of Object.entries(playing)) {
      if (since === null) playing = { ...playing, [parameter]: { run, since: time } };
      else if (positionOf(run, (time - since) / 1000).isOver) playing = without(playing, parameter);
    }
    return { stage: stageAt(stage, this.state.playing, time), playing };
  }

  /** When a large number that halts motion has passed its turn, as far as that was between the last frames. */
  private *turningTime(
    time: number,
    { document, playing }: WorkbenchState,
    stage: Stage,
    resolution: Resolution,
  ): Generator<void, number | null> {
    if (Object.keys(playing).length === 0) return null;
    const { answers } = resolution;
    return yield* this.halting.watch(time, resolution, (moment) =>
      resolveInSteps(document, stageAt(stage, playing, moment), resolution, answers),
    );
  }

  saveStateIs(saveState: SaveState): void {
    this.set({ saveState });
  }
  /** Whether the browser keeps what is not saved yet. */
  keptIs(isKept: boolean): void {
    if (this.state.isKept !== isKept) this.set({ isKept });
  }

  /** A change that the server refused for good is undone, and can be kept as a file. */
  setApart(change: Change, document: Document, why: string): void {
    this.stop();
    this.set({ document, stage: emptyStage, here: hereOf(document), history: emptyHistory });
    const text = `${why} This change was undone; everything else is saved.`;
    this.set({ notice: { text, canUndo: false, copy: JSON.stringify(change, null, 2) } });
  }

  /** Whether what others changed can be shown now: nothing of it is just being edited or moved here. */
  canTakeIn(theirs: readonly Change[]): boolean {
    const { open, stage, playing } = this.state;
    return !theirs
      .flatMap(({ edits }) => edits)
      .some(
        (edit) =>
          edit.at !== 'document' &&
          (edit.id === open || typeof stage.values[edit.id] === 'string' || edit.id in playing),
      );
  }

  /** Another window saved first. What can be joined is joined; the rest is asked. */
  takeIn(theirs: readonly Change[]): void {
    if (!this.saver) return;
    this.theirs = theirs;
    const isMineToo = this.saver.waiting.length > 0;
    const conflicts = conflictsBetween(this.saver.waiting, theirs).filter(isWorthAsking);
    if (conflicts.length > 0) return this.set({ conflicts });
    this.join(() => 'mine');
    if (isMineToo) this.tell('Another window changed this demonstration too; both changes are kept.');
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
    const { here } = this.state;
    const stillHere = here !== null && document.entries[here] !== undefined;
    this.set({
      document,
      stage: settledStage(this.state.stage, theirs),
      here: stillHere ? here : hereOf(document),
    });
    saver.rebased(saver.staleVersion, server, mine);
  }
}

const isSameRange = (a: Range | null | undefined, b: Range): boolean => a?.from === b.from && a.to === b.to;

/** Windows are a matter of taste in each browser window: the last one stays, without a question. */
function isWorthAsking({ mine }: Conflict): boolean {
  if (mine.at === 'document') return !['x', 'startX', 'xTicks', 'xTyped'].includes(mine.field);
  return !(mine.at === 'field' && mine.of === 'tiers');
}
