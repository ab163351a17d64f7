/**
 * Arithmetic rounded downwards or upwards. The error of a rounded operation is itself worked out exactly, so
 * that an exact result stays as it is: 1 + 1 is 2 and x − x is 0.
 * Method: TwoSum and Dekker's product; Ogita, Rump & Oishi, Accurate sum and dot product (2005).
 */
const smallest = 5e-324;
const relative = 2 ** -52;

/** A float below x by at least one unit in the last place. */
export const below = (x: number): number => x - (Math.abs(x) * relative + smallest);
/** A float above x by at least one unit in the last place. */
export const above = (x: number): number => x + (Math.abs(x) * relative + smallest);

/** The larger bound where a finite result overflowed; x itself where it is truly infinite. */
const finiteBelow = (x: number, isTrulyInfinite: boolean): number =>
  x === Infinity && !isTrulyInfinite ? Number.MAX_VALUE : x;

function sumError(a: number, b: number, s: number): number {
  const shadow = s - a;
  return a - (s - shadow) + (b - shadow);
}

export function sumBelow(a: number, b: number): number {
  const s = a + b;
  if (!Number.isFinite(s)) return finiteBelow(s, !Number.isFinite(a) || !Number.isFinite(b));
  return sumError(a, b, s) >= 0 ? s : below(s);
}
export const sumAbove = (a: number, b: number): number => -sumBelow(-a, -b);

/** Numbers of this size can be split and multiplied without overflow or lost digits. */
const isTame = (x: number): boolean => {
  const size = Math.abs(x);
  return size < 1e140 && size > 1e-140;
};

const splitter = 2 ** 27 + 1;

/** a·b − p for p = a·b rounded; tame numbers only (Dekker). */
function productError(a: number, b: number, p: number): number {
  const ca = splitter * a;
  const aHigh = ca - (ca - a);
  const aLow = a - aHigh;
  const cb = splitter * b;
  const bHigh = cb - (cb - b);
  const bLow = b - bHigh;
  return aLow * bLow - (p - aHigh * bHigh - aLow * bHigh - aHigh * bLow);
}

/** 0·∞ counts as 0: the bound is a limit of finite products. */
export function productBelow(a: number, b: number): number {
  if (a === 0 || b === 0) return 0;
  const p = a * b;
  if (!Number.isFinite(p)) return finiteBelow(p, !Number.isFinite(a) || !Number.isFinite(b));
  if (isTame(a) && isTame(b)) return productError(a, b, p) >= 0 ? p : below(p);
  return below(p);
}
export const productAbove = (a: number, b: number): number => -productBelow(-a, b);

/** ∞/∞ counts as 0: the bound is a limit of finite quotients, of which others in the same division are larger. */
export function quotientBelow(a: number, b: number): number {
  if (a === 0) return 0;
  const q = a / b;
  if (Number.isNaN(q)) return 0;
  if (!Number.isFinite(q)) return finiteBelow(q, !Number.isFinite(a));
  if (isTame(a) && isTame(b) && isTame(q)) {
    const p = q * b;
    const rest = a - p - productError(q, b, p);
    return rest === 0 || rest > 0 === b > 0 ? q : below(q);
  }
  return Number.isFinite(b) ? below(q) : Math.min(q, -smallest);
}
export const quotientAbove = (a: number, b: number): number => -quotientBelow(-a, b);

const isExactRoot = (x: number, root: number): boolean =>
  x === 0 || (isTame(root) && root * root === x && productError(root, root, x) === 0);

export function rootBelow(x: number): number {
  const root = Math.sqrt(x);
  return isExactRoot(x, root) || root === Infinity ? root : below(root);
}
export function rootAbove(x: number): number {
  const root = Math.sqrt(x);
  return isExactRoot(x, root) ? root : above(root);
}

/** Bounds of xⁿ, n ≥ 1, by repeated squaring in the safe direction. */
export function powerBelow(x: number, n: number): number {
  if (x < 0) return n % 2 === 1 ? -powerAbove(-x, n) : powerBelow(-x, n);
  let result = 1;
  let square = x;
  for (let rest = n; rest > 0; rest = Math.floor(rest / 2)) {
    if (rest % 2 === 1) result = Math.max(0, productBelow(result, square));
    if (rest > 1) square = Math.max(0, productBelow(square, square));
  }
  return result;
}
export function powerAbove(x: number, n: number): number {
  if (x < 0) return n % 2 === 1 ? -powerBelow(-x, n) : powerAbove(-x, n);
  let result = 1;
  let square = x;
  for (let rest = n; rest > 0; rest = Math.floor(rest / 2)) {
    if (rest % 2 === 1) result = productAbove(result, square);
    if (rest > 1) square = productAbove(square, square);
  }
  return result;
}
