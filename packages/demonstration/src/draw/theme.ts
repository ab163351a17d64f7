import type { ColourRole, Tone } from '../fields/tone.ts';

/** The one place with exact colours. Text tones reach AA contrast on sheet and paper. */
export type Palette = Readonly<Record<ColourRole | 'onInk' | 'hover' | 'danger', string>>;

export const day: Palette = {
  paper: '#f3efe6',
  sheet: '#fffdf8',
  rule: '#e3dccd',
  ink: '#1d2433',
  quiet: '#5f6471',
  f: '#2f3fa3',
  f1: '#b4480f',
  f2: '#0b7568',
  g: '#00678a',
  g1: '#a32a4c',
  g2: '#5c6500',
  h: '#6f3a96',
  h1: '#7d5300',
  h2: '#1f6b36',
  total: '#87286f',
  minus: '#94403a',
  here: '#d99a00',
  onInk: '#fffdf8',
  hover: '#ece6d8',
  danger: '#a3261d',
};

export const night: Palette = {
  paper: '#121b24',
  sheet: '#1a2631',
  rule: '#2f3f4d',
  ink: '#edf1f4',
  quiet: '#9fb0bd',
  f: '#a9b8ff',
  f1: '#ffb07a',
  f2: '#72d8c6',
  g: '#7fd0f0',
  g1: '#ff9fb4',
  g2: '#cdd873',
  h: '#d9b3ff',
  h1: '#e8c07a',
  h2: '#8fdc9f',
  total: '#f0a6dd',
  minus: '#f29b8e',
  here: '#ffc94d',
  onInk: '#121b24',
  hover: '#243240',
  danger: '#ff9d92',
};

/** The colour of a tone: a role is filled in by the palette, a colour of one's own stays what it is. */
export const colourOf = (tone: Tone, palette: Palette): string =>
  tone.startsWith('#') ? tone : palette[tone as ColourRole];
