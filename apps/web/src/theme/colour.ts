import type { Tone } from '@yperkine/demonstration';

/** A tone as the style sheet takes it: a role follows the theme, a colour of one's own stays what it is. */
export const cssColour = (tone: Tone): string => (tone.startsWith('#') ? tone : `var(--${tone})`);
