/** What was typed after the chooser was asked for and before it was there. */
export interface TypedAhead {
  readonly text: string;
  /** Whether it ended with Enter. */
  readonly isSent: boolean;
}

const nothing: TypedAhead = { text: '', isSent: false };
let typed = nothing;
/** Whether the chooser that is open hears the keys. */
let isThere = false;

function keep(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.key === 'Tab' || event.key === 'Escape') return;
  if (event.key === 'Enter') typed = { ...typed, isSent: true };
  else if (event.key === 'Backspace') typed = { text: typed.text.slice(0, -1), isSent: false };
  else if (event.key.length === 1) typed = { text: typed.text + event.key, isSent: false };
  event.preventDefault();
  event.stopPropagation();
}

/** Keeps what is typed while the chooser is opened and not there yet; gives how to stop. */
export function keepTyped(): () => void {
  if (!isThere) window.addEventListener('keydown', keep, { capture: true });
  return () => {
    stop();
    isThere = false;
  };
}

function stop(): void {
  typed = nothing;
  window.removeEventListener('keydown', keep, { capture: true });
}

/** What was kept, for the chooser to begin with: from now on, until it is closed, it hears the keys itself. */
export function typedAhead(): TypedAhead {
  const found = typed;
  stop();
  isThere = true;
  return found;
}
