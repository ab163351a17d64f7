import { enclose } from '../evaluate/enclosures.ts';
import type { Expression } from '../language/tree.ts';
import { limitOfFormula } from '../limit/growth/limitOfFormula.ts';
import type { SignedStretch } from './arcs.ts';
import type { Located, Place } from './place.ts';
import { programOf } from './programs.ts';
import { signs } from './signs.ts';

/** What a stretch of a graph does. */
export type Behaviour = 'rises' | 'falls' | 'bendsUp' | 'bendsDown' | 'isLevel' | 'isStraight';
type Feature = 'maximum' | 'minimum' | 'inflection';

/** Something read off the graph of a derivative, with its reason. */
export type Finding =
  | {
      readonly kind: 'stretch';
      /** About which derivative of f it speaks; 0 for f itself. */
      readonly of: number;
      readonly behaviour: Behaviour;
      readonly from: Located;
      readonly to: Located;
      /** The derivative of f that shows it, and its sign. */
      readonly reason: { readonly derivative: number; readonly sign: -1 | 0 | 1 };
    }
  | {
      readonly kind: 'feature';
      readonly of: number;
      readonly feature: Feature;
      readonly at: Located;
      /** The derivative of f that changes its sign there. */
      readonly reason: { readonly derivative: number; readonly before: -1 | 1; readonly after: -1 | 1 };
    }
  | Extremes;

/** Where on the interval something is greatest and least, by the areas under its derivative. */
export interface Extremes {
  readonly kind: 'extremes';
  readonly of: number;
  /** The derivative of f whose areas show it. */
  readonly derivative: number;
  readonly greatest: Located;
  readonly least: Located;
  /** By how much it rises (or, with a minus, falls) from one turn to the next. */
  readonly changes: readonly { readonly from: Located; readonly to: Located; readonly by: number }[];
}

/**
 * Reads the graph of f⁽ᵏ⁾ as one of f and f′. From f′: where f rises and falls and where its extrema are, and, as
 * f′ itself rises and falls, where f bends and has its inflections. From f″: where f bends and has inflections,
 * and the same about f′ one order lower; from f‴ only what concerns f′.
 * @param body the formula of f⁽ᵏ⁾, in the variable alone
 * @param order k: 1, 2 or 3
 */
export function readFromDerivative(
  body: Expression,
  variable: string,
  interval: readonly [number, number],
  order: 1 | 2 | 3,
): { readonly findings: readonly Finding[]; readonly complete: boolean } {
  const own = signs(body, variable, interval, 0);
  const next = signs(body, variable, interval, 1);
  const isBounded = (place: Place): boolean => isBoundedAt(body, variable, place);
  const about = (derivative: number, stretches: readonly SignedStretch[]): Finding[] =>
    [0, 1].flatMap((of) => findings(of, derivative, stretches, isBounded));
  return {
    findings: [...about(order, own.intervals), ...about(order + 1, next.intervals)],
    complete: own.complete && next.complete,
  };
}

const behaviours: readonly (readonly [Behaviour, Behaviour, Behaviour])[] = [
  ['falls', 'isLevel', 'rises'],
  ['bendsDown', 'isStraight', 'bendsUp'],
];

/** Whether a function keeps within bounds on both sides of a place: what is integrated over a pole need not go on. */
export function isBoundedAt(body: Expression, variable: string, place: Place): boolean {
  const around = enclose(programOf(body, variable), place.low, place.high);
  if (around.sure && Number.isFinite(around.low) && Number.isFinite(around.high)) return true;
  const target = place.exact ? { exact: place.exact } : { ball: place.ball, isZero: () => false };
  return ([-1, 1] as const).every((side) => {
    const limit = limitOfFormula(body, { variable, target, side });
    return limit !== null && limit !== 'undecided' && limit.kind === 'finite';
  });
}

/** What the signs of f⁽ᵐ⁾ say about f⁽ⁿ⁾: monotony where m = n + 1, bending where m = n + 2. */
function findings(
  of: number,
  derivative: number,
  stretches: readonly SignedStretch[],
  isBounded: (place: Place) => boolean,
): Finding[] {
  const words = behaviours[derivative - of - 1];
  if (!words) return [];
  const found: Finding[] = [];
  stretches.forEach(({ from, to, sign }, i) => {
    const before = stretches[i - 1];
    if (before?.to === from && before.sign * sign === -1 && isBounded(from)) {
      found.push({
        kind: 'feature',
        of,
        feature: derivative - of === 2 ? 'inflection' : sign < 0 ? 'maximum' : 'minimum',
        at: from,
        reason: { derivative, before: before.sign as -1 | 1, after: sign as -1 | 1 },
      });
    }
    found.push({
      kind: 'stretch',
      of,
      behaviour: words[sign + 1] as Behaviour,
      from,
      to,
      reason: { derivative, sign },
    });
  });
  return found;
}

const behaviourWords: Readonly<Record<Behaviour, string>> = {
  rises: 'rises',
  falls: 'falls',
  bendsUp: 'bends up (concave up)',
  bendsDown: 'bends down (concave down)',
  isLevel: 'is level',
  isStraight: 'is straight',
};
const featureWords: Readonly<Record<Feature, string>> = {
  maximum: 'a local maximum',
  minimum: 'a local minimum',
  inflection: 'an inflection point',
};
const signWord = (sign: number): string => (sign > 0 ? 'positive' : sign < 0 ? 'negative' : 'zero');
const primed = (name: string, order: number): string => name + (['', '′', '″', '‴'][order] ?? `⁽${order}⁾`);

/**
 * A finding as a sentence: "f has a local maximum at x = 2, because f′ changes from positive to negative there."
 * @param write a place or a size as it is to be shown
 */
export function findingSentence(
  finding: Finding,
  name: string,
  variable: string,
  write: (number: Pick<Located, 'value' | 'exact'>) => string,
): string {
  const subject = primed(name, finding.of);
  if (finding.kind === 'extremes')
    return extremesSentence(finding, subject, primed(name, finding.derivative), variable, write);
  const shower = primed(name, finding.reason.derivative);
  if (finding.kind === 'stretch') {
    const where = `for ${variable} from ${write(finding.from)} to ${write(finding.to)}`;
    return `${subject} ${behaviourWords[finding.behaviour]} ${where}, because ${shower} is ${signWord(finding.reason.sign)} there.`;
  }
  const { before, after } = finding.reason;
  return `${subject} has ${featureWords[finding.feature]} at ${variable} = ${write(finding.at)}, because ${shower} changes from ${signWord(before)} to ${signWord(after)} there.`;
}

/** More turns than these are not told one by one. */
const mostTold = 6;

function extremesSentence(
  { greatest, least, changes }: Extremes,
  subject: string,
  shower: string,
  variable: string,
  write: (number: Pick<Located, 'value' | 'exact'>) => string,
): string {
  const told = changes.slice(0, mostTold).map(({ from, to, by }) => {
    const way = by < 0 ? 'falls' : by > 0 ? 'rises' : 'changes';
    return `${way} by ${write({ value: Math.abs(by), exact: null })} from ${write(from)} to ${write(to)}`;
  });
  const rest = changes.length > mostTold ? [...told, 'and so on'] : told;
  return `${subject} is greatest at ${variable} = ${write(greatest)} and least at ${variable} = ${write(least)}: by the areas under ${shower} it ${rest.join(', ')}.`;
}
