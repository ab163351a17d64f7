import { day, night, type Palette } from '@yperkine/demonstration';
import { create } from 'zustand';

export type ThemeName = 'day' | 'night';
const remembered = 'yperkine/theme';

function firstTheme(): ThemeName {
  const stored = localStorage.getItem(remembered);
  if (stored === 'day' || stored === 'night') return stored;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
}

interface ThemeState {
  readonly name: ThemeName;
  toggle(): void;
}

/** Paper and ink by day, slate and chalk by night. */
export const useTheme = create<ThemeState>()((set, get) => ({
  name: firstTheme(),
  toggle: () => {
    const name = get().name === 'day' ? 'night' : 'day';
    localStorage.setItem(remembered, name);
    set({ name });
  },
}));

export const paletteOf = (name: ThemeName): Palette => (name === 'day' ? day : night);

/** Puts the colours of the theme file where the style sheet finds them, now and at every change. */
export function applyTheme(): void {
  const apply = ({ name }: ThemeState) => {
    const root = document.documentElement;
    root.dataset.theme = name;
    for (const [role, colour] of Object.entries(paletteOf(name))) root.style.setProperty(`--${role}`, colour);
  };
  apply(useTheme.getState());
  useTheme.subscribe(apply);
}
