import { lazily } from '../parts/lazily.tsx';

/** What opens over the build view now and then: each is loaded when it is first asked for. */
export const DataDialog = lazily(async () => (await import('./data/DataDialog.tsx')).DataDialog);
export const ConflictDialog = lazily(async () => (await import('./ConflictDialog.tsx')).ConflictDialog);
