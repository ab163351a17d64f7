import { canonical } from '../algebra/canonical.ts';
import { derivativeOf } from '../algebra/differentiate.ts';
import { isTooLarge } from '../budget/tooLarge.ts';
import { shortest } from '../algebra/shortest.ts';
import { programOf } from '../analysis/programs.ts';
import { Zeros } from '../analysis/zeros.ts';
import { isBounded } from '../evaluate/enclosedArea.ts';
import { enclose } from '../evaluate/enclosures.ts';
import * as intervals from '../numbers/interval.ts';
import type { Interval } from '../numbers/interval.ts';
import { evaluateAt } from '../values/values.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { signOfConstant } from '../limit/constantSign.ts';
import { limitOfFormula } from '../limit/growth/limitOfFormula.ts';
import type { Wave, WaveTerm } from './waves.ts';

/** How often a tail is integrated by parts. */
const steps = 6;
/** How far the argument of a wave has to have come, so that what is left after that is next to nothing. */
const farArgument = 256;
/** Doublings in which it has to come there. */
const mostDoublings = 24;

/** A power of 2 beyond a number from which on the tails of waves are small; null where a wave is too slow. */
export function startOfTail(waves: readonly Wave[], variable: string, least: number): number | null {
  const first = 2 ** Math.max(0, Math.ceil(Math.log2(Math.max(1, least))));
  let start = first;
  for (const { argument } of waves) {
    const phase = programOf(argument, variable);
    const before = evaluateAt(phase, first);
    let doublings = 0;
    while (!(Math.abs(evaluateAt(phase, start) - before) >= farArgument)) {
      if (++doublings > mostDoublings) return null;
      start *= 2;
    }
  }
  return start;
}

/**
 * Bounds of ∫ A sin φ, or of ∫ A cos φ, from a number to ∞: by parts, with (A/φ′)′ in place of A each time. Where the last
 * amplitude keeps its sign, the rest is at most as large as the integral of it, which is known.
 * Source: Olver, Asymptotics and Special Functions (1974), chapter 3, section 2; from memory.
 * @returns null where an amplitude does not tend to 0, or changes its sign
 */
export function boundsOfTail(
  { amplitude, wave }: WaveTerm & { wave: Wave },
  variable: string,
  from: number,
): Interval | null {
  const slope = derivativeOf(wave.argument, variable);
  const at = (formula: Expression): Interval => enclose(programOf(formula, variable), from, from);
  const [sine, cosine] = (['sin', 'cos'] as const).map((name) => at(tree.call(name, wave.argument))) as [
    Interval,
    Interval,
  ];
  let total = intervals.exactly(0);
  let isSine = wave.name === 'sin';
  let sign = 1;
  let factor = amplitude;
  try {
    for (let step = 1; step <= steps; step++) {
      const height = short(tree.divide(factor, slope));
      if (!tendsToZero(height, variable)) return null;
      // ∫ A sin φ = (A/φ′) cos φ + ∫ (A/φ′)′ cos φ, and ∫ A cos φ = −(A/φ′) sin φ − ∫ (A/φ′)′ sin φ.
      if (!isSine) sign = -sign;
      const edge = intervals.multiply(at(height), isSine ? cosine : sine);
      total = intervals.add(total, sign > 0 ? edge : intervals.negate(edge));
      factor = short(derivativeOf(height, variable));
      isSine = !isSine;
      if (step < steps) continue;
      if (!keepsSign(factor, variable, from)) return null;
      const { low, high } = at(height);
      const reach = Math.max(Math.abs(low), Math.abs(high));
      total = intervals.add(total, { low: -reach, high: reach, sure: true });
    }
  } catch (error) {
    if (isTooLarge(error)) return null;
    throw error;
  }
  return total.sure && isBounded(total) ? total : null;
}

const short = (formula: Expression): Expression => shortest(canonical(formula), 'fraction');

function tendsToZero(formula: Expression, variable: string): boolean {
  const limit = limitOfFormula(formula, { variable, target: 1, side: -1 });
  return (
    limit !== null &&
    limit !== 'undecided' &&
    limit.kind === 'finite' &&
    !tree.mentioned(limit.exact).names.size &&
    signOfConstant(limit.exact) === 0
  );
}

/** Whether a formula is shown to have no zero and no break from a number above 0 on. */
function keepsSign(formula: Expression, variable: string, from: number): boolean {
  const turned = short(tree.substitute(formula, variable, tree.divide(tree.number(1), tree.name(variable))));
  const { roots, breaks, undecided, isZero } = new Zeros(variable, 0, 1 / from).of(turned);
  const isInside = ({ low, high }: { low: number; high: number }): boolean => low > 0 || high > 0;
  return isZero || ![...roots, ...breaks, ...undecided].some(isInside);
}
