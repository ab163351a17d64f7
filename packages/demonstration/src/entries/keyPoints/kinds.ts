import type { AnswerTo } from '@yperkine/core';

export type FoundPoint = AnswerTo['keyPoints']['points'][number];

/** Kinds that a teacher shows together or one at a time. */
export const keyPointGroups = {
  ends: 'End points',
  zeros: 'Zeros',
  maxima: 'Maxima',
  minima: 'Minima',
  inflections: 'Inflection points',
  breaks: 'Corners and breaks',
} as const;
export type KeyPointGroup = keyof typeof keyPointGroups;
export const allGroups = Object.keys(keyPointGroups) as KeyPointGroup[];

const groups: Readonly<Record<FoundPoint['kind'], KeyPointGroup>> = {
  endpoint: 'ends',
  zero: 'zeros',
  maximum: 'maxima',
  minimum: 'minima',
  inflection: 'inflections',
  pole: 'breaks',
  jump: 'breaks',
  hole: 'breaks',
  corner: 'breaks',
  cusp: 'breaks',
};
export const groupOf = ({ kind }: FoundPoint): KeyPointGroup => groups[kind];

/** Whether an end point with an absolute value is the highest or the lowest; a level function is both. */
function extremeWord(point: FoundPoint, all: readonly FoundPoint[]): string {
  const heights = all.flatMap(({ y }) => (y === null ? [] : [y]));
  const isHighest = heights.every((y) => y <= (point.y as number));
  const isLowest = heights.every((y) => y >= (point.y as number));
  if (isHighest && isLowest) return 'absolute maximum and minimum';
  return isHighest ? 'absolute maximum' : isLowest ? 'absolute minimum' : '';
}

const plainWords: Readonly<Record<FoundPoint['kind'], string>> = {
  endpoint: 'end point',
  zero: 'zero',
  maximum: 'maximum',
  minimum: 'minimum',
  inflection: 'inflection point',
  pole: 'pole',
  jump: 'jump',
  hole: 'hole',
  corner: 'corner',
  cusp: 'cusp',
};

/** "local maximum", "end point, absolute minimum": what a point is, absolute told from local where that is proved. */
export function kindWords(point: FoundPoint, all: readonly FoundPoint[]): string {
  const plain = plainWords[point.kind];
  if (point.kind === 'endpoint') {
    const extreme = point.absolute === true ? extremeWord(point, all) : '';
    return extreme === '' ? plain : `${plain}, ${extreme}`;
  }
  if (point.absolute === true) return `absolute ${plain}`;
  return point.absolute === false ? `local ${plain}` : plain;
}
