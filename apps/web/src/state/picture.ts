import type { Workbench } from './workbench.ts';

/** What lies over the graphs for hands alone and is no part of their picture. */
const isForHands = (node: Node): boolean =>
  node instanceof HTMLElement &&
  (node.getAttribute('role') === 'slider' || node.hasAttribute('data-window-tools') || node.hidden === true);

/** Puts a picture of the graphs as they are seen just now on the clipboard. */
export async function copyPicture(workbench: Workbench): Promise<void> {
  const graphs = document.querySelector<HTMLElement>('[aria-label="Graphs"]');
  if (!graphs) return;
  try {
    const { toBlob } = await import('html-to-image');
    // The clipboard is asked for at once, while the press is fresh; the picture follows.
    const picture = toBlob(graphs, {
      filter: (node) => !isForHands(node),
      pixelRatio: Math.max(2, window.devicePixelRatio),
    }).then((blob) => blob ?? Promise.reject(new Error('no picture')));
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': picture })]);
    workbench.tell('A picture of the graphs is on the clipboard.');
  } catch {
    workbench.tell('The browser did not let the picture onto the clipboard.');
  }
}
