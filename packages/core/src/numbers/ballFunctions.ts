import * as balls from './ball.ts';
import type { Ball, Enclosed } from './ball.ts';
import * as big from './bigFloat.ts';

/** A built-in function of balls, kept to the given number of binary digits. */
export type BallFunction = (bits: number, ...args: Ball[]) => Enclosed;
/** One of a single argument, or of two. */
type Of<N extends 1 | 2> = N extends 1
  ? (bits: number, x: Ball) => Enclosed
  : (bits: number, x: Ball, y: Ball) => Enclosed;

const of1 = (f: Of<1>): BallFunction => f as BallFunction;
const of2 = (f: Of<2>): BallFunction => f as BallFunction;

/** Applies what follows where there surely is a value. */
const then = (x: Enclosed, next: (x: Ball) => Enclosed): Enclosed =>
  x === null || x === 'unsure' ? x : next(x);

const half = (x: Ball): Ball => ({ middle: big.scale(x.middle, -1n), radius: big.scale(x.radius, -1n) });

const wave = (which: 0 | 1): BallFunction => of1((bits, x) => balls.sinCos(x, bits)[which]);
const quotientOfWaves = (above: 0 | 1 | null, below: 0 | 1): BallFunction =>
  of1((bits, x) => {
    const waves = balls.sinCos(x, bits);
    return balls.divide(above === null ? balls.one : waves[above], waves[below], bits);
  });

/** 1/f, and f(1/x). */
export const reciprocalOf = (f: BallFunction): BallFunction =>
  of1((bits, x) => then(f(bits, x), (value) => balls.divide(balls.one, value, bits)));
export const atReciprocal = (f: BallFunction): BallFunction =>
  of1((bits, x) => then(balls.divide(balls.one, x, widened(bits, x)), (inner) => f(bits, inner)));

export const sin = wave(0);
export const cos = wave(1);
export const tan = quotientOfWaves(0, 1);
export const cot = quotientOfWaves(1, 0);
export const sec = quotientOfWaves(null, 1);
export const csc = quotientOfWaves(null, 0);

/** arctan(x/√(1 − x²)), and ±π/2 at ±1. */
function arcsine(x: Ball, bits: number): Enclosed {
  const [below, above] = [balls.add(balls.one, x, bits), balls.subtract(balls.one, x, bits)];
  const signs = [balls.signOf(below), balls.signOf(above)];
  if (signs.includes(-1)) return null;
  if (signs.includes(0)) {
    const quarter = half(balls.pi(bits));
    return big.sign(x.middle) > 0 ? quarter : balls.negate(quarter);
  }
  if (signs.includes(undefined)) return 'unsure';
  return then(balls.rationalPower(balls.multiply(below, above, bits), 1, 2, bits), (leg) =>
    then(balls.divide(x, leg, bits), (ratio) => balls.arctan(ratio, bits)),
  );
}

export const arcsin = of1((bits, x) => arcsine(x, bits));
export const arccos = of1((bits, x) =>
  then(arcsine(x, bits), (angle) => balls.subtract(half(balls.pi(bits)), angle, bits)),
);
export const arctan = of1((bits, x) => balls.arctan(x, bits));
export const arccot = of1((bits, x) => balls.subtract(half(balls.pi(bits)), balls.arctan(x, bits), bits));

/** Digits more, so that small arguments keep theirs. */
const widened = (bits: number, x: Ball): number =>
  bits + (big.isZero(x.middle) ? 0 : Math.min(8 * bits, Math.max(0, -Number(big.order(x.middle)))));

const hyperbolic = (join: typeof balls.add): BallFunction =>
  of1((bits, x) => {
    const wide = widened(bits, x);
    return then(balls.exp(x, wide), (up) =>
      then(balls.divide(balls.one, up, wide), (down) => half(join(up, down, wide))),
    );
  });
export const sinh: BallFunction = of1((bits, x) =>
  balls.isExactlyZero(x) ? balls.zero : hyperbolic(balls.subtract)(bits, x),
);
export const cosh = hyperbolic(balls.add);

/** (1 − q)/(1 + q) with q = e^(−2|x|), which is below every digit kept where x is large. */
export const tanh = of1((bits, x) => {
  if (balls.isExactlyZero(x)) return balls.zero;
  const wide = widened(bits, x);
  const size = balls.absolute(x);
  const doubled: Ball = { middle: big.scale(size.middle, 1n), radius: big.scale(size.radius, 1n) };
  const isLarge = big.order(size.middle) > BigInt(bits) && balls.signOf(size) === 1;
  const small: Enclosed = isLarge
    ? { middle: big.zero, radius: { mantissa: 1n, exponent: BigInt(-2 * bits) } }
    : balls.exp(balls.negate(doubled), wide);
  return then(small, (q) =>
    then(balls.divide(balls.subtract(balls.one, q, wide), balls.add(balls.one, q, wide), bits), (ratio) =>
      big.sign(x.middle) < 0 ? balls.negate(ratio) : ratio,
    ),
  );
});

export const arsinh = of1((bits, x) => {
  if (balls.isExactlyZero(x)) return balls.zero;
  const wide = 2 * widened(bits, x);
  const size = balls.absolute(x);
  const hypotenuse = balls.rationalPower(balls.add(balls.multiply(x, x, wide), balls.one, wide), 1, 2, wide);
  return then(hypotenuse, (h) =>
    then(balls.ln(balls.add(size, h, wide), wide), (value) =>
      big.sign(x.middle) < 0 ? balls.negate(value) : value,
    ),
  );
});
export const arcosh = of1((bits, x) => {
  const above = balls.subtract(x, balls.one, bits);
  const sign = balls.signOf(above);
  if (sign === -1) return null;
  if (sign === 0) return balls.zero;
  if (sign === undefined) return 'unsure';
  const square = balls.multiply(above, balls.add(x, balls.one, 2 * bits), 2 * bits);
  return then(balls.rationalPower(square, 1, 2, 2 * bits), (root) =>
    balls.ln(balls.add(x, root, 2 * bits), bits),
  );
});
export const artanh = of1((bits, x) => {
  if (balls.isExactlyZero(x)) return balls.zero;
  const wide = widened(bits, x);
  const [below, above] = [balls.add(balls.one, x, wide), balls.subtract(balls.one, x, wide)];
  const signs = [balls.signOf(below), balls.signOf(above)];
  if (signs.includes(-1) || signs.includes(0)) return null;
  if (signs.includes(undefined)) return 'unsure';
  return then(balls.divide(below, above, wide), (ratio) => then(balls.ln(ratio, wide), half));
});

export const exp = of1((bits, x) => balls.exp(x, bits));
export const ln = of1((bits, x) => balls.ln(x, bits));
const logarithm = (x: Ball, base: Ball, bits: number): Enclosed =>
  then(balls.ln(x, bits), (above) => then(balls.ln(base, bits), (below) => balls.divide(above, below, bits)));
export const log = of1((bits, x) => logarithm(x, balls.fromInteger(10), bits));
export const logBase = of2((bits, base, x) => logarithm(x, base, bits));

export const sqrt = of1((bits, x) => balls.rationalPower(x, 1, 2, bits));
export const cbrt = of1((bits, x) => balls.rationalPower(x, 1, 3, bits));
export const root = of2((bits, degree, x) => {
  const n = big.toDouble(degree.middle);
  if (!balls.isExact(degree)) return 'unsure';
  return Number.isInteger(n) && n >= 1 && n < 1000 ? balls.rationalPower(x, 1, n, bits) : null;
});

export const abs = of1((_bits, x) => balls.absolute(x));
export const sign = of1((_bits, x) => {
  const side = balls.signOf(x);
  return side === undefined ? 'unsure' : balls.fromInteger(side);
});
export const floor = of1((_bits, x) => balls.floor(x));
export const ceil = of1((_bits, x) => then(balls.floor(balls.negate(x)), balls.negate));
export const round = of1((bits, x) => balls.floor(balls.add(x, half(balls.one), bits)));
export const min = of2((bits, x, y) => balls.extreme(x, y, -1, bits));
export const max = of2((bits, x, y) => balls.extreme(x, y, 1, bits));
export const mod = of2((bits, x, y) =>
  then(balls.divide(x, y, bits), (ratio) =>
    then(balls.floor(ratio), (steps) => balls.subtract(x, balls.multiply(y, steps, bits), bits)),
  ),
);
export const degrees = of1((bits, x) =>
  balls.divide(balls.multiply(x, balls.pi(bits), bits), balls.fromInteger(180), bits),
);

/** Of larger numbers no factorial is worked out. */
export const largestFactorial = 1000;

export const factorial = of1((_bits, x) => {
  if (!balls.isExact(x)) return balls.floor(x) === 'unsure' ? 'unsure' : null;
  const n = big.toDouble(x.middle);
  if (!Number.isInteger(n) || n < 0 || n > largestFactorial) return null;
  let product = 1n;
  for (let k = 2n; k <= BigInt(n); k++) product *= k;
  return balls.exactly(big.fromInteger(product));
});
