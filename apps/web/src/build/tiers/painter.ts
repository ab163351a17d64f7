import {
  buildScene,
  CanvasSurface,
  paint,
  paintBefore,
  type Emphasis,
  type Palette,
  type Resolution,
  type Scene,
} from '@yperkine/demonstration';
import { Effort } from '@yperkine/core';
import { askForCurves } from '../../state/curvesBeside.ts';
import type { Workbench } from '../../state/workbench.ts';
import { Backdrop } from './backdrop.ts';

const fontFamily = "'Source Sans 3 Variable', sans-serif";
const mathematicsFamily = 'KaTeX_Main, serif';

/** Operations that the curves of one frame may take together: a part of its time on a slow machine. */
const ofOneFrame = 3_000_000;
/** The browser runs what is new to it many times slower at first: the first picture is one without curves. */
const firstFrames = 8;
const ofFirstFrames = 150_000;

/** Paints the scene of a workbench on a canvas, once a frame at most and without React. */
export class Painter {
  scene: Scene | null = null;
  private painted: readonly unknown[] = [];
  /** How many answers had come when it was painted last. */
  private news = 0;
  private size = { width: 0, height: 0, density: 1 };
  private frames = 0;
  private readonly backdrop = new Backdrop((canvas) => this.surfaceOn(canvas));

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly workbench: Workbench,
    private palette: Palette,
    private readonly onScene: (scene: Scene) => void,
  ) {}

  resize(width: number, height: number, density: number): void {
    this.size = { width, height, density };
    for (const canvas of [this.canvas, this.backdrop.canvas]) {
      canvas.width = Math.round(width * density);
      canvas.height = Math.round(height * density);
    }
    this.repaint();
  }

  recolour(palette: Palette): void {
    this.palette = palette;
    this.repaint();
  }

  repaint(): void {
    this.painted = [];
    this.backdrop.reset();
    this.workbench.frames.request();
  }

  /** Paints if anything that is drawn changed since the last frame. */
  frame(): void {
    const { document, stage, resolution, here, emphasis } = this.workbench.state;
    const { width, height } = this.size;
    const { trails } = this.workbench;
    const inputs = [document, stage, resolution, here, emphasis, trails.version];
    const isSame =
      inputs.every((input, i) => input === this.painted[i]) && this.news === this.workbench.newsCount;
    // Until what was changed is worked out, the last picture stays.
    const isBehind = resolution.document !== document;
    if (width < 1 || height < 1 || isSame || isBehind) return;
    this.painted = inputs;
    this.news = this.workbench.newsCount;
    this.frames++;
    this.scene = this.build(resolution);
    // What has come from beside the page is drawn at once.
    const asked = askForCurves(this.scene, resolution.answers);
    if (asked.isThere) this.scene = this.build(resolution);
    this.paint(this.scene, { entry: emphasis });
    this.onScene(this.scene);
    if (!this.scene.isBehind && !asked.isBehind) return;
    this.painted = [];
    this.workbench.frames.request();
  }

  private paint(scene: Scene, emphasis: Emphasis): void {
    const counts = this.backdrop.countsFor(scene, emphasis);
    const surface = this.surfaceOn(this.canvas);
    if (!counts) return paint(scene, surface, emphasis);
    surface.copy(this.backdrop.canvas, this.size);
    paintBefore(scene, counts, surface, emphasis);
  }

  /** An empty surface whose unit is one pixel of the scene. */
  private surfaceOn(canvas: HTMLCanvasElement): CanvasSurface {
    const context = canvas.getContext('2d');
    if (!context) throw new Error('this browser cannot draw on a canvas');
    const { width, height, density } = this.size;
    context.setTransform(density, 0, 0, density, 0, 0);
    context.clearRect(0, 0, width, height);
    return new CanvasSurface(context, this.palette, fontFamily, mathematicsFamily);
  }

  /** The scene as things stand this moment, which no frame may have shown yet: keys go on from it. */
  present(): Scene | null {
    return this.scene && this.build(this.workbench.current());
  }

  private build(resolution: Resolution): Scene {
    const { workbench } = this;
    const { document, stage, here } = workbench.state;
    const size = { ...this.size, furniture: true, isTypesetOver: true };
    const { trails } = workbench;
    const ofThisOne = this.frames > firstFrames ? ofOneFrame : this.frames > 1 ? ofFirstFrames : 0;
    const effort = new Effort(ofThisOne);
    return buildScene({ document, stage, resolution, size, here, trails, effort }, this.sameSize(size));
  }

  private sameSize(size: Scene['size']): Scene | undefined {
    const before = this.scene;
    const isSame =
      before?.size.width === size.width &&
      before.size.height === size.height &&
      before.size.density === size.density;
    return isSame ? before : undefined;
  }
}
