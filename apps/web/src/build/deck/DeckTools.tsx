import { Switch } from '@headlessui/react';
import type { EntryOf, Id } from '@yperkine/demonstration';
import { Eraser, ListPlus, Pause, Play, RotateCcw } from 'lucide-react';
import { useState, type ComponentProps, type ReactNode } from 'react';
import { useShallow } from 'zustand/shallow';
import { lazily } from '../../parts/lazily.tsx';
import { ActionMenu, type MenuAction } from '../../parts/ActionMenu.tsx';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { bringIntoSight } from '../working/intoSight.ts';
import { addReveal, firstShownBy, revealsOf, switchReveal, titleOfReveal } from '../../state/reveals.ts';
import { keepTrial } from '../../state/trials.ts';
import { perDocument } from '../../state/perDocument.ts';
import { makeStart, restoreStart } from '../../state/start.ts';
import { keepStep } from '../../state/steps.ts';

const RevealTable = lazily(async () => (await import('./RevealTable.tsx')).RevealTable);

interface ToolProps extends ComponentProps<'button'> {
  readonly icon: ReactNode;
  readonly label: string;
}

function Tool({ icon, label, ...rest }: ToolProps) {
  return (
    <button
      type="button"
      className="inline-flex min-h-8 shrink-0 items-center gap-1.5 rounded-lg px-2.5 text-sm text-quiet hover:bg-hover hover:text-ink pointer-coarse:min-h-10"
      {...rest}
    >
      {icon}
      {label}
    </button>
  );
}

const revealIds = perDocument((document) => revealsOf(document).map(([id]) => id));

interface DeckToolsProps {
  readonly laneCount: number;
  /** Shows the lanes as students will have them. */
  readonly asStudent: boolean;
  readonly onStudent: (asStudent: boolean) => void;
}

/** What concerns all lanes at once, and the reveals as switches. */
export function DeckTools({ laneCount, asStudent, onStudent }: DeckToolsProps) {
  const workbench = useWorkbench();
  const [isTableOpen, setTableOpen] = useState(false);
  const reveals = useWorkbenchState(useShallow((state) => revealIds(state.document)));
  const hasTrails = useWorkbenchState(({ document }) =>
    Object.values(document.entries).some(({ kind }) => kind === 'trail'),
  );
  const actions = (): MenuAction[] => [
    { label: 'Make this the start', run: () => makeStart(workbench) },
    { label: 'Add a reveal', run: () => addReveal(workbench) },
    { label: 'What shows when …', run: () => setTableOpen(true) },
    { label: 'Keep this as a step', run: () => keepStep(workbench) },
    {
      label: asStudent ? 'Show all lanes again' : 'Show the lanes as students see them',
      run: () => onStudent(!asStudent),
    },
  ];
  return (
    <div role="group" aria-label="Deck tools" className="flex flex-wrap items-center gap-x-1 gap-y-1">
      {laneCount > 1 && <PlayAll />}
      <Tool
        icon={<RotateCcw size={14} aria-hidden />}
        label="Restore the start"
        onClick={() => restoreStart(workbench)}
      />
      <Tool
        icon={<ListPlus size={14} aria-hidden />}
        label="Keep this trial"
        onClick={() => keepTrial(workbench)}
      />
      {hasTrails && (
        <Tool
          icon={<Eraser size={14} aria-hidden />}
          label="Clear the trails"
          title="Clear the trails (Backspace)"
          onClick={() => workbench.clearTrails()}
        />
      )}
      {reveals.map((id) => (
        <RevealSwitch key={id} id={id} />
      ))}
      <span className="ml-auto">
        <ActionMenu label="More for the deck" actions={actions} isSmall />
      </span>
      {isTableOpen && <RevealTable onClose={() => setTableOpen(false)} />}
    </div>
  );
}

/** Sets all lanes in motion at once, or stops what moves. */
function PlayAll() {
  const workbench = useWorkbench();
  const isPlaying = useWorkbenchState(({ playing }) => Object.keys(playing).length > 0);
  const Icon = isPlaying ? Pause : Play;
  return (
    <Tool
      icon={<Icon size={14} fill="currentColor" aria-hidden />}
      label={isPlaying ? 'Stop all' : 'Play all'}
      onClick={() => (isPlaying ? workbench.stop() : workbench.playAll())}
    />
  );
}

function RevealSwitch({ id }: { id: Id }) {
  const entry = useWorkbenchState((state) => state.document.entries[id]);
  return entry?.kind === 'reveal' ? <RevealToggle id={id} entry={entry} /> : null;
}

function RevealToggle({ id, entry }: { id: Id; entry: EntryOf<'reveal'> }) {
  const workbench = useWorkbench();
  return (
    <Switch
      checked={entry.switchedOn}
      onChange={(switchedOn) => {
        const first = switchedOn ? firstShownBy(workbench, [entry]) : undefined;
        switchReveal(workbench, id, switchedOn);
        if (first !== undefined) bringIntoSight(first);
      }}
      className="group inline-flex min-h-8 shrink-0 items-center gap-2 rounded-lg px-2.5 text-sm text-quiet hover:bg-hover data-checked:text-ink pointer-coarse:min-h-10"
    >
      <span
        aria-hidden
        className="relative h-4.5 w-8 rounded-full border border-quiet bg-paper transition-colors group-data-checked:border-ink group-data-checked:bg-ink"
      >
        <span className="absolute top-0.5 left-0.5 size-3 rounded-full bg-quiet transition-transform group-data-checked:translate-x-3.5 group-data-checked:bg-sheet" />
      </span>
      {titleOfReveal(entry)}
    </Switch>
  );
}
