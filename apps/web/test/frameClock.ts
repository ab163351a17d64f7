import { emptyDocument, type Document } from '@yperkine/demonstration';

export const documentOf = (entries: Document['entries']): Document => ({ ...emptyDocument(), entries });

/** Frames that come when a test lets time go on, sixty in a second. */
export class FrameClock {
  private waiting: ((time: number) => void) | null = null;
  private time = 1000;

  readonly schedule = (callback: (time: number) => void): void => {
    this.waiting = callback;
  };

  run(seconds: number): void {
    for (let i = 0; i < seconds * 60; i++) {
      this.time += 1000 / 60;
      const callback = this.waiting;
      this.waiting = null;
      callback?.(this.time);
    }
  }
}
