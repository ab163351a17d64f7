import { demonstrations } from '../api/demonstrations.ts';
import type { Saver } from './saver.ts';
import type { Workbench } from './workbench.ts';

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
  const listen = (): void => {
    if (document.hidden) {
      events?.close();
      events = null;
    } else if (!events) {
      events = new EventSource(demonstrations.newsOf(id));
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
    events?.close();
    document.removeEventListener('visibilitychange', listen);
    forget();
  };
}
