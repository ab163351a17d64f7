import { useQuery } from '@tanstack/react-query';
import { startTransition, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { demonstrations } from '../api/demonstrations.ts';
import { Refusal } from '../api/http.ts';
import { useArriving } from '../parts/arriving.ts';
import { useWorkbenchState, WorkbenchContext } from '../state/context.ts';
import { useTheme } from '../theme/theme.ts';
import { openWorkbench, type OpenDemonstration } from '../state/openWorkbench.ts';
import { rehearse } from '../state/rehearsal.ts';
import type { Workbench } from '../state/workbench.ts';
import { listenToDrops } from './data/drops.ts';
import { Deck } from './deck/Deck.tsx';
import { Chooser, ConflictDialog, DataDialog, fetchAhead, keepTypedForChooser } from './dialogs.ts';
import { listenToKeys } from './keys.ts';
import { Notices } from './SavedState.tsx';
import { Tiers } from './tiers/Tiers.tsx';
import { TopBar } from './TopBar.tsx';
import { Working } from './working/Working.tsx';

/** Opens a demonstration by its address and shows the screen where it is built. */
export function BuildRoute() {
  const { id = '' } = useParams();
  const query = useQuery({
    queryKey: ['demonstration', id],
    queryFn: () => demonstrations.open(id),
    // The open demonstration lives in its workbench; the server is asked once, at opening.
    staleTime: Infinity,
    gcTime: 0,
    retry: (count, error) => !(error instanceof Refusal) && count < 5,
  });
  const [opened, setOpened] = useState<OpenDemonstration | null>(null);
  const stored = query.data;

  useEffect(() => {
    if (!stored) return;
    let isCurrent = true;
    let demonstration: OpenDemonstration | null = null;
    void openWorkbench(stored).then((open) => {
      demonstration = open;
      if (isCurrent) startTransition(() => setOpened(open));
      else open.close();
    });
    return () => {
      isCurrent = false;
      demonstration?.close();
      setOpened(null);
    };
  }, [stored]);

  if (query.error) return <Unopened message={query.error.message} />;
  if (!opened) return <p className="p-8 text-quiet">Opening …</p>;
  return (
    <WorkbenchContext value={opened.workbench}>
      <BuildView demonstration={id} opened={opened} />
    </WorkbenchContext>
  );
}

/** Paper or slate for everybody, where the demonstration asks for one of them. */
function useBackdrop(): void {
  const backdrop = useWorkbenchState((state) => state.document.looks.backdrop);
  useEffect(() => {
    useTheme.setState({ asked: { viewer: null, paper: 'day' as const, slate: 'night' as const }[backdrop] });
    return () => useTheme.setState({ asked: null });
  }, [backdrop]);
}

function Unopened({ message }: { message: string }) {
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1 className="mb-2 text-2xl font-semibold">This demonstration cannot be opened</h1>
      <p className="mb-4 text-quiet">{message}</p>
      <Link to="/" className="font-semibold underline underline-offset-2">
        Back to the library
      </Link>
    </main>
  );
}

/** The screen, put together part by part, so that it answers from the first on: the deck leaves the graphs their room. */
function BuildView({ demonstration, opened }: { demonstration: string; opened: OpenDemonstration }) {
  const { workbench } = opened;
  useEffect(() => listenToKeys(workbench), [workbench]);
  useEffect(() => listenToDrops(workbench), [workbench]);
  useEffect(() => {
    workbench.frames.request();
  }, [workbench]);
  useBackdrop();
  const arrived = useArriving(4, 1);
  return (
    <div className="flex min-h-dvh flex-col gap-2 lg:h-dvh">
      <TopBar />
      <Notices />
      <main className="grid min-h-0 flex-1 grid-cols-1 gap-3 px-2 pb-2 sm:px-4 sm:pb-4 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="flex min-h-0 flex-col gap-3">
          <div className="flex h-[54dvh] min-h-64 flex-col lg:h-auto lg:min-h-0 lg:flex-1">
            {arrived > 2 && <Tiers />}
          </div>
          {arrived > 1 && <Deck />}
        </div>
        <Working demonstration={demonstration} hasArrived={arrived > 3} />
      </main>
      {arrived > 3 && <Ahead workbench={workbench} />}
      {arrived > 3 && <Dialogs />}
    </div>
  );
}

/** What is made ready once the screen stands. */
function Ahead({ workbench }: { workbench: Workbench }) {
  useEffect(fetchAhead, []);
  useEffect(() => rehearse(workbench), [workbench]);
  return null;
}

function Dialogs() {
  const isChoosing = useWorkbenchState(({ choosing }) => choosing !== null);
  const isImporting = useWorkbenchState(({ importing }) => importing !== null);
  const isAsking = useWorkbenchState(({ conflicts }) => conflicts.length > 0);
  useEffect(() => (isChoosing ? keepTypedForChooser() : undefined), [isChoosing]);
  return (
    <>
      {isChoosing && <Chooser />}
      {isImporting && <DataDialog />}
      {isAsking && <ConflictDialog />}
    </>
  );
}
