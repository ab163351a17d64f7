/** Milliseconds of work at a stretch, after which the page gets its turn. */
const stretch = 12;

/** Tells whether a stretch of work that began when it was made is over. */
export type Stretch = () => boolean;

export function stretchOfPage(): Stretch {
  const begun = performance.now();
  return () => performance.now() - begun >= stretch;
}

/** Work that is done at once, however long it takes. */
export const endlessStretch = (): Stretch => () => false;

/** Goes on with some work until it is done, or its stretch is over. */
export function goOn<T>(work: Generator<unknown, T>, isOver: Stretch): IteratorResult<unknown, T> {
  for (;;) {
    const step = work.next();
    if (step.done || isOver()) return step;
  }
}

/** Does work that can be done piece by piece, with room for whatever else the page has to do in between. */
export async function inStretches<T>(work: Generator<unknown, T>): Promise<T> {
  for (;;) {
    const step = goOn(work, stretchOfPage());
    if (step.done) return step.value;
    await new Promise((resolve) => setTimeout(resolve));
  }
}
