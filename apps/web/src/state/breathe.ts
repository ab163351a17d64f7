/** Milliseconds of work at a stretch, after which the page gets its turn. */
const stretch = 12;

/** Does work that can be done piece by piece, with room for whatever else the page has to do in between. */
export async function inStretches<T>(work: Generator<unknown, T>): Promise<T> {
  for (;;) {
    const begun = performance.now();
    do {
      const step = work.next();
      if (step.done) return step.value;
    } while (performance.now() - begun < stretch);
    await new Promise((resolve) => setTimeout(resolve));
  }
}
