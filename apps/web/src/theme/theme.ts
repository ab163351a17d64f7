import { day, night, type Palette } from '@yperkine/demonstration';
import { create } from 'zustand';

export type ThemeName = 'day' | 'night';
const darkness = matchMedia('(prefers-color-scheme: dark)');
const remembered = 'yperkine/theme';

/** What was chosen here, else what the system is set to. */
function chosenTheme(): ThemeName {
  const stored = localStorage.getItem(remembered);
  if (stored === 'day' || stored === 'night') return stored;
  return darkness.matches ? 'night' : 'day';
}

interface ThemeState {
  readonly name: ThemeName;
  toggle(): void;
}

/** Paper and ink by day, slate and chalk by night. */
export const useTheme = create<ThemeState>()((set, get) => ({
  name: chosenTheme(),
  toggle: () => {
    const name = get().name === 'day' ? 'night' : 'day';
    localStorage.setItem(remembered, name);
    set({ name });
  },
}));

export const paletteOf = (name: ThemeName): Palette => (name === 'day' ? day : night);

/** Puts the colours of the theme file where the style sheet finds them, now and at every change, also of the system's. */
export function applyTheme(): void {
  const apply = ({ name }: ThemeState) => {
    const root = document.documentElement;
    root.dataset.theme = name;
    for (const [role, colour] of Object.entries(paletteOf(name))) root.style.setProperty(`--${role}`, colour);
  };
  apply(useTheme.getState());
  useTheme.subscribe(apply);
  darkness.addEventListener('change', () => useTheme.setState({ name: chosenTheme() }));
}
