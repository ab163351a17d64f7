import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import type { DemonstrationSummary } from '@yperkine/protocol';
import { formatDistanceToNow } from 'date-fns';
import { LogOut, Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { accounts } from '../api/accounts.ts';
import { library } from '../api/library.ts';
import { ActionMenu } from '../parts/ActionMenu.tsx';
import { lazily } from '../parts/lazily.tsx';
import { Button, IconButton } from '../parts/Button.tsx';
import { ThemeButton } from '../parts/ThemeButton.tsx';
import { Wordmark } from '../parts/Wordmark.tsx';
import { useTheme } from '../theme/theme.ts';

const RemoveDialog = lazily(async () => (await import('./RemoveDialog.tsx')).RemoveDialog);

/** The shelf of one's demonstrations. */
export function LibraryRoute({ name }: { name: string }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const shelf = useInfiniteQuery({
    queryKey: ['library'],
    queryFn: ({ pageParam }) => library.page(pageParam),
    initialPageParam: null as string | null,
    getNextPageParam: ({ next }) => next,
    refetchOnMount: 'always',
  });
  const shown = shelf.data?.pages.flatMap(({ demonstrations }) => demonstrations);
  const make = useMutation({
    mutationFn: library.make,
    onSuccess: ({ id }) => navigate(`/demonstrations/${id}`),
  });
  const copy = useMutation({
    mutationFn: (id: string) => library.make({ copyOf: id }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['library'] }),
  });
  const [leaving, setLeaving] = useState<DemonstrationSummary | null>(null);
  const signOut = useMutation({ mutationFn: accounts.signOut, onSuccess: () => queries.resetQueries() });
  const problem = (shelf.data ? null : shelf.error) ?? make.error ?? copy.error ?? signOut.error;

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
        {shown?.length === 0 && <EmptyShelf />}
        <ul className="grid grid-cols-1 gap-5 pb-8 sm:grid-cols-2 lg:grid-cols-3">
          {shown?.map((summary) => (
            <DemonstrationCard
              key={summary.id}
              summary={summary}
              onCopy={() => copy.mutate(summary.id)}
              onRemove={() => setLeaving(summary)}
            />
          ))}
        </ul>
        {shelf.hasNextPage && (
          <MoreButton
            isBusy={shelf.isFetchingNextPage}
            problem={shelf.isFetchNextPageError ? shelf.error.message : null}
            onMore={() => void shelf.fetchNextPage()}
          />
        )}
      </main>
      {leaving && <RemoveDialog summary={leaving} onClose={() => setLeaving(null)} />}
    </div>
  );
}

interface MoreButtonProps {
  readonly isBusy: boolean;
  /** Why the last try failed. After that it is the person who tries again. */
  readonly problem: string | null;
  readonly onMore: () => void;
}

/** Brings the next page when it comes into sight, or is pressed. */
function MoreButton({ isBusy, problem, onMore }: MoreButtonProps) {
  const place = useRef<HTMLDivElement>(null);
  const comesByItself = problem === null;
  useEffect(() => {
    if (!place.current || isBusy || !comesByItself) return;
    const observer = new IntersectionObserver(([entry]) => entry?.isIntersecting && onMore(), {
      rootMargin: '300px',
    });
    observer.observe(place.current);
    return () => observer.disconnect();
  }, [isBusy, comesByItself, onMore]);
  return (
    <div ref={place} className="grid place-items-center gap-3 pb-10">
      {problem !== null && (
        <p role="alert" className="text-danger">
          {problem}
        </p>
      )}
      <Button disabled={isBusy} onClick={onMore}>
        Show more
      </Button>
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
          loading="lazy"
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
