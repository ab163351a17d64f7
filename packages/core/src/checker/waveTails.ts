import * as tree from '../language/tree.ts';
import type { CallNode, Expression } from '../language/tree.ts';
import { evaluate } from './evaluate.ts';
import * as f from './functions.ts';
import { Growths, type Growth } from './growth.ts';
import { GrowthJets } from './growthJets.ts';
import { derivativeWrittenOut, isIdenticallyZero } from './identities.ts';
import * as jets from './jets.ts';
import type { Jet } from './jets.ts';
import { wholeNumber } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';
import { divided } from './quotients.ts';

/** A summand: an envelope alone, or times the sine or cosine of an argument that grows evenly. */
interface Summand {
  readonly envelope: Expression;
  readonly wave: CallNode | null;
}

const half = tree.divide(tree.number(1), tree.number(2));
const highestPower = 4;

/** A formula as a sum of envelopes with a wave each; null where it is none. */
export function wavesIn(node: Expression, variable: string): Summand[] | null {
  const inner = (part: Expression): Summand[] | null => wavesIn(part, variable);
  if (!hasWave(node, variable)) return [{ envelope: node, wave: null }];
  switch (node.kind) {
    case 'negate':
      return inner(node.operand)?.map(negated) ?? null;
    case 'add':
    case 'subtract': {
      const [u, v] = [inner(node.left), inner(node.right)];
      return u && v && [...u, ...(node.kind === 'subtract' ? v.map(negated) : v)];
    }
    case 'multiply': {
      const [u, v] = [inner(node.left), inner(node.right)];
      const products = u && v && u.flatMap((one) => v.flatMap((other) => product(one, other)));
      return products?.map((one) => withoutStandingWave(one, variable)) ?? null;
    }
    case 'divide': {
      const u = hasWave(node.right, variable) ? null : inner(node.left);
      return u?.map(({ envelope, wave }) => ({ envelope: tree.divide(envelope, node.right), wave })) ?? null;
    }
    case 'power': {
      const count = wholeNumber(node.exponent) ?? 0;
      if (count === 1) return inner(node.base);
      if (count < 1 || count > highestPower) return null;
      return inner(tree.multiply(node.base, tree.power(node.base, tree.number(count - 1))));
    }
    case 'call':
      return isWave(node) ? [{ envelope: tree.number(1), wave: node }] : null;
    default:
      return null;
  }
}

const isWave = (node: Expression): node is CallNode =>
  node.kind === 'call' && (node.name === 'sin' || node.name === 'cos');
const hasWave = (node: Expression, variable: string): boolean =>
  (node.kind === 'call' && !smooth.has(node.name) && tree.dependsOn(node, variable)) ||
  tree.children(node).some((child) => hasWave(child, variable));
const negated = ({ envelope, wave }: Summand): Summand => ({ envelope: tree.negate(envelope), wave });

/** Functions of which an envelope may be made. */
const smooth = new Set(['exp', 'ln', 'sqrt', 'arctan']);

/** 2 sin a sin b = cos(a − b) − cos(a + b) and its kin. */
function product(u: Summand, v: Summand): Summand[] {
  const envelope = tree.multiply(u.envelope, v.envelope);
  if (!u.wave || !v.wave) return [{ envelope, wave: u.wave ?? v.wave }];
  const [a, b] = [u.wave.arguments[0], v.wave.arguments[0]] as [Expression, Expression];
  const [isSine, isOtherSine] = [u.wave.name === 'sin', v.wave.name === 'sin'];
  const name = isSine === isOtherSine ? 'cos' : 'sin';
  const [difference, sum] = [isSine ? tree.subtract(a, b) : tree.subtract(b, a), tree.add(a, b)];
  const halved = tree.multiply(half, envelope);
  const isTurned = isSine && isOtherSine;
  return [
    { envelope: halved, wave: tree.call(name, difference) },
    { envelope: isTurned ? tree.negate(halved) : halved, wave: tree.call(name, sum) },
  ];
}

/** A wave whose argument does not change is a number. */
function withoutStandingWave({ envelope, wave }: Summand, variable: string): Summand {
  const argument = wave?.arguments[0];
  const slope = argument && derivativeWrittenOut(argument, variable, 1);
  if (!wave || !argument || !slope || !isIdenticallyZero(slope)) return { envelope, wave };
  const there = tree.call(wave.name, tree.substitute(argument, variable, tree.number(0)));
  return { envelope: tree.multiply(envelope, there), wave: null };
}

/** How often the envelope is differentiated. */
const rounds = 14;

/** How fast the argument of a wave changes at a number; null where that is not known. */
export function rateAt({ wave }: Summand, variable: string, x: number): Range | null {
  const slope = wave?.arguments[0] && derivativeWrittenOut(wave.arguments[0], variable, 1);
  const course = slope && evaluate(slope, variable, n.point(n.fromDouble(x)), 1)[0];
  return (course && divided(course)[0]) ?? null;
}

/**
 * Bounds of ∫ g sin φ dx, or with cos, from a number on to ∞: by parts, with h₀ = g/φ′ and hₖ₊₁ = hₖ′/φ′, so that ∫ |hₘ′| is
 * left. That φ′ keeps its sign, that the h fall to 0, and what is left, is told by their growth.
 * @param start a power of 2, so that its reciprocal is exact
 */
export function waveTail({ envelope, wave }: Summand, variable: string, start: number): Range | null {
  const phase = wave?.arguments[0];
  const slope = phase && derivativeWrittenOut(phase, variable, 1);
  if (!wave || !phase || !slope) return null;
  const size = leftAfterRounds(envelope, phase, slope, variable, start);
  if (!size) return null;
  const x = n.point(n.fromDouble(start));
  const at = (formula: Expression, length: number): Jet | null => {
    const course = evaluate(formula, variable, x, length)[0];
    return course ? divided(course) : null;
  };
  const [angle, above, below] = [at(phase, 1)?.[0], at(envelope, rounds), at(slope, rounds)];
  if (!angle || !above || !below) return null;
  // ∫ g sin φ = h₀ cos φ + ∫ h₀′ cos φ and ∫ g cos φ = −h₀ sin φ − ∫ h₀′ sin φ, the rest at the beginning.
  let [total, h, sign] = [size, jets.divide(above, below), n.whole(1)];
  let isSine = wave.name === 'sin';
  for (let k = 0; k < rounds; k++) {
    const edge = n.multiply(h[0] as Range, isSine ? f.cos(angle) : n.negate(f.sin(angle)));
    total = n.add(total, n.multiply(edge, sign));
    if (!isSine) sign = n.negate(sign);
    isSine = !isSine;
    const rise = h.slice(1).map((coefficient, i) => n.multiply(coefficient, n.whole(i + 1)));
    h = jets.divide(rise, below);
  }
  return total;
}

/** Bounds, of either sign, of ∫ |hₘ′| from a number on to ∞; null where the h before are not shown to fall to 0. */
function leftAfterRounds(
  envelope: Expression,
  phase: Expression,
  slope: Expression,
  variable: string,
  start: number,
): Range | null {
  const growths = new Growths(variable, 1 / start);
  // Its derivative may have values where it has none itself: of (√u)² it is u′.
  if (!growths.of(turnedRound(phase, variable))) return null;
  const growing = new GrowthJets(growths, variable, rounds + 1);
  const [above, rate] = [growing.of(envelope), growing.of(slope)];
  const below = rate && growing.reciprocal(rate);
  let h = above && below && growing.product(above, below);
  for (let k = 0; k < rounds && h && below; k++) {
    if (!growths.vanishes(h[0] as Growth)) return null;
    const rise = h.slice(1).map((one, i) => ({ ...one, range: n.multiply(one.range, n.whole(i + 1)) }));
    if (k === rounds - 1) return eitherSign(areaOf(growths, rise[0] as Growth));
    h = growing.product(rise, below);
  }
  return null;
}

const turnedRound = (formula: Expression, variable: string): Expression =>
  tree.substitute(formula, variable, tree.divide(tree.number(1), tree.name(variable)));

/** With t = 1/x: ∫ f dx is ∫ f/t² dt. */
const areaOf = (growths: Growths, growth: Growth): Range | null => {
  const { p, q } = growth.power;
  return growths.area({ ...growth, power: { p: p - 2 * q, q } });
};
const eitherSign = (x: Range | null): Range | null => x && n.hull(x, n.negate(x));
