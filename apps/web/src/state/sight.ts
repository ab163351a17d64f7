import type { StoreApi } from 'zustand/vanilla';
import type { WorkbenchState } from './workbench.ts';

/** What may change from frame to frame while something moves. */
const moving: ReadonlySet<keyof WorkbenchState> = new Set(['stage', 'resolution', 'records', 'caught']);

/** Milliseconds in which nothing has to move before what is out of sight catches up. */
const catchingUp = 250;

/**
 * The state of a workbench as a part of the page sees it that may be out of sight: scrolled away, it is told nothing while
 * something moves or is worked out, and catches up once that rests. Whatever else changes, it sees at once.
 */
export class SightedStore implements Pick<
  StoreApi<WorkbenchState>,
  'getState' | 'getInitialState' | 'subscribe'
> {
  private held: WorkbenchState;
  private isInSight = true;
  private waiting: ReturnType<typeof setTimeout> | null = null;
  /** Whether something has moved since the wait began. */
  private goesOn = false;
  private stopFollowing: (() => void) | null = null;
  private readonly listeners = new Set<(state: WorkbenchState, before: WorkbenchState) => void>();

  constructor(private readonly store: StoreApi<WorkbenchState>) {
    this.held = store.getState();
  }

  readonly getState = (): WorkbenchState => (this.isInSight ? this.store.getState() : this.held);

  readonly getInitialState = (): WorkbenchState => this.store.getInitialState();

  readonly subscribe = (listener: (state: WorkbenchState, before: WorkbenchState) => void): (() => void) => {
    this.listeners.add(listener);
    if (!this.stopFollowing) {
      this.held = this.store.getState();
      this.stopFollowing = this.store.subscribe((state) => this.follow(state));
    }
    return () => {
      this.listeners.delete(listener);
      if (this.listeners.size === 0) this.rest();
    };
  };

  /** Tells whether the part can be seen just now; one that comes into sight sees the present state at once. */
  see(isInSight: boolean): void {
    if (isInSight === this.isInSight) return;
    this.held = this.store.getState();
    this.isInSight = isInSight;
    this.tell(this.held);
  }

  private follow(state: WorkbenchState): void {
    if (this.isInSight || !isOnlyMotion(this.held, state)) return this.tell(state);
    this.goesOn = true;
    this.waiting ??= this.wait();
  }

  private wait(): ReturnType<typeof setTimeout> {
    this.goesOn = false;
    return setTimeout(() => {
      if (this.goesOn) this.waiting = this.wait();
      else this.tell(this.store.getState());
    }, catchingUp);
  }

  private tell(state: WorkbenchState): void {
    this.stopWaiting();
    const before = this.held;
    this.held = state;
    for (const listener of [...this.listeners]) listener(state, before);
  }

  private rest(): void {
    this.stopWaiting();
    this.stopFollowing?.();
    this.stopFollowing = null;
  }

  private stopWaiting(): void {
    if (this.waiting !== null) clearTimeout(this.waiting);
    this.waiting = null;
  }
}

const isOnlyMotion = (before: WorkbenchState, after: WorkbenchState): boolean =>
  (Object.keys(after) as (keyof WorkbenchState)[]).every(
    (key) => before[key] === after[key] || moving.has(key),
  );
