import { headOfEntry, inOrder, isShown, type Id, type Resolution, type Scene } from '@yperkine/demonstration';
import clsx from 'clsx';
import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { useShallow } from 'zustand/shallow';
import { setField } from '../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { perDocument } from '../../state/perDocument.ts';
import { isStanding, type StandingEntry } from '../../state/texts.ts';
import type { WorkbenchState } from '../../state/workbench.ts';
import type { Painter } from './painter.ts';
import { StandingBody } from './StandingBody.tsx';

const onGraphs = perDocument(({ entries }): readonly Id[] =>
  inOrder(entries)
    .filter(([, entry]) => isStanding(entry) && entry.standing.at !== 'page')
    .map(([id]) => id),
);
const standingIds = ({ document, resolution }: WorkbenchState): Id[] =>
  onGraphs(document).filter((id) => isShown(resolution, id));

/** Notes, statements and large numbers that stand over the graphs. */
export function StandingTexts({ painter }: { painter: () => Painter | null }) {
  const ids = useWorkbenchState(useShallow(standingIds));
  return ids.map((id) => <StandingText key={id} id={id} painter={painter} />);
}

/** Pixels that an arrow key moves a text. */
const keyStep = 10;
const keys: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-keyStep, 0],
  ArrowRight: [keyStep, 0],
  ArrowUp: [0, -keyStep],
  ArrowDown: [0, keyStep],
};

interface StandingTextProps {
  readonly id: Id;
  readonly painter: () => Painter | null;
}

function StandingText({ id, painter }: StandingTextProps) {
  const entry = useWorkbenchState((state) => state.document.entries[id]);
  return entry && isStanding(entry) ? <Movable id={id} entry={entry} painter={painter} /> : null;
}

/** A text that is dragged by pointer or arrow keys to where it should stand. */
function Movable({ id, entry, painter }: StandingTextProps & { readonly entry: StandingEntry }) {
  const workbench = useWorkbench();
  const element = useRef<HTMLDivElement>(null);
  const drag = useRef<{ x: number; y: number; left: number; top: number } | null>(null);
  const isEmphasised = useWorkbenchState((state) => state.emphasis === id);
  const heading = useWorkbenchState(({ resolution }) => headingIn(resolution, id));
  const { standing } = entry;

  useEffect(() => {
    const scene = painter()?.scene;
    if (scene && element.current) placeStanding(element.current, entry, scene);
  }, [entry, painter]);

  /** Makes the place where the text is seen its place. */
  const settle = (left: number, top: number, together?: string) => {
    const next = standingAt(element.current, standing, left, top, painter()?.scene);
    if (next) setField(workbench, id, 'standing', next, together);
  };
  const begin = (event: PointerEvent<HTMLDivElement>) => {
    const text = element.current;
    if (event.button !== 0 || !text || (event.target as Element).closest('button')) return;
    text.setPointerCapture(event.pointerId);
    const { left, top } = cornerOf(text);
    drag.current = { x: event.clientX, y: event.clientY, left, top };
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const { current: from } = drag;
    if (!from || !element.current) return;
    putAt(element.current, from.left + event.clientX - from.x, from.top + event.clientY - from.y);
  };
  const end = () => {
    if (!drag.current || !element.current) return;
    const { left, top } = cornerOf(element.current);
    const hasMoved = left !== drag.current.left || top !== drag.current.top;
    drag.current = null;
    if (hasMoved) settle(left, top);
  };
  const press = (event: KeyboardEvent<HTMLDivElement>) => {
    const [dx, dy] = keys[event.key] ?? [0, 0];
    if ((dx === 0 && dy === 0) || !element.current || event.target !== element.current) return;
    event.preventDefault();
    event.stopPropagation();
    const { left, top } = cornerOf(element.current);
    settle(left + dx, top + dy, `move ${id}`);
  };

  return (
    <div
      ref={element}
      data-over-graph
      data-standing={id}
      role="group"
      tabIndex={0}
      aria-label={`${heading}; arrow keys move it`}
      title="Drag to move it"
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
      onKeyDown={press}
      onPointerEnter={() => workbench.emphasise(id)}
      onPointerLeave={() => workbench.emphasise(null)}
      onFocus={() => workbench.emphasise(id)}
      onBlur={() => workbench.emphasise(null)}
      onDoubleClick={() => workbench.openEntry(id)}
      className={clsx(
        'absolute z-[5] w-max max-w-[min(28rem,90%)] cursor-grab touch-none rounded-lg bg-sheet/80 px-2 py-0.5 select-none active:cursor-grabbing',
        isEmphasised && 'ring-1 ring-here',
      )}
      style={standing.at === 'screen' ? onScreen(standing) : { left: 0, top: 0 }}
    >
      <StandingBody id={id} entry={entry} />
    </div>
  );
}

const headingIn = ({ entries }: Resolution, id: Id): string => {
  const resolved = entries.get(id);
  return resolved ? headOfEntry(resolved).heading : '';
};

/** A share of the room that is left beside the text, so that it is never cut off. */
const onScreen = ({ x, y }: { readonly x: number; readonly y: number }) => ({
  left: `${100 * x}%`,
  top: `${100 * y}%`,
  transform: `translate(${-100 * x}%, ${-100 * y}%)`,
});

/** The left upper corner of a text within the graphs, in pixels. */
function cornerOf(text: HTMLElement): { left: number; top: number } {
  const own = text.getBoundingClientRect();
  const host = (text.offsetParent as HTMLElement).getBoundingClientRect();
  return { left: own.left - host.left, top: own.top - host.top };
}

function putAt(text: HTMLElement, left: number, top: number): void {
  text.style.left = '0';
  text.style.top = '0';
  text.style.transform = `translate(${left}px, ${top}px)`;
}

function standingAt(
  text: HTMLElement | null,
  standing: StandingEntry['standing'],
  left: number,
  top: number,
  scene: Scene | null | undefined,
): StandingEntry['standing'] | null {
  const host = text?.offsetParent as HTMLElement | null;
  if (!text || !host) return null;
  if (standing.at === 'graph') {
    const view = scene?.tiers.find(({ id }) => id === standing.tier)?.view;
    return view ? { ...standing, x: view.fromX(left), y: view.fromY(top) } : null;
  }
  const share = (pixels: number, room: number) => (room > 0 ? Math.min(1, Math.max(0, pixels / room)) : 0);
  return {
    at: 'screen',
    x: share(left, host.clientWidth - text.offsetWidth),
    y: share(top, host.clientHeight - text.offsetHeight),
  };
}

/** Puts the texts that are pinned to a place of the graph where that place is, without React. */
export function placeStandings(host: HTMLElement, scene: Scene, { document }: WorkbenchState): void {
  for (const element of host.querySelectorAll<HTMLElement>('[data-standing]')) {
    const entry = document.entries[element.dataset.standing ?? ''];
    if (entry && isStanding(entry)) placeStanding(element, entry, scene);
  }
}

function placeStanding(element: HTMLElement, { standing }: StandingEntry, scene: Scene): void {
  if (standing.at !== 'graph') return;
  const view = scene.tiers.find(({ id }) => id === standing.tier)?.view;
  // A tier that is away just now takes along what is pinned to it.
  element.style.visibility = view ? 'visible' : 'hidden';
  if (!view) return;
  const [x, y] = [view.toX(standing.x), view.toY(standing.y)];
  const { left, top, width, height } = view.frame;
  const isInside = x >= left && x <= left + width && y >= top && y <= top + height;
  putAt(element, x, y);
  element.style.visibility = isInside ? 'visible' : 'hidden';
}
