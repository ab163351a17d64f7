import { enclose } from '../evaluate/enclosures.ts';
import type { Program } from '../evaluate/program.ts';
import { evaluateAt } from '../evaluate/values.ts';
import type { Side } from '../language/tree.ts';
import * as big from './bigFloat.ts';
import type { BigFloat } from './bigFloat.ts';
import { evaluatePrecisely, NotPrecise } from './precise.ts';
import { preciseValue } from './recognise.ts';

/**
 * What a function tends to. `proved` says whether the limit follows from an enclosure (the function is
 * continuous there); otherwise it was found by evaluation with hundreds of digits close to the place.
 */
export type Limit =
  | { readonly kind: 'finite'; readonly value: number; readonly proved: boolean }
  | { readonly kind: 'infinite'; readonly sign: 1 | -1 }
  /** The function is not defined beside the place. */
  | { readonly kind: 'undefined' }
  /** It swings, or tends to different values from the two sides. */
  | { readonly kind: 'none' };

/**
 * The limit of f as x tends to `target` (±Infinity for the limit at infinity).
 * @param parameters values in the order of `program.parameters`
 */
export function limitOfProgram(
  program: Program,
  target: number,
  side: Side,
  parameters: readonly number[] = [],
): Limit {
  if (Number.isNaN(target)) return { kind: 'undefined' };
  if (!Number.isFinite(target)) return oneSided(program, target, target > 0 ? -1 : 1, parameters);
  const place = (bits: number): BigFloat => preciseValue(target, bits);
  const around = enclose(program, target, target, parameters);
  const beside = Math.max(Math.abs(target), 1) * 1e-9;
  const isContinuous = around.sure && enclose(program, target - beside, target + beside, parameters).sure;
  if (isContinuous) return { kind: 'finite', value: evaluateAt(program, target, parameters), proved: true };
  if (side !== 'both') return oneSided(program, place, side === 'left' ? -1 : 1, parameters);
  return joined(oneSided(program, place, -1, parameters), oneSided(program, place, 1, parameters));
}

/** A place known to as many binary digits as are asked for. */
export type PrecisePlace = (bits: number) => BigFloat;

/** A limit exists where both one-sided ones do and agree; infinite ones of one sign agree too. */
function joined(left: Limit, right: Limit): Limit {
  if (left.kind === 'finite' && right.kind === 'finite') {
    const scale = Math.max(Math.abs(left.value), Math.abs(right.value));
    return Math.abs(left.value - right.value) <= 1e-14 * scale ? right : { kind: 'none' };
  }
  if (left.kind === 'infinite' && right.kind === 'infinite' && left.sign === right.sign) return left;
  return { kind: 'none' };
}

/** Decimal digits of nearness to the place: x = a ± c·10^−N, or ±c·10^N towards infinity. */
const nearness = [40, 80, 160].map(BigInt);
/** Where numbers of that size cannot be handled, as in e^(e^x). */
const modestNearness = [1, 2, 3];
/** Where only what is very far away tells: a double logarithm, a logarithm against a small power. */
const remoteNearness = [50n, 100n, 200n].map((zeros) => 10n ** zeros);
/** Three places at each nearness tell a limit from a swing. */
const multipliers = [1, 0.7390851332151607, 0.3183098861837907] as const;

/** The limit of f from one side of a place (1 from the right), or towards ±Infinity. */
export function oneSided(
  program: Program,
  target: PrecisePlace | number,
  side: 1 | -1,
  parameters: readonly number[] = [],
): Limit {
  const approach: Approach = { program, target, side, parameters };
  for (const scales of [nearness, modestNearness]) {
    try {
      const verdict = judged(scales.map((digits) => row(approach, digits)));
      return verdict.isSlow ? (fromAfar(approach) ?? verdict.limit) : verdict.limit;
    } catch (error) {
      if (error instanceof NotPrecise) return byDoubles(program, target, side, parameters);
      if (!(error instanceof big.OutOfRange)) throw error;
    }
  }
  return { kind: 'none' };
}

/** What tends to where. */
interface Approach {
  readonly program: Program;
  readonly target: PrecisePlace | number;
  readonly side: 1 | -1;
  readonly parameters: readonly number[];
}

const row = (approach: Approach, digits: number | bigint): Row =>
  multipliers.map((c) => sample(approach, c, digits));

/**
 * The limit seen from places beyond all usual measure, which cost no more digits than others beside 0 and towards
 * infinity; null where that tells nothing, or where terms would cancel there.
 */
function fromAfar(approach: Approach): Limit | null {
  if (!isFarAndCheap(approach)) return null;
  try {
    const rows: Row[] = remoteNearness.map((digits) =>
      multipliers.map((c) => farSample(approach, c, digits)),
    );
    if (!rows.every(isFull)) return null;
    const [before, last] = rows.slice(-2) as [FullRow, FullRow];
    // Logarithms of the three places differ by nothing so far away: the row before tells whether they stand still.
    return isSettled([...last, ...before]) ? finite(last[0] as BigFloat) : judgedUnsettled(rows).limit;
  } catch (error) {
    if (error instanceof big.OutOfRange || error instanceof NotPrecise) return null;
    throw error;
  }
}

const isFarAndCheap = ({ target }: Approach): boolean =>
  typeof target === 'number' || big.isZero(target(farBits));

/** Binary digits of a value far away, besides those that the exponent of the place takes up. */
const farBits = 400;

/** A value far away that a second precision confirms; null for any other, and for 0, which may be a difference lost. */
function farSample(approach: Approach, multiplier: number, digits: bigint): BigFloat | null {
  const bits = farBits + 2 * big.bitLength(digits);
  const rough = sampleWith(bits, approach, multiplier, digits);
  const fine = sampleWith(bits + farBits, approach, multiplier, digits);
  return rough && fine && !big.isZero(fine) && isConfirmed(rough, fine) ? fine : null;
}

function sample(approach: Approach, multiplier: number, digits: number | bigint): BigFloat | null {
  let bits = Math.ceil((2 * Number(digits) + 60) * bitsPerDigit);
  const at = (precision: number): BigFloat | null => sampleWith(precision, approach, multiplier, digits);
  let rough = at(bits);
  // Where leading digits cancel, more digits are needed until two precisions tell the same.
  while (bits < mostBits) {
    bits = Math.ceil(bits * 1.5);
    const fine = at(bits);
    if (!rough || !fine || isConfirmed(rough, fine)) return fine;
    rough = fine;
  }
  return rough && big.order(rough) < BigInt(-mostBits / 2) ? big.zero : rough;
}

const bitsPerDigit = Math.log2(10);
/** Binary digits beyond which no more are asked for; what is left of a difference then is rounding. */
const mostBits = 6000;

function isConfirmed(rough: BigFloat, fine: BigFloat): boolean {
  const difference = big.subtract(rough, fine, kept);
  return big.isZero(difference) || big.order(difference) < big.order(fine) - 100n;
}

function sampleWith(
  bits: number,
  { program, target, side, parameters }: Approach,
  multiplier: number,
  digits: number | bigint,
): BigFloat | null {
  const isFinite = typeof target !== 'number';
  const power = powerOfTen(isFinite ? -1 : 1, digits, bits);
  const size = big.multiply(power, big.fromDouble(multiplier), bits);
  const step = side > 0 ? size : big.negate(size);
  // Towards +∞ the side is −1: x comes from the left. Far numbers are not all whole: ⌊x⌋ tells them apart.
  const x = isFinite
    ? big.add(target(bits), step, bits)
    : big.add(big.negate(step), big.fromDouble(multiplier), bits);
  return evaluatePrecisely(
    program,
    x,
    parameters.map((value) => preciseValue(value, bits)),
    bits,
  );
}

/** Digits up to which a power of ten is written out as a whole number. */
const longestWhole = 1000n;

/** 10^(±digits). */
function powerOfTen(sign: 1 | -1, digits: number | bigint, bits: number): BigFloat {
  if (typeof digits === 'bigint' && digits <= longestWhole) {
    const size = big.fromInteger(10n ** digits);
    return sign > 0 ? big.rounded(size, bits) : big.divide(big.one, size, bits);
  }
  const places = typeof digits === 'bigint' ? big.fromInteger(digits) : big.fromDouble(digits);
  const exponent = sign > 0 ? places : big.negate(places);
  return big.exp(big.multiply(exponent, big.ln(big.fromInteger(10n), bits), bits), bits);
}

type Row = readonly (BigFloat | null)[];
type FullRow = readonly BigFloat[];
const isFull = (values: Row): values is FullRow => !values.includes(null);

/** A limit, and whether it was seen from values that change so slowly that they may yet turn. */
interface Verdict {
  readonly limit: Limit;
  readonly isSlow: boolean;
}

function judged(rows: readonly Row[]): Verdict {
  if (!rows.every(isFull)) return { limit: { kind: 'undefined' }, isSlow: false };
  const last = rows.at(-1) as FullRow;
  return isSettled(last) ? { limit: finite(last[0] as BigFloat), isSlow: false } : judgedUnsettled(rows);
}

function judgedUnsettled(values: readonly FullRow[]): Verdict {
  const growth = growing(values);
  if (growth !== 0) return { limit: { kind: 'infinite', sign: growth }, isSlow: !growsLikePower(values) };
  return { limit: slow(values.map((row) => row.map(big.toDouble))), isSlow: true };
}

/** Whether at least 16 binary digits are gained from each row to the next. */
function growsLikePower(values: readonly FullRow[]): boolean {
  const orders = values.map(([first]) => big.order(first as BigFloat));
  return orders.every((order, i) => i === 0 || order - (orders[i - 1] as bigint) > 16n);
}

/** Values that settle below this size tend to 0. */
const vanishing = -83n;

/** A limit that doubles can hold; one beyond them is as good as infinite. */
function finite(value: BigFloat): Limit {
  const double = big.order(value) < vanishing ? 0 : big.toDouble(value);
  if (!Number.isFinite(double)) return { kind: 'infinite', sign: double > 0 ? 1 : -1 };
  return { kind: 'finite', value: double, proved: false };
}

const kept = 200;
/** The values at the nearest places differ by less than 10^−25, relative to 1 or to their size. */
function isSettled(row: FullRow): boolean {
  const [first] = row as [BigFloat];
  return row.every((value) => {
    const difference = big.subtract(value, first, kept);
    const scale = big.order(first) > 0n ? big.order(first) : 0n;
    return big.isZero(difference) || big.order(difference) - scale < vanishing;
  });
}

/** The common sign of values that grow without bound, at least like a logarithm; 0 for any others. */
function growing(values: readonly FullRow[]): 1 | -1 | 0 {
  const sign = big.sign(values[0]?.[0] as BigFloat);
  if (sign === 0 || values.flat().some((value) => big.sign(value) !== sign)) return 0;
  const sizes = values.map((row) => row.map((value) => big.absolute(value)));
  for (let c = 0; c < multipliers.length; c++) {
    const [a, b, d] = sizes.map((row) => row[c] as BigFloat) as [BigFloat, BigFloat, BigFloat];
    const firstRise = big.subtract(b, a, kept);
    const nextRise = big.subtract(d, b, kept);
    // Places twice as many digits away: a logarithm rises by twice as much, a double logarithm by as much.
    const isGrowing =
      big.sign(firstRise) > 0 &&
      big.sign(big.subtract(nextRise, big.multiply(big.fromDouble(0.9), firstRise, kept), kept)) > 0;
    if (!isGrowing) return 0;
  }
  return sign > 0 ? 1 : -1;
}

/** A limit approached as slowly as 1/ln x: extrapolated (Aitken), and accepted where the three series agree. */
function slow(values: readonly (readonly number[])[]): Limit {
  const limits = multipliers.map((_, c) => {
    const [a, b, d] = values.map((row) => row[c] as number) as [number, number, number];
    const ratio = (d - b) / (b - a);
    return ratio > 0 && ratio < 0.85 ? d + ((d - b) * ratio) / (1 - ratio) : NaN;
  });
  const spread = Math.max(...limits) - Math.min(...limits);
  const [first] = limits as [number];
  if (!(spread < 1e-3 * Math.max(1, Math.abs(first)))) return { kind: 'none' };
  const whole = Math.round(first * 12) / 12;
  return { kind: 'finite', value: Math.abs(whole - first) < 2e-3 ? whole : first, proved: false };
}

const doubleSteps = 18;

/** For integrals and limits inside: doubles at halved distances, extrapolated (Richardson). */
function byDoubles(
  program: Program,
  target: PrecisePlace | number,
  side: 1 | -1,
  parameters: readonly number[],
): Limit {
  const centre = typeof target === 'number' ? target : big.toDouble(target(100));
  const at = (k: number): number =>
    Number.isFinite(centre) ? centre + side * 2 ** -k : -side * 2 ** (k * 1.5);
  const raw = Array.from({ length: doubleSteps }, (_, k) => evaluateAt(program, at(k + 2), parameters));
  if (raw.slice(4).some(Number.isNaN)) return { kind: 'undefined' };
  const tail = raw.slice(-4);
  const isGrowing = tail.every((y, i) => i === 0 || Math.abs(y) > 1.5 * Math.abs(tail[i - 1] as number));
  if (isGrowing) return { kind: 'infinite', sign: (tail.at(-1) as number) > 0 ? 1 : -1 };
  let best = { value: NaN, change: Infinity };
  let level = raw;
  for (let order = 1; order <= 4; order++) {
    level = level.slice(1).map((y, i) => y + (y - (level[i] as number)) / (2 ** order - 1));
    level.slice(1).forEach((y, i) => {
      const change = Math.abs(y - (level[i] as number));
      if (change < best.change) best = { value: y, change };
    });
  }
  const isSure = best.change < 1e-6 * Math.max(1, Math.abs(best.value));
  return isSure ? { kind: 'finite', value: best.value, proved: false } : { kind: 'none' };
}
