/** Runs what was asked for once in the next frame, in the order in which the callbacks were given. */
export class Frames {
  private isAsked = false;

  constructor(
    private readonly schedule: (callback: (time: number) => void) => unknown,
    private readonly steps: ((time: number) => void)[] = [],
  ) {}

  /** Adds a step at the end of the frame; returns how to take it out again. */
  onFrame(step: (time: number) => void): () => void {
    this.steps.push(step);
    return () => void this.steps.splice(this.steps.indexOf(step), 1);
  }

  request(): void {
    if (this.isAsked) return;
    this.isAsked = true;
    this.schedule((time) => {
      this.isAsked = false;
      for (const step of [...this.steps]) step(time);
    });
  }
}
