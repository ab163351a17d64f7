/**
 * Where something that is moved comes to stand: the place itself where it may be there, else the last one on the way to
 * it; where not even the start is allowed, nothing holds it back.
 * @param halvings after which the place is known well enough
 */
export function lastGood(
  from: number,
  to: number,
  isAllowed: (place: number) => boolean,
  halvings: number,
): number {
  if (isAllowed(to) || !isAllowed(from)) return to;
  let [inside, outside] = [from, to];
  for (let i = 0; i < halvings; i++) {
    const middle = (inside + outside) / 2;
    if (isAllowed(middle)) inside = middle;
    else outside = middle;
  }
  return inside;
}
