import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Ellipsis } from 'lucide-react';
import { iconButtonClass } from './Button.tsx';

export interface MenuAction {
  readonly label: string;
  readonly run: () => void;
  readonly isDangerous?: boolean;
}

/** The actions of an entry or demonstration behind one quiet button. */
export function ActionMenu({ label, actions }: { label: string; actions: readonly MenuAction[] }) {
  return (
    <Menu>
      <MenuButton aria-label={label} title={label} className={iconButtonClass}>
        <Ellipsis size={19} aria-hidden />
      </MenuButton>
      <MenuItems anchor="bottom end" className="card z-30 min-w-48 p-1.5 outline-none">
        {actions.map(({ label: text, run, isDangerous }) => (
          <MenuItem key={text}>
            <button
              type="button"
              onClick={run}
              className={`block w-full rounded-lg px-3 py-2 text-left data-focus:bg-hover ${isDangerous ? 'text-danger' : 'text-ink'}`}
            >
              {text}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
