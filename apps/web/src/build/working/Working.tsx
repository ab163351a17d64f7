import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { headOfEntry } from '@yperkine/demonstration';
import { useMemo } from 'react';
import { useShallow } from 'zustand/shallow';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { shownInWorking } from '../../state/folding.ts';
import { moveOnto } from '../../state/order.ts';
import type { Workbench } from '../../state/workbench.ts';
import { EntryCard } from './EntryCard.tsx';
import { NextGiven } from './NextGiven.tsx';

/** The page of entries, set like a worked solution, with the field for the next given at its foot. */
export function Working({ demonstration }: { demonstration: string }) {
  const workbench = useWorkbench();
  const ids = useWorkbenchState(useShallow((state) => shownInWorking(state.document)));
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const announcements = useMemo(() => announcementsFor(workbench), [workbench]);
  const drop = ({ active, over }: DragEndEvent) => {
    if (over) moveOnto(workbench, ids, String(active.id), String(over.id));
  };
  return (
    <aside aria-label="Working" className="card flex min-h-0 flex-col overflow-hidden">
      <div className="relative min-h-0 flex-1 overflow-y-auto">
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          onDragEnd={drop}
          accessibility={{ announcements }}
        >
          <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
            {ids.map((id) => (
              <EntryCard key={id} id={id} />
            ))}
          </SortableContext>
        </DndContext>
        {ids.length === 0 && <EmptyWorking />}
      </div>
      <NextGiven draftKey={`yperkine/draft/${demonstration}`} />
    </aside>
  );
}

/** What screen readers hear while an entry is moved. */
function announcementsFor(workbench: Workbench): Announcements {
  const name = (id: UniqueIdentifier | undefined): string => {
    const resolved = workbench.state.resolution.entries.get(String(id));
    return resolved ? headOfEntry(resolved).heading : 'the entry';
  };
  return {
    onDragStart: ({ active }) => `${name(active.id)} is lifted.`,
    onDragOver: ({ active, over }) => (over ? `${name(active.id)} is at the place of ${name(over.id)}.` : ''),
    onDragEnd: ({ active, over }) =>
      over ? `${name(active.id)} is put at the place of ${name(over.id)}.` : `${name(active.id)} stays.`,
    onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
  };
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
