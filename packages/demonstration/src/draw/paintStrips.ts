import { stripRow } from '../scene/layout.ts';
import type { MarkOf, StripPart } from '../marks/mark.ts';
import type { SceneTier } from '../scene/scene.ts';
import type { Emphasis, Pen, Surface } from './surface.ts';

const signs = ['−', '0', '+'] as const;
/** Average width of a letter of a part's word, in pixels. */
const letterWidth = 6.4;
const padding = 10;
const meetingRadius = 4;

/** The rows of signs under a tier: what is positive is filled, so that it is told without colour, too. */
export function paintStrips({ view, marks }: SceneTier, surface: Surface, emphasis: Emphasis): void {
  const { left, width } = view.frame;
  for (const strip of marks) {
    if (strip.kind !== 'strip') continue;
    const { title, tone, top, parts, meetings } = strip;
    const middle = top + stripRow.height / 2;
    surface.text(title, left - 10, middle + 5, { tone, size: 14, anchor: 'end' });
    surface.clipped({ left, top: top - 2, width: width + 1, height: stripRow.height + 4 }, () => {
      parts.forEach((part) => paintPart(part, strip, left, left + width, surface, emphasis));
      for (const { x, isZero } of meetings) {
        if (isZero) surface.path(circle(x, middle), { fill: 'sheet', stroke: tone, width: 2 });
        else surface.path(gap(x, top), { stroke: 'quiet', width: 2 });
      }
    });
  }
}

const circle = (x: number, y: number) => (pen: Pen) => {
  pen.moveTo(x + meetingRadius, y);
  pen.arc(x, y, meetingRadius, 0, 2 * Math.PI);
};

/** A line from edge to edge: there is no value. */
const gap = (x: number, top: number) => (pen: Pen) => {
  pen.moveTo(x, top - 1);
  pen.lineTo(x, top + stripRow.height + 1);
};

function paintPart(
  { x0, x1, sign, word }: StripPart,
  { entry, tone, top }: MarkOf<'strip'>,
  left: number,
  right: number,
  surface: Surface,
  emphasis: Emphasis,
): void {
  const box = (pen: Pen) => pen.rect(x0 + 1, top, Math.max(0, x1 - x0 - 2), stripRow.height);
  const opacity = entry === emphasis.entry ? 0.3 : 0.16;
  const isPositive = sign === 1;
  if (isPositive) surface.path(box, { fill: tone, opacity });
  surface.path(box, {
    stroke: tone,
    width: 1.25,
    ...(isPositive ? {} : { dash: sign === -1 ? [4, 3] : [1.5, 3] }),
  });
  // What is seen of the part decides how much can be said in it.
  const [from, to] = [Math.max(left, x0), Math.min(right, x1)];
  const symbol = sign === null ? '≠ 0' : (signs[sign + 1] as string);
  const room = to - from - padding;
  // Both words for bending where there is room for them, one or the sign alone where there is not.
  const shorter = word.replace(/ \(.*\)$/, '');
  const text = [`${symbol} ${word}`, `${symbol} ${shorter}`, symbol].find(
    (one) => [...one].length * letterWidth <= room,
  );
  if (text === undefined) return;
  surface.text(text, (from + to) / 2, top + stripRow.height / 2 + 4.5, { tone, size: 13, anchor: 'middle' });
}

const bracketHeight = 7;

/** The interval of a study along the bottom of its tier, with a short upright at each end. */
export function paintSpan(
  { entry, x0, x1, y, tone }: MarkOf<'span'>,
  { view: { frame } }: SceneTier,
  surface: Surface,
  emphasis: Emphasis,
): void {
  const [from, to] = [Math.max(frame.left, x0), Math.min(frame.left + frame.width, x1)];
  if (!(from < to)) return;
  const isEmphasised = entry === emphasis.entry;
  surface.path(
    (pen) => {
      pen.moveTo(from, y);
      pen.lineTo(to, y);
    },
    { stroke: tone, width: isEmphasised ? 5 : 3, opacity: 0.55 },
  );
  for (const end of [x0, x1]) {
    if (end < frame.left - 1 || end > frame.left + frame.width + 1) continue;
    surface.path((pen) => pen.rect(end - 3, y - bracketHeight, 6, 2 * bracketHeight), {
      fill: tone,
      stroke: 'sheet',
      width: 1.5,
    });
  }
}
