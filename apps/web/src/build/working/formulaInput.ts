import type { Ref, RefObject } from 'react';
import type { Scope } from '@yperkine/core';

export interface MarkedRange {
  readonly from: number;
  readonly to: number;
}

export interface FormulaFieldProps {
  readonly label: string;
  readonly value: string;
  /** The names that may be offered while one types. */
  readonly scope: Scope;
  readonly placeholder?: string;
  /** The range that a problem is about. */
  readonly wrong: MarkedRange | undefined;
  readonly describedBy?: string;
  readonly autoFocus?: boolean;
  readonly onChange: (text: string) => void;
  readonly onEnter: (text: string) => void;
  readonly onEscape?: () => void;
  readonly onBlur?: () => void;
  /** May take what is pasted for something else than a formula; true if it did. */
  readonly onPaste?: (text: string) => boolean;
}

/** Where the cursor was, or what was selected, in the input that another one takes the place of. */
export interface Hand extends MarkedRange {
  readonly isFocused: boolean;
}

export interface FormulaInput {
  /** Puts text before and behind what is selected. */
  insert(before: string, behind: string): void;
}

/** What the plain input and the editor, which takes its place, have in common. */
export interface FormulaInputProps extends FormulaFieldProps {
  readonly ref: Ref<FormulaInput>;
  /** Where the hand was when the input before this one went; nothing where this is the first. */
  readonly hand: RefObject<Hand | null>;
  readonly onFocusChange: (hasFocus: boolean) => void;
}
