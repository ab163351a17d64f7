import { startTransition, useEffect, useRef, useState } from 'react';

/** Milliseconds that showing one batch should take, so that whatever is pressed meanwhile is answered at once. */
const pace = 24;
const mostAtOnce = 16;

/**
 * How many of many parts are shown: a few at first, then batch after batch, each in a task of its own, until all are.
 * What is added afterwards is shown at once.
 * @param count of the parts there are
 */
export function useArriving(count: number, atFirst: number): number {
  const [shown, setShown] = useState(atFirst);
  const batch = useRef({ size: 1, begun: 0 });
  useEffect(() => {
    if (shown === Infinity) return;
    const timer = setTimeout(() => {
      const { size, begun } = batch.current;
      const now = performance.now();
      const next =
        begun === 0 ? 1 : Math.min(2 * size, mostAtOnce, Math.round((size * pace) / (now - begun)));
      batch.current = { size: Math.max(1, next), begun: now };
      const reached = shown + batch.current.size;
      // What arrives is put together in the pauses between what is more urgent.
      startTransition(() => setShown(reached < count ? reached : Infinity));
    });
    return () => clearTimeout(timer);
  }, [shown, count]);
  return shown;
}
