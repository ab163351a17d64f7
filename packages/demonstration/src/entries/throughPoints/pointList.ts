import { rational, type ExactPoint, type Rational } from '@yperkine/core';
import { decimalText } from '../../numbers/slider.ts';

export type PointsReading =
  | { readonly ok: true; readonly points: readonly ExactPoint[] }
  | { readonly ok: false; readonly message: string };

export type PointReading =
  { readonly ok: true; readonly point: ExactPoint } | { readonly ok: false; readonly message: string };

const mostPoints = 40;
/** Two numbers in brackets, or on a line of their own as a spreadsheet copies them. */
const pair = /\(\s*([^(),;\s]+)\s*[,;]\s*([^(),;\s]+)\s*\)|^\s*([^(),;\s]+)[\t,; ]+([^(),;\s]+)\s*$/gm;

/**
 * Reads points as a person types them, (0, 1), (2, 3.5), or pastes them, two numbers a line. In ascending order of x.
 * What is wrong is said in one sentence.
 */
export function readPoints(text: string): PointsReading {
  const read = pairsIn(text);
  if (!read.ok) return read;
  const points = [...read.points];
  if (points.length < 2)
    return refused('A function through points needs at least two of them: (0, 1), (2, 3.5).');
  if (points.length > mostPoints)
    return refused(`A function through points takes at most ${mostPoints} of them.`);
  points.sort((p, q) => rational.compare(p.x, q.x));
  const twin = points.find((point, i) => i > 0 && rational.equals(point.x, (points[i - 1] as ExactPoint).x));
  if (twin)
    return refused(
      `Two points stand at x = ${decimalText(twin.x).replace('-', '−')}; a function has one value there.`,
    );
  return { ok: true, points };
}

/** Reads a single point: (3, 1). */
export function readPoint(text: string): PointReading {
  const read = pairsIn(text);
  if (!read.ok) return read;
  const [point, second] = read.points;
  return point && !second ? { ok: true, point } : refused('A point has two coordinates: (3, 1).');
}

function pairsIn(text: string): PointsReading {
  const points: ExactPoint[] = [];
  for (const [, a, b, c, d] of text.matchAll(pair)) {
    const [x, y] = [decimal(a ?? c ?? ''), decimal(b ?? d ?? '')];
    if (!x || !y) return refused(`“${!x ? (a ?? c ?? '') : (b ?? d ?? '')}” is not a number.`);
    points.push({ x, y });
  }
  const rest = text.replace(pair, '').replace(/[\s,;]+/g, '');
  return rest === ''
    ? { ok: true, points }
    : refused(`“${rest.slice(0, 20)}” is not understood: write points as (0, 1), (2, 3.5).`);
}

const refused = (message: string): { readonly ok: false; readonly message: string } => ({
  ok: false,
  message,
});

function decimal(text: string): Rational | null {
  return rational.parseDecimal(text.replace('−', '-'));
}

/** The points as they are typed. */
export const writePoints = (points: readonly ExactPoint[]): string =>
  points.map(({ x, y }) => `(${decimalText(x)}, ${decimalText(y)})`).join(', ');
