import { slidersOf } from '@yperkine/demonstration';
import { Pause, Play } from 'lucide-react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/shallow';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { Lane } from './Lane.tsx';

/** The strip under the tiers with a lane for every parameter. */
export function Deck() {
  const workbench = useWorkbench();
  const ids = useStore(
    workbench.store,
    useShallow((state) => slidersOf(state.document).map(([id]) => id)),
  );
  if (ids.length === 0) return null;
  return (
    <section aria-label="Deck" className="flex max-h-[34vh] gap-2 max-sm:flex-col">
      {ids.length > 1 && <PlayAll />}
      <div className="flex min-w-0 flex-1 flex-col gap-2 overflow-y-auto rounded-[14px]">
        {ids.map((id) => (
          <Lane key={id} id={id} />
        ))}
      </div>
    </section>
  );
}

/** Sets all lanes in motion at once, or stops what moves: beside the lanes, so that the graph keeps its height. */
function PlayAll() {
  const workbench = useWorkbench();
  const isPlaying = useWorkbenchState(({ playing }) => Object.keys(playing).length > 0);
  const Icon = isPlaying ? Pause : Play;
  const label = isPlaying ? 'Stop all' : 'Play all';
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      onClick={() => (isPlaying ? workbench.stop() : workbench.playAll())}
      className="inline-flex min-h-10 items-center justify-center gap-1.5 rounded-[14px] border border-rule text-sm text-quiet hover:bg-hover hover:text-ink max-sm:self-start max-sm:px-3 sm:w-10"
    >
      <Icon size={15} fill="currentColor" aria-hidden />
      <span className="sm:sr-only">{label}</span>
    </button>
  );
}
