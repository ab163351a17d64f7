import { Radio, RadioGroup } from '@headlessui/react';
import { ruleNames, sumRuleSchema, type EntryOf, type Id } from '@yperkine/demonstration';
import { memo } from 'react';
import { setField } from '../../../state/actions.ts';
import { useWorkbench } from '../../../state/context.ts';

/** How the heights are taken, one touch each. */
export const RuleChips = memo(function RuleChips({
  id,
  entry,
}: {
  readonly id: Id;
  readonly entry: EntryOf<'sum'>;
}) {
  const workbench = useWorkbench();
  return (
    <RadioGroup
      value={entry.rule}
      onChange={(rule) => setField(workbench, id, 'rule', rule)}
      aria-label="Heights"
      className="mt-1 flex flex-wrap gap-1"
    >
      {sumRuleSchema.options.map((rule) => (
        <Radio
          key={rule}
          value={rule}
          className="min-h-7.5 cursor-pointer rounded-lg border border-rule px-2 py-0.5 text-[0.9rem] text-quiet outline-offset-2 data-checked:border-ink data-checked:bg-ink data-checked:text-on-ink data-hover:bg-hover data-checked:data-hover:bg-ink"
        >
          {ruleNames[rule]}
        </Radio>
      ))}
    </RadioGroup>
  );
});
