import { Crowd } from './crowd.ts';
import type { Frame } from '../marks/view.ts';
import type { Mark, MarkOf } from '../marks/mark.ts';

export interface PlacedLabel {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly label: MarkOf<'label'>;
}

/** Average width of a digit in a label, in pixels, and the room around its text. */
const digitWidth = 5.9;
const height = 24;
const padding = 14;

/** Places of a label's nearest corner from its point, so many pixels away. */
const places = (away: number): readonly (readonly [number, number])[] => [
  [away * 0.8, -height - away],
  [-away * 0.8, -height - away],
  [away * 0.8, away],
  [-away * 0.8, away],
  [away + 8, -height / 2],
  [-away - 8, -height / 2],
  [0, -height - away],
  [0, away],
];
/** The nearer ones first. One of many has to lie near to its point, or nobody could tell whose it is. */
const nearOffsets = [16, 22, 30].flatMap(places);
const offsets = [...nearOffsets, ...[46, 64].flatMap(places)];

/**
 * Puts the labels of a tier beside their places where they cover least: curves, lines, other labels. One of many for which
 * there is no room is left out: its place is marked, and told in a list.
 */
export function placeLabels(marks: readonly Mark[], frame: Frame): PlacedLabel[] {
  const texts = marks.filter((mark) => mark.kind === 'note').map(boxOfNote);
  const placed: PlacedLabel[] = [];
  const labels = labelsIn(marks, frame);
  if (labels.length === 0) return placed;
  const crowd = new Crowd(surroundings(labels), marks.map(obstaclesOf));
  for (const label of labels) {
    const boxes = (label.isSpare ? nearOffsets : offsets).map(([dx, dy]) => boxFor(label, dx, dy));
    const costs = boxes.map((box, i) => costOf(box, i, crowd, [...texts, ...placed], frame));
    const least = Math.min(...costs);
    if (!label.isSpare || least <= mostOfSpare) placed.push(boxes[costs.indexOf(least)] as PlacedLabel);
  }
  return placed;
}

/** The labels of places that are seen, each text once at its place, and those first that are never left out. */
function labelsIn(marks: readonly Mark[], frame: Frame): MarkOf<'label'>[] {
  const labels = new Map<string, MarkOf<'label'>>();
  for (const mark of marks) {
    if (mark.kind !== 'label' || !isInside(frame, mark.x, mark.y)) continue;
    const key = `${Math.round(mark.x)} ${Math.round(mark.y)} ${mark.text}`;
    if (!labels.has(key)) labels.set(key, mark);
  }
  const isSpare = ({ isSpare = false }: MarkOf<'label'>): number => Number(isSpare);
  return [...labels.values()].sort((a, b) => isSpare(a) - isSpare(b));
}

/** Pixels that a label may lie away from its place, its own width included. */
const reach = 200;

/** The part of a tier in which labels may lie: points elsewhere are in nobody's way. */
function surroundings(labels: readonly MarkOf<'label'>[]): Frame {
  const [xs, ys] = [labels.map(({ x }) => x), labels.map(({ y }) => y)];
  const [left, top] = [Math.min(...xs) - reach, Math.min(...ys) - reach];
  return { left, top, width: Math.max(...xs) + reach - left, height: Math.max(...ys) + reach - top };
}

function boxFor(label: MarkOf<'label'>, dx: number, dy: number): PlacedLabel {
  const width = [...label.text].length * digitWidth + padding;
  const left = dx > 0 ? label.x + dx : dx < 0 ? label.x + dx - width : label.x - width / 2;
  return { left, top: label.y + dy, width, height, label };
}

const isInside = (frame: Frame, x: number, y: number): boolean =>
  x >= frame.left - 1 &&
  x <= frame.left + frame.width + 1 &&
  y >= frame.top - 1 &&
  y <= frame.top + frame.height + 1;

/** What it costs to cover a point of a curve or line, to stick out by a pixel, to cover another text, against a place further down the list. */
const coveredCurve = 10;
const outsidePixel = 6;
const coveredText = 500;
/** What one of many may cost at most: it covers no text, sticks out nowhere, and hardly covers a curve. */
const mostOfSpare = 50;

function costOf(
  box: PlacedLabel,
  preference: number,
  crowd: Crowd,
  others: readonly Box[],
  frame: Frame,
): number {
  let cost = preference + coveredCurve * crowd.countIn(box);
  cost += others.filter((other) => overlaps(box, other)).length * coveredText;
  const outside =
    Math.max(0, frame.left - box.left) +
    Math.max(0, box.left + box.width - frame.left - frame.width) +
    Math.max(0, frame.top - box.top) +
    Math.max(0, box.top + box.height - frame.top - frame.height);
  return cost + outside * outsidePixel;
}

interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

function boxOfNote({ x, y, text, anchor }: MarkOf<'note'>): Box {
  const width = [...text].length * digitWidth + 6;
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2;
  return { left, top: y - 13, width, height: 17 };
}

const overlaps = (a: Box, b: Box): boolean =>
  a.left < b.left + b.width &&
  b.left < a.left + a.width &&
  a.top < b.top + b.height &&
  b.top < a.top + a.height;

/** A mark that did not change keeps its points, so that a moving label costs no walk along every curve. */
const remembered = new WeakMap<Mark, readonly number[]>();

/** Points of a mark that a label should not cover, as x y x y …. */
function obstaclesOf(mark: Mark): readonly number[] {
  const known = remembered.get(mark);
  if (known) return known;
  const points = pointsOf(mark);
  remembered.set(mark, points);
  return points;
}

function pointsOf(mark: Mark): number[] {
  switch (mark.kind) {
    case 'curve':
    case 'track': {
      const points: number[] = [];
      for (const run of mark.runs) addThinned(run, points);
      return points;
    }
    case 'line':
      return pointsAlong(mark.x0, mark.y0, mark.x1, mark.y1);
    case 'polygon':
      return pointsAlong(...(mark.points.slice(2, 6) as [number, number, number, number]));
    case 'point':
    case 'vertex':
    case 'dot':
      return [mark.x, mark.y];
    case 'dots':
      return [...mark.points];
    case 'lens':
      return discOf(mark);
    case 'note':
    case 'label':
    case 'bars':
    case 'area':
    case 'cut':
    case 'level':
    case 'span':
    case 'strip':
      return [];
  }
}

/** Points all over a lens. */
function discOf({ x, y, radius }: MarkOf<'lens'>): number[] {
  const points: number[] = [];
  for (let dx = -radius; dx <= radius; dx += 2 * spacing) {
    const half = Math.sqrt(radius * radius - dx * dx);
    for (let dy = -half; dy <= half; dy += 2 * spacing) points.push(x + dx, y + dy);
  }
  return points;
}

/** Pixels of a curve's length between two of its points that a label should not cover. */
const spacing = 4;
/** Points of one straight piece at most: it may lead far out of the window. */
const mostOfPiece = 2000;

/** Puts in points along a run at even distances, so that a steep part counts as much as a flat one. */
function addThinned(run: Float64Array, points: number[]): void {
  let left = 0;
  for (let i = 0; i + 3 < run.length; i += 2) {
    const x0 = run[i] as number;
    const y0 = run[i + 1] as number;
    const x1 = run[i + 2] as number;
    const y1 = run[i + 3] as number;
    const length = Math.hypot(x1 - x0, y1 - y0);
    if (!Number.isFinite(length)) continue;
    const step = Math.max(spacing, length / mostOfPiece);
    for (let at = left; at < length; at += step) {
      points.push(x0 + ((x1 - x0) * at) / length, y0 + ((y1 - y0) * at) / length);
    }
    if (step > spacing) left = 0;
    else left = length > left ? spacing - ((length - left) % spacing) : left - length;
  }
}

const alongLine = 120;

function pointsAlong(x0: number, y0: number, x1: number, y1: number): number[] {
  const points: number[] = [];
  for (let i = 0; i < alongLine; i++) {
    const t = i / (alongLine - 1);
    points.push(x0 + (x1 - x0) * t, y0 + (y1 - y0) * t);
  }
  return points;
}
