import { derivativesAt, evaluateAt } from '@yperkine/core';
import {
  curveOf,
  lastOrder,
  makeEntry,
  newTier,
  parameterOf,
  type CurveResult,
  type Edit,
  type Id,
} from '@yperkine/demonstration';
import { added, freeName, newId, nextFamily } from '../../../state/actions.ts';
import { placeParameter } from '../../../state/studies.ts';
import { limitText, usualEnds, usualInterval } from '../../../state/usualInterval.ts';
import type { Workbench } from '../../../state/workbench.ts';

/** Letters that an approximation takes. */
const letters = 'LTABGH';
/** How far from the place of the tangent function and line are compared first, as a share of the interval. */
const shareBeside = 0.12;
/** How much it may be off at first, as a share of the heights that are shown. */
const shareOff = 0.02;
/** What the window of the difference shows: so many tolerances, and so much more than the first difference. */
const tolerancesShown = 4;
const moreThanOff = 1.4;

/** The linear approximation of a curve at a place, compared at a second one, with the difference on a tier of its own. */
export function addLinearApproximation(workbench: Workbench, on: Id, at?: number): void {
  const { document } = workbench.state;
  const curve = curveOf(workbench.current(), on);
  if (!curve) return;
  const place = placeParameter(workbench, on, at);
  const a = valueOf(workbench, place);
  const b = placeBeside(workbench, on, a);
  const beside = placeParameter(workbench, on, b, place.edits);
  const tolerance = usualTolerance(workbench, curve);
  const tier = newId();
  const entry = makeEntry('linearApproximation', {
    order: lastOrder(document.entries) + 3,
    on,
    ...usualInterval(workbench, on),
    parameter: place.id,
    beside: beside.id,
    name: freeName(workbench, letters),
    tolerance: limitText(tolerance),
    tier,
    family: nextFamily(document),
  });
  const shown = Math.max(tolerancesShown * tolerance, moreThanOff * offAt(curve, a, b));
  const reach = Number(shown.toPrecision(2));
  const opened = newTier(lastOrder(document.tiers), { from: -reach, to: reach });
  workbench.change([
    { at: 'tiers', id: tier, old: null, new: opened },
    ...place.edits,
    ...beside.edits,
    added(newId(), entry),
  ]);
  workbench.choose(beside.id);
}

/** The value of a place that is there, or that some edits put in. */
function valueOf(workbench: Workbench, { id, edits }: { id: Id; edits: readonly Edit[] }): number {
  const [put] = edits.flatMap((edit) =>
    edit.at === 'entries' && edit.new && 'value' in edit.new ? [Number(edit.new.value)] : [],
  );
  return put ?? parameterOf(workbench.current(), id)?.value.value ?? NaN;
}

/** A place to the right of the tangent's, or to its left where the interval ends. */
function placeBeside(workbench: Workbench, on: Id, a: number): number {
  const [from, to] = usualEnds(workbench, on);
  const reach = (to - from) * shareBeside;
  return a + reach <= to ? a + reach : a - reach;
}

/** How far f(b) is from the line at a; 0 where there is none. */
function offAt({ program, parameters }: CurveResult, a: number, b: number): number {
  const [height = NaN, slope = NaN] = derivativesAt(program, a, 1, parameters);
  const line = height + slope * (b - a);
  const off = Math.abs(evaluateAt(program, b, parameters) - line);
  return Number.isFinite(off) ? off : 0;
}

/** A power of ten: small beside the heights of the tier, and a number that a class would choose. */
function usualTolerance(workbench: Workbench, { tier }: CurveResult): number {
  const { document, stage } = workbench.state;
  const { from, to } = stage.y[tier] ?? document.tiers[tier]?.y ?? { from: -5, to: 5 };
  return 10 ** Math.round(Math.log10((to - from) * shareOff));
}
