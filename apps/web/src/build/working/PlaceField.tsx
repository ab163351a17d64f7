import {
  inOrder,
  placeOfStudy,
  type Document,
  type Id,
  type ParameterResult,
  shownValue,
} from '@yperkine/demonstration';
import { NumberField } from '../../parts/NumberField.tsx';
import { useResolved, useWorkbench, useWorkbenchState } from '../../state/context.ts';

/** The x of a place that has no slider, on the card of the first study that stands there. */
export function PlaceField({ study }: { readonly study: Id }) {
  const parameter = useWorkbenchState(({ document }) => placeWithoutLane(document, study));
  return parameter === null ? null : <XField parameter={parameter} />;
}

function placeWithoutLane({ entries }: Document, study: Id): Id | null {
  const entry = entries[study];
  const parameter = (entry && placeOfStudy(entry)?.parameter) ?? null;
  const place = parameter === null ? undefined : entries[parameter];
  if (place?.kind !== 'parameter' || place.moves === 'slider') return null;
  const [first] = inOrder(entries).find(([, other]) => placeOfStudy(other)?.parameter === parameter) ?? [];
  return first === study ? parameter : null;
}

function XField({ parameter }: { readonly parameter: Id }) {
  const workbench = useWorkbench();
  const outcome = useResolved(parameter)?.outcome;
  const rule = useWorkbenchState(({ resolution }) => resolution.rule);
  if (!outcome?.ok) return null;
  const result = outcome.result as ParameterResult;
  return (
    <NumberField
      label={`Place ${result.name}`}
      takesFractions
      value={shownValue(result, rule).replace('−', '-')}
      onCommit={(value) => workbench.setValue(parameter, value)}
      className="mt-2 max-w-40"
    />
  );
}
