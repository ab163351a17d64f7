import { inOrder } from '@yperkine/demonstration';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/shallow';
import { useWorkbench } from '../../state/context.ts';
import { Lane } from './Lane.tsx';

/** The strip under the tiers with a lane for every parameter. */
export function Deck() {
  const workbench = useWorkbench();
  const ids = useStore(
    workbench.store,
    useShallow((state) =>
      inOrder(state.document.entries)
        .filter(([, entry]) => entry.kind === 'parameter' && entry.moves === 'slider')
        .map(([id]) => id),
    ),
  );
  if (ids.length === 0) return null;
  return (
    <section aria-label="Deck" className="flex max-h-[34vh] flex-col gap-2 overflow-y-auto rounded-[14px]">
      {ids.map((id) => (
        <Lane key={id} id={id} />
      ))}
    </section>
  );
}
