import { Moon, Sun } from 'lucide-react';
import { useTheme } from '../theme/theme.ts';
import { IconButton } from './Button.tsx';

/** Paper by day, slate by night. */
export function ThemeButton() {
  const { name, asked, toggle } = useTheme();
  // A demonstration that is always on paper or always on slate leaves nothing to choose.
  if (asked !== null) return null;
  return (
    <IconButton label={name === 'day' ? 'Slate and chalk' : 'Paper and ink'} onClick={toggle}>
      {name === 'day' ? <Moon size={19} aria-hidden /> : <Sun size={19} aria-hidden />}
    </IconButton>
  );
}
