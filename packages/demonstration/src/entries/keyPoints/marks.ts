import { knownNumber, type Asymptote } from '@yperkine/core';
import { format } from '../../numbers/format.ts';
import { lineMark } from '../../marks/lineMark.ts';
import type { Mark } from '../../marks/mark.ts';
import { dashes, toneOf } from '../../fields/tone.ts';
import type { TierView } from '../../marks/view.ts';
import type { PointShape } from '../../fields/look.ts';
import type { CurveResult } from '../curve.ts';
import { heightText } from './inWords.ts';
import type { FoundPoint } from './kinds.ts';

const shapes: Partial<Record<FoundPoint['kind'], PointShape>> = {
  endpoint: 'square',
  openEnd: 'ring',
  inflection: 'diamond',
  zero: 'ring',
  hole: 'ring',
};

/** Whether a zero is where an end of the function or a side of a jump is filled: a ring over it would look like a gap. */
export const isOnFilled = (point: FoundPoint, points: readonly FoundPoint[]): boolean =>
  point.kind === 'zero' &&
  points.some(({ kind, x, y }) => (kind === 'endpoint' || kind === 'jump') && x === point.x && y === point.y);

export function marksOf(
  id: string,
  point: FoundPoint,
  curve: CurveResult,
  tier: TierView,
  { hasLabel, isFilled }: { hasLabel: boolean; isFilled: boolean },
): Mark[] {
  const { kind, x, y } = point;
  const tone = toneOf(curve.order, curve.family);
  const px = tier.toX(x);
  if (kind === 'pole') {
    const { top, height } = tier.frame;
    const ends = { x0: px, y0: top, x1: px, y1: top + height };
    return [{ kind: 'line', entry: id, ...ends, tone: 'quiet', weight: 1.25, dash: dashes.dashed }];
  }
  const dotAt = (height: number, shape?: PointShape): Mark => ({
    kind: 'dot',
    entry: id,
    x: px,
    y: tier.toY(height),
    tone,
    ...(shape ? { shape } : {}),
  });
  const dots =
    kind === 'jump' ? jumpDots(point, dotAt) : y === null ? [] : [dotAt(y, isFilled ? 'disc' : shapes[kind])];
  const labelled = y ?? point.sides?.left?.value;
  if (!hasLabel || labelled === undefined || dots.length === 0) return dots;
  const text = `(${format(knownNumber(x), tier.rule).text}, ${heightText(point, tier.rule)})`;
  return [...dots, { kind: 'label', x: px, y: tier.toY(labelled), tone, text, isSpare: true }];
}

/** Of a jump: its value filled, and open the limits that are not its value. */
function jumpDots({ y, sides }: FoundPoint, dotAt: (height: number, shape?: PointShape) => Mark): Mark[] {
  const limits = [sides?.left, sides?.right].flatMap((side) => (side ? [side.value] : []));
  const open = limits.filter((limit) => limit !== y).map((limit) => dotAt(limit, 'ring'));
  return y === null ? open : [...open, dotAt(y)];
}

/** A level or slanting asymptote, dashed like the vertical ones. */
export const asymptoteMark = (id: string, { slope, intercept }: Asymptote, tier: TierView): Mark => ({
  ...lineMark(id, { x: 0, y: intercept.value }, slope.value, tier, 'quiet'),
  weight: 1.25,
  dash: dashes.dashed,
});
