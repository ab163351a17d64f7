import { compile, type Program } from '../evaluate/program.ts';
import { derivativesAt } from '../evaluate/jets.ts';
import type { Expression } from '../language/tree.ts';
import type { Box } from './isolate.ts';
import type { KeyPoint, KeyPointKind } from './keyPoints.ts';

/** Looks over all undecided parts together, and points that are told of each part. */
const looksInAll = 2000;
const mostInPart = 12;
const halvings = 60;
/** The derivative whose change of sign shows a kind. */
const shownBy = ['zero', 'extremum', 'inflection'] as const;

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
  return parts.flatMap(({ low, high }) =>
    shownBy.flatMap((_, k) => changes(program, order, k, low, high, looks)).slice(0, mostInPart),
  );
}

function changes(
  program: Program,
  order: number,
  k: number,
  low: number,
  high: number,
  looks: number,
): KeyPoint[] {
  const height = (x: number): number => derivativesAt(program, x, order + k)[order + k] ?? NaN;
  const found: KeyPoint[] = [];
  let before = { x: low, y: height(low) };
  for (let i = 1; i <= looks && found.length < mostInPart; i++) {
    const x = low + ((high - low) * i) / looks;
    const now = { x, y: height(x) };
    if (before.y * now.y < 0) {
      const at = halved(height, before.x, x);
      // Through a pole a sign changes, too.
      if (Math.abs(height(at)) <= Math.max(Math.abs(before.y), Math.abs(now.y))) {
        const y = derivativesAt(program, at, order)[order] ?? NaN;
        if (Number.isFinite(y)) found.push(searched(kindOf(k, now.y), at, k === 0 ? 0 : y));
      }
    }
    before = now;
  }
  return found;
}

const kindOf = (k: number, after: number): KeyPointKind =>
  k === 0 ? 'zero' : k === 2 ? 'inflection' : after < 0 ? 'maximum' : 'minimum';

const searched = (kind: KeyPointKind, x: number, y: number): KeyPoint => ({
  kind,
  x,
  y,
  exact: null,
  proved: false,
  ...(kind === 'maximum' || kind === 'minimum' ? { absolute: null } : {}),
});

function halved(height: (x: number) => number, a: number, b: number): number {
  let [low, high] = [a, b];
  const sign = Math.sign(height(low));
  for (let i = 0; i < halvings; i++) {
    const middle = (low + high) / 2;
    if (Math.sign(height(middle)) === sign) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
