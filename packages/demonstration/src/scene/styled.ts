import type { Look } from '../fields/look.ts';
import type { Mark } from '../marks/mark.ts';
import { dashes } from '../fields/tone.ts';
import type { Frame } from '../marks/view.ts';

/** What a label of an entry can say. */
export interface LabelTexts {
  readonly name: string;
  readonly value: string;
}

/** Whether a look leaves everything to the kind of entry. */
const isUsual = ({ tone, line, weight, point, size, label }: Look): boolean =>
  [tone, line, weight, point, size, label].every((choice) => choice === null);

/** The marks of an entry in the look that it was given; the same marks where it was given none. */
export function styled(
  marks: readonly Mark[],
  look: Look,
  texts: () => LabelTexts,
  frame: Frame,
): readonly Mark[] {
  if (isUsual(look) || marks.length === 0) return marks;
  const inLook = marks.map((mark) => shaped(look.tone === null ? mark : { ...mark, tone: look.tone }, look));
  return look.label === null ? inLook : labelled(inLook, look, texts(), frame);
}

function shaped(mark: Mark, { line, weight, point, size }: Look): Mark {
  switch (mark.kind) {
    case 'curve':
    case 'line':
    case 'track':
      return { ...mark, dash: line === null ? mark.dash : dashes[line], weight: weight ?? mark.weight };
    case 'point':
    case 'vertex':
    case 'dot':
    case 'dots':
      return {
        ...mark,
        ...(point === null ? {} : { shape: point }),
        ...(size === null ? {} : { size }),
      };
    case 'polygon':
    case 'lens':
    case 'label':
    case 'note':
    case 'bars':
    case 'area':
    case 'cut':
    case 'level':
    case 'span':
    case 'strip':
      return mark;
  }
}

function labelled(
  marks: readonly Mark[],
  { label, text }: Look,
  { name, value }: LabelTexts,
  frame: Frame,
): Mark[] {
  const others = marks.filter(({ kind }) => kind !== 'label');
  const own = marks.find((mark) => mark.kind === 'label');
  const words = { none: '', name, value: own?.text ?? value, text }[label ?? 'none'];
  const place = own ?? placeOf(others, frame);
  const [first] = others;
  if (words.trim() === '' || !place || !first) return others;
  return [...others, { kind: 'label', x: place.x, y: place.y, tone: own?.tone ?? first.tone, text: words }];
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/** Shares of a tier's width at which a curve or line may be labelled, the best one first. */
const shares = [0.82, 0.7, 0.9, 0.5, 0.3, 0.1];

/** Where a label belongs: at a point, else on a line or curve where it can be seen. */
function placeOf(marks: readonly Mark[], { left, top, width, height }: Frame): Place | undefined {
  const isInside = ({ x, y }: Place): boolean =>
    x >= left && x <= left + width && y >= top && y <= top + height;
  const point = marks.find((mark) => mark.kind === 'point' || mark.kind === 'dot');
  if (point && isInside(point)) return point;
  const at = (share: number): Place[] =>
    marks.flatMap((mark) => heightAt(mark, left + share * width)).filter(isInside);
  return shares.map((share) => at(share)[0]).find((place) => place !== undefined);
}

/** The place of a line or curve at a pixel along the tier. */
function heightAt(mark: Mark, x: number): Place[] {
  if (mark.kind === 'line') {
    const share = (x - mark.x0) / (mark.x1 - mark.x0);
    return share >= 0 && share <= 1 ? [{ x, y: mark.y0 + (mark.y1 - mark.y0) * share }] : [];
  }
  if (mark.kind !== 'curve') return [];
  for (const run of mark.runs) {
    for (let i = 2; i + 1 < run.length; i += 2) {
      const [x0, y0, x1, y1] = [run[i - 2], run[i - 1], run[i], run[i + 1]] as [
        number,
        number,
        number,
        number,
      ];
      if (x0 <= x && x <= x1 && x0 < x1) return [{ x, y: y0 + ((y1 - y0) * (x - x0)) / (x1 - x0) }];
    }
  }
  return [];
}
