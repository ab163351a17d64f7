import {
  closedFormula,
  Effort,
  integral,
  isTooLarge,
  keyPoints,
  OutOfEffort,
  readExpression,
  sentence,
  signs,
  SingleValues,
  solve,
  toldValue,
  tree,
  type Expression,
  type KeyPoint,
} from '../src/index.ts';
import {
  about,
  areApart,
  integralBetween,
  isAbove,
  jetAt,
  middleOf,
  signOf,
  valuesBetween,
  type Jet,
  type Range,
} from './digits.ts';
import { randomFormula, type Random } from './inputs.ts';

/** What is claimed of random functions, looked at in many digits: no claim may be contradicted. */

/** `null` where nothing was claimed, or nothing could be looked at; a sentence where the claim is wrong. */
type Verdict = 'right' | null | { readonly wrong: string };

export interface Question {
  readonly text: string;
  readonly on: readonly [number, number];
  readonly kind: keyof typeof judges;
}

/** A random question: compositions, pieces, jumps and poles; needles; huge and tiny heights, places and differences. */
export function randomQuestion(random: Random): Question {
  const from = random.below(7) - 4;
  const kinds = Object.keys(judges) as (keyof typeof judges)[];
  return { text: scaled(random), on: [from, from + 1 + random.below(5)], kind: random.pick(kinds) };
}

function scaled(random: Random): string {
  const inner = randomFormula(random, 1 + random.below(3));
  const power = (most: number): string => `10^(${random.below(2 * most + 1) - most})`;
  const place = `${random.below(9) - 4}.${1 + random.below(9)}`;
  switch (random.below(10)) {
    case 0:
      return `${power(30)}*(${inner})`;
    case 1:
      return `(${inner}) + ${power(16)}`;
    case 2:
      return `(${inner}) + ${power(6)}*exp(-((x - (${place}))/${power(5)})^2)`;
    case 3:
      return `(${inner}) + ${power(15)}*abs(x - (${place}))`;
    case 4:
      return `(${inner} if x < ${place}; (${inner}) + ${power(18)} otherwise)`;
    default:
      return inner;
  }
}

/** Counted operations for one question, as at the door: what takes more is given up. */
const mostOperations = 250_000_000;

/** The verdict on what the engine claims. */
export function judge({ text, on, kind }: Question, random: Random, claims: Partial<Claims> = {}): Verdict {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(sentence(reading.problem));
  try {
    return new Effort(mostOperations).spendOn(() =>
      judges[kind](reading.value, on, random, { ...engine, ...claims }),
    );
  } catch (error) {
    if (isTooLarge(error) || error instanceof SingleValues || error instanceof OutOfEffort) return null;
    throw error;
  }
}

/** What makes the claims: the engine, or in tests of the judge something that is wrong. */
const engine = { integral, keyPoints, signs, solve, toldValue };
export type Claims = typeof engine;

type Judge = (body: Expression, on: readonly [number, number], random: Random, claims: Claims) => Verdict;

const wrong = (text: string): Verdict => ({ wrong: text });
const first = (jet: Jet): Range => jet[0] as Range;
const signAt = (jet: Jet | null, order = 0): -1 | 0 | 1 | null => jet && signOf(jet[order] as Range);
const isNotZero = (sign: number | null): boolean => sign === 1 || sign === -1;
const between = (random: Random, a: number, b: number): number => a + (b - a) * (0.02 + 0.96 * random.next());

/** Of a gap between two places, as a share: nearer to its ends nothing is looked at. */
const smallestGap = 1e-9;
const looksInGap = 5;

/** Between neighbours in a complete list f, f′ and f″ keep their signs; nothing is above the highest or below the lowest. */
const ofKeyPoints: Judge = (body, on, random, claims) => {
  const { points, complete } = claims.keyPoints(body, 'x', on);
  if (!complete) return null;
  const [a, b] = on;
  const ends = [...new Set([a, ...points.map(({ x }) => x), b])].sort((p, q) => p - q);
  let looks = 0;
  for (const [i, to] of ends.entries()) {
    const from = ends[i - 1];
    if (from === undefined || to - from < smallestGap * Math.max(1, Math.abs(to))) continue;
    const seen = [new Set<number>(), new Set<number>(), new Set<number>()];
    for (let k = 0; k < looksInGap; k++) {
      const x = between(random, from, to);
      const jet = jetAt(body, x);
      if (!jet) continue;
      looks++;
      seen.forEach((signsSeen, order) => signsSeen.add(signAt(jet, order) ?? 0));
      const beyond = points.find((point) => isBeyond(point, first(jet)));
      if (beyond) return wrong(`${beyond.kind} at ${beyond.x} is called absolute, but see ${x}`);
    }
    const order = seen.findIndex((signsSeen) => signsSeen.has(1) && signsSeen.has(-1));
    if (order >= 0) return wrong(`order ${order} changes its sign between ${from} and ${to}`);
  }
  return looks > 0 ? 'right' : null;
};

/** Whether a height lies beyond an extreme that is called absolute, by more than the digits of a double. */
function isBeyond({ kind, y, absolute, extreme }: KeyPoint, height: Range): boolean {
  if (absolute !== true || y === null || !Number.isFinite(y)) return false;
  const rounded = about(y, Math.abs(y) * 1e-14 + Number.MIN_VALUE);
  const isHigh = kind === 'maximum' || extreme === 'maximum';
  const isLow = kind === 'minimum' || extreme === 'minimum';
  return (isHigh && isAbove(height, rounded)) || (isLow && isAbove(rounded, height));
}

/** Between neighbours in a complete list of solutions the difference keeps its sign, but for jumps and poles. */
const ofSolutions: Judge = (body, on, random, claims) => {
  const level = random.pick(['0', '1', '0.5', 'x', '1E-12', '-1']);
  const other =
    level === 'x' ? tree.name('x') : level.startsWith('-') ? tree.negate(tree.number(1)) : tree.number(level);
  const { solutions, everywhere, complete } = claims.solve(body, other, 'x', on);
  const difference = tree.subtract(body, other);
  for (const { value } of solutions) {
    const reach = Math.max(1e-12, Math.abs(value) * 1e-12);
    const near = valuesBetween(difference, value - reach, value + reach);
    if (near && isNotZero(signOf(near))) return wrong(`f = ${level} is listed at ${value}, where it is not`);
  }
  for (const { from, to } of everywhere) {
    if (isNotZero(signAt(jetAt(difference, between(random, from.value, to.value), 1))))
      return wrong(`f = ${level} is said from ${from.value} to ${to.value}`);
  }
  if (!complete) return null;
  const held = (x: number): boolean => everywhere.some(({ from, to }) => x >= from.value && x <= to.value);
  const xs = Array.from({ length: 24 }, () => between(random, ...(on as [number, number]))).sort(
    (p, q) => p - q,
  );
  const told = xs.flatMap((x) => {
    const sign = held(x) ? null : signAt(jetAt(difference, x, 1));
    return sign ? [{ x, sign }] : [];
  });
  for (const [i, { x, sign }] of told.entries()) {
    const before = told[i - 1];
    if (!before || before.sign === sign) continue;
    const isListed =
      solutions.some(({ value }) => value >= before.x && value <= x) ||
      everywhere.some(({ from, to }) => from.value <= x && to.value >= before.x);
    if (!isListed && crosses(difference, before.x, x))
      return wrong(`f = ${level} between ${before.x} and ${x} is missing`);
  }
  return told.length > 0 ? 'right' : null;
};

/** Whether a change of sign goes through 0: the heights on both sides shrink with the gap, as at no jump and no pole. */
function crosses(difference: Expression, a: number, b: number): boolean {
  const sizes = (...places: readonly number[]): number =>
    places.reduce((sum, x) => {
      const jet = jetAt(difference, x, 1);
      return sum + (jet ? Math.abs(middleOf(first(jet))) : NaN);
    }, 0);
  const sideOf = (x: number): number | null => signAt(jetAt(difference, x, 1));
  let [low, high] = [a, b];
  const left = sideOf(low);
  let half = NaN;
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (middle <= low || middle >= high) break;
    const sign = sideOf(middle);
    if (sign === null) return false;
    if (sign === 0) return valuesBetween(difference, low, high) !== null;
    if (sign === left) low = middle;
    else high = middle;
    if (i === 12) half = sizes(low, high);
  }
  // Where something is divided by 0 on the way, the place itself may have no value.
  const values = valuesBetween(difference, low, high);
  return values !== null && Number.isFinite(middleOf(values)) && sizes(low, high) < half * 1e-3;
}

/** Each stretch of a table of signs has the sign that it is given. */
const ofSigns: Judge = (body, on, random, claims) => {
  const order = random.below(3);
  const { intervals } = claims.signs(body, 'x', on, order);
  let looks = 0;
  for (const { from, to, sign } of intervals) {
    for (let k = 0; k < 3; k++) {
      const x = between(random, from.value, to.value);
      const jet = x > from.value && x < to.value ? jetAt(body, x, order + 1) : null;
      const told = signAt(jet, order);
      if (told === null) continue;
      looks++;
      if (told !== sign) return wrong(`order ${order} at ${x} has the sign ${told}, not ${sign}`);
    }
  }
  return looks > 0 ? 'right' : null;
};

/** A value, and its exact form, lie within the bounds of what they are the value of. */
const ofValues: Judge = (body, [a, b], random, claims) => {
  const x = random.pick([a, b, (a + b) / 2, Number(between(random, a, b).toPrecision(3))]);
  const formula = closedFormula(body, new Map([['x', x]]));
  const { value, exact } = claims.toldValue(formula);
  const looked = jetAt(formula, 0, 1);
  if (!looked || !Number.isFinite(value)) return null;
  const trusted = exact ? 1e-13 : 1e-9;
  if (areApart(first(looked), about(value, Math.abs(value) * trusted + 1e-300)))
    return wrong(`the value at ${x} is not ${value}`);
  const form = exact && jetAt(exact, 0, 1);
  if (form && areApart(first(looked), first(form))) return wrong(`the exact value at ${x} is another`);
  return 'right';
};

/** An integral, or the area between curve and axis, lies within the bound that it is given. */
const ofArea =
  (isTotal: boolean): Judge =>
  (body, [a, b], _random, claims) => {
    const { value, bound, certainty, diverges } = claims.integral(body, 'x', [a, b], { isTotal });
    const looked = integralBetween(isTotal ? tree.call('abs', body) : body, a, b, 40);
    if (!looked) return null;
    if (diverges) return wrong('it is said to diverge, and is bounded');
    if (Number.isNaN(value) || certainty === 'estimated') return null;
    const error = bound + Math.abs(value) * 1e-13 + 1e-300;
    return areApart(looked, about(value, error)) ? wrong(`the integral is not ${value} ± ${bound}`) : 'right';
  };

const judges = {
  keyPoints: ofKeyPoints,
  solutions: ofSolutions,
  signs: ofSigns,
  values: ofValues,
  integrals: ofArea(false),
  areas: ofArea(true),
} as const;

export interface ClaimsTally {
  readonly tried: number;
  readonly right: number;
  readonly undecided: number;
  /** Questions whose claim is contradicted, with how. */
  readonly wrong: readonly string[];
}

export function fuzzClaims(random: Random, count: number): ClaimsTally {
  const tally = { tried: 0, right: 0, undecided: 0, wrong: [] as string[] };
  for (let i = 0; i < count; i++) {
    const question = randomQuestion(random);
    const verdict = judge(question, random);
    tally.tried++;
    if (verdict === 'right') tally.right++;
    else if (verdict === null) tally.undecided++;
    else
      tally.wrong.push(
        `${question.kind} of ${question.text} on [${question.on.join(', ')}]: ${verdict.wrong}`,
      );
  }
  return tally;
}
