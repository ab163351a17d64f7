import { inOrder, type Document } from '@yperkine/demonstration';
import { useShallow } from 'zustand/shallow';
import { useStore } from 'zustand';
import { useWorkbench } from '../../state/context.ts';
import { EntryCard } from './EntryCard.tsx';
import { NextGiven } from './NextGiven.tsx';

const shownIds = (document: Document): string[] =>
  inOrder(document.entries)
    .filter(([, { kind }]) => kind !== 'parameter' && kind !== 'reveal')
    .map(([id]) => id);

/** The page of entries, set like a worked solution, with the field for the next given at its foot. */
export function Working({ demonstration }: { demonstration: string }) {
  const workbench = useWorkbench();
  const ids = useStore(
    workbench.store,
    useShallow((state) => shownIds(state.document)),
  );
  return (
    <aside aria-label="Working" className="card flex min-h-0 flex-col overflow-hidden">
      <div className="min-h-0 flex-1 overflow-y-auto">
        {ids.map((id) => (
          <EntryCard key={id} id={id} />
        ))}
        {ids.length === 0 && <EmptyWorking />}
      </div>
      <NextGiven draftKey={`yperkine/draft/${demonstration}`} />
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
