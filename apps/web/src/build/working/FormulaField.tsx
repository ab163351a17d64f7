import { Compartment, EditorState, StateEffect, StateField } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  keymap,
  placeholder as placeholderText,
  type DecorationSet,
} from '@codemirror/view';
import { useEffect, useRef } from 'react';
import type { Scope } from '@yperkine/core';
import { Palette } from './Palette.tsx';
import { useCalmFocus } from './useCalmFocus.ts';

interface MarkedRange {
  readonly from: number;
  readonly to: number;
}

interface FormulaFieldProps {
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

const setWrong = StateEffect.define<MarkedRange | undefined>();
const wrongMark = Decoration.mark({ class: 'cm-wrong' });

const wrongRange = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    for (const effect of transaction.effects) {
      if (effect.is(setWrong)) return decorate(effect.value, transaction.state.doc.length);
    }
    return marks.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** A place between characters is shown on the character before it. */
function decorate(range: MarkedRange | undefined, length: number): DecorationSet {
  if (!range || length === 0) return Decoration.none;
  const to = Math.min(length, Math.max(range.to, range.from + 1));
  const from = Math.min(range.from, to - 1);
  return Decoration.set([wrongMark.range(from, to)]);
}

/** The editor's own grey is too faint on paper; its styles stand before those of a style sheet. */
const placeholderLook = EditorView.theme({ '.cm-placeholder': { color: 'var(--quiet)' } });

/** Line breaks that are pasted become spaces. */
const oneLine = EditorState.transactionFilter.of((transaction) => {
  if (!transaction.docChanged || transaction.newDoc.lines === 1) return transaction;
  const text = transaction.newDoc
    .toString()
    .replace(/\s*\n\s*/g, ' ')
    .trim();
  const end = transaction.startState.doc.length;
  return [{ changes: { from: 0, to: end, insert: text }, selection: { anchor: text.length } }];
});

const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? '';

/** What a field is called and says while it is empty, as it is written into the editor. */
function wordsOf({ label, describedBy, wrong, placeholder = '' }: FormulaFieldProps) {
  const content: Record<string, string> = {
    'aria-label': label,
    'aria-invalid': String(wrong !== undefined),
    autocapitalize: 'off',
    autocorrect: 'off',
    spellcheck: 'false',
    ...(describedBy ? { 'aria-describedby': describedBy } : {}),
  };
  return { placeholder, content };
}

/** A one-line editor for formulas. The text is the parent's; a problem is marked at its place. */
export function FormulaField(props: FormulaFieldProps) {
  const host = useRef<HTMLDivElement>(null);
  const whole = useRef<HTMLDivElement>(null);
  const { isFocused, onFocusChange } = useCalmFocus();
  const view = useRef<EditorView | null>(null);
  const latest = useRef(props);
  const attributes = useRef(new Compartment());
  const hint = useRef(new Compartment());
  const aids = useRef(new Compartment());
  /** The words that the editor has. */
  const words = useRef('');
  useEffect(() => {
    latest.current = props;
  });

  useEffect(() => {
    const keys = [
      { key: 'Enter', run: (v: EditorView) => (latest.current.onEnter(v.state.doc.toString()), true) },
      { key: 'Escape', run: () => (latest.current.onEscape?.(), latest.current.onEscape !== undefined) },
    ];
    let isHelped = false;
    let hasBeenTyped = false;
    // What helps while one types comes with the first focus; where it cannot be had, the field works without it.
    const help = (editor: EditorView) => {
      if (isHelped) return;
      isHelped = true;
      void import('./typingAids.ts').then(
        ({ typingAids, suggestNow }) => {
          if (view.current !== editor) return;
          editor.dispatch({ effects: aids.current.reconfigure(typingAids(() => latest.current.scope)) });
          if (hasBeenTyped) suggestNow(editor);
        },
        () => {
          isHelped = false;
        },
      );
    };
    const { placeholder, content } = wordsOf(latest.current);
    words.current = JSON.stringify({ placeholder, content });
    const editor = new EditorView({
      parent: host.current as HTMLDivElement,
      state: EditorState.create({
        doc: latest.current.value,
        extensions: [
          EditorView.cspNonce.of(nonce),
          oneLine,
          wrongRange,
          placeholderLook,
          aids.current.of([]),
          keymap.of(keys),
          hint.current.of(placeholderText(placeholder)),
          attributes.current.of(EditorView.contentAttributes.of(content)),
          EditorView.lineWrapping,
          EditorView.domEventHandlers({
            paste: (event) =>
              latest.current.onPaste?.(event.clipboardData?.getData('text/plain') ?? '') ?? false,
          }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) latest.current.onChange(update.state.doc.toString());
            hasBeenTyped ||= update.transactions.some((transaction) => transaction.isUserEvent('input.type'));
            if (update.focusChanged) onFocusChange(update.view.hasFocus);
            if (update.focusChanged && update.view.hasFocus) help(update.view);
            if (update.focusChanged && !update.view.hasFocus) latest.current.onBlur?.();
          }),
        ],
      }),
    });
    view.current = editor;
    if (latest.current.autoFocus) {
      editor.focus();
      editor.dispatch({ selection: { anchor: editor.state.doc.length } });
    }
    return () => {
      view.current = null;
      editor.destroy();
    };
  }, [onFocusChange]);

  const { value, wrong } = props;
  const written = JSON.stringify(wordsOf(props));
  useEffect(() => {
    // The editor began with its words: putting in what is there already would lay it out anew.
    if (words.current === written) return;
    words.current = written;
    const { placeholder, content } = wordsOf(latest.current);
    view.current?.dispatch({
      effects: [
        hint.current.reconfigure(placeholderText(placeholder)),
        attributes.current.reconfigure(EditorView.contentAttributes.of(content)),
      ],
    });
  }, [written]);

  useEffect(() => {
    const editor = view.current;
    if (!editor || editor.state.doc.toString() === value) return;
    editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: value } });
  }, [value]);

  const isMarked = useRef(false);
  useEffect(() => {
    if (wrong === undefined && !isMarked.current) return;
    isMarked.current = wrong !== undefined;
    view.current?.dispatch({ effects: setWrong.of(wrong) });
  }, [wrong?.from, wrong?.to, wrong]);

  // The palette opens under the field, where a small screen may end already; the margin leaves room for the preview.
  useEffect(() => {
    if (isFocused) whole.current?.scrollIntoView({ block: 'nearest' });
  }, [isFocused]);

  const insert = (before: string, behind: string): void => {
    const editor = view.current;
    if (!editor) return;
    const { from, to } = editor.state.selection.main;
    const inside = editor.state.sliceDoc(from, to);
    editor.dispatch({
      changes: { from, to, insert: before + inside + behind },
      selection: { anchor: from + before.length + inside.length },
    });
    editor.focus();
  };

  return (
    <div ref={whole} className="min-w-0 flex-1 scroll-mb-20">
      <div ref={host} className="formula-field" />
      {isFocused && <Palette onInsert={insert} />}
    </div>
  );
}
