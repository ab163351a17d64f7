import { evaluateAt, knownNumber, latexFunction, latexName, type Range } from '@yperkine/core';
import { kindOf } from '../entries/anyKind.ts';
import { primed, type CurveResult } from '../entries/curve.ts';
import { format } from '../numbers/format.ts';
import { curveOf, isShown, parameterOf, type Resolution, type Resolved } from '../resolve/resolve.ts';
import { placeOfStudy, type Document, type Id } from '../schema/document.ts';
import type { Stage } from '../stage/stage.ts';
import { unitText, type Unit } from '../units/unit.ts';
import { placeLabels, type PlacedLabel } from './labels.ts';
import { layOut, type SceneSize } from './layout.ts';
import type { Mark, MarkOf } from './mark.ts';
import { ticksOf, type Tick } from './ticks.ts';
import { toneOf, type Tone } from './tone.ts';
import { TierView } from './view.ts';

/** More numbers than this along a height are noise. */
const mostYTicks = 10;

export interface TierTitle {
  /** Every curve of the tier, each in its own tone. */
  readonly names: readonly { readonly latex: string; readonly tone: Tone }[];
  /** What the tier shows, in words. */
  readonly words: string;
}

export interface SceneTier {
  readonly id: Id;
  readonly view: TierView;
  readonly title: TierTitle | null;
  readonly yTicks: readonly Tick[];
  readonly marks: readonly Mark[];
  readonly labels: readonly PlacedLabel[];
}

/** A point that can be dragged; its parameter moves with it. */
export interface Handle {
  readonly key: string;
  readonly tier: Id;
  readonly entry: Id;
  readonly parameter: Id;
  readonly x: number;
  readonly y: number;
  readonly tone: Tone;
  readonly isVisible: boolean;
  /** The parameter's value is (x − offset)·sign. */
  readonly offset: number;
  readonly sign: number;
}

/** A point of a function through points; it is dragged in both directions. */
export interface VertexHandle {
  readonly key: string;
  readonly tier: Id;
  readonly entry: Id;
  readonly index: number;
  readonly x: number;
  readonly y: number;
  readonly isVisible: boolean;
}

/** What there is to draw: a pure function of document, stage and size. */
export interface Scene {
  readonly size: SceneSize;
  readonly x: Range;
  readonly xTicks: readonly Tick[];
  /** The title of the x-axis; empty where the variable says enough. */
  readonly xTitle: string;
  readonly tiers: readonly SceneTier[];
  /** Pixel of the vertical line through all tiers, if a parameter is being read. */
  readonly readingX: number | null;
  readonly handles: readonly Handle[];
  readonly vertices: readonly VertexHandle[];
  /** Entries whose marks were made again for this scene. */
  readonly markedAgain: readonly Id[];
  readonly memory: MarkMemory;
}

/** Marks of each entry in each tier with what they were made from. */
type MarkMemory = ReadonlyMap<
  string,
  { readonly from: Resolved; readonly view: TierView; readonly marks: readonly Mark[] }
>;

export interface SceneInput {
  readonly document: Document;
  readonly stage: Stage;
  readonly resolution: Resolution;
  readonly size: SceneSize;
  /** The parameter that the reading line stands at; null for none. */
  readonly here: Id | null;
}

/** The window along x and the windows of the tiers as the stage shows them. */
export const shownX = (document: Document, stage: Stage): Range => stage.x ?? document.x;
export const shownY = (document: Document, stage: Stage, tier: Id): Range =>
  stage.y[tier] ?? document.tiers[tier]?.y ?? { from: -5, to: 5 };

export function buildScene(input: SceneInput, previous?: Scene): Scene {
  const { document, stage, size } = input;
  const x = shownX(document, stage);
  const memory = new Map<string, { from: Resolved; view: TierView; marks: readonly Mark[] }>();
  const markedAgain: Id[] = [];
  const xTitle = xTitleOf(document, input.resolution);
  const tiers = layOut(document, size, xTitle !== '').map(({ id, frame }) => {
    const next = new TierView(id, frame, x, shownY(document, stage, id), input.resolution.rule, size.density);
    const view = reusedView(next, previous);
    const marks = marksOf(input.resolution, view, previous?.memory, memory, markedAgain);
    const all = [...marks, ...readingMarks(input, view, marks)];
    return sceneTier(input, view, all);
  });
  const xRoom = (tiers[0]?.view.frame.width ?? size.width) / 70;
  return {
    size,
    x,
    xTicks: ticksOf(x, document.xTicks, xRoom),
    xTitle,
    tiers,
    readingX: readingPixel(input, tiers[0]?.view),
    handles: tiers.flatMap(handlesOf).filter(({ parameter }) => !isFixed(document, parameter)),
    vertices: tiers.flatMap(verticesOf),
    markedAgain,
    memory,
  };
}

function reusedView(next: TierView, previous: Scene | undefined): TierView {
  const before = previous?.tiers.find(({ id }) => id === next.id)?.view;
  return before && JSON.stringify(before) === JSON.stringify(next) ? before : next;
}

function marksOf(
  resolution: Resolution,
  view: TierView,
  remembered: MarkMemory | undefined,
  memory: Map<string, { from: Resolved; view: TierView; marks: readonly Mark[] }>,
  markedAgain: Id[],
): Mark[] {
  const all: Mark[] = [];
  for (const resolved of resolution.entries.values()) {
    const { id, entry, outcome } = resolved;
    if (!outcome.ok || !isShown(resolution, id)) continue;
    const key = `${view.id} ${id}`;
    const known = remembered?.get(key);
    const isSame = known?.from === resolved && known.view === view;
    const marks = isSame ? known.marks : kindOf(entry).marks(id, entry, outcome.result, view);
    if (!isSame && marks.length > 0) markedAgain.push(id);
    memory.set(key, { from: resolved, view, marks });
    all.push(...marks);
  }
  return all;
}

function sceneTier({ document, resolution }: SceneInput, view: TierView, marks: readonly Mark[]): SceneTier {
  return {
    id: view.id,
    view,
    title: titleOf(curvesIn(resolution, view.id), document.tiers[view.id]?.title ?? ''),
    yTicks: ticksOf(
      view.y,
      document.tiers[view.id]?.yTicks ?? null,
      Math.min(mostYTicks, view.frame.height / 44),
    ),
    marks,
    labels: placeLabels(marks, view.frame),
  };
}

/** The curves that are drawn in a tier, in the order of the working. */
export function curvesIn(resolution: Resolution, tier: Id): { id: Id; curve: CurveResult }[] {
  return [...resolution.entries.values()]
    .filter(({ id }) => isShown(resolution, id))
    .map(({ id }) => ({ id, curve: curveOf(resolution, id) }))
    .filter((found): found is { id: Id; curve: CurveResult } => found.curve?.tier === tier);
}

/** "t in min", or the typed title with the unit; nothing where there is neither. */
function xTitleOf({ xTitle }: Document, resolution: Resolution): string {
  const { entries, xUnit } = resolution;
  const typed = xTitle.trim();
  if (typed === '' && xUnit.size === 0) return '';
  const curves = [...entries.keys()].map((id) => curveOf(resolution, id));
  return inUnit(typed || (curves.find((curve) => curve !== undefined)?.variable ?? 'x'), xUnit);
}

const inUnit = (words: string, unit: Unit): string =>
  [words, unit.size === 0 ? '' : `in ${unitText(unit)}`].filter((part) => part !== '').join(' ');

function titleOf(curves: readonly { curve: CurveResult }[], typed: string): TierTitle | null {
  const curve = curves[0]?.curve;
  if (!curve) return null;
  const names = curves.map(({ curve: { name, order, family, variable } }) => ({
    latex: `${latexFunction(name, order)}(${latexName(variable)})`,
    tone: toneOf(order, family),
  }));
  const isOne = curves.length === 1 && curve.order > 0;
  const usual = isOne ? `slope of ${primed(curve.name, curve.order - 1)}` : '';
  return { names, words: inUnit(typed.trim() || usual, curve.unit) };
}

function valueHere({ resolution, here }: SceneInput): number | null {
  return here === null ? null : (parameterOf(resolution, here)?.value.value ?? null);
}

/** Whether a study stands at the parameter, so that the parameter is an x and can be read. */
function readingPixel(input: SceneInput, view: TierView | undefined): number | null {
  const value = valueHere(input);
  if (value === null || !view) return null;
  const isPlace = Object.values(input.document.entries).some(
    (entry) => placeOfStudy(entry)?.parameter === input.here,
  );
  return isPlace ? view.toX(value) : null;
}

/** Each tier's value on the reading line, except where a point shows its own. */
function readingMarks(input: SceneInput, view: TierView, marks: readonly Mark[]): Mark[] {
  const pixel = readingPixel(input, view);
  const x = valueHere(input);
  if (pixel === null || x === null) return [];
  const hasLabel = marks.some((mark) => mark.kind === 'label' && Math.abs(mark.x - pixel) < 0.5);
  return curvesIn(input.resolution, view.id).flatMap(({ curve }): Mark[] => {
    const y = evaluateAt(curve.program, x, curve.parameters);
    if (!Number.isFinite(y)) return [];
    const place = { x: pixel, y: view.toY(y), tone: toneOf(curve.order, curve.family) };
    const dot: Mark = { kind: 'dot', ...place };
    const isDragged = marks.some((mark) => mark.kind === 'point' && Math.abs(mark.y - place.y) < 0.5);
    const label: Mark = { kind: 'label', ...place, text: format(knownNumber(y), view.rule).text };
    return [...(isDragged ? [] : [dot]), ...(hasLabel && isDragged ? [] : [label])];
  });
}

const isInside = ({ frame: { left, top, width, height } }: TierView, x: number, y: number): boolean =>
  x >= left - 1 && x <= left + width + 1 && y >= top - 1 && y <= top + height + 1;

function verticesOf({ id, view, marks }: SceneTier): VertexHandle[] {
  const vertices = marks.filter((mark): mark is MarkOf<'vertex'> => mark.kind === 'vertex');
  return vertices.map(({ entry, index, x, y }) => ({
    key: `${id} ${entry} vertex ${index}`,
    tier: id,
    entry,
    index,
    x,
    y,
    isVisible: isInside(view, x, y),
  }));
}

/** A point that nothing moves is drawn, but cannot be taken hold of. */
function isFixed({ entries }: Document, parameter: Id): boolean {
  const entry = entries[parameter];
  return entry?.kind === 'parameter' && entry.moves === 'fixed';
}

/** One handle for points that lie on one another. */
function handlesOf({ id, view, marks }: SceneTier): Handle[] {
  const points = marks.filter((mark): mark is MarkOf<'point'> => mark.kind === 'point');
  const handles = new Map<string, Handle>();
  for (const { entry, parameter, x, y, tone, offset = 0, sign = 1 } of points) {
    const key = `${id} ${parameter} ${Math.round(y)} ${sign}`;
    const isVisible = isInside(view, x, y);
    if (!handles.has(key))
      handles.set(key, {
        key: `${id} ${entry} ${parameter} ${sign}`,
        tier: id,
        entry,
        parameter,
        x,
        y,
        tone,
        isVisible,
        offset,
        sign,
      });
  }
  return [...handles.values()];
}
