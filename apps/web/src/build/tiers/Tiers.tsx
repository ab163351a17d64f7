import { featureNear, type NearCurve, stripAt, type Scene } from '@yperkine/demonstration';
import { useCallback, useEffect, useRef, useState } from 'react';
import { lazily } from '../../parts/lazily.tsx';
import { useWorkbench } from '../../state/context.ts';
import type { Workbench } from '../../state/workbench.ts';
import { paletteOf, shownTheme, useShownTheme } from '../../theme/theme.ts';
import type { Picked } from './CurveMenu.tsx';
import { addVertex } from './addVertex.ts';
import { Gestures } from './gestures.ts';
import { gripsOf, moveGrips, noGrips, type Grips } from './grips.ts';
import { HandleDot } from './HandleDot.tsx';
import { Painter } from './painter.ts';
import { placeStandings, StandingTexts } from './StandingTexts.tsx';
import { furnitureOf, TierFurniture, type Furniture } from './TierFurniture.tsx';
import { TickNumbers } from './tickNumbers.ts';
import { StripParts, type PickedPart } from './stripParts.ts';
import { BoundDot } from './BoundDot.tsx';
import { SlideDot } from './SlideDot.tsx';
import { VertexDot } from './VertexDot.tsx';
import type { PickedVertex } from './VertexMenu.tsx';
import { WindowTools } from './WindowPanel.tsx';

const CurveMenu = lazily(async () => (await import('./placeMenus.ts')).CurveMenu);
const StripMenu = lazily(async () => (await import('./placeMenus.ts')).StripMenu);
const VertexMenu = lazily(async () => (await import('./placeMenus.ts')).VertexMenu);

interface Overlay {
  readonly furniture: Furniture | null;
  readonly grips: Grips;
}

/** The stack of graphs that share the x-axis: a canvas with a thin layer of handles over it. */
export function Tiers() {
  const workbench = useWorkbench();
  const theme = useShownTheme();
  const host = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const ghost = useRef<HTMLDivElement>(null);
  const caught = useRef<HTMLDivElement>(null);
  const ticks = useRef<HTMLDivElement>(null);
  const strips = useRef<HTMLDivElement>(null);
  const painter = useRef<Painter | null>(null);
  const [{ furniture, grips }, setOverlay] = useState<Overlay>({
    furniture: null,
    grips: noGrips,
  });
  const [picked, setPicked] = useState<Picked | null>(null);
  const [vertex, setVertex] = useState<PickedVertex | null>(null);
  const [part, setPart] = useState<PickedPart | null>(null);
  const [width, setWidth] = useState(0);

  useEffect(() => {
    const element = host.current as HTMLDivElement;
    let overlayKey = '';
    const tickNumbers = new TickNumbers(ticks.current as HTMLDivElement);
    const stripParts = new StripParts(strips.current as HTMLDivElement, setPart, (entry) =>
      workbench.emphasise(entry),
    );
    const painting = new Painter(
      canvas.current as HTMLCanvasElement,
      workbench,
      paletteOf(shownTheme()),
      (scene) => {
        const next = { furniture: furnitureOf(scene), grips: gripsOf(scene, workbench) };
        const key = JSON.stringify(next);
        if (key !== overlayKey) {
          overlayKey = key;
          setOverlay(next);
        }
        tickNumbers.place(scene);
        stripParts.place(scene);
        moveGrips(element, scene, workbench);
        placeStandings(element, scene, workbench.state);
        moveCaught(caught.current, scene, workbench);
      },
    );
    painter.current = painting;
    const offFrame = workbench.frames.onFrame(() => painting.frame());
    const observer = new ResizeObserver(() => {
      painting.resize(element.clientWidth, element.clientHeight, window.devicePixelRatio || 1);
      setWidth(element.clientWidth);
    });
    observer.observe(element);
    const gestures = new Gestures(element, workbench, () => painting.scene, {
      onNear: (found) => moveGhost(ghost.current, found),
      onHover: (entry) => workbench.emphasise(entry),
      onPick: (found) => setPicked(pickedAt(painting.scene, found, workbench)),
      onPlain: (x, y) => lookAtStrip(workbench, painting.scene, x, y),
      onDouble: (found) => {
        if (addVertex(workbench, painting.scene, found)) setPicked(null);
      },
    });
    const stopListening = gestures.listen();
    void document.fonts.ready.then(() => painting.repaint());
    return () => {
      offFrame();
      observer.disconnect();
      stopListening();
      painter.current = null;
    };
  }, [workbench]);

  useEffect(() => {
    painter.current?.recolour(paletteOf(theme));
  }, [theme]);

  // A handle that React has just made gets its place from the last scene.
  useEffect(() => {
    const scene = painter.current?.scene;
    if (!scene || !host.current) return;
    moveGrips(host.current, scene, workbench);
  }, [grips, workbench]);

  const currentPainter = useCallback(() => painter.current, []);
  const closeMenu = useCallback(() => {
    setPicked(null);
    setVertex(null);
    setPart(null);
  }, []);

  return (
    <section aria-label="Graphs" className="card relative min-h-0 flex-1 overflow-hidden">
      <div
        ref={host}
        tabIndex={0}
        role="application"
        aria-label="Graph window: arrow keys pan, plus and minus zoom"
        className="absolute inset-0 touch-none outline-offset-[-3px] select-none"
      >
        <canvas ref={canvas} aria-hidden className="absolute inset-0 size-full" />
        <div ref={ticks} className="pointer-events-none absolute inset-0" />
        {furniture && <TierFurniture furniture={furniture} />}
        <div
          ref={ghost}
          data-testid="ghost"
          hidden
          className="pointer-events-none absolute -top-[7px] -left-[7px] size-3.5 rounded-full border-2 border-ink bg-sheet opacity-80"
        />
        <div
          ref={caught}
          data-testid="caught"
          hidden
          className="pointer-events-none absolute top-0 left-0 rounded-md bg-here px-1.5 text-sm font-semibold text-[#1d2433]"
        />
        {grips.handles.map(({ handle, name }) => (
          <HandleDot key={handle.key} handle={handle} name={name} painter={currentPainter} />
        ))}
        {grips.vertices.map(({ handle, name }) => (
          <VertexDot
            key={handle.key}
            handle={handle}
            name={name}
            painter={currentPainter}
            onMenu={setVertex}
          />
        ))}
        {grips.bounds.map(({ handle, name }) => (
          <BoundDot key={handle.key} handle={handle} name={name} painter={currentPainter} />
        ))}
        {grips.slides.map(({ handle, name }) => (
          <SlideDot key={handle.key} handle={handle} name={name} painter={currentPainter} />
        ))}
        <div ref={strips} />
        <StandingTexts painter={currentPainter} />
        {picked && <CurveMenu picked={picked} within={width} onClose={closeMenu} />}
        {part && <StripMenu picked={part} within={width} onClose={closeMenu} />}
        {vertex && <VertexMenu picked={vertex} within={width} onClose={closeMenu} />}
      </div>
      <WindowTools />
    </section>
  );
}

/** A click on a strip of a sum looks at it; beside all strips, at none. */
function lookAtStrip(workbench: Workbench, scene: Scene | null, x: number, y: number): void {
  const found = scene && stripAt(scene, workbench.current(), x, y);
  const { stage, document } = workbench.state;
  for (const [id, value] of Object.entries(stage.values)) {
    const isLookedAt = typeof value === 'number' && document.entries[id]?.kind === 'sum';
    if (isLookedAt && id !== found?.entry) workbench.lookAt(id, null);
  }
  if (found) workbench.lookAt(found.entry, stage.values[found.entry] === found.index ? null : found.index);
}

/** Shows on the x-axis which round value a dragged point caught on. */
function moveCaught(element: HTMLElement | null, scene: Scene, workbench: Workbench): void {
  const { caught } = workbench.state;
  const last = scene.tiers.at(-1);
  const view = last?.view;
  if (!element) return;
  if (element.hidden !== (caught === null)) element.hidden = caught === null;
  if (!caught || !view) return;
  const tick = scene.xTicks.find(({ value }) => Math.abs(value - caught.value) * view.pixelsPerX < 0.5);
  element.textContent = tick?.text ?? '';
  element.style.transform = `translate(${view.toX(caught.value)}px, ${view.frame.top + view.frame.height + last.stripRoom + 5}px) translateX(-50%)`;
}

function moveGhost(element: HTMLElement | null, near: NearCurve | null): void {
  if (!element) return;
  element.hidden = near === null;
  if (near) element.style.transform = `translate(${near.x}px, ${near.y}px)`;
}

function pickedAt(scene: Scene | null, near: NearCurve, workbench: Workbench): Picked | null {
  const view = scene?.tiers.find(({ id }) => id === near.tier)?.view;
  if (!scene || !view) return null;
  const at = view.fromX(near.x);
  const feature = featureNear(workbench.current(), view, near.entry, at);
  if (feature) return { near, at: feature.x, feature };
  const tick = scene.xTicks.find(({ value }) => Math.abs(value - at) * view.pixelsPerX < 0.01);
  return { near, at: tick?.value ?? at, feature: null };
}
