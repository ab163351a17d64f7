import { endlessStretch, type Stretch } from './breathe.ts';

type Step = (time: number) => void;

/** Runs what was asked for once in the next frame, in the order in which the callbacks were given. */
export class Frames {
  /** Whether a frame is on its way, and whether anybody asked for one since the last began. */
  private isAsked = false;
  private isWanted = false;
  private readonly steps: Step[] = [];
  /** Steps that the last frame had no time left for: they come first in the next. */
  private left: readonly Step[] = [];

  /** @param stretch how long one frame may begin another step */
  constructor(
    private readonly schedule: (callback: (time: number) => void) => unknown,
    private readonly stretch: () => Stretch = endlessStretch,
  ) {}

  /** Adds a step at the end of the frame; returns how to take it out again. */
  onFrame(step: Step): () => void {
    this.steps.push(step);
    return () => void this.steps.splice(this.steps.indexOf(step), 1);
  }

  request(): void {
    this.isWanted = true;
    this.ask();
  }

  private ask(): void {
    if (this.isAsked) return;
    this.isAsked = true;
    this.schedule((time) => {
      this.isAsked = false;
      this.run(time);
    });
  }

  private run(time: number): void {
    const isOver = this.stretch();
    const isNew = this.left.length === 0;
    const due = isNew ? [...this.steps] : this.left;
    if (isNew) this.isWanted = false;
    this.left = [];
    for (const [i, step] of due.entries()) {
      if (i > 0 && isOver()) {
        this.left = due.slice(i);
        return this.ask();
      }
      if (this.steps.includes(step)) step(time);
    }
    if (this.isWanted) this.ask();
  }
}
