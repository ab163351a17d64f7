import { history, historyKeymap, standardKeymap } from '@codemirror/commands';
import type { Extension } from '@codemirror/state';
import { keymap } from '@codemirror/view';
import type { Scope } from '@yperkine/core';
import { suggesting } from './suggestions.ts';

export { suggestNow } from './suggestions.ts';

/** What helps while one types: names that are offered, undoing within the field, the usual keys. */
export const typingAids = (scope: () => Scope): Extension => [
  suggesting(scope),
  history(),
  keymap.of([...historyKeymap, ...standardKeymap.filter(({ key }) => key !== 'Enter')]),
];
