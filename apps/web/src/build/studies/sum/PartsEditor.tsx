import { knownNumber, partOf, rational } from '@yperkine/core';
import { decimalText, format, nearestDecimal, type Id, type SumResult } from '@yperkine/demonstration';
import { Plus, Trash2 } from 'lucide-react';
import { IconButton } from '../../../parts/Button.tsx';
import { NumberField } from '../../../parts/NumberField.tsx';
import { addPart, removePart, setEnd, setPick } from '../../../state/areas.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';

const number = (text: string): number => {
  const exact = rational.parseDecimal(text);
  return exact ? rational.toNumber(exact) : NaN;
};
const asText = (x: number): string => decimalText(nearestDecimal(x, 9));

/** The parts of a sum with their right ends and sample points as fields; a part can be halved or joined with the next. */
export function PartsEditor({ id, result }: { readonly id: Id; readonly result: SumResult }) {
  const workbench = useWorkbench();
  const rule = useWorkbenchState(({ resolution }) => resolution.rule);
  const { sum, curve } = result;
  if (!sum) return null;
  const last = sum.xs.length - 1;
  const hasPoints = sum.atEnds === null;
  return (
    <div className="mt-2">
      <div aria-hidden className="grid grid-cols-[1.4rem_1fr_1fr_4rem] gap-1.5 pr-1 pb-1 text-sm text-quiet">
        <span className="text-right">i</span>
        <span className="px-2.5">right end</span>
        {hasPoints && <span className="px-2.5">{curve.variable}*</span>}
      </div>
      <ol aria-label="Parts" className="flex max-h-72 flex-col gap-1.5 overflow-y-auto pr-1">
        {Array.from(sum.xs, (x, i) => {
          const part = partOf(sum, i);
          return (
            <li key={i} className="grid grid-cols-[1.4rem_1fr_1fr_auto] items-center gap-1.5">
              <span className="text-right text-sm text-quiet">{i + 1}</span>
              {i < last ? (
                <NumberField
                  label={`Right end of part ${i + 1}`}
                  isLabelHidden
                  value={asText(part.to)}
                  refuse={(text) => refusal(() => setEnd(workbench, id, i, number(text)))}
                  onCommit={() => undefined}
                />
              ) : (
                <span className="px-2.5 text-quiet">{format(knownNumber(part.to), rule).text}</span>
              )}
              {hasPoints ? (
                <NumberField
                  label={`Sample point ${curve.variable}* of part ${i + 1}`}
                  isLabelHidden
                  value={asText(x)}
                  refuse={(text) => refusal(() => setPick(workbench, id, i, number(text)))}
                  onCommit={() => undefined}
                />
              ) : (
                <span />
              )}
              <span className="flex">
                <IconButton
                  label={`Halve part ${i + 1}`}
                  className="size-8!"
                  onClick={() => addPart(workbench, id, i)}
                >
                  <Plus size={16} aria-hidden />
                </IconButton>
                <IconButton
                  label={`Join part ${i + 1} with the next`}
                  className="size-8!"
                  disabled={last === 0}
                  onClick={() => removePart(workbench, id, i)}
                >
                  <Trash2 size={15} aria-hidden />
                </IconButton>
              </span>
            </li>
          );
        })}
      </ol>
    </div>
  );
}

/** Takes a number over, or says why it cannot be taken. */
const refusal = (work: () => string | null): string | null => work();
