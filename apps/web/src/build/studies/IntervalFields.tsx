import { keptEnd, type Id } from '@yperkine/demonstration';
import type { ReactNode } from 'react';
import { TextField } from '../../parts/TextField.tsx';
import { useSetting } from './useSetting.ts';

interface IntervalFieldsProps {
  readonly id: Id;
  readonly entry: { readonly from: string; readonly to: string };
  /** Fields before and after those of the interval. */
  readonly children?: ReactNode;
  readonly after?: ReactNode;
}

/** The interval of a study: two numbers or formulas of parameters, such as 0 and 2π. */
export function IntervalFields({ id, entry, children, after }: IntervalFieldsProps) {
  const set = useSetting(id);
  const setEnd = (end: 'from' | 'to') => (text: string) => set(end)(keptEnd(text));
  return (
    <div className="mt-2.5 grid grid-cols-2 items-end gap-2">
      {children}
      <TextField label="From" value={entry.from} onCommit={setEnd('from')} />
      <TextField label="To" value={entry.to} onCommit={setEnd('to')} />
      {after}
    </div>
  );
}
