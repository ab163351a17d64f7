import { rational } from '@yperkine/core';
import {
  curveOf,
  headOfEntry,
  parameterOf,
  type BoundHandle,
  type Handle,
  type Scene,
  type SlideHandle,
  type TierView,
  type VertexHandle,
  shownValue,
} from '@yperkine/demonstration';
import type { Workbench } from '../../state/workbench.ts';
import { heldMark } from './Grip.tsx';

interface Grip<H> {
  readonly handle: H;
  readonly name: string;
}

/** What can be taken hold of over the canvas; it changes only when a handle comes, goes or moves to another place. */
export interface Grips {
  readonly handles: readonly Grip<Pick<Handle, 'key' | 'tier' | 'entry' | 'parameter' | 'sign'>>[];
  readonly vertices: readonly Grip<Pick<VertexHandle, 'key' | 'tier' | 'entry' | 'index'>>[];
  readonly slides: readonly Grip<Pick<SlideHandle, 'key' | 'tier' | 'entry' | 'kind' | 'index'>>[];
  readonly bounds: readonly Grip<Pick<BoundHandle, 'key' | 'tier' | 'entry' | 'end'>>[];
}

export const noGrips: Grips = { handles: [], vertices: [], slides: [], bounds: [] };

export function gripsOf(scene: Scene, workbench: Workbench): Grips {
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
  return { handles, vertices, slides, bounds };
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

/** Puts the grips where the scene has them, and tells screen readers their values, without React. */
export function moveGrips(host: HTMLElement, scene: Scene, workbench: Workbench): void {
  const { resolution, caught } = workbench.state;
  for (const handle of scene.handles) {
    const result = parameterOf(resolution, handle.parameter);
    const [element, view] = placed(host, 'handle', handle, scene);
    if (!element || !result) continue;
    const isCaught = caught?.parameter === handle.parameter;
    element.toggleAttribute('data-caught', isCaught);
    tell(element, 'aria-valuemin', String(rational.toNumber(result.scale.from)));
    tell(element, 'aria-valuemax', String(rational.toNumber(result.scale.to)));
    const height = view ? view.fromY(handle.y).toFixed(3) : '';
    tellValue(
      element,
      String(result.value.value),
      `${shownValue(result, resolution.rule)}, height ${height}${isCaught ? ', caught' : ''}`,
    );
  }
  for (const vertex of scene.vertices) {
    const [element, view] = placed(host, 'vertex', vertex, scene);
    if (!element || !view) continue;
    const [across, up] = [rounded(view.fromX(vertex.x)), rounded(view.fromY(vertex.y))];
    tellValue(element, up, `(${across}, ${up})`);
  }
  for (const slide of scene.slides) {
    const [element, view] = placed(host, 'slide', slide, scene);
    if (!element || !view) continue;
    const value = rounded(slide.kind === 'cut' ? view.fromX(slide.x) : view.fromY(slide.y));
    tellValue(element, value, value);
  }
  for (const bound of scene.bounds) {
    const [element, view] = placed(host, 'bound', bound, scene);
    if (!element || !view) continue;
    const value = rounded(view.fromX(bound.x), 8);
    tellValue(element, value, value);
  }
}

interface Placed {
  readonly key: string;
  readonly tier: string;
  readonly x: number;
  readonly y: number;
  readonly isVisible: boolean;
}

/** The element of a grip, put at its place, and the tier that it lies in. */
function placed(
  host: HTMLElement,
  kind: 'handle' | 'vertex' | 'slide' | 'bound',
  { key, tier, x, y, isVisible }: Placed,
  scene: Scene,
): readonly [HTMLElement | null, TierView | undefined] {
  const element = host.querySelector<HTMLElement>(`[data-${kind}="${CSS.escape(key)}"]`);
  const view = scene.tiers.find(({ id }) => id === tier)?.view;
  if (element) {
    // Who holds a grip, by hand or by keyboard, keeps it at the edge over which its point has gone.
    const isHeld = element === document.activeElement || element.hasAttribute(heldMark);
    const [left, top] = view && isHeld ? withinFrame(view, x, y) : [x, y];
    element.style.transform = `translate(${left}px, ${top}px)`;
    element.style.visibility = isVisible || isHeld ? 'visible' : 'hidden';
  }
  return [element, view];
}

const withinFrame = ({ frame }: TierView, x: number, y: number): readonly [number, number] => [
  Math.max(frame.left, Math.min(frame.left + frame.width, x)),
  Math.max(frame.top, Math.min(frame.top + frame.height, y)),
];

const rounded = (value: number, digits = 6): string => String(Number(value.toPrecision(digits)));

function tellValue(element: HTMLElement, value: string, words: string): void {
  tell(element, 'aria-valuenow', value);
  tell(element, 'aria-valuetext', words.replaceAll('-', '−'));
}

/** Sets an attribute, unless it says so already. */
function tell(element: HTMLElement, name: string, value: string): void {
  if (element.getAttribute(name) !== value) element.setAttribute(name, value);
}
