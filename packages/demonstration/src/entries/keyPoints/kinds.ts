import type { AnswerTo, EndExtreme } from '@yperkine/core';

export type FoundPoint = AnswerTo['keyPoints']['points'][number];

/** Kinds that a teacher shows together or one at a time. */
export const keyPointGroups = {
  ends: 'End points',
  zeros: 'Zeros',
  maxima: 'Maxima',
  minima: 'Minima',
  inflections: 'Inflection points',
  breaks: 'Corners and breaks',
  asymptotes: 'Asymptotes',
} as const;
export type KeyPointGroup = keyof typeof keyPointGroups;
export const allGroups = Object.keys(keyPointGroups) as KeyPointGroup[];

const groups: Readonly<Record<FoundPoint['kind'], KeyPointGroup>> = {
  endpoint: 'ends',
  openEnd: 'ends',
  zero: 'zeros',
  maximum: 'maxima',
  minimum: 'minima',
  inflection: 'inflections',
  pole: 'asymptotes',
  jump: 'breaks',
  hole: 'breaks',
  corner: 'breaks',
  cusp: 'breaks',
};
export const groupOf = ({ kind }: FoundPoint): KeyPointGroup => groups[kind];

const plainWords: Readonly<Record<FoundPoint['kind'], string>> = {
  endpoint: 'end point',
  openEnd: 'open end',
  zero: 'zero',
  maximum: 'maximum',
  minimum: 'minimum',
  inflection: 'inflection point',
  pole: 'pole, vertical asymptote',
  jump: 'jump',
  hole: 'hole',
  corner: 'corner',
  cusp: 'cusp',
};

const extremeWords: Readonly<Record<EndExtreme, string>> = {
  maximum: 'maximum',
  minimum: 'minimum',
  both: 'maximum and minimum',
};

/** "local maximum", "end point, absolute minimum": what a point is, absolute told from local where that is proved. */
export function kindWords({ kind, absolute, extreme }: FoundPoint): string {
  const plain = plainWords[kind];
  if (kind === 'endpoint') {
    if (!extreme) return plain;
    return `${plain}, ${absolute ? 'absolute' : 'local'} ${extremeWords[extreme]}`;
  }
  if (absolute === true) return `absolute ${plain}`;
  return absolute === false ? `local ${plain}` : plain;
}
