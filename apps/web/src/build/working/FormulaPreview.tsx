import type { Scope } from '@yperkine/core';
import { useDeferredValue } from 'react';
import { Typeset } from '../../parts/Typeset.tsx';
import { previewOf } from './preview.ts';

/** What is typed, typeset under its field as soon as the keys leave time; nothing while it is empty or cannot be read. */
export function FormulaPreview({ text: typed, scope }: { text: string; scope: Scope }) {
  const text = useDeferredValue(typed);
  const latex = text.trim() ? previewOf(text, scope) : null;
  if (latex === null) return null;
  return (
    <div data-testid="preview" className="mt-1.5 overflow-x-auto overflow-y-hidden px-1 py-2 text-lg">
      <Typeset latex={latex} />
    </div>
  );
}
