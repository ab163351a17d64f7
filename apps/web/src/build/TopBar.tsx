import { Camera, ChevronLeft, Redo2, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { IconButton } from '../parts/Button.tsx';
import { ThemeButton } from '../parts/ThemeButton.tsx';
import { useWorkbench, useWorkbenchState } from '../state/context.ts';
import { copyPicture } from '../state/picture.ts';
import { SavedWord } from './SavedState.tsx';

/** Back to the library, the title, the saved state, undo and redo, day and night. */
export function TopBar() {
  const workbench = useWorkbench();
  const canUndo = useWorkbenchState((state) => state.history.past.length > 0);
  const canRedo = useWorkbenchState((state) => state.history.future.length > 0);
  return (
    <header className="flex items-center gap-1 px-2 pt-2 sm:gap-3 sm:px-4">
      <Link to="/" className="flex items-center gap-0.5 rounded-lg py-2 pr-2 text-quiet hover:text-ink">
        <ChevronLeft size={18} aria-hidden />
        <span className="hidden sm:inline">Library</span>
        <span className="sr-only sm:hidden">Library</span>
      </Link>
      <Title />
      <SavedWord />
      <div className="ml-auto flex">
        <IconButton label="Undo (Ctrl+Z)" disabled={!canUndo} onClick={() => workbench.undo()}>
          <Undo2 size={19} aria-hidden />
        </IconButton>
        <IconButton label="Redo (Ctrl+Shift+Z)" disabled={!canRedo} onClick={() => workbench.redo()}>
          <Redo2 size={19} aria-hidden />
        </IconButton>
        <IconButton label="Copy a picture of the graphs" onClick={() => void copyPicture(workbench)}>
          <Camera size={19} aria-hidden />
        </IconButton>
        <ThemeButton />
      </div>
    </header>
  );
}

function Title() {
  const workbench = useWorkbench();
  const title = useWorkbenchState((state) => state.document.title);
  const [isFocused, setFocused] = useState(false);
  return (
    <input
      aria-label="Title"
      value={title}
      maxLength={200}
      placeholder="Untitled demonstration"
      onFocus={() => setFocused(true)}
      onBlur={() => {
        setFocused(false);
        workbench.seal();
      }}
      onChange={(event) =>
        workbench.change([{ at: 'document', field: 'title', old: title, new: event.target.value }], 'title')
      }
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      style={isFocused ? undefined : { width: `${Math.max(8, title.length + 1)}ch` }}
      className="max-w-full min-w-0 flex-initial truncate rounded-lg bg-transparent px-1.5 py-1.5 text-lg font-semibold hover:bg-hover focus:flex-1 focus:bg-sheet"
    />
  );
}
