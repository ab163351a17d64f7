import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import clsx from 'clsx';
import { Ellipsis } from 'lucide-react';
import { useId } from 'react';
import { iconButtonClass, smallIconClass } from './Button.tsx';

export interface MenuAction {
  readonly label: string;
  readonly run: () => void;
  readonly isDangerous?: boolean;
}

interface ActionMenuProps {
  readonly label: string;
  /** The element that says what the actions are for, where the label is only its beginning. */
  readonly of?: string;
  /** Asked for when the menu opens, so that they are those of this moment. */
  readonly actions: () => readonly MenuAction[];
  readonly isSmall?: boolean;
}

/** The actions of an entry or demonstration behind one quiet button. */
export function ActionMenu({ label, of, actions, isSmall = false }: ActionMenuProps) {
  const id = useId();
  return (
    <Menu>
      <MenuButton
        id={id}
        aria-label={label}
        aria-labelledby={of === undefined ? undefined : `${id} ${of}`}
        title={label}
        className={clsx(iconButtonClass, isSmall && smallIconClass)}
      >
        <Ellipsis size={19} aria-hidden />
      </MenuButton>
      <MenuItems
        anchor="bottom end"
        className="card z-30 max-h-[70dvh]! min-w-48 overflow-y-auto p-1.5 outline-none"
      >
        <Items actions={actions} />
      </MenuItems>
    </Menu>
  );
}

function Items({ actions }: Pick<ActionMenuProps, 'actions'>) {
  return actions().map(({ label: text, run, isDangerous }) => (
    <MenuItem key={text}>
      <button
        type="button"
        onClick={run}
        className={`block w-full rounded-lg px-3 py-2 text-left data-focus:bg-hover ${isDangerous ? 'text-danger' : 'text-ink'}`}
      >
        {text}
      </button>
    </MenuItem>
  ));
}
