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
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { headOfEntry, type Id } from '@yperkine/demonstration';
import { useEffect, useMemo } from 'react';
import { useWorkbench } from '../../state/context.ts';
import { moveOnto } from '../../state/order.ts';
import type { Workbench } from '../../state/workbench.ts';
import { useSorting } from './sorting.ts';

/** Lets the cards of the working be carried to another place, by mouse, touch and keyboard. Shows nothing itself. */
export function DragAndDrop({ ids }: { ids: readonly Id[] }) {
  const workbench = useWorkbench();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const announcements = useMemo(() => announcementsFor(workbench), [workbench]);
  const drop = ({ active, over }: DragEndEvent) => {
    if (over) moveOnto(workbench, ids, String(active.id), String(over.id));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
      accessibility={{ announcements }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        {ids.map((id) => (
          <Binding key={id} id={id} />
        ))}
      </SortableContext>
    </DndContext>
  );
}

/** Ties one card to its place among the others. */
function Binding({ id }: { id: Id }) {
  const sorting = useSorting();
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } =
    useSortable({ id });
  useEffect(() => {
    setNodeRef(sorting.cards.get(id) ?? null);
    setActivatorNodeRef(sorting.grips.get(id) ?? null);
  }, [id, sorting, setNodeRef, setActivatorNodeRef]);
  const shift = CSS.Translate.toString(transform);
  useEffect(() => {
    sorting.bind(id, { attributes, listeners, transform: shift, transition, isDragging });
  }, [id, sorting, attributes, listeners, shift, transition, isDragging]);
  useEffect(() => {
    // The grip listens from the next frame on.
    const frame = requestAnimationFrame(() => sorting.catchUp(id));
    return () => {
      cancelAnimationFrame(frame);
      sorting.bind(id, undefined);
    };
  }, [id, sorting]);
  return null;
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
