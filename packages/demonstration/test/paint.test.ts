import { describe, expect, test } from '@jest/globals';
import { Recorder } from './recorder.ts';
import {
  buildScene,
  CanvasSurface,
  day,
  emptyStage,
  night,
  paint,
  paintBackdrop,
  paintBefore,
  resolve,
  SvgSurface,
} from '../src/index.ts';
import { tangentDocument } from './sample.ts';

const document = tangentDocument();
const sceneOf = (furniture: boolean, here: string | null = 'a') =>
  buildScene({
    document,
    stage: emptyStage,
    resolution: resolve(document, emptyStage),
    size: { width: 800, height: 600, density: 1, furniture },
    here,
  });

const painted = (...scene: Parameters<typeof sceneOf>) => {
  const recorder = new Recorder();
  paint(sceneOf(...scene), recorder);
  return recorder;
};

describe('the painter', () => {
  test('draws f whole in its hue and f′ dashed in its own, each inside its tier', () => {
    const [upper, lower] = sceneOf(true).tiers.map(({ view }) => view.frame);
    const curves = painted(true).paths.filter(({ points, style }) => points.length > 100 && style.stroke);
    expect(curves.map(({ style, clip }) => [style.stroke, style.dash?.length, clip])).toEqual([
      ['f', 0, upper],
      ['f1', 2, lower],
    ]);
  });

  test('draws the same in two parts, whatever lies in the first', () => {
    const scene = sceneOf(true);
    const all = painted(true);
    for (const counts of [[0, 0], [1, 0], [2, 1], scene.tiers.map(({ marks }) => marks.length)]) {
      const recorder = new Recorder();
      paintBackdrop(scene, counts, recorder, { entry: null });
      const behind = recorder.paths.length;
      paintBefore(scene, counts, recorder, { entry: null });
      expect(recorder.paths.length).toBeGreaterThan(behind);
      const drawn = ({ paths, texts }: Recorder) =>
        [...paths, ...texts].map((one) => JSON.stringify(one)).sort();
      expect(drawn(recorder)).toEqual(drawn(all));
    }
  });

  test('draws no coordinate that is not a number', () => {
    const { paths, texts } = painted(true);
    const numbers = [...paths.flatMap(({ points }) => points.flat()), ...texts.flatMap(({ x, y }) => [x, y])];
    expect(numbers.every(Number.isFinite)).toBe(true);
    expect(numbers.length).toBeGreaterThan(1000);
  });

  test('writes every tick, the coordinates of the point, the base and the height of the triangle', () => {
    const texts = painted(true).texts.map(({ text }) => text);
    const { xTicks, tiers } = sceneOf(true);
    expect(texts).toEqual(expect.arrayContaining(xTicks.map(({ text }) => text)));
    for (const tier of tiers)
      expect(texts).toEqual(expect.arrayContaining(tier.yTicks.map(({ text }) => text)));
    expect(texts).toEqual(expect.arrayContaining(['(1.000, −4.000)', '1', '1.000']));
  });

  test('draws one reading line through all tiers, and none without a place to read', () => {
    const reading = (here: string | null) =>
      painted(true, here).paths.filter(({ style }) => style.stroke === 'here');
    const [line] = reading('a');
    expect(reading('a')).toHaveLength(1);
    const [first, last] = sceneOf(true).tiers.map(({ view }) => view.frame);
    expect(line?.points.map(([, y]) => y)).toEqual([first?.top, (last?.top ?? 0) + (last?.height ?? 0)]);
    expect(reading(null)).toEqual([]);
  });

  test('makes the marks of an entry stand out when asked', () => {
    const halo = (entry: string | null) => {
      const recorder = new Recorder();
      paint(sceneOf(true), recorder, { entry });
      return recorder.paths.filter(({ style }) => style.opacity !== undefined && (style.width ?? 0) > 5);
    };
    expect(halo(null)).toEqual([]);
    expect(halo('f').map(({ style }) => style.stroke)).toEqual(['f']);
  });

  test('leaves numbers, grid and notes out of a small picture', () => {
    const { texts, paths } = painted(false);
    expect(texts).toEqual([]);
    expect(paths.filter(({ style }) => style.stroke === 'rule')).toEqual([]);
    expect(paths.filter(({ style }) => style.stroke === 'quiet').length).toBeGreaterThan(0);
  });
});

describe('the two surfaces', () => {
  test('SVG holds the same points as were drawn, in the colours of the palette', () => {
    const surface = new SvgSurface(night);
    surface.clipped({ left: 1, top: 2, width: 30, height: 40 }, () =>
      surface.path(
        (pen) => {
          pen.moveTo(1.234, 5);
          pen.lineTo(7, 8.5);
          pen.closePath();
        },
        { stroke: 'f', width: 2, dash: [8, 5], opacity: 0.5 },
      ),
    );
    surface.text('3 < 4 & "x"', 5, 6, { tone: 'ink', size: 13, anchor: 'end' });
    const svg = surface.toSvg(50, 60);
    expect(svg).toContain('<clipPath id="clip1"><rect x="1" y="2" width="30" height="40"/></clipPath>');
    expect(svg).toContain('d="M1.23,5L7,8.5Z"');
    expect(svg).toContain(`stroke="${night.f}" stroke-width="2"`);
    expect(svg).toContain('stroke-dasharray="8 5" opacity="0.5"');
    expect(svg).toContain('3 &#60; 4 &#38; &#34;x&#34;');
    expect(svg).toContain('text-anchor="end"');
  });

  test('SVG is hatched by a pattern of its own for every shape, and boxes are one path', () => {
    const surface = new SvgSurface(day);
    surface.hatched((pen) => pen.rect(1, 2, 3, 4), 'up', 'f');
    surface.hatched((pen) => pen.rect(5, 6, 7, 8), 'down', 'minus');
    surface.boxes((pen) => pen.rect(1, 2, 3, 4), { stroke: 'f', width: 1.25 });
    const svg = surface.toSvg(50, 60);
    expect(svg).toContain('<pattern id="hatching1" width="8" height="8" patternUnits="userSpaceOnUse">');
    expect(svg).toContain(`<path d="M-16 16L8 -8M-8 16L16 -8M0 16L24 -8" stroke="${day.f}"`);
    expect(svg).toContain('<path d="M1,2h3v4h-3Z" fill="url(#hatching1)" opacity="0.35"/>');
    expect(svg).toContain('fill="url(#hatching2)"');
    expect(svg).toContain(`<path d="M1,2h3v4h-3Z" fill="none" stroke="${day.f}" stroke-width="1.25"`);
  });

  test('a canvas gets the same commands with the colours of the palette', () => {
    const calls: string[] = [];
    const state: Record<string, unknown> = {};
    const context = new Proxy(state, {
      get: (target, name: string) =>
        name in target ? target[name] : (...args: unknown[]) => void calls.push(`${name}(${args.join()})`),
      set: (target, name: string, value) => {
        target[name] = value;
        calls.push(`${name}=${String(value)}`);
        return true;
      },
    });
    const surface = new CanvasSurface(context as unknown as CanvasRenderingContext2D, day, 'serif');
    surface.path((pen) => pen.moveTo(1, 2), {
      fill: 'f1',
      stroke: 'ink',
      width: 3,
      dash: [1, 2],
      opacity: 0.3,
    });
    surface.text('x', 4, 5, { tone: 'quiet', size: 12, anchor: 'middle' });
    surface.clipped({ left: 0, top: 0, width: 9, height: 9 }, () => calls.push('inside'));
    expect(calls).toEqual(
      expect.arrayContaining([
        'beginPath()',
        'moveTo(1,2)',
        'globalAlpha=0.3',
        `fillStyle=${day.f1}`,
        'fill()',
        `strokeStyle=${day.ink}`,
        'lineWidth=3',
        'setLineDash(1,2)',
        'stroke()',
        'globalAlpha=1',
        'font=12px serif',
        'textAlign=center',
        'fillText(x,4,5)',
      ]),
    );
    expect(calls.slice(-6)).toEqual([
      'save()',
      'beginPath()',
      'rect(0,0,9,9)',
      'clip()',
      'inside',
      'restore()',
    ]);
  });
});

/** Relative luminance and contrast. Source: W3C, Web Content Accessibility Guidelines 2.1, definitions. */
function contrast(a: string, b: string): number {
  const luminance = (hex: string) => {
    const [r = 0, g = 0, bl = 0] = [1, 3, 5].map((i) => {
      const c = parseInt(hex.slice(i, i + 2), 16) / 255;
      return c <= 0.03928 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r + 0.7152 * g + 0.0722 * bl;
  };
  const [light, dark] = [luminance(a), luminance(b)].sort((p, q) => q - p) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

describe.each([
  ['day', day],
  ['night', night],
])('the palette of the %s', (_name, palette) => {
  test.each(['ink', 'quiet', 'f', 'f1', 'f2', 'danger'] as const)(
    '%s can be read on sheet and paper',
    (tone) => {
      expect(contrast(palette[tone], palette.sheet)).toBeGreaterThanOrEqual(4.5);
      expect(contrast(palette[tone], palette.paper)).toBeGreaterThanOrEqual(4.5);
    },
  );

  test('the orders of a function differ from one another', () => {
    expect(new Set([palette.f, palette.f1, palette.f2]).size).toBe(3);
  });
});
