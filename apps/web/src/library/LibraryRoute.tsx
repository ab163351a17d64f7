import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { DemonstrationSummary } from '@yperkine/protocol';
import { formatDistanceToNow } from 'date-fns';
import { LogOut, Plus } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { api } from '../api/client.ts';
import { ThemeButton } from '../build/TopBar.tsx';
import { ActionMenu } from '../parts/ActionMenu.tsx';
import { Button, IconButton } from '../parts/Button.tsx';
import { Wordmark } from '../parts/Wordmark.tsx';
import { Veil } from '../parts/Veil.tsx';
import { useTheme } from '../theme/theme.ts';

/** The shelf of one's demonstrations. */
export function LibraryRoute({ name }: { name: string }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, refetchOnMount: 'always' });
  const make = useMutation({
    mutationFn: api.make,
    onSuccess: ({ id }) => navigate(`/demonstrations/${id}`),
  });
  const copy = useMutation({
    mutationFn: (id: string) => api.make({ copyOf: id }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['library'] }),
  });
  const [leaving, setLeaving] = useState<DemonstrationSummary | null>(null);
  const signOut = useMutation({ mutationFn: api.signOut, onSuccess: () => queries.resetQueries() });
  const problem = library.error ?? make.error ?? copy.error ?? signOut.error;

  return (
    <div className="mx-auto min-h-dvh max-w-6xl px-4 sm:px-6">
      <header className="flex items-center gap-3 py-4">
        <Wordmark />
        <span className="ml-auto hidden text-quiet sm:inline">{name}</span>
        <ThemeButton />
        <IconButton label="Sign out" onClick={() => signOut.mutate()}>
          <LogOut size={18} aria-hidden />
        </IconButton>
      </header>
      <main>
        <div className="mt-2 mb-5 flex flex-wrap items-center gap-3">
          <h1 className="flex-1 text-3xl font-semibold">Library</h1>
          <Button look="strong" disabled={make.isPending} onClick={() => make.mutate({})}>
            <Plus size={18} aria-hidden /> New
          </Button>
        </div>
        {problem && (
          <p role="alert" className="mb-4 text-danger">
            {problem.message}
          </p>
        )}
        {library.data?.demonstrations.length === 0 && <EmptyShelf />}
        <ul className="grid grid-cols-1 gap-5 pb-10 sm:grid-cols-2 lg:grid-cols-3">
          {library.data?.demonstrations.map((summary) => (
            <DemonstrationCard
              key={summary.id}
              summary={summary}
              onCopy={() => copy.mutate(summary.id)}
              onRemove={() => setLeaving(summary)}
            />
          ))}
        </ul>
      </main>
      {leaving && <RemoveDialog summary={leaving} onClose={() => setLeaving(null)} />}
    </div>
  );
}

function EmptyShelf() {
  return <p className="py-10 text-lg text-quiet">Nothing here yet. “New” opens an empty demonstration.</p>;
}

interface DemonstrationCardProps {
  readonly summary: DemonstrationSummary;
  readonly onCopy: () => void;
  readonly onRemove: () => void;
}

function DemonstrationCard({
  summary: { id, title, version, changedAt },
  onCopy,
  onRemove,
}: DemonstrationCardProps) {
  const theme = useTheme(({ name }) => name);
  const shownTitle = title || 'Untitled demonstration';
  return (
    <li className="card relative overflow-hidden transition-transform hover:-translate-y-0.5">
      <Link to={`/demonstrations/${id}`} className="block rounded-[14px] outline-offset-[-3px]">
        <img
          src={`/api/demonstrations/${id}/picture.svg?theme=${theme}&version=${version}`}
          alt=""
          width={320}
          height={200}
          className="aspect-[16/10] w-full border-b border-rule"
        />
        <span className="block px-4 pt-3 pr-14 text-lg leading-snug font-semibold">{shownTitle}</span>
        <span className="block px-4 pb-3.5 text-sm text-quiet">
          changed {formatDistanceToNow(new Date(changedAt), { addSuffix: true })}
        </span>
      </Link>
      <div className="absolute right-2 bottom-3">
        <ActionMenu
          label={`More for ${shownTitle}`}
          actions={() => [
            { label: 'Copy', run: onCopy },
            { label: 'Delete …', run: onRemove, isDangerous: true },
          ]}
        />
      </div>
    </li>
  );
}

function RemoveDialog({ summary, onClose }: { summary: DemonstrationSummary; onClose: () => void }) {
  const queries = useQueryClient();
  const remove = useMutation({
    mutationFn: () => api.remove(summary.id),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['library'] });
      onClose();
    },
  });
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <Veil />
      <div className="fixed inset-0 grid place-items-center p-4">
        <DialogPanel className="card w-full max-w-md p-6">
          <DialogTitle className="text-xl font-semibold">Delete “{summary.title}”?</DialogTitle>
          <p className="mt-1 mb-5 text-quiet">It cannot be brought back.</p>
          {remove.error && (
            <p role="alert" className="mb-3 text-danger">
              {remove.error.message}
            </p>
          )}
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Keep it</Button>
            <Button look="strong" disabled={remove.isPending} onClick={() => remove.mutate()}>
              Delete
            </Button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
