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
    <section aria-label="Deck" className="flex max-h-[34vh] flex-col gap-2 overflow-y-auto rounded-[14px]">
      {ids.length > 1 && <PlayAll />}
      {ids.map((id) => (
        <Lane key={id} id={id} />
      ))}
    </section>
  );
}

/** Sets all lanes in motion at once, or stops what moves. */
function PlayAll() {
  const workbench = useWorkbench();
  const isPlaying = useWorkbenchState(({ playing }) => Object.keys(playing).length > 0);
  const Icon = isPlaying ? Pause : Play;
  return (
    <button
      type="button"
      onClick={() => (isPlaying ? workbench.stop() : workbench.playAll())}
      className="-mb-1 inline-flex min-h-8 items-center gap-1.5 self-start rounded-lg px-2 text-sm text-quiet hover:bg-hover hover:text-ink pointer-coarse:min-h-10"
    >
      <Icon size={14} fill="currentColor" aria-hidden /> {isPlaying ? 'Stop all' : 'Play all'}
    </button>
  );
}
