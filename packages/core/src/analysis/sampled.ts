import { compile, type Program } from '../evaluate/program.ts';
import { derivativesAt } from '../values/jets.ts';
import { signChange } from '../evaluate/signChange.ts';
import type { Expression } from '../language/tree.ts';
import type { Box } from './isolate.ts';
import type { KeyPoint, KeyPointKind } from './keyPoints.ts';

/** Looks over all undecided parts together, and points of one kind that are told of each part. */
const looksInAll = 2000;
const mostOfKind = 12;
/** A change of sign of f shows a zero, of f′ an extremum, of f″ an inflection. */
const showing = [0, 1, 2] as const;
type Showing = (typeof showing)[number];

/**
 * Zeros, extrema and inflections in the parts of an interval in which nothing could be proved, by changes of sign
 * between samples. Found by search: what lies between two samples may be missed.
 * @param order which derivative of the body is looked at
 */
export function sampledKeyPoints(
  body: Expression,
  variable: string,
  order: number,
  parts: readonly Box[],
): KeyPoint[] {
  if (parts.length === 0) return [];
  const program = compile(body, variable);
  const looks = Math.max(8, Math.floor(looksInAll / parts.length));
  return parts.flatMap((part) => showing.flatMap((by) => changes(program, order, by, part, looks)));
}

function changes(
  program: Program,
  order: number,
  by: Showing,
  { low, high }: Box,
  looks: number,
): KeyPoint[] {
  const height = (x: number): number => derivativesAt(program, x, order + by)[order + by] ?? NaN;
  const found: KeyPoint[] = [];
  /** The last look with a sign: one that meets a zero itself has none. */
  let before = { x: low, y: height(low) };
  for (let i = 1; i <= looks && found.length < mostOfKind; i++) {
    const x = low + ((high - low) * i) / looks;
    const now = { x, y: height(x) };
    if (now.y === 0) continue;
    if (before.y * now.y < 0) {
      const at = signChange(height, before.x, x);
      // Through a pole a sign changes, too.
      const isPole = Math.abs(height(at)) > Math.max(Math.abs(before.y), Math.abs(now.y));
      const y = by === 0 ? 0 : (derivativesAt(program, at, order)[order] ?? NaN);
      if (!isPole && Number.isFinite(y)) found.push(searched(kindOf(by, now.y), at, y));
    }
    before = now;
  }
  return found;
}

function kindOf(by: Showing, after: number): KeyPointKind {
  if (by === 0) return 'zero';
  if (by === 2) return 'inflection';
  return after < 0 ? 'maximum' : 'minimum';
}

const searched = (kind: KeyPointKind, x: number, y: number): KeyPoint => ({
  kind,
  x,
  y,
  exact: null,
  proved: false,
  ...(kind === 'maximum' || kind === 'minimum' ? { absolute: null } : {}),
});
