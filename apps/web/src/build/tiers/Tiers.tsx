import {
  curveOf,
  featureNear,
  headOfEntry,
  type BoundHandle,
  type Handle,
  type NearCurve,
  type ParameterResult,
  stripAt,
  type Scene,
  type SlideHandle,
  type VertexHandle,
} from '@yperkine/demonstration';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useWorkbench } from '../../state/context.ts';
import type { Workbench } from '../../state/workbench.ts';
import { paletteOf, shownTheme, useShownTheme } from '../../theme/theme.ts';
import { CurveMenu, type Picked } from './CurveMenu.tsx';
import { addVertex } from './addVertex.ts';
import { Gestures } from './gestures.ts';
import { HandleDot } from './HandleDot.tsx';
import { Painter } from './painter.ts';
import { placeStandings, StandingTexts } from './StandingTexts.tsx';
import { furnitureOf, TierFurniture, type Furniture } from './TierFurniture.tsx';
import { TickNumbers } from './tickNumbers.ts';
import { StripMenu } from './StripMenu.tsx';
import { StripParts, type PickedPart } from './stripParts.ts';
import { BoundDot } from './BoundDot.tsx';
import { SlideDot } from './SlideDot.tsx';
import { VertexDot } from './VertexDot.tsx';
import { VertexMenu, type PickedVertex } from './VertexMenu.tsx';
import { WindowTools } from './WindowPanel.tsx';

/** What can be taken hold of over the canvas; it changes only when a handle comes, goes or moves to another place. */
interface Grips {
  readonly handles: readonly {
    readonly handle: Pick<Handle, 'key' | 'tier' | 'entry' | 'parameter' | 'sign'>;
    readonly name: string;
  }[];
  readonly vertices: readonly {
    readonly handle: Pick<VertexHandle, 'key' | 'tier' | 'entry' | 'index'>;
    readonly name: string;
  }[];
  readonly slides: readonly {
    readonly handle: Pick<SlideHandle, 'key' | 'tier' | 'entry' | 'kind' | 'index'>;
    readonly name: string;
  }[];
  readonly bounds: readonly {
    readonly handle: Pick<BoundHandle, 'key' | 'tier' | 'entry' | 'end'>;
    readonly name: string;
  }[];
}

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
    grips: { handles: [], vertices: [], bounds: [], slides: [] },
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
        moveHandles(element, scene, workbench);
        moveVertices(element, scene);
        moveBounds(element, scene);
        moveSlides(element, scene);
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
    moveHandles(host.current, scene, workbench);
    moveVertices(host.current, scene);
    moveBounds(host.current, scene);
    moveSlides(host.current, scene);
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

function gripsOf(scene: Scene, workbench: Workbench): Grips {
  const handles = scene.handles.map(({ key, tier, parameter, entry, sign }) => ({
    handle: { key, tier, entry, parameter, sign },
    name: handleName(workbench, entry, parameter),
  }));
  const vertices = scene.vertices.map(({ key, tier, entry, index }) => ({
    handle: { key, tier, entry, index },
    name: vertexName(workbench, entry, index),
  }));
  const bounds = scene.bounds.map(({ key, tier, entry, end }) => ({
    handle: { key, tier, entry, end },
    name: `${end === 'from' ? 'Start' : 'End'} of the interval of ${headingOf(workbench, entry)}`,
  }));
  const slides = scene.slides.map(({ key, tier, entry, kind, index }) => ({
    handle: { key, tier, entry, kind, index },
    name:
      kind === 'level'
        ? `Height of the rectangle of ${headingOf(workbench, entry)}`
        : `Partition point ${index + 1} of ${headingOf(workbench, entry)}`,
  }));
  return { handles, vertices, bounds, slides };
}

function vertexName(workbench: Workbench, entry: string, index: number): string {
  if (workbench.state.document.entries[entry]?.kind === 'nearest') return 'Free point P';
  const name = curveOf(workbench.current(), entry)?.name ?? 'the function';
  return `Point ${index + 1} that ${name} goes through`;
}

/** What a study is called, without the interval that is being dragged. */
function headingOf(workbench: Workbench, entry: string): string {
  const resolved = workbench.state.resolution.entries.get(entry);
  return resolved ? headOfEntry(resolved).heading.replace(/ on \[.*$/, '') : 'a study';
}

function handleName(workbench: Workbench, entry: string, parameter: string): string {
  const { document, resolution } = workbench.state;
  const study = document.entries[entry];
  const place = document.entries[parameter];
  const curve = study && 'on' in study ? curveOf(resolution, study.on) : undefined;
  const letter = place?.kind === 'parameter' ? place.name : '';
  return curve
    ? `Point on ${curve.name}${'′'.repeat(curve.order)} at ${curve.variable} = ${letter}`
    : 'Point';
}

/** Puts the handles where the scene has them, and tells screen readers their values, without React. */
function moveHandles(host: HTMLElement, scene: Scene, workbench: Workbench): void {
  const { resolution, caught } = workbench.state;
  for (const { key, x, y, parameter, tier, isVisible } of scene.handles) {
    const element = host.querySelector<HTMLElement>(`[data-handle="${CSS.escape(key)}"]`);
    const resolved = resolution.entries.get(parameter);
    if (!element || !resolved?.outcome.ok) continue;
    const { value, text, scale } = resolved.outcome.result as ParameterResult;
    const view = scene.tiers.find(({ id }) => id === tier)?.view;
    element.style.transform = `translate(${x}px, ${y}px)`;
    element.style.visibility = isVisible ? 'visible' : 'hidden';
    element.toggleAttribute('data-caught', caught?.parameter === parameter);
    element.setAttribute('aria-valuenow', String(value.value));
    element.setAttribute(
      'aria-valuemin',
      String(Number(scale.from.numerator) / Number(scale.from.denominator)),
    );
    element.setAttribute('aria-valuemax', String(Number(scale.to.numerator) / Number(scale.to.denominator)));
    const height = view ? view.fromY(y).toFixed(3).replace('-', '−') : '';
    element.setAttribute(
      'aria-valuetext',
      `${text}, height ${height}${caught?.parameter === parameter ? ', caught' : ''}`,
    );
  }
}

/** The same for the points that functions go through. */
function moveVertices(host: HTMLElement, scene: Scene): void {
  for (const { key, x, y, tier, isVisible } of scene.vertices) {
    const element = host.querySelector<HTMLElement>(`[data-vertex="${CSS.escape(key)}"]`);
    const view = scene.tiers.find(({ id }) => id === tier)?.view;
    if (!element || !view) continue;
    element.style.transform = `translate(${x}px, ${y}px)`;
    element.style.visibility = isVisible ? 'visible' : 'hidden';
    const [across, up] = [view.fromX(x), view.fromY(y)].map((value) => String(Number(value.toPrecision(6))));
    element.setAttribute('aria-valuenow', up ?? '');
    element.setAttribute('aria-valuetext', `(${across ?? ''}, ${up ?? ''})`.replaceAll('-', '−'));
  }
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

/** The same for partition points and heights. */
function moveSlides(host: HTMLElement, scene: Scene): void {
  for (const { key, kind, x, y, tier, isVisible } of scene.slides) {
    const element = host.querySelector<HTMLElement>(`[data-slide="${CSS.escape(key)}"]`);
    const view = scene.tiers.find(({ id }) => id === tier)?.view;
    if (!element || !view) continue;
    element.style.transform = `translate(${x}px, ${y}px)`;
    element.style.visibility = isVisible ? 'visible' : 'hidden';
    const value = String(Number((kind === 'cut' ? view.fromX(x) : view.fromY(y)).toPrecision(6)));
    element.setAttribute('aria-valuenow', value);
    element.setAttribute('aria-valuetext', value.replace('-', '−'));
  }
}

/** The same for the ends of intervals. */
function moveBounds(host: HTMLElement, scene: Scene): void {
  for (const { key, x, y, tier, isVisible } of scene.bounds) {
    const element = host.querySelector<HTMLElement>(`[data-bound="${CSS.escape(key)}"]`);
    const view = scene.tiers.find(({ id }) => id === tier)?.view;
    if (!element || !view) continue;
    element.style.transform = `translate(${x}px, ${y}px)`;
    element.style.visibility = isVisible ? 'visible' : 'hidden';
    const value = String(Number(view.fromX(x).toPrecision(8)));
    element.setAttribute('aria-valuenow', value);
    element.setAttribute('aria-valuetext', value.replace('-', '−'));
  }
}

/** Shows on the x-axis which round value a dragged point caught on. */
function moveCaught(element: HTMLElement | null, scene: Scene, workbench: Workbench): void {
  const { caught } = workbench.state;
  const last = scene.tiers.at(-1);
  const view = last?.view;
  if (!element) return;
  element.hidden = caught === null;
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
