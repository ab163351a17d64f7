import { useState } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/shallow';
import { useArriving } from '../../parts/arriving.ts';
import { lazily } from '../../parts/lazily.tsx';
import { useWorkbenchState } from '../../state/context.ts';
import { shownInWorking } from '../../state/folding.ts';
import { EntryCard } from './EntryCard.tsx';
import { NextGiven } from './NextGiven.tsx';
import { Sorting, SortingContext } from './sorting.ts';

const DragAndDrop = lazily(async () => (await import('./DragAndDrop.tsx')).DragAndDrop);

/** The page of entries, set like a worked solution, with the field for the next given at its foot. */
export function Working({
  demonstration,
  hasArrived,
}: {
  demonstration: string;
  /** Whether the field for the next given is there yet. */
  hasArrived: boolean;
}) {
  const ids = useWorkbenchState(useShallow((state) => shownInWorking(state.document)));
  const areDegrees = useWorkbenchState((state) => state.document.angles === 'degrees');
  const arrived = useArriving(ids.length, 1);
  const [sorting] = useState(() => new Sorting());
  const isSorting = useStore(sorting.store, ({ isWanted }) => isWanted);
  return (
    <aside aria-label="Working" className="card flex min-h-0 flex-col overflow-hidden">
      <SortingContext value={sorting}>
        <div className="relative min-h-0 flex-1 overflow-y-auto">
          {areDegrees && <p className="px-6 pt-3 text-sm text-quiet">Angles are in degrees.</p>}
          {ids.slice(0, arrived).map((id) => (
            <EntryCard key={id} id={id} />
          ))}
          {ids.length === 0 && <EmptyWorking />}
        </div>
        {isSorting && <DragAndDrop ids={ids} />}
      </SortingContext>
      {hasArrived && <NextGiven draftKey={`yperkine/draft/${demonstration}`} />}
    </aside>
  );
}

function EmptyWorking() {
  return (
    <div className="px-6 py-8 text-quiet">
      <h2 className="mb-2 text-lg font-semibold text-ink">Begin with a function</h2>
      <p className="mb-3">Type it below as a textbook prints it, and press Enter. For example:</p>
      <ul className="space-y-1 text-ink">
        {['f(x) = 3x^2 − 5x − 2', 'f(x) = sin 2x', 'h(t) = t(12 − t)/5', 'f(x) = √(x + 1)'].map((example) => (
          <li key={example}>{example}</li>
        ))}
      </ul>
      <p className="mt-3">Then click its curve for a point or a tangent.</p>
    </div>
  );
}
