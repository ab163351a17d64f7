import { openedNumber, type Part } from '@yperkine/demonstration';
import { useEffect, useRef, useState } from 'react';
import { useWorkbenchState } from '../state/context.ts';

type NumberPart = Extract<Part, { kind: 'number' }>;

/** How a number looks that can be pressed to open it. */
export const openableClass =
  'rounded hover:bg-hover hover:underline hover:decoration-dotted hover:underline-offset-4';

/** A number that follows the motion; pressed, it opens to full digits and its exact form. */
export function LiveNumber({ part: { text, of } }: { part: NumberPart }) {
  const [under, setUnder] = useState<HTMLElement | null>(null);
  if (!of || text === '') return <span className="live-number">{text}</span>;
  return (
    <>
      <button
        type="button"
        aria-expanded={under !== null}
        title="All digits and the exact form"
        onClick={({ currentTarget }) => setUnder(under === null ? currentTarget : null)}
        onBlur={() => setUnder(null)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setUnder(null);
        }}
        className={`live-number ${openableClass}`}
      >
        {text}
      </button>
      {under !== null && <Opened of={of} under={under} />}
    </>
  );
}

interface OpenedProps {
  readonly of: NonNullable<NumberPart['of']>;
  readonly under: HTMLElement;
}

/** The card with all digits of a number, under where it stands. */
export function Opened({ of, under }: OpenedProps) {
  const rule = useWorkbenchState(({ resolution }) => resolution.rule);
  const element = useRef<HTMLDivElement>(null);
  // Lines scroll sideways, so the card stands fixed on the screen, inside its edges.
  useEffect(() => {
    const card = element.current;
    if (!card) return;
    const { left, bottom } = under.getBoundingClientRect();
    card.style.left = `${Math.max(8, Math.min(left, window.innerWidth - card.offsetWidth - 8))}px`;
    card.style.top = `${Math.min(bottom + 6, window.innerHeight - card.offsetHeight - 8)}px`;
  }, [under]);
  const opened = openedNumber(of, rule);
  return (
    <div
      ref={element}
      role="status"
      className="card fixed z-40 px-3.5 py-2 text-[0.95rem] w-max max-w-[calc(100vw-1rem)] text-ink"
    >
      {opened.form !== null && <p className="font-semibold">exactly {opened.form}</p>}
      <p>
        {opened.isExact ? '=' : '≈'} {opened.digits}
      </p>
      {opened.between !== null && <p>between {opened.between} (proved)</p>}
      {!opened.isExact && opened.form === null && (
        <p className="text-sm text-quiet">no exact form is proved</p>
      )}
    </div>
  );
}
