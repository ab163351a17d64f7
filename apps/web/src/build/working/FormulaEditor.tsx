import { Compartment, EditorState, StateEffect, StateField } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  keymap,
  placeholder as placeholderText,
  type DecorationSet,
} from '@codemirror/view';
import { useEffect, useImperativeHandle, useLayoutEffect, useRef } from 'react';
import type { FormulaFieldProps, FormulaInputProps, MarkedRange } from './formulaInput.ts';
import { suggestNow, typingAids } from './typingAids.ts';

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
export function FormulaEditor({ ref, hand, ...props }: FormulaInputProps) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef(props);
  const attributes = useRef(new Compartment());
  const hint = useRef(new Compartment());
  /** The words that the editor has. */
  const words = useRef('');
  /** Texts that the parent was told and has not given back yet: more may have been typed since. */
  const told = useRef<string[]>([]);
  /** Whether a text is being put in that the parent gave. */
  const isGiven = useRef(false);
  useEffect(() => {
    latest.current = props;
  });

  // In one go with the input that it takes the place of, so that no key falls between the two.
  useLayoutEffect(() => {
    const keys = [
      { key: 'Enter', run: (v: EditorView) => (latest.current.onEnter(v.state.doc.toString()), true) },
      { key: 'Escape', run: () => (latest.current.onEscape?.(), latest.current.onEscape !== undefined) },
    ];
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
          typingAids(() => latest.current.scope),
          keymap.of(keys),
          hint.current.of(placeholderText(placeholder)),
          attributes.current.of(EditorView.contentAttributes.of(content)),
          EditorView.lineWrapping,
          EditorView.domEventHandlers({
            paste: (event) =>
              latest.current.onPaste?.(event.clipboardData?.getData('text/plain') ?? '') ?? false,
          }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged && !isGiven.current) {
              const text = update.state.doc.toString();
              told.current.push(text);
              latest.current.onChange(text);
            }
            if (!update.focusChanged) return;
            latest.current.onFocusChange(update.view.hasFocus);
            if (!update.view.hasFocus) latest.current.onBlur?.();
          }),
        ],
      }),
    });
    view.current = editor;
    const { autoFocus } = latest.current;
    const before = hand.current;
    if (before ? before.isFocused : autoFocus) {
      editor.focus();
      const end = editor.state.doc.length;
      editor.dispatch({
        selection: before
          ? { anchor: Math.min(before.from, end), head: Math.min(before.to, end) }
          : { anchor: end },
      });
      if (before) suggestNow(editor);
    }
    return () => {
      view.current = null;
      editor.destroy();
    };
  }, [hand]);

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

  useLayoutEffect(() => {
    const echo = told.current.indexOf(value);
    told.current = echo >= 0 ? told.current.slice(echo + 1) : [];
    const editor = view.current;
    if (echo >= 0 || !editor || editor.state.doc.toString() === value) return;
    isGiven.current = true;
    editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: value } });
    isGiven.current = false;
  }, [value]);

  const isMarked = useRef(false);
  useEffect(() => {
    if (wrong === undefined && !isMarked.current) return;
    isMarked.current = wrong !== undefined;
    view.current?.dispatch({ effects: setWrong.of(wrong) });
  }, [wrong?.from, wrong?.to, wrong]);

  useImperativeHandle(ref, () => ({
    insert(before, behind) {
      const editor = view.current;
      if (!editor) return;
      const { from, to } = editor.state.selection.main;
      const inside = editor.state.sliceDoc(from, to);
      editor.dispatch({
        changes: { from, to, insert: before + inside + behind },
        selection: { anchor: from + before.length + inside.length },
      });
      editor.focus();
    },
  }));

  return <div ref={host} className="formula-field" />;
}
