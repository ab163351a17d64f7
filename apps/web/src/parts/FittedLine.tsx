import { useEffect, useRef } from 'react';
import type { Line } from '@yperkine/demonstration';
import { FormulaLine } from './Typeset.tsx';

/** Mathematics is not set smaller than this share of its size; what is still wider can be scrolled. */
const least = 0.68;

/** A typeset line that is set a little smaller where it would not fit its column. */
export function FittedLine({ line }: { line: Line }) {
  const frame = useRef<HTMLDivElement>(null);
  const written = line.map((part) => (part.kind === 'latex' ? part.latex : '')).join(' ');
  useEffect(() => {
    const outer = frame.current;
    const inner = outer?.firstElementChild as HTMLElement | null;
    if (!outer || !inner) return undefined;
    let width = 0;
    const observer = new ResizeObserver(() => {
      if (outer.clientWidth === width) return;
      width = outer.clientWidth;
      inner.style.fontSize = '';
      const share = Math.max(least, width / outer.scrollWidth);
      if (share < 1) inner.style.fontSize = `${share}em`;
    });
    observer.observe(outer);
    return () => observer.disconnect();
  }, [written]);
  return (
    <div ref={frame} className="-my-1.5 overflow-x-auto overflow-y-hidden py-1.5">
      <div>
        <FormulaLine line={line} />
      </div>
    </div>
  );
}
