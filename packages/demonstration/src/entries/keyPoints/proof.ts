import type { AnswerTo } from '@yperkine/core';
import { format, formatBound, type RoundingRule } from '../../numbers/format.ts';
import type { StripPart } from '../../marks/mark.ts';
import { primed, type CurveResult } from '../curve.ts';

type Certificate = NonNullable<AnswerTo['keyPoints']['certificate']>;
type CheckedPart = Certificate['parts'][number];

/** A piece of a proof: neighbouring parts of a certificate that say the same. */
interface ProofPiece {
  readonly from: number;
  readonly to: number;
  readonly zeros: CheckedPart['zeros'];
  readonly sign: -1 | 0 | 1;
  readonly parts: readonly CheckedPart[];
  readonly word: string;
  readonly sentence: string;
}

/** Why a list is complete: pieces without a gap for one derivative, each with its reason. */
export interface Proof {
  /** 0 for zeros, 1 for highs and lows, 2 for changes of bend. */
  readonly above: number;
  readonly isAccepted: boolean;
  readonly pieces: readonly ProofPiece[];
}

/** The proof that is laid under the curve. */
export function proofOf(
  { isAccepted, parts }: Certificate,
  above: number,
  curve: CurveResult,
  rule: RoundingRule,
): Proof {
  const merged: CheckedPart[][] = [];
  for (const part of parts.filter((one) => one.above === above)) {
    const last = merged.at(-1);
    const before = last?.at(-1);
    const isSame = before?.zeros === part.zeros && before.sign === part.sign;
    const goesOn = isSame && before.to === part.from && !part.isAfterJoint && part.zeros !== 1;
    if (last && goesOn) last.push(part);
    else merged.push([part]);
  }
  const pieces = merged.map((group): ProofPiece => {
    const [first, last] = [group[0] as CheckedPart, group.at(-1) as CheckedPart];
    const piece = { from: first.from, to: last.to, zeros: first.zeros, sign: first.sign, parts: group };
    return {
      ...piece,
      word: wordOf(piece, curve.order + above),
      sentence: sentenceOf(piece, above, curve, rule),
    };
  });
  return { above, isAccepted, pieces };
}

type Piece = Omit<ProofPiece, 'word' | 'sentence'>;

const words: readonly (readonly [string, string, string])[] = [
  ['under the axis', 'on the axis', 'over the axis'],
  ['falls ↘', 'level →', 'rises ↗'],
  ['bends down (concave down)', 'straight', 'bends up (concave up)'],
];
const onlyOnes = ['one zero', 'one turn', 'one change of bend'] as const;
const noOnes = ['no zero', 'no turn', 'no change of bend'] as const;

/** What is said of f′ is said of the slope of f; of f″, of its bend. */
function wordOf({ zeros, sign, parts }: Piece, order: number): string {
  if (parts.some(({ shown }) => shown === null)) return 'not shown';
  if (zeros === 'nowhere') return 'no value';
  const about = Math.min(order, 2);
  if (zeros === 1) return onlyOnes[about] as string;
  if (zeros === 0 && sign === 0) return noOnes[about] as string;
  return words[about]?.[sign + 1] ?? '';
}

const hidden = ['no zero', 'no high and no low', 'no change of bend'] as const;

function sentenceOf(piece: Piece, above: number, curve: CurveResult, rule: RoundingRule): string {
  const { zeros, parts } = piece;
  const shower = primed(curve.name, curve.order + above);
  const [from, to] = [piece.from, piece.to].map((x) => format({ value: x, exact: null }, rule).text);
  const where = `For ${curve.variable} from ${from ?? ''} to ${to ?? ''}`;
  if (parts.some(({ shown }) => shown === null))
    return `${where} the second check could not show what the first one found.`;
  if (zeros === 'nowhere') return `${where} ${curve.name} has no value.`;
  if (zeros === 'all') return `${where} ${shower} is 0 throughout, as its formula shows.`;
  if (zeros === 1)
    return `${where} ${shower} is 0 exactly once, ${onceBecause(parts[0] as CheckedPart, shower)}.`;
  return `${where} ${neverBecause(parts, shower, rule)}: it cannot be 0 there, so ${hidden[Math.min(above, 2)] ?? ''} can hide.`;
}

function onceBecause({ shown }: CheckedPart, shower: string): string {
  switch (shown?.by) {
    case 'slope':
      return `since it only ${shown.rises ? 'rises' : 'falls'} there and changes its sign`;
    case 'count':
      return 'by counting the zeros of a polynomial (Sturm)';
    case 'multiplicity':
      return shown.multiplicity === 1
        ? 'at a number that is known, beside which it only rises or falls'
        : `at a number that is known, where ${shower} and ${shown.multiplicity - 1} of its derivatives are 0 and the next one nowhere`;
    default:
      return 'since one of its factors is, and the others never';
  }
}

function neverBecause(parts: readonly CheckedPart[], shower: string, rule: RoundingRule): string {
  const bounds = parts.flatMap(({ shown }) => (shown?.by === 'bounds' ? [shown] : []));
  if (bounds.length === parts.length) {
    const low = formatBound(Math.min(...bounds.map((bound) => bound.low)), 'down', rule);
    const high = formatBound(Math.max(...bounds.map((bound) => bound.high)), 'up', rule);
    if (low !== null && high !== null) return `${shower} lies between ${low} and ${high}`;
    return low === null ? `${shower} lies under ${high ?? '0'}` : `${shower} lies over ${low}`;
  }
  const [first] = parts;
  if (parts.length > 1 || !first?.shown)
    return `${shower} keeps away from 0 in each of ${parts.length} parts`;
  switch (first.shown.by) {
    case 'slope':
      return `${shower} only ${first.shown.rises ? 'rises' : 'falls'} and does not change its sign`;
    case 'count':
      return `${shower} has no zero, by counting the zeros of a polynomial (Sturm)`;
    case 'numerator':
      return `what stands above the fraction line of ${shower} keeps its sign`;
    case 'multiplicity':
      return `${shower} leaves its zero at the end and does not turn back`;
    default:
      return `none of the factors of ${shower} is 0`;
  }
}

/** Pieces as parts of a strip under the curve. */
export const stripOf = ({ pieces }: Proof, toX: (x: number) => number): StripPart[] =>
  pieces.map(({ from, to, zeros, sign, word, sentence }) => ({
    x0: toX(from),
    x1: toX(to),
    sign: zeros === 0 ? sign || null : 0,
    word,
    sentence,
  }));

/** That nothing is left out, in a sentence or two. */
export function summaryOf({ above, isAccepted, pieces }: Proof, curve: CurveResult): string {
  if (!isAccepted)
    return 'A second check could not show that these are all: the list is what the search found, and no more is claimed.';
  const shower = primed(curve.name, curve.order + above);
  const count = (n: number): string => (n === 1 ? 'one' : String(n));
  const once = pieces.filter(({ zeros }) => zeros === 1).length;
  const never = pieces.filter(({ zeros }) => zeros === 0).length;
  const parts = [
    ...(never > 0 ? [`on ${count(never)} of them ${shower} is never 0`] : []),
    ...(once > 0 ? [`on ${count(once)} exactly once`] : []),
  ];
  const cover = `The interval is covered by ${count(pieces.length)} ${pieces.length === 1 ? 'piece' : 'pieces'} without a gap`;
  return `${cover}${parts.length > 0 ? `: ${parts.join(', ')}` : ''}. Each was checked a second time by another way.`;
}
