import {
  buildScene,
  CanvasSurface,
  paint,
  type Palette,
  type Resolution,
  type Scene,
} from '@yperkine/demonstration';
import type { Workbench } from '../../state/workbench.ts';

const fontFamily = "'Source Sans 3 Variable', sans-serif";
const mathematicsFamily = 'KaTeX_Main, serif';

/** Paints the scene of a workbench on a canvas, once a frame at most and without React. */
export class Painter {
  scene: Scene | null = null;
  private readonly context: CanvasRenderingContext2D;
  private painted: readonly unknown[] = [];
  private size = { width: 0, height: 0, density: 1 };

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly workbench: Workbench,
    private palette: Palette,
    private readonly onScene: (scene: Scene) => void,
  ) {
    const context = canvas.getContext('2d');
    if (!context) throw new Error('this browser cannot draw on a canvas');
    this.context = context;
  }

  resize(width: number, height: number, density: number): void {
    this.size = { width, height, density };
    this.canvas.width = Math.round(width * density);
    this.canvas.height = Math.round(height * density);
    this.painted = [];
    this.workbench.frames.request();
  }

  recolour(palette: Palette): void {
    this.palette = palette;
    this.repaint();
  }

  repaint(): void {
    this.painted = [];
    this.workbench.frames.request();
  }

  /** Paints if anything that is drawn changed since the last frame. */
  frame(): void {
    const { document, stage, resolution, here, emphasis } = this.workbench.state;
    const { width, height, density } = this.size;
    const { trails } = this.workbench;
    const inputs = [document, stage, resolution, here, emphasis, trails.version];
    if (width < 1 || height < 1 || inputs.every((input, i) => input === this.painted[i])) return;
    this.painted = inputs;
    this.scene = this.build(resolution);
    const { context } = this;
    context.setTransform(density, 0, 0, density, 0, 0);
    context.clearRect(0, 0, width, height);
    paint(this.scene, new CanvasSurface(context, this.palette, fontFamily, mathematicsFamily), {
      entry: emphasis,
    });
    this.onScene(this.scene);
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
    return buildScene({ document, stage, resolution, size, here, trails }, this.sameSize(size));
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
