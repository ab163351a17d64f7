import { latexFunction, latexName } from '@yperkine/core';
import { kindOf } from '../schema/anyKind.ts';
import { primed, type CurveResult } from '../entries/curve.ts';
import { curveOf, curvesDrawn, isShown } from '../resolve/resolve.ts';
import type { Resolution } from '../resolve/resolution.ts';
import type { Document, Entry, Id } from '../schema/document.ts';
import { unitText, type Unit } from '../units/unit.ts';
import type { Mark } from '../marks/mark.ts';
import { toneOf, type Tone } from '../fields/tone.ts';

export interface TierTitle {
  /** Every curve of the tier, each in its own tone. */
  readonly names: readonly { readonly latex: string; readonly tone: Tone }[];
  /** What the tier shows, in words. */
  readonly words: string;
}

/** One line of a key: how a line looks, and which one it is. */
export interface KeyLine {
  readonly entry: Id;
  readonly tone: Tone;
  readonly dash: readonly number[];
  /** Its name as LaTeX, for a function. */
  readonly latex: string | null;
  readonly words: string;
}

export interface DrawnCurve {
  readonly id: Id;
  readonly curve: CurveResult;
  readonly tone: Tone;
}

/** The curves that are drawn in a tier, in the order of the working, each in the colour that it wears. */
export function curvesIn(resolution: Resolution, tier: Id): DrawnCurve[] {
  return [...resolution.entries.values()].flatMap(({ id, entry }) => {
    const curves = isShown(resolution, id) ? curvesDrawn(resolution, id) : [];
    return curves
      .filter((curve) => curve.tier === tier)
      .map((curve) => ({ id, curve, tone: toneOfCurve(entry, curve) }));
  });
}

/** The colour of a curve: that of its family and order, or one of its own. */
const toneOfCurve = ({ look }: Entry, { order, family }: CurveResult): Tone =>
  look.tone ?? toneOf(order, family);

/** Which line of a tier is which: every curve, and every straight line of a study. */
export function keyOf(resolution: Resolution, tier: Id, marks: readonly Mark[]): KeyLine[] {
  const lines = new Map<Id, KeyLine>();
  for (const mark of marks) {
    if ((mark.kind !== 'curve' && mark.kind !== 'line') || lines.has(mark.entry)) continue;
    const { entry, tone, dash } = mark;
    const resolved = resolution.entries.get(entry);
    if (!resolved) continue;
    const here = curvesDrawn(resolution, entry).find((curve) => curve.tier === tier);
    const curve = here ?? curveOf(resolution, entry);
    const result = resolved.outcome.ok ? resolved.outcome.result : undefined;
    const words = curve ? '' : kindOf(resolved.entry).head(resolved.entry, result).heading;
    lines.set(entry, { entry, tone, dash, latex: curve ? latexOf(curve) : null, words });
  }
  return [...lines.values()];
}

const latexOf = ({ name, order, variable, title }: CurveResult): string =>
  title ?? `${latexFunction(name, order)}(${latexName(variable)})`;

/** "t in min", or the typed title with the unit; nothing where there is neither. */
export function xTitleOf({ xTitle }: Document, resolution: Resolution): string {
  const { entries, xUnit } = resolution;
  const typed = xTitle.trim();
  if (typed === '' && xUnit.size === 0) return '';
  const curves = [...entries.keys()].map((id) => curveOf(resolution, id));
  return inUnit(typed || (curves.find((curve) => curve !== undefined)?.variable ?? 'x'), xUnit);
}

const inUnit = (words: string, unit: Unit): string =>
  [words, unit.size === 0 ? '' : `in ${unitText(unit)}`].filter((part) => part !== '').join(' ');

export function titleOf(curves: readonly DrawnCurve[], typed: string): TierTitle | null {
  const curve = curves[0]?.curve;
  if (!curve) return null;
  const names = curves.map(({ curve: drawn, tone }) => ({ latex: latexOf(drawn), tone }));
  const isOne = curves.length === 1 && curve.order > 0;
  const usual = isOne ? `slope of ${primed(curve.name, curve.order - 1)}` : '';
  return { names, words: inUnit(typed.trim() || usual, curve.unit) };
}
