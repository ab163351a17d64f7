import clsx from 'clsx';
import type { ComponentProps, ReactNode } from 'react';

const looks = {
  strong: 'bg-ink text-on-ink hover:opacity-90',
  plain: 'border border-rule bg-sheet text-ink hover:bg-hover',
  bare: 'text-quiet hover:bg-hover hover:text-ink',
} as const;

interface ButtonProps extends ComponentProps<'button'> {
  readonly look?: keyof typeof looks;
}

export function Button({ look = 'plain', className, ...rest }: ButtonProps) {
  return (
    <button
      type="button"
      className={clsx(
        'inline-flex min-h-10 items-center justify-center gap-2 rounded-[10px] px-4 font-semibold transition-colors disabled:opacity-45',
        looks[look],
        className,
      )}
      {...rest}
    />
  );
}

interface IconButtonProps extends ComponentProps<'button'> {
  /** What the button does, for the tooltip and screen readers. */
  readonly label: string;
  readonly children: ReactNode;
}

export const iconButtonClass =
  'inline-flex size-10 items-center justify-center rounded-[10px] text-quiet transition-colors hover:bg-hover hover:text-ink disabled:pointer-events-none disabled:opacity-35';

/** Makes a button with words small enough to stand among the settings of a card. */
export const smallButtonClass = 'min-h-9 px-2.5! text-[0.95rem] font-normal!';

/** Makes an icon button smaller, except under a finger. */
export const smallIconClass = 'size-8! pointer-coarse:size-10!';

export function IconButton({ label, className, children, ...rest }: IconButtonProps) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className={clsx(iconButtonClass, className)}
      {...rest}
    >
      {children}
    </button>
  );
}
