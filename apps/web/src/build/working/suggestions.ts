import {
  acceptCompletion,
  autocompletion,
  closeCompletion,
  moveCompletionSelection,
  startCompletion,
  type Completion,
  type CompletionContext,
} from '@codemirror/autocomplete';
import { Prec, type Extension } from '@codemirror/state';
import { EditorView, keymap } from '@codemirror/view';
import { knownFunctions, type Scope } from '@yperkine/core';

/** Letters of a name that must be there before functions of the textbook are offered. */
const fewestLetters = 2;
const wordBefore = /\p{L}[\p{L}\d_]*$/u;

/** Offers the names that are known here while one types. Enter still ends the formula until one of them is chosen. */
export function suggesting(scope: () => Scope): Extension {
  return [
    autocompletion({
      override: [(context) => offeredAt(context, scope())],
      defaultKeymap: false,
      selectOnOpen: false,
      interactionDelay: 0,
      icons: false,
      // Below the field stands the palette.
      aboveCursor: true,
      activateOnTypingDelay: 60,
    }),
    looks,
    Prec.highest(
      keymap.of([
        { key: 'ArrowDown', run: moveCompletionSelection(true) },
        { key: 'ArrowUp', run: moveCompletionSelection(false) },
        { key: 'Enter', run: acceptCompletion },
        { key: 'Escape', run: closeCompletion },
      ]),
    ),
  ];
}

/** Offers names for what was typed before they could be offered. */
export function suggestNow(editor: EditorView): void {
  if (editor.hasFocus && wordBefore.test(editor.state.sliceDoc(0, editor.state.selection.main.head)))
    startCompletion(editor);
}

function offeredAt(context: CompletionContext, scope: Scope) {
  const word = context.matchBefore(wordBefore);
  if (!word) return null;
  const isLonger = ({ label }: Completion): boolean => label.length > word.text.length;
  const own = [...scope.functions].map(functionNamed).concat([...scope.names].map((label) => ({ label })));
  const usual = word.text.length >= fewestLetters ? textbook : [];
  const options = [...own, ...usual].filter(
    (option) => option.label.startsWith(word.text) && isLonger(option),
  );
  return options.length === 0 ? null : { from: word.from, options };
}

const functionNamed = (label: string): Completion => ({
  label,
  detail: 'given',
  apply: withBrackets,
  boost: 1,
});

/** In the order of the table, which begins with what is used most. */
const textbook: readonly Completion[] = knownFunctions.map(({ spelling, spoken }, i) => ({
  boost: -i,
  label: spelling,
  detail: spoken,
  apply: withBrackets,
}));

const looks = EditorView.theme({
  '.cm-tooltip.cm-tooltip-autocomplete': {
    border: '1px solid var(--rule)',
    borderRadius: '10px',
    background: 'var(--sheet)',
    boxShadow: 'var(--shadow-card)',
    overflow: 'hidden',
  },
  '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'inherit', fontSize: '1rem', maxHeight: '12rem' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li': { padding: '0.35rem 0.8rem', color: 'var(--ink)' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected]': {
    background: 'var(--hover)',
    color: 'var(--ink)',
  },
  '.cm-completionDetail': { color: 'var(--quiet)', fontStyle: 'normal' },
  '.cm-completionMatchedText': { fontWeight: '600', textDecoration: 'none' },
});

/** The name with brackets for what it is taken of, and the cursor between them. */
function withBrackets(view: EditorView, { label }: Completion, from: number, to: number): void {
  const hasBracket = view.state.sliceDoc(to, to + 1) === '(';
  view.dispatch({
    changes: { from, to, insert: hasBracket ? label : `${label}()` },
    selection: { anchor: from + label.length + 1 },
  });
}
