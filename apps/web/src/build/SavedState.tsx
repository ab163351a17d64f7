import { CloudOff, TriangleAlert } from 'lucide-react';
import { useEffect } from 'react';
import type { Notice } from '../state/session.ts';
import type { SaveState } from '../state/saver.ts';
import { useWorkbench, useWorkbenchState } from '../state/context.ts';

const sentences: Readonly<Record<SaveState, string>> = {
  saved: 'saved',
  saving: 'saving …',
  away: 'The server is away. Work on: everything is kept on this computer and saved when it is back.',
  signedOut:
    'You are signed out. Work on: everything is kept here and saved once you sign in again in another tab.',
  asking: 'changed in two windows',
  refused: 'The server does not take this change. It is kept on this computer; undoing it lets saving go on.',
  gone: 'This demonstration was deleted elsewhere. What you changed is kept on this computer.',
};

const isTrouble = (state: SaveState): boolean => !['saved', 'saving', 'asking'].includes(state);

/** The quiet word beside the title. */
export function SavedWord() {
  const state = useWorkbenchState((s) => s.saveState);
  return (
    <span role="status" className="text-sm whitespace-nowrap text-quiet">
      {isTrouble(state) ? 'not saved yet' : sentences[state]}
    </span>
  );
}

/** A bar under the top when saving does not go on by itself, or when something happened elsewhere. */
export function Notices() {
  const state = useWorkbenchState((s) => s.saveState);
  const notice = useWorkbenchState((s) => s.notice);
  return (
    <>
      {isTrouble(state) && (
        <div
          role="alert"
          className="card mx-3 flex items-center gap-3 border-here bg-here/12 px-4 py-2.5 sm:mx-4"
        >
          {state === 'away' ? <CloudOff size={19} aria-hidden /> : <TriangleAlert size={19} aria-hidden />}
          {sentences[state]}
        </div>
      )}
      {notice && <NoticeBar notice={notice} />}
    </>
  );
}

/** Long enough to read a sentence and to reach the button. */
const shownFor = 8000;

/** Something that happened, to be read and dismissed; what was deleted can be had back at once. */
function NoticeBar({ notice: { text, canUndo } }: { notice: Notice }) {
  const workbench = useWorkbench();
  useEffect(() => {
    if (!canUndo) return;
    const timer = setTimeout(() => workbench.tell(null), shownFor);
    return () => clearTimeout(timer);
  }, [canUndo, text, workbench]);
  const button = 'font-semibold underline underline-offset-2';
  if (!canUndo) {
    return (
      <div role="alert" className="card mx-3 flex items-center gap-3 px-4 py-2.5 sm:mx-4">
        <span className="flex-1">{text}</span>
        <button type="button" className={button} onClick={() => workbench.tell(null)}>
          Good
        </button>
      </div>
    );
  }
  return (
    <div
      role="status"
      className="card fixed bottom-5 left-1/2 z-30 flex max-w-[94vw] -translate-x-1/2 items-center gap-4 px-4 py-2.5"
    >
      <span>{text}</span>
      <button
        type="button"
        className={button}
        onClick={() => {
          workbench.tell(null);
          workbench.undo();
        }}
      >
        Undo
      </button>
    </div>
  );
}
