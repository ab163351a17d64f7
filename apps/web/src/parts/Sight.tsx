import { use, useCallback, useState, type ReactNode } from 'react';
import { SightContext, useWorkbench } from '../state/context.ts';
import { SightedStore } from '../state/sight.ts';

/** A part of the page that is shown the state as often as it can be seen; `useSightOf` says by which element. */
export function Sight({ children }: { readonly children: ReactNode }) {
  const { store } = useWorkbench();
  const [sight] = useState(() => new SightedStore(store));
  return <SightContext value={sight}>{children}</SightContext>;
}

/** Watches the element that has to be on the screen for what is around it to follow every frame; gives how to stop. */
export function useSightOf(): (element: Element) => () => void {
  const sight = use(SightContext);
  return useCallback(
    (element) => {
      const observer = new IntersectionObserver((seen) => sight?.see(seen.at(-1)?.isIntersecting ?? true));
      observer.observe(element);
      return () => observer.disconnect();
    },
    [sight],
  );
}
