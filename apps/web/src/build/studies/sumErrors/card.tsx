import {
  ruleNames,
  sumRuleSchema,
  type Entry,
  type Id,
  type SumErrorsResult,
  type SumRuleName,
} from '@yperkine/demonstration';
import { lazy, Suspense } from 'react';
import { CheckBox } from '../../../parts/CheckBox.tsx';
import { setField } from '../../../state/actions.ts';
import { useResolved, useWorkbench, useSaid } from '../../../state/context.ts';
import { StudyBody } from '../../working/StudyBody.tsx';
import type { StudyCard } from '../study.ts';

/** The chart comes when it is first wanted. */
const ErrorChart = lazy(() => import('./ErrorChart.tsx'));

function Body({ id }: { readonly id: Id }) {
  const outcome = useResolved(id)?.outcome;
  const said = useSaid(id);
  const result = outcome?.ok ? (outcome.result as SumErrorsResult) : null;
  return (
    <>
      {result && said && (
        <Suspense fallback={<div className="mt-2 h-64" />}>
          <ErrorChart series={result.series} label={`Size of the error against n. ${said.sentence}`} />
        </Suspense>
      )}
      <StudyBody id={id} tone="f" />
    </>
  );
}

function Controls({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const workbench = useWorkbench();
  if (entry.kind !== 'sumErrors') return null;
  const toggle = (rule: SumRuleName) => {
    const rules = entry.rules.includes(rule)
      ? entry.rules.filter((other) => other !== rule)
      : [...entry.rules, rule];
    if (rules.length > 0) setField(workbench, id, 'rules', rules);
  };
  return (
    <div role="group" aria-label="Rules in the chart" className="mt-2 grid grid-cols-3 gap-x-2">
      {sumRuleSchema.options.map((rule) => (
        <CheckBox
          key={rule}
          label={ruleNames[rule]}
          isOn={entry.rules.includes(rule)}
          onChange={() => toggle(rule)}
        />
      ))}
    </div>
  );
}

export const card: StudyCard = { kind: 'sumErrors', offers: [], Body, Controls };
