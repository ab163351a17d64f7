import { useImperativeHandle, useLayoutEffect, useRef, type ClipboardEvent, type KeyboardEvent } from 'react';
import type { FormulaInputProps } from './formulaInput.ts';

interface PlainFormulaProps extends FormulaInputProps {
  readonly onCompose: (isComposing: boolean) => void;
}

/** A plain input for a formula, until the editor takes its place. Where the hand is then, it says in going. */
export function PlainFormula({
  ref,
  hand,
  label,
  value,
  placeholder,
  wrong,
  describedBy,
  autoFocus = false,
  onChange,
  onEnter,
  onEscape,
  onBlur,
  onPaste,
  onFocusChange,
  onCompose,
}: PlainFormulaProps) {
  const input = useRef<HTMLTextAreaElement>(null);

  useLayoutEffect(() => {
    const area = input.current as HTMLTextAreaElement;
    if (autoFocus) {
      area.focus();
      area.setSelectionRange(area.value.length, area.value.length);
    }
    return () => {
      const isFocused = document.activeElement === area;
      hand.current = { isFocused, from: area.selectionStart, to: area.selectionEnd };
    };
  }, [autoFocus, hand]);

  useImperativeHandle(ref, () => ({
    insert(before, behind) {
      const area = input.current as HTMLTextAreaElement;
      const { selectionStart: from, selectionEnd: to } = area;
      const inside = area.value.slice(from, to);
      area.setRangeText(before + inside + behind, from, to);
      area.setSelectionRange(from + before.length + inside.length, from + before.length + inside.length);
      area.focus();
      onChange(area.value);
    },
  }));

  const press = (event: KeyboardEvent<HTMLTextAreaElement>): void => {
    if (event.nativeEvent.isComposing) return;
    if (event.key === 'Enter') onEnter(value);
    else if (event.key === 'Escape' && onEscape) onEscape();
    else return;
    event.preventDefault();
  };
  const paste = (event: ClipboardEvent): void => {
    if (onPaste?.(event.clipboardData.getData('text/plain'))) event.preventDefault();
  };
  return (
    <textarea
      ref={input}
      rows={1}
      value={value}
      placeholder={placeholder}
      aria-label={label}
      aria-invalid={wrong !== undefined}
      aria-describedby={describedBy}
      autoCapitalize="off"
      autoCorrect="off"
      spellCheck={false}
      className="plain-formula"
      onChange={({ target }) => onChange(target.value.replace(/\s*\n\s*/g, ' '))}
      onKeyDown={press}
      onPaste={paste}
      onFocus={() => onFocusChange(true)}
      onBlur={() => {
        onFocusChange(false);
        onBlur?.();
      }}
      onCompositionStart={() => onCompose(true)}
      onCompositionEnd={() => onCompose(false)}
    />
  );
}
