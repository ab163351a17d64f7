import { Effort } from '@yperkine/core';
import { resolve } from '../resolve/resolve.ts';
import { inOrder, placeOfStudy, type Document, type Id } from '../schema/document.ts';
import { buildScene } from '../scene/scene.ts';
import { emptyStage } from '../stage/stage.ts';
import { paint } from './paint.ts';
import { SvgSurface } from './svgSurface.ts';
import { day, type Palette } from './theme.ts';

const pictureSize = { width: 320, height: 200 } as const;
/** A tenth of a pixel is less than anybody sees in a picture of that size. */
const pictureDigits = 1;
/** A curve is sampled at every second pixel: between them it is as good as straight there. */
const pictureDensity = 0.5;
/** Operations that its curves may take together: what takes more is drawn roughly. */
const ofPicture = 5_000_000;

/** The small picture of a demonstration, as SVG: its graphs without numbers and titles. */
export const smallPicture = (document: Document, palette: Palette = day): string =>
  smallPictures(document, { palette }).palette;

/** The small picture in several palettes, for the trouble of one. */
export function smallPictures<Name extends string>(
  document: Document,
  palettes: Readonly<Record<Name, Palette>>,
): Record<Name, string> {
  const { width, height } = pictureSize;
  const scene = buildScene({
    document,
    stage: emptyStage,
    resolution: resolve(document, emptyStage),
    size: { width, height, density: pictureDensity, furniture: false },
    here: hereOf(document),
    effort: new Effort(ofPicture),
  });
  const painted = (palette: Palette): string => {
    const surface = new SvgSurface(palette, pictureDigits);
    paint(scene, surface);
    return surface.toSvg(width, height);
  };
  const pictures = Object.entries<Palette>(palettes).map(([name, palette]) => [name, painted(palette)]);
  return Object.fromEntries(pictures) as Record<Name, string>;
}

/** The parameter that a demonstration is read at unless a person chose another. */
export function hereOf(document: Document): Id | null {
  const places = inOrder(document.entries).flatMap(([, entry]) => placeOfStudy(entry) ?? []);
  return places[0]?.parameter ?? null;
}
