import { demonstrations } from '../api/demonstrations.ts';
import type { Saver } from './saver.ts';
import type { Workbench } from './workbench.ts';

/** Milliseconds after which news are asked for again where they were refused. */
const rest = 10_000;

/**
 * Takes in what other windows save, as soon as it is told and nothing of it is being edited here. Only a window that can
 * be seen listens: a browser has few connections to one server, and they are for all its windows.
 * @returns what ends it
 */
export function listenForNews(id: string, saver: Saver, workbench: Workbench): () => void {
  let events: EventSource | null = null;
  /** The newest version that was told. */
  let told = 0;
  let isAsking = false;
  let later: ReturnType<typeof setTimeout> | undefined;

  const takeIn = async (): Promise<void> => {
    if (isAsking || told <= saver.serverVersion || !saver.isIdle) return;
    isAsking = true;
    const stale = await demonstrations.since(id, saver.serverVersion).catch(() => null);
    isAsking = false;
    if (!stale) return;
    told = stale.version;
    // What is being edited here is taken in once it is settled, or asked about when it is saved.
    if (workbench.canTakeIn(stale.since)) saver.hear(stale);
  };
  const heard = ({ data }: MessageEvent<string>): void => {
    told = Math.max(told, Number(data));
    void takeIn();
  };
  /** A browser tries again by itself where nobody answers, but not where it is refused, as while the database is away. */
  const refused = (): void => {
    if (events?.readyState !== EventSource.CLOSED) return;
    events = null;
    later = setTimeout(listen, rest);
  };
  const listen = (): void => {
    clearTimeout(later);
    if (document.hidden) {
      events?.close();
      events = null;
    } else if (!events) {
      events = new EventSource(demonstrations.newsOf(id));
      events.addEventListener('error', refused);
      events.addEventListener('version', heard);
      // News may have been lost: whatever there is since is asked for.
      events.addEventListener('gap', () => {
        told = Math.max(told, saver.serverVersion + 1);
        void takeIn();
      });
    }
  };
  listen();
  document.addEventListener('visibilitychange', listen);
  const forget = workbench.store.subscribe((state, before) => {
    const isSettled =
      state.open !== before.open || state.saveState !== before.saveState || state.playing !== before.playing;
    if (isSettled && told > saver.serverVersion) void takeIn();
  });
  return () => {
    clearTimeout(later);
    events?.close();
    document.removeEventListener('visibilitychange', listen);
    forget();
  };
}
