import { headOfEntry, type Entry, type Id, type Tone } from '@yperkine/demonstration';
import clsx from 'clsx';
import { ChevronDown, ChevronRight, Eye, EyeOff, GripVertical } from 'lucide-react';
import { useCallback, useId, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { ActionMenu, type MenuAction } from '../../parts/ActionMenu.tsx';
import { IconButton } from '../../parts/Button.tsx';
import { useSightOf } from '../../parts/Sight.tsx';
import { setField } from '../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { cssColour } from '../../theme/colour.ts';
import { cardOf } from './intoSight.ts';
import { useCarried, useSorting } from './sorting.ts';

interface CardFrameProps {
  readonly id: Id;
  readonly entry: Entry;
  readonly tone: Tone;
  /** Why its marks are not on the graph; null where they are. */
  readonly absence: string | null;
  readonly actions: () => readonly MenuAction[];
  readonly children: ReactNode;
}

/**
 * A card far from what is seen keeps its place without being laid out: a long working stays quick. What is suggested
 * while one types in a card reaches beyond it.
 */
const farOffIsNotLaidOut =
  '[contain-intrinsic-size:auto_9rem] [content-visibility:auto] focus-within:[content-visibility:visible]';

/** The frame of an entry's card: its heading, the grip by which it is moved, its menu. */
export function CardFrame({ id, entry, tone, absence, actions, children }: CardFrameProps) {
  const workbench = useWorkbench();
  const headingId = useId();
  const isEmphasised = useWorkbenchState((state) => state.emphasis === id);
  const sorting = useSorting();
  const carried = useCarried(id);
  const watch = useSightOf();
  const isHeading = entry.kind === 'heading';
  const ref = useCallback(
    (section: HTMLElement | null) => {
      if (section) sorting.cards.set(id, section);
      const stopWatching = section ? watch(section) : null;
      return () => {
        stopWatching?.();
        sorting.cards.delete(id);
      };
    },
    [id, sorting, watch],
  );
  return (
    <section
      ref={ref}
      id={cardOf(id)}
      aria-labelledby={headingId}
      onPointerEnter={({ pointerType }) => {
        sorting.want();
        if (pointerType === 'mouse') workbench.emphasise(id);
      }}
      onPointerLeave={() => workbench.emphasise(null)}
      onFocus={() => workbench.emphasise(id)}
      onBlur={() => workbench.emphasise(null)}
      style={{ transform: carried?.transform, transition: carried?.transition }}
      className={clsx(
        'group/card relative border-b border-rule pr-3 pl-5 transition-colors',
        isHeading ? 'bg-paper py-1.5' : 'py-3.5',
        isEmphasised && 'bg-here/8 before:absolute before:inset-y-0 before:left-0 before:w-1 before:bg-here',
        carried?.isDragging ? 'z-10 bg-sheet shadow-lg' : farOffIsNotLaidOut,
      )}
    >
      <header className="flex items-center gap-2.5">
        {isHeading ? <FoldButton id={id} entry={entry} /> : <Dot tone={tone} />}
        <h2
          id={headingId}
          className={clsx('flex-1 font-semibold', isHeading ? 'text-lg text-ink' : 'text-quiet')}
        >
          <Heading id={id} />
        </h2>
        {absence !== null && (
          <span className="flex items-center gap-1 text-sm text-quiet">
            <EyeOff size={15} aria-hidden /> {absence}
          </span>
        )}
        {isHeading && <GroupEye id={id} entry={entry} />}
        <MoveGrip id={id} headingId={headingId} />
        <ActionMenu label="More for" of={headingId} actions={actions} />
      </header>
      <div className="pr-2 pl-5">{children}</div>
    </section>
  );
}

/** What a card is carried by. Until drag and drop is loaded it keeps the press or key that asked for it. */
function MoveGrip({ id, headingId }: { id: Id; headingId: string }) {
  const moveId = useId();
  const sorting = useSorting();
  const carried = useCarried(id);
  const ref = useCallback(
    (grip: HTMLElement | null) => {
      if (grip) sorting.grips.set(id, grip);
      return () => void sorting.grips.delete(id);
    },
    [id, sorting],
  );
  const early = {
    onFocus: () => sorting.want(),
    onPointerDown: ({ nativeEvent }: PointerEvent) => sorting.miss(id, nativeEvent),
    onPointerUp: () => sorting.forget(),
    onPointerCancel: () => sorting.forget(),
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key !== ' ' && event.key !== 'Enter') return;
      event.preventDefault();
      sorting.miss(id, event.nativeEvent);
    },
  };
  return (
    <button
      ref={ref}
      type="button"
      {...(carried ? { ...carried.attributes, ...carried.listeners } : early)}
      id={moveId}
      aria-label="Move"
      aria-labelledby={`${moveId} ${headingId}`}
      title="Drag to another place; with the keyboard: Space lifts it, arrows move it, Space puts it down"
      className="inline-flex h-8 w-6 cursor-grab touch-none items-center justify-center rounded text-quiet opacity-0 group-hover/card:opacity-100 hover:text-ink focus-visible:opacity-100 pointer-coarse:opacity-100"
    >
      <GripVertical size={16} aria-hidden />
    </button>
  );
}

/** The words of the heading, which may hold numbers that move: the card around them is not rendered again. */
function Heading({ id }: { id: Id }) {
  return useWorkbenchState(({ resolution }) => {
    const resolved = resolution.entries.get(id);
    return resolved ? headOfEntry(resolved).heading : '';
  });
}

function Dot({ tone }: { tone: Tone }) {
  return (
    <span aria-hidden className="size-2.5 shrink-0 rounded-full" style={{ background: cssColour(tone) }} />
  );
}

interface HeadingPartProps {
  readonly id: Id;
  readonly entry: Extract<Entry, { kind: 'heading' }>;
}

/** Folds away what is under a heading; what it draws stays. */
function FoldButton({ id, entry: { folded, title } }: HeadingPartProps) {
  const workbench = useWorkbench();
  const Icon = folded ? ChevronRight : ChevronDown;
  return (
    <IconButton
      label={`${folded ? 'Unfold' : 'Fold'} ${title}`}
      aria-expanded={!folded}
      onClick={() => setField(workbench, id, 'folded', !folded)}
      className="-ml-3 size-8!"
    >
      <Icon size={18} aria-hidden />
    </IconButton>
  );
}

/** Hides on the graph, or shows again, all that is under a heading. */
function GroupEye({ id, entry: { hidden, title } }: HeadingPartProps) {
  const workbench = useWorkbench();
  const Icon = hidden ? EyeOff : Eye;
  return (
    <IconButton
      label={`${hidden ? 'Show' : 'Hide'} all of ${title}`}
      aria-pressed={hidden}
      onClick={() => setField(workbench, id, 'hidden', !hidden)}
      className="size-8!"
    >
      <Icon size={17} aria-hidden />
    </IconButton>
  );
}
