import { CloudOff, TriangleAlert } from 'lucide-react';
import { useEffect } from 'react';
import type { Notice } from '../state/session.ts';
import { saveText } from '../parts/saveText.ts';
import type { SaveState } from '../state/saver.ts';
import type { Workbench } from '../state/workbench.ts';
import { useWorkbench, useWorkbenchState } from '../state/context.ts';

const sentences: Readonly<Record<SaveState, string>> = {
  saved: 'saved',
  saving: 'saving …',
  away: 'The server is away. Work on: everything is kept on this computer and saved when it is back.',
  signedOut:
    'You are signed out. Work on: everything is kept here and saved once you sign in again in another tab.',
  asking: 'changed in two windows',
  fault:
    'The server has a fault of its own, and saving waits for it. Work on: everything is kept on this computer.',
  otherVersion:
    'There is a newer version of the program. What you changed is kept on this computer: reload the page, and it is saved.',
  gone: 'This demonstration was deleted elsewhere. What you changed is kept on this computer.',
};

const isTrouble = (state: SaveState): boolean => !['saved', 'saving', 'asking'].includes(state);

/** What is said instead where the browser keeps nothing: then only an open window does. */
const unkept =
  'Saving waits, and this browser refuses to keep what is unsaved. Leave this window open, or save a copy.';

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
  const isKept = useWorkbenchState((s) => s.isKept);
  const notice = useWorkbenchState((s) => s.notice);
  const workbench = useWorkbench();
  return (
    <>
      {isTrouble(state) && (
        <div
          role="alert"
          className="card mx-3 flex items-center gap-3 border-here bg-here/12 px-4 py-2.5 sm:mx-4"
        >
          {state === 'away' ? <CloudOff size={19} aria-hidden /> : <TriangleAlert size={19} aria-hidden />}
          <span className="flex-1">{isKept ? sentences[state] : unkept}</span>
          <button type="button" className={textButton} onClick={() => saveCopy(workbench)}>
            Save a copy
          </button>
        </div>
      )}
      {notice && <NoticeBar notice={notice} />}
    </>
  );
}

const textButton = 'shrink-0 font-semibold underline underline-offset-2';

/** The demonstration as it is here, saved or not, as a file. */
function saveCopy({ state: { document } }: Workbench): void {
  const name = document.title.replaceAll(/[^\p{L}\p{N} .-]+/gu, ' ').trim() || 'demonstration';
  saveText(`${name}.json`, 'application/json', JSON.stringify(document, null, 2));
}

/** Long enough to read a sentence and to reach the button. */
const shownFor = 8000;

/** Something that happened, to be read and dismissed; what was deleted can be had back at once. */
function NoticeBar({ notice: { text, canUndo, copy } }: { notice: Notice }) {
  const workbench = useWorkbench();
  useEffect(() => {
    if (!canUndo) return;
    const timer = setTimeout(() => workbench.tell(null), shownFor);
    return () => clearTimeout(timer);
  }, [canUndo, text, workbench]);
  if (!canUndo) {
    return (
      <div role="alert" className="card mx-3 flex items-center gap-3 px-4 py-2.5 sm:mx-4">
        <span className="flex-1">{text}</span>
        {copy !== undefined && (
          <button
            type="button"
            className={textButton}
            onClick={() => saveText('unsaved change.json', 'application/json', copy)}
          >
            Save a copy of it
          </button>
        )}
        <button type="button" className={textButton} onClick={() => workbench.tell(null)}>
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
        className={textButton}
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
