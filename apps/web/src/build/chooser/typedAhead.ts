/** What was typed after the chooser was asked for and before it was there. */
export interface TypedAhead {
  readonly text: string;
  /** Whether it ended with Enter. */
  readonly isSent: boolean;
}

const nothing: TypedAhead = { text: '', isSent: false };
let typed = nothing;
let isKept = false;

function keep(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.key === 'Tab' || event.key === 'Escape') return;
  if (event.key === 'Enter') typed = { ...typed, isSent: true };
  else if (event.key === 'Backspace') typed = { text: typed.text.slice(0, -1), isSent: false };
  else if (event.key.length === 1) typed = { text: typed.text + event.key, isSent: false };
  event.preventDefault();
  event.stopPropagation();
}

/** Keeps what is typed from now on; gives how to stop. */
export function keepTyped(): () => void {
  typed = nothing;
  isKept = true;
  window.addEventListener('keydown', keep, { capture: true });
  return stop;
}

function stop(): void {
  isKept = false;
  window.removeEventListener('keydown', keep, { capture: true });
}

/** What was kept, for the chooser to begin with; from now on it hears the keys itself. */
export function typedAhead(): TypedAhead {
  const found = isKept ? typed : nothing;
  stop();
  return found;
}
