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
  /** What the viewer likes. */
  readonly name: ThemeName;
  /** What the open demonstration asks for instead; null where it leaves it to the viewer. */
  readonly asked: ThemeName | null;
  toggle(): void;
}

/** Paper and ink by day, slate and chalk by night. */
export const useTheme = create<ThemeState>()((set, get) => ({
  name: chosenTheme(),
  asked: null,
  toggle: () => {
    const name = get().name === 'day' ? 'night' : 'day';
    localStorage.setItem(remembered, name);
    set({ name });
  },
}));

const shownIn = ({ name, asked }: ThemeState): ThemeName => asked ?? name;
export const shownTheme = (): ThemeName => shownIn(useTheme.getState());
export const useShownTheme = (): ThemeName => useTheme(shownIn);

export const paletteOf = (name: ThemeName): Palette => (name === 'day' ? day : night);

/** Puts the colours of the theme file where the style sheet finds them, now and at every change, also of the system's. */
export function applyTheme(): void {
  const apply = (state: ThemeState) => {
    const name = shownIn(state);
    const root = document.documentElement;
    root.dataset.theme = name;
    for (const [role, colour] of Object.entries(paletteOf(name))) root.style.setProperty(`--${role}`, colour);
  };
  apply(useTheme.getState());
  useTheme.subscribe(apply);
  darkness.addEventListener('change', () => useTheme.setState({ name: chosenTheme() }));
}
