import { evaluateAt, findFeatures, isDefinedBeside } from '@yperkine/core';
import {
  curveOf,
  decimalText,
  nearestDecimal,
  shownX,
  type CurveResult,
  type Id,
} from '@yperkine/demonstration';
import type { Workbench } from './workbench.ts';

/** Where a new study of a curve begins: on the window that is shown, and on the curve. */

/** A limit of an interval as a setting, in as many digits as one likes to read. */
export const limitText = (value: number): string => decimalText(nearestDecimal(value, 6));

/** Features that are looked through for the ends of where a curve is defined. */
const mostFeatures = 24;
/** Decimal places that matter in a window of width one. */
const seenPlaces = 9;

/** The window that is shown, or as much of it as the curve has values in. */
export function usualInterval(workbench: Workbench, on: Id): { readonly from: string; readonly to: string } {
  const { document, stage } = workbench.state;
  const shown = shownX(document, stage);
  const curve = curveOf(workbench.current(), on);
  // An edge found by search is the round number beside it: 0, not 2·10⁻¹⁷.
  const places = Math.max(0, seenPlaces - Math.floor(Math.log10(shown.to - shown.from)));
  const edges = (curve ? edgesOf(curve) : [])
    .map((x) => Number(x.toFixed(places)))
    .filter((x) => x >= shown.from && x <= shown.to);
  const opens = edges.find((x) => curve && isOneSided(curve, x, 'right'));
  const closes = [...edges].reverse().find((x) => curve && isOneSided(curve, x, 'left'));
  return {
    from: limitText(opens !== undefined && opens === edges[0] ? opens : shown.from),
    to: limitText(closes !== undefined && closes === edges.at(-1) ? closes : shown.to),
  };
}

const edgesOf = ({ program, parameters }: CurveResult): number[] =>
  findFeatures(program, parameters, mostFeatures)
    .filter(({ kind }) => kind === 'edge')
    .map(({ x }) => x);

/** Whether a curve is there on one side of a place alone. */
function isOneSided({ program, parameters }: CurveResult, x: number, side: 'left' | 'right'): boolean {
  const other = side === 'right' ? 'left' : 'right';
  return isDefinedBeside(program, x, side, parameters) && !isDefinedBeside(program, x, other, parameters);
}

/** Shares of its interval at which a new place on a curve is looked for, the best first. */
const placesTried = [0.7, 0.5, 0.3, 0.85, 0.15];

/** A place in a curve's usual interval at which it has a value. */
export function usualPlace(workbench: Workbench, on: Id): number {
  const [from, to] = usualEnds(workbench, on);
  const curve = curveOf(workbench.current(), on);
  const places = placesTried.map((share) => from + (to - from) * share);
  const isOnCurve = (x: number): boolean =>
    curve !== undefined && Number.isFinite(evaluateAt(curve.program, x, curve.parameters));
  return places.find(isOnCurve) ?? (places[0] as number);
}

/** The share of its usual interval that the step of a quotient may take up, so that a + h is on the curve, too. */
const shareOfStep = 0.3;

/** A power of ten for the step of a curve's quotients. */
export function usualStep(workbench: Workbench, on: Id): number {
  const [from, to] = usualEnds(workbench, on);
  return 10 ** Math.floor(Math.log10((to - from) * shareOfStep));
}

/** The ends of the usual interval as numbers. */
export function usualEnds(workbench: Workbench, on: Id): readonly [number, number] {
  const { from, to } = usualInterval(workbench, on);
  return [Number(from), Number(to)];
}
