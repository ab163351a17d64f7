import { limits } from '@yperkine/demonstration';
import type { Workbench } from '../../state/workbench.ts';

/** The text of a file with a table; a sentence where it cannot be used. */
export async function tableIn(file: File): Promise<{ table: string } | { message: string }> {
  if (file.size > limits.data) {
    return {
      message: `“${file.name}” is larger than ${limits.data / 1000} kB; please leave out columns that are not needed.`,
    };
  }
  return { table: await file.text() };
}

/** A file that is dropped anywhere on the screen where demonstrations are built becomes data. */
export function listenToDrops(workbench: Workbench): () => void {
  const stop = new AbortController();
  const { signal } = stop;
  const hasFile = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') ?? false;
  window.addEventListener('dragover', (event) => hasFile(event) && event.preventDefault(), { signal });
  window.addEventListener(
    'drop',
    (event) => {
      const file = event.dataTransfer?.files[0];
      if (!file) return;
      event.preventDefault();
      void tableIn(file).then((found) => {
        if ('table' in found) workbench.importing({ into: null, ...workbench.state.importing, ...found });
        else workbench.tell(found.message);
      });
    },
    { signal },
  );
  return () => stop.abort();
}
