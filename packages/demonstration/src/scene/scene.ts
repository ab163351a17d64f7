import type { Effort } from '@yperkine/core';
import { samplingWithin, type WantedCurve } from '../entries/curveMark.ts';
import { evaluateAt, knownNumber, type Range } from '@yperkine/core';
import { kindOf } from '../schema/anyKind.ts';
import { primed } from '../entries/curve.ts';
import { format } from '../numbers/format.ts';
import { unlessItThrows } from '../resolve/unlessItThrows.ts';
import { curveOf, isShown, parameterOf, resultsOf } from '../resolve/resolve.ts';
import { headOfEntry } from '../resolve/said.ts';
import type { Resolution, Resolved } from '../resolve/resolution.ts';
import {
  placeOfStudy,
  tickPixels,
  type Document,
  type EntryOf,
  type Id,
  type Looks,
} from '../schema/document.ts';
import type { Stage } from '../stage/stage.ts';
import type { Trails } from './trails.ts';
import {
  boundsOf,
  slidesOf,
  handlesOf,
  isFixed,
  verticesOf,
  type BoundHandle,
  type Handle,
  type SlideHandle,
  type VertexHandle,
} from './handles.ts';
import { placeLabels, type PlacedLabel } from './labels.ts';
import { layOut, stripRow, type SceneSize } from './layout.ts';
import type { Mark } from '../marks/mark.ts';
import { styled, type LabelTexts } from './styled.ts';
import { ticksOf, type Tick } from './ticks.ts';
import { curvesIn, keyOf, titleOf, xTitleOf, type KeyLine, type TierTitle } from './titles.ts';
import { trailMarks } from './trailMark.ts';
import { TierView, type Frame } from '../marks/view.ts';

/** More numbers than this along a height are noise. */
const mostYTicks = 10;
/** Pixels that a number along x takes, at the usual size. */
const xTickRoom = 70;

export interface SceneTier {
  readonly id: Id;
  readonly view: TierView;
  /** Pixels under the frame that its sign strips take. */
  readonly stripRoom: number;
  readonly title: TierTitle | null;
  readonly yTicks: readonly Tick[];
  readonly marks: readonly Mark[];
  readonly labels: readonly PlacedLabel[];
  /** Which line is which, where a key is wanted. */
  readonly key: readonly KeyLine[];
}

/** What there is to draw: a pure function of document, stage and size. */
export interface Scene {
  readonly size: SceneSize;
  readonly looks: Looks;
  readonly x: Range;
  readonly xTicks: readonly Tick[];
  /** The title of the x-axis; empty where the variable says enough. */
  readonly xTitle: string;
  readonly tiers: readonly SceneTier[];
  /** Pixel of the vertical line through all tiers, if a parameter is being read. */
  readonly readingX: number | null;
  readonly handles: readonly Handle[];
  readonly vertices: readonly VertexHandle[];
  readonly bounds: readonly BoundHandle[];
  readonly slides: readonly SlideHandle[];
  /** Entries whose marks were made again for this scene. */
  readonly markedAgain: readonly Id[];
  /** Curves that there was no time for: they are to be worked out beside the page. */
  readonly wanted: readonly WantedCurve[];
  /** Whether curves were left for which the next frame may have time. */
  readonly isBehind: boolean;
  readonly memory: MarkMemory;
}

/** Marks of each entry in each tier with what they were made from. */
interface Remembered {
  readonly from: Resolved;
  readonly view: TierView;
  /** What a trail was drawn from beside its entry; 0 for any other entry. */
  readonly version: number;
  readonly marks: readonly Mark[];
}
type MarkMemory = ReadonlyMap<string, Remembered>;

export interface SceneInput {
  readonly document: Document;
  readonly stage: Stage;
  readonly resolution: Resolution;
  readonly size: SceneSize;
  /** The parameter that the reading line stands at; null for none. */
  readonly here: Id | null;
  /** What moving points have left behind. */
  readonly trails?: Trails;
  /** What its curves may take; without it each is sampled to its end. */
  readonly effort?: Effort;
}

/** The window along x and the windows of the tiers as the stage shows them. */
export const shownX = (document: Document, stage: Stage): Range => stage.x ?? document.x;
export const shownY = (document: Document, stage: Stage, tier: Id): Range =>
  stage.y[tier] ?? document.tiers[tier]?.y ?? { from: -5, to: 5 };

export function buildScene(input: SceneInput, previous?: Scene): Scene {
  const { effort } = input;
  if (!effort) return { ...sceneOf(input, previous), wanted: [], isBehind: false };
  const { made, ...left } = samplingWithin(effort, () => sceneOf(input, previous));
  return { ...made, ...left };
}

function sceneOf(input: SceneInput, previous?: Scene): Omit<Scene, 'wanted' | 'isBehind'> {
  const { document, stage, size } = input;
  const x = shownX(document, stage);
  const memory = new Map<string, Remembered>();
  const markedAgain: Id[] = [];
  const { looks } = document;
  const xTitle = xTitleOf(document, input.resolution);
  const tiers = layOut(document, input.resolution, size, xTitle !== '').map(({ id, frame, stripRoom }) => {
    const y = shownY(document, stage, id);
    const scaled = looks.sameScale ? sameScale(x, y, frame) : y;
    const next = new TierView(id, frame, x, scaled, input.resolution.rule, size.density);
    const view = reusedView(next, previous);
    const marks = marksOf(input, view, previous?.memory, memory, markedAgain);
    const all = [...inRows(marks, view.frame), ...readingMarks(input, view, marks)];
    return sceneTier(input, view, stripRoom, all);
  });
  const { piScale, decimalMark } = looks;
  const tickSize = tickPixels[looks.tickNumbers.size] / tickPixels.medium;
  const xRoom = (tiers[0]?.view.frame.width ?? size.width) / (xTickRoom * tickSize);
  return {
    size,
    looks,
    x,
    xTicks: ticksOf(x, { spacing: document.xTicks, piScale, decimalMark }, xRoom),
    xTitle,
    tiers,
    readingX: readingPixel(input, tiers[0]?.view),
    handles: tiers.flatMap(handlesOf).filter(({ parameter }) => !isFixed(document, parameter)),
    vertices: tiers.flatMap(verticesOf),
    bounds: tiers.flatMap(boundsOf),
    slides: tiers.flatMap(slidesOf),
    markedAgain,
    memory,
  };
}

/** Sign strips one under another, below their tier. */
function inRows(marks: readonly Mark[], { top, height }: Frame): readonly Mark[] {
  let row = 0;
  return marks.map((mark) => {
    if (mark.kind !== 'strip') return mark;
    const under = top + height + stripRow.gap + row++ * (stripRow.height + stripRow.gap);
    return { ...mark, top: under };
  });
}

/** The window of heights with as many pixels a unit as along x, around the same middle. */
function sameScale(x: Range, y: Range, { width, height }: Frame): Range {
  const half = ((x.to - x.from) * height) / width / 2;
  const middle = (y.from + y.to) / 2;
  return { from: middle - half, to: middle + half };
}

function reusedView(next: TierView, previous: Scene | undefined): TierView {
  const before = previous?.tiers.find(({ id }) => id === next.id)?.view;
  return before && JSON.stringify(before) === JSON.stringify(next) ? before : next;
}

function marksOf(
  input: SceneInput,
  view: TierView,
  remembered: MarkMemory | undefined,
  memory: Map<string, Remembered>,
  markedAgain: Id[],
): Mark[] {
  const { resolution, trails } = input;
  const layers = new Map<number, Mark[]>();
  for (const resolved of resolution.entries.values()) {
    const { id, entry, outcome } = resolved;
    if (!outcome.ok || !isShown(resolution, id)) continue;
    const version = entry.kind === 'trail' ? versionOf(entry, resolution, trails) : 0;
    const key = `${view.id} ${id}`;
    const known = remembered?.get(key);
    const isSame =
      known?.from === resolved &&
      known.view === view &&
      known.version === version &&
      !known.marks.some(isOld);
    // An entry whose marks cannot be made leaves the picture to the others.
    const marks = isSame
      ? known.marks
      : unlessItThrows<readonly Mark[]>(() => lookedMarks(input, resolved, outcome.result, view), []);
    if (!isSame && marks.length > 0) markedAgain.push(id);
    memory.set(key, { from: resolved, view, version, marks });
    const { layer } = entry.look;
    layers.set(layer, [...(layers.get(layer) ?? []), ...marks]);
  }
  return [...layers].sort(([a], [b]) => a - b).flatMap(([, marks]) => marks);
}

const isOld = (mark: Mark): boolean => mark.kind === 'curve' && mark.isOld === true;

/** The marks of an entry in the look that it was given. */
function lookedMarks(
  { resolution, trails }: SceneInput,
  resolved: Resolved,
  result: unknown,
  view: TierView,
): readonly Mark[] {
  const { id, entry } = resolved;
  const marks =
    entry.kind === 'trail'
      ? marksOfTrail(id, entry, resolution, trails, view)
      : kindOf(entry).marks(id, entry, result, view);
  return styled(marks, entry.look, () => labelTexts(resolution, resolved), view.frame);
}

/** Changes with the marks of all trails, and when a reveal takes the point away or brings it back. */
const versionOf = (
  { of }: EntryOf<'trail'>,
  { visibilities }: Resolution,
  trails: Trails | undefined,
): number => 2 * (trails?.version ?? 0) + (visibilities.get(of)?.isRevealed ? 1 : 0);

/** A trail outlives the moment of its point, but not the reveal that keeps its point away. */
function marksOfTrail(
  id: Id,
  entry: EntryOf<'trail'>,
  { entries, visibilities }: Resolution,
  trails: Trails | undefined,
  view: TierView,
): readonly Mark[] {
  const source = entries.get(entry.of);
  if (!source || !visibilities.get(entry.of)?.isRevealed) return [];
  return trailMarks(id, entry, trails?.of(id), headOfEntry(source).tone, view);
}

/** What a label of an entry can say: its name, and the first number that came out of it. */
function labelTexts(resolution: Resolution, resolved: Resolved): LabelTexts {
  const curve = curveOf(resolution, resolved.id);
  const name = curve
    ? `${primed(curve.name, curve.order)}(${curve.variable})`
    : headOfEntry(resolved).heading;
  const [first] = resultsOf(resolution, resolved.id);
  const value = first ? `${first.label} ${format(first.number, resolution.rule).text}` : name;
  return { name, value };
}

function sceneTier(
  { document, resolution }: SceneInput,
  view: TierView,
  stripRoom: number,
  marks: readonly Mark[],
): SceneTier {
  return {
    id: view.id,
    view,
    stripRoom,
    title: titleOf(curvesIn(resolution, view.id), document.tiers[view.id]?.title ?? ''),
    yTicks: ticksOf(
      view.y,
      { spacing: document.tiers[view.id]?.yTicks ?? null, decimalMark: document.looks.decimalMark },
      Math.min(mostYTicks, view.frame.height / 44),
    ),
    key: document.looks.key === 'none' ? [] : keyOf(resolution, view.id, marks),
    marks,
    labels: placeLabels(marks, view.frame),
  };
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
  return curvesIn(input.resolution, view.id).flatMap(({ curve, tone }): Mark[] => {
    const y = evaluateAt(curve.program, x, curve.parameters);
    if (!Number.isFinite(y)) return [];
    const place = { x: pixel, y: view.toY(y), tone };
    const dot: Mark = { kind: 'dot', ...place };
    const isDragged = marks.some((mark) => mark.kind === 'point' && Math.abs(mark.y - place.y) < 0.5);
    const label: Mark = { kind: 'label', ...place, text: format(knownNumber(y), view.rule).text };
    return [...(isDragged ? [] : [dot]), ...(hasLabel && isDragged ? [] : [label])];
  });
}
