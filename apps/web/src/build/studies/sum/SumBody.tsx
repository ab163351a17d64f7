import type { Entry, Id, SumResult } from '@yperkine/demonstration';
import { toneOf } from '@yperkine/demonstration';
import { Download, PencilLine } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../../parts/Button.tsx';
import { lazily } from '../../../parts/lazily.tsx';
import { saveText } from '../../../parts/saveText.ts';
import { sumCsv } from '../../../state/areas.ts';
import { useResolved } from '../../../state/context.ts';
import { StudyBody } from '../../working/StudyBody.tsx';

const RuleChips = lazily(async () => (await import('./RuleChips.tsx')).RuleChips);
const PartsEditor = lazily(async () => (await import('./PartsEditor.tsx')).PartsEditor);
const PartsTable = lazily(async () => (await import('./PartsTable.tsx')).PartsTable);

const small = 'min-h-8! px-2.5! text-[0.92rem] font-normal!';
/** Parts up to which they can be edited one by one. */
const mostEdited = 60;

/** The rule, the sum in signs and numbers, and all its rectangles. */
export function SumBody({ id, entry }: { readonly id: Id; readonly entry: Entry }) {
  const outcome = useResolved(id)?.outcome;
  const [isEditing, setEditing] = useState(false);
  if (entry.kind !== 'sum') return null;
  const result = outcome?.ok ? (outcome.result as SumResult) : null;
  const tone = result ? toneOf(result.curve.order, result.curve.family) : 'ink';
  const sum = result?.sum ?? null;
  const canEdit = sum !== null && sum.xs.length <= mostEdited && entry.rule !== 'simpson';
  return (
    <>
      <RuleChips id={id} entry={entry} />
      <StudyBody id={id} tone={tone} />
      {result && sum && entry.showsTable && (
        <>
          {isEditing && canEdit ? (
            <PartsEditor id={id} result={result} />
          ) : (
            <PartsTable id={id} result={{ ...result, sum }} />
          )}
          <div className="mt-1 flex flex-wrap gap-1.5">
            {canEdit && (
              <Button className={small} aria-pressed={isEditing} onClick={() => setEditing(!isEditing)}>
                <PencilLine size={15} aria-hidden /> {isEditing ? 'Show the table' : 'Edit the parts'}
              </Button>
            )}
            <Button className={small} onClick={() => saveText('rectangles.csv', 'text/csv', sumCsv(result))}>
              <Download size={15} aria-hidden /> Save as CSV
            </Button>
          </div>
        </>
      )}
      {result && !sum && entry.showsTable && (
        <p className="mt-1 text-sm text-quiet">
          Of so many parts there is no table; up to 10 000 are listed.
        </p>
      )}
    </>
  );
}
