import { headOf } from '@yperkine/core';
import { useEffect, useRef, useState } from 'react';
import type { FormulaEditor } from './FormulaEditor.tsx';
import type { FormulaFieldProps, FormulaInput, Hand } from './formulaInput.ts';
import { Palette } from './Palette.tsx';
import { PlainFormula } from './PlainFormula.tsx';
import { useCalmFocus } from './useCalmFocus.ts';

type Editor = typeof FormulaEditor;

let editor: Editor | null = null;
/** The fields in which plain inputs stand, waiting for the editor. */
const waiting = new Set<(found: Editor) => void>();

/** Fetches the editor, which takes the place of plain inputs once it is there. */
export async function loadFormulaEditor(): Promise<void> {
  const { FormulaEditor } = await import('./FormulaEditor.tsx');
  editor = FormulaEditor;
  for (const give of waiting) give(FormulaEditor);
}

/**
 * A field for a formula. It is a plain input until the editor is there, which comes with somebody who might type; where
 * it cannot be had, the field works without it.
 */
export function FormulaField(props: FormulaFieldProps) {
  const whole = useRef<HTMLDivElement>(null);
  const input = useRef<FormulaInput>(null);
  const { isFocused, onFocusChange } = useCalmFocus();
  const [Editor, setEditor] = useState(() => editor);
  // What is being composed from several keys would be lost with the input in which it is.
  const [isComposing, setComposing] = useState(false);
  const hand = useRef<Hand>(null);

  useEffect(() => {
    const take = (found: Editor): void => setEditor(() => found);
    if (editor) take(editor);
    waiting.add(take);
    return () => void waiting.delete(take);
  }, []);

  // The palette opens under the field, where a small screen may end already; the margin leaves room for the preview.
  useEffect(() => {
    if (isFocused) whole.current?.scrollIntoView({ block: 'nearest' });
  }, [isFocused]);

  const common = { ...props, ref: input, hand, onFocusChange };
  return (
    <div ref={whole} className="min-w-0 flex-1 scroll-mb-20">
      {Editor && !isComposing ? (
        <Editor {...common} />
      ) : (
        <PlainFormula {...common} onCompose={setComposing} />
      )}
      {isFocused && (
        <Palette
          variable={headOf(props.value)?.variable ?? 'x'}
          onInsert={(before, behind) => input.current?.insert(before, behind)}
        />
      )}
    </div>
  );
}
