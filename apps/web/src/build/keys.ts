import { slidersOf } from '@yperkine/demonstration';
import type { Workbench } from '../state/workbench.ts';

/** Whether the key belongs to the control that has the focus. */
function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  const isTextInput = target instanceof HTMLInputElement && target.type !== 'range';
  return isTextInput || target.isContentEditable || target instanceof HTMLTextAreaElement;
}

const isPressable = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest('button, a, select, [role="radio"], [role="menuitem"], [role="dialog"]') !== null;

/** Keys that work everywhere in the build view: Space plays, Backspace clears the trails, Ctrl+Z and Ctrl+Shift+Z go back and forth. */
export function listenToKeys(workbench: Workbench): () => void {
  const press = (event: KeyboardEvent) => {
    if (isTyping(event.target)) return;
    const isCommand = event.ctrlKey || event.metaKey;
    if (isCommand && event.key.toLowerCase() === 'z') {
      event.preventDefault();
      if (event.shiftKey) workbench.redo();
      else workbench.undo();
    } else if (isCommand && event.key.toLowerCase() === 'y') {
      event.preventDefault();
      workbench.redo();
    } else if (event.key === 'Backspace' && !isCommand) {
      event.preventDefault();
      workbench.clearTrails();
    } else if (event.key === ' ' && !isCommand && !isPressable(event.target)) {
      event.preventDefault();
      playHere(workbench);
    }
  };
  window.addEventListener('keydown', press);
  return () => window.removeEventListener('keydown', press);
}

/** Plays the chosen lane, or the first one. */
function playHere(workbench: Workbench): void {
  const { here, document, playing } = workbench.state;
  if (Object.keys(playing).length > 0) return workbench.stop();
  const sliders = slidersOf(document);
  const chosen = sliders.find(([id]) => id === here) ?? sliders[0];
  if (chosen) workbench.play(chosen[0]);
}
