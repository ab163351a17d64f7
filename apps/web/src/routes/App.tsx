import { QueryCache, QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { BrowserRouter, Link, Route, Routes } from 'react-router';
import { lazy, Suspense } from 'react';
import { accounts } from '../api/accounts.ts';
import { Refusal } from '../api/http.ts';
import { SignInRoute } from './SignInRoute.tsx';

const LibraryRoute = lazy(async () => ({
  default: (await import('../library/LibraryRoute.tsx')).LibraryRoute,
}));
// What the build view stands on is asked for together with it, so that it is on its way as early. What is asked for by
// itself starts in a task of its own, and the page gets its turn in between.
const BuildRoute = lazy(async () => {
  void import('../build/groundwork/mathematics.ts');
  void import('../build/groundwork/demonstration.ts');
  return { default: (await import('../build/BuildView.tsx')).BuildRoute };
});

const queries = new QueryClient({
  queryCache: new QueryCache({
    // A session that ended elsewhere leads back to the sign-in page.
    onError: (error) => {
      if (error instanceof Refusal && error.status === 401) {
        void queries.invalidateQueries({ queryKey: ['session'] });
      }
    },
  }),
  defaultOptions: {
    queries: {
      retry: (count, error) => !(error instanceof Refusal) && count < 3,
      refetchOnWindowFocus: false,
    },
  },
});

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <BrowserRouter>
        <Gate />
      </BrowserRouter>
    </QueryClientProvider>
  );
}

/** Lets in who is signed in; everybody else sees the sign-in page at the address they came for. */
function Gate() {
  const session = useQuery({ queryKey: ['session'], queryFn: accounts.session, staleTime: Infinity });
  if (session.error) {
    return (
      <main className="p-10">
        <h1 className="mb-2 text-2xl font-semibold">Yperkine cannot be reached</h1>
        <p className="text-quiet">{session.error.message} Reload the page to try again.</p>
      </main>
    );
  }
  if (!session.data) return null;
  const { account, demo } = session.data;
  if (!account) return <SignInRoute demo={demo} />;
  return (
    <Suspense fallback={<p className="p-8 text-quiet">Opening …</p>}>
      <Routes>
        <Route path="/" element={<LibraryRoute name={account.name} />} />
        <Route path="/demonstrations/:id" element={<BuildRoute />} />
        <Route path="*" element={<Nowhere />} />
      </Routes>
    </Suspense>
  );
}

function Nowhere() {
  return (
    <main className="p-10">
      <h1 className="mb-2 text-2xl font-semibold">There is nothing at this address</h1>
      <Link to="/" className="font-semibold underline underline-offset-2">
        To the library
      </Link>
    </main>
  );
}
