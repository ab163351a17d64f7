/** Does work at a stretch that could be done piece by piece. */
export function atOnce<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}
