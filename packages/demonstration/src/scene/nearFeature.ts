import { derivativesAt, evaluateAt, signChange } from '@yperkine/core';
import { curveOf } from '../resolve/resolve.ts';
import type { Resolution } from '../resolve/resolution.ts';
import type { Id } from '../schema/document.ts';
import type { CurveResult } from '../entries/curve.ts';
import { curvesIn } from './titles.ts';
import type { TierView } from '../marks/view.ts';

/** A high, low or zero of a curve, or a crossing with another one, near a pixel: found by search, to be shown at once. */
export interface NearFeature {
  readonly kind: 'maximum' | 'minimum' | 'zero' | 'crossing';
  readonly x: number;
  readonly y: number;
  /** The curve that it crosses. */
  readonly other: Id | null;
  /** How far on either side nothing else of its kind was seen. */
  readonly room: number;
}

/** Pixels to either side that are looked at, and places looked at in them. */
const reach = 16;
const looks = 32;
/** Decimal places of a round number, for a reach of one. */
const roundPlaces = 9;

type Height = (x: number) => number;

/** The feature of a curve nearest to an x, within a finger's reach; null where there is none. */
export function featureNear(
  resolution: Resolution,
  view: TierView,
  entry: Id,
  x: number,
): NearFeature | null {
  const curve = curveOf(resolution, entry);
  if (!curve) return null;
  const { program, parameters } = curve;
  const value = heightOf(curve);
  const slope: Height = (at) => derivativesAt(program, at, 1, parameters)[1] ?? NaN;
  const found = [
    ...changesOf(slope, view, x).map(({ at, rises }) => ({
      kind: rises ? ('minimum' as const) : ('maximum' as const),
      at,
      other: null,
    })),
    ...changesOf(value, view, x).map(({ at }) => ({ kind: 'zero' as const, at, other: null })),
    ...curvesIn(resolution, view.id)
      .filter(({ id, curve: other }) => id !== entry && other === curveOf(resolution, id))
      .flatMap(({ id, curve: other }) => {
        const height = heightOf(other);
        return changesOf((at) => value(at) - height(at), view, x).map(({ at }) => ({
          kind: 'crossing' as const,
          at,
          other: id,
        }));
      }),
  ];
  const features = found.flatMap(({ kind, at, other }): NearFeature[] => {
    const y = kind === 'zero' ? 0 : value(at);
    const twin = found.filter((one) => one.kind === kind && one.at !== at);
    const room = Math.min(...twin.map((one) => Math.abs(one.at - at) / 2), Infinity);
    return Number.isFinite(y) ? [{ kind, x: at, y, other, room }] : [];
  });
  return features.sort((a, b) => Math.abs(a.x - x) - Math.abs(b.x - x))[0] ?? null;
}

const heightOf =
  ({ program, parameters }: CurveResult): Height =>
  (x) =>
    evaluateAt(program, x, parameters);

/** Where a height changes its sign near an x, poles left out. */
function changesOf(height: Height, view: TierView, x: number): { at: number; rises: boolean }[] {
  const half = reach / view.pixelsPerX;
  const places = Array.from({ length: looks + 1 }, (_, i) => x - half + (2 * half * i) / looks);
  return places.slice(1).flatMap((b, i) => {
    const a = places[i] as number;
    const [left, right] = [height(a), height(b)];
    if (right === 0) return [{ at: b, rises: left < 0 }];
    if (!(left * right < 0)) return [];
    const at = rounded(height, signChange(height, a, b), half);
    const isPole = Math.abs(height(at)) > Math.abs(left) + Math.abs(right);
    return isPole ? [] : [{ at, rises: right > 0 }];
  });
}

/** A round number, for what is seen, is the place itself where the sign changes at it. */
function rounded(height: Height, at: number, half: number): number {
  const places = Math.min(15, Math.max(0, Math.ceil(roundPlaces - Math.log10(half))));
  // Adding 0 makes −0 the 0 that it is.
  const round = Number(at.toFixed(places)) + 0;
  return Math.abs(height(round)) <= Math.abs(height(at)) ? round : at;
}
