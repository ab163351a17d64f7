import type { Range } from '@yperkine/core';
import {
  catchOn,
  entryAt,
  isDrawable,
  nearestCurve,
  panned,
  zoomed,
  type Id,
  type NearCurve,
  type Scene,
  type SceneTier,
} from '@yperkine/demonstration';
import type { Workbench } from '../../state/workbench.ts';

export interface GestureEvents {
  /** The pointer is near a curve, or no longer near one. */
  readonly onNear: (near: NearCurve | null) => void;
  /** The entry whose mark the pointer is on, or none. */
  readonly onHover: (entry: Id | null) => void;
  /** A curve was clicked or tapped. */
  readonly onPick: (near: NearCurve) => void;
  /** The graph was clicked where there is no curve. */
  readonly onPlain: (x: number, y: number) => void;
  /** A curve was clicked twice in a row. */
  readonly onDouble: (near: NearCurve) => void;
}

type Zone =
  | { readonly kind: 'graph' | 'yAxis'; readonly tier: SceneTier }
  | { readonly kind: 'xAxis'; readonly tier: SceneTier };

interface Drag {
  readonly zone: Zone;
  readonly start: Spot;
  readonly x: Range;
  readonly y: Range;
  hasMoved: boolean;
}
interface Spot {
  readonly x: number;
  readonly y: number;
}

/** How near counts as on the curve, in pixels: a finger is broader than a pointer. */
const tolerance = { mouse: 14, pen: 18, touch: 30 } as const;
/** Movement in pixels below which a press is a click. */
const still = 5;
/** Pixels of drag on an axis that stretch it by a factor of e. */
const stretchPixels = 180;
const wheelPixels = 600;
const wheelRest = 250;

/** Pan, zoom, stretch and pick on the stack of tiers, by mouse, pen, touch and wheel. */
export class Gestures {
  private readonly spots = new Map<number, Spot>();
  private drag: Drag | null = null;
  private pinch: { distance: number; middle: Spot; zone: Zone; x: Range; y: Range } | null = null;
  private wheelTimer: ReturnType<typeof setTimeout> | null = null;

  constructor(
    private readonly element: HTMLElement,
    private readonly workbench: Workbench,
    private readonly scene: () => Scene | null,
    private readonly events: GestureEvents,
  ) {}

  /** Listens from now on; returns how to stop. */
  listen(): () => void {
    const { element } = this;
    const stop = new AbortController();
    const { signal } = stop;
    element.addEventListener('pointerdown', (event) => this.down(event), { signal });
    element.addEventListener('pointermove', (event) => this.move(event), { signal });
    element.addEventListener('pointerup', (event) => this.up(event), { signal });
    element.addEventListener('pointercancel', (event) => this.up(event), { signal });
    element.addEventListener('pointerleave', () => this.leave(), { signal });
    element.addEventListener('dblclick', (event) => this.double(event), { signal });
    element.addEventListener('wheel', (event) => this.wheel(event), { signal, passive: false });
    element.addEventListener('keydown', (event) => this.key(event), { signal });
    return () => {
      stop.abort();
      this.settleWheel();
    };
  }

  private leave(): void {
    this.events.onNear(null);
    this.events.onHover(null);
  }

  private double(event: MouseEvent): void {
    const scene = this.scene();
    const { x, y } = this.spot(event);
    const near = scene && !this.isOnControl(event) ? nearestCurve(scene, x, y, tolerance.mouse) : null;
    if (near) this.events.onDouble(near);
  }

  private spot(event: MouseEvent): Spot {
    const { left, top } = this.element.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  }

  /** Handles, menus, keys and notes lie over the graph and look after themselves. */
  private isOnControl(event: Event): boolean {
    return (
      event.target instanceof Element &&
      event.target.closest('[role="slider"], [role="dialog"], [data-over-graph]') !== null
    );
  }

  private zoneAt({ x, y }: Spot): Zone | null {
    const scene = this.scene();
    const last = scene?.tiers.at(-1);
    if (!scene || !last) return null;
    const { frame } = last.view;
    if (y > frame.top + frame.height && x >= frame.left) return { kind: 'xAxis', tier: last };
    const tier = scene.tiers.find(({ view }) => y <= view.frame.top + view.frame.height) ?? last;
    return { kind: x < tier.view.frame.left ? 'yAxis' : 'graph', tier };
  }

  private down(event: PointerEvent): void {
    if (event.button !== 0 || this.isOnControl(event)) return;
    const start = this.spot(event);
    const zone = this.zoneAt(start);
    const scene = this.scene();
    if (!zone || !scene) return;
    this.element.setPointerCapture(event.pointerId);
    this.spots.set(event.pointerId, start);
    if (this.spots.size === 2) this.beginPinch(zone, scene);
    else this.drag = { zone, start, x: scene.x, y: zone.tier.view.y, hasMoved: false };
  }

  private beginPinch(zone: Zone, scene: Scene): void {
    const [a, b] = [...this.spots.values()] as [Spot, Spot];
    this.drag = null;
    this.pinch = { distance: distance(a, b), middle: middle(a, b), zone, x: scene.x, y: zone.tier.view.y };
  }

  private move(event: PointerEvent): void {
    const spot = this.spot(event);
    if (this.spots.has(event.pointerId)) this.spots.set(event.pointerId, spot);
    if (this.pinch) return this.movePinch();
    if (this.drag) return this.moveDrag(this.drag, spot);
    if (event.pointerType === 'touch') return;
    if (this.isOnControl(event)) return this.events.onNear(null);
    const near = this.nearAt(spot, event);
    const scene = this.scene();
    this.events.onNear(near);
    this.events.onHover((scene && entryAt(scene, spot.x, spot.y)) ?? near?.entry ?? null);
  }

  private nearAt(spot: Spot, event: PointerEvent): NearCurve | null {
    const scene = this.scene();
    const reach = tolerance[event.pointerType as keyof typeof tolerance] ?? tolerance.mouse;
    const near = scene && nearestCurve(scene, spot.x, spot.y, reach);
    return near && !event.shiftKey ? caughtOnTick(scene, near) : near;
  }

  private moveDrag(drag: Drag, spot: Spot): void {
    const [dx, dy] = [spot.x - drag.start.x, spot.y - drag.start.y];
    if (!drag.hasMoved && Math.hypot(dx, dy) < still) return;
    drag.hasMoved = true;
    this.events.onNear(null);
    const { view } = drag.zone.tier;
    switch (drag.zone.kind) {
      case 'graph':
        return this.show(
          panned(drag.x, -dx / view.pixelsPerX),
          drag.zone,
          panned(drag.y, dy / view.pixelsPerY),
        );
      case 'xAxis':
        return this.show(zoomed(drag.x, centre(drag.x), Math.exp(-dx / stretchPixels)), drag.zone, null);
      case 'yAxis':
        return this.show(null, drag.zone, zoomed(drag.y, centre(drag.y), Math.exp(dy / stretchPixels)));
    }
  }

  private movePinch(): void {
    const { pinch } = this;
    const [a, b] = [...this.spots.values()] as [Spot, Spot | undefined];
    if (!pinch || !b) return;
    const { view } = pinch.zone.tier;
    const factor = pinch.distance / Math.max(20, distance(a, b));
    const now = middle(a, b);
    const x = zoomed(pinch.x, view.fromX(pinch.middle.x), factor);
    const y = zoomed(pinch.y, view.fromY(pinch.middle.y), factor);
    const shiftX = ((pinch.middle.x - now.x) * (x.to - x.from)) / view.frame.width;
    const shiftY = ((now.y - pinch.middle.y) * (y.to - y.from)) / view.frame.height;
    this.show(panned(x, shiftX), pinch.zone, panned(y, shiftY));
  }

  private up(event: PointerEvent): void {
    const { drag } = this;
    if (!this.spots.delete(event.pointerId)) return;
    if (this.pinch) {
      if (this.spots.size === 0) this.pinch = null;
      return this.workbench.settleWindows();
    }
    this.drag = null;
    if (drag?.hasMoved) return this.workbench.settleWindows();
    if (drag?.zone.kind !== 'graph' || event.type !== 'pointerup') return;
    const spot = this.spot(event);
    const near = this.nearAt(spot, event);
    if (near) this.events.onPick(near);
    else this.events.onPlain(spot.x, spot.y);
  }

  private wheel(event: WheelEvent): void {
    const scene = this.scene();
    const spot = this.spot(event);
    const zone = this.zoneAt(spot);
    if (!zone || !scene) return;
    event.preventDefault();
    const pixels = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? event.deltaY * 30 : event.deltaY;
    this.zoom(zone, spot, Math.exp(Math.max(-300, Math.min(300, pixels)) / wheelPixels));
    if (this.wheelTimer) clearTimeout(this.wheelTimer);
    this.wheelTimer = setTimeout(() => this.settleWheel(), wheelRest);
  }

  private settleWheel(): void {
    if (this.wheelTimer) clearTimeout(this.wheelTimer);
    this.wheelTimer = null;
    this.workbench.settleWindows('zoom');
  }

  private zoom(zone: Zone, spot: Spot, factor: number): void {
    const { view } = zone.tier;
    const { x } = this.shown(zone);
    const { y } = this.shown(zone);
    const zoomsX = zone.kind !== 'yAxis';
    const zoomsY = zone.kind !== 'xAxis';
    this.show(
      zoomsX ? zoomed(x, placeIn(x, spot.x, view.frame.left, view.frame.width), factor) : null,
      zone,
      zoomsY
        ? zoomed(y, placeIn(y, view.frame.top + view.frame.height - spot.y, 0, view.frame.height), factor)
        : null,
    );
  }

  /** The windows as the stage has them this moment, which may be ahead of the last frame. */
  private shown(zone: Zone): { x: Range; y: Range } {
    const { document, stage } = this.workbench.state;
    const { id, view } = zone.tier;
    return { x: stage.x ?? document.x, y: stage.y[id] ?? document.tiers[id]?.y ?? view.y };
  }

  private show(x: Range | null, zone: Zone, y: Range | null): void {
    const drawableX = x && isDrawable(x) ? x : null;
    const drawableY = y && isDrawable(y) ? { [zone.tier.id]: y } : {};
    this.workbench.showWindows(drawableX, drawableY);
  }

  /** Arrows pan, plus and minus zoom, around the middle of the first tier. */
  private key(event: KeyboardEvent): void {
    const tier = this.scene()?.tiers[0];
    if (!tier || event.target !== this.element || event.ctrlKey || event.metaKey || event.altKey) return;
    const zone: Zone = { kind: 'graph', tier };
    const { x, y } = this.shown(zone);
    const [stepX, stepY] = [(x.to - x.from) / 10, (y.to - y.from) / 10];
    const windows = {
      ArrowLeft: [panned(x, -stepX), y],
      ArrowRight: [panned(x, stepX), y],
      ArrowUp: [x, panned(y, stepY)],
      ArrowDown: [x, panned(y, -stepY)],
      '+': [zoomed(x, centre(x), 0.8), zoomed(y, centre(y), 0.8)],
      '-': [zoomed(x, centre(x), 1.25), zoomed(y, centre(y), 1.25)],
    }[event.key];
    if (!windows) return;
    event.preventDefault();
    this.show(windows[0] as Range, zone, windows[1] as Range);
    this.workbench.settleWindows('keys');
  }
}

const centre = ({ from, to }: Range): number => (from + to) / 2;
const distance = (a: Spot, b: Spot): number => Math.hypot(a.x - b.x, a.y - b.y);
const middle = (a: Spot, b: Spot): Spot => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
const placeIn = ({ from, to }: Range, pixel: number, start: number, length: number): number =>
  from + ((pixel - start) / length) * (to - from);

/** The nearest place of a curve moved onto a round axis value, if one is near. */
function caughtOnTick(scene: Scene, near: NearCurve): NearCurve {
  const view = scene.tiers.find(({ id }) => id === near.tier)?.view;
  if (!view) return near;
  const caught = catchOn(
    view.fromX(near.x),
    scene.xTicks.map(({ value }) => value),
    view.pixelsPerX,
  );
  if (!caught.isCaught) return near;
  const moved = nearestCurve(scene, view.toX(caught.value), near.y, Infinity);
  return moved?.entry === near.entry ? { ...near, x: moved.x, y: moved.y } : near;
}
