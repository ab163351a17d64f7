const halvings = 60;

/**
 * The place between two others at which a function changes its sign, by halving the distance.
 * @param height its signs at a and b differ, or it is 0 at one of them
 */
export function signChange(height: (x: number) => number, a: number, b: number): number {
  let [low, high] = [a, b];
  const sign = Math.sign(height(low));
  for (let i = 0; i < halvings; i++) {
    const middle = (low + high) / 2;
    if (Math.sign(height(middle)) === sign) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
