/**
 * A whole number with its thousands apart. The browser's own way would first load what it knows of every language, which
 * takes longer than a frame.
 * @param gap what stands between them
 */
export const inThousands = (whole: number, gap = ','): string =>
  String(whole).replace(/\B(?=(\d{3})+$)/g, () => gap);
