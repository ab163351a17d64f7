/** What comes of something, or what stands for it where it throws. */
export function unlessItThrows<T>(work: () => T, otherwise: T): T {
  try {
    return work();
  } catch {
    return otherwise;
  }
}
