import type { ReactNode } from 'react';

/** The wave that every picture of the chooser is drawn on, and the frame of all of them. */
const wave = 'M8 60 C 22 20, 34 12, 46 26 S 72 76, 86 60 S 100 34, 104 22';

export function Sketch({ children, isFaint = false }: { children?: ReactNode; isFaint?: boolean }) {
  return (
    <svg viewBox="0 0 112 80" aria-hidden className="h-16 w-full" fill="none" strokeLinecap="round">
      <path d={wave} stroke="var(--f)" strokeWidth={2.6} opacity={isFaint ? 0.35 : 1} />
      {children}
    </svg>
  );
}

export const Dot = ({ x, y, tone = 'f' }: { x: number; y: number; tone?: string }) => (
  <circle cx={x} cy={y} r={4.6} fill={`var(--${tone})`} stroke="var(--sheet)" strokeWidth={1.5} />
);
