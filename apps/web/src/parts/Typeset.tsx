import { memo, useLayoutEffect, useRef } from 'react';
import type { Line } from '@yperkine/demonstration';
import { LiveNumber } from './LiveNumber.tsx';
import { typesetInto } from './typesetting.ts';

/** LaTeX, typeset once; it is typeset again only when the text changes. */
export const Typeset = memo(function Typeset({ latex }: { latex: string }) {
  const element = useRef<HTMLSpanElement>(null);
  useLayoutEffect(() => {
    if (element.current) typesetInto(element.current, latex);
  }, [latex]);
  return <span ref={element} />;
});

interface FormulaLineProps {
  readonly line: Line;
  /** Whether it runs on as text does, with its words broken where the line ends. */
  readonly isProse?: boolean;
}

/** A typeset line with live numbers: the formula stays, only the numbers' text changes. */
export function FormulaLine({ line, isProse = false }: FormulaLineProps) {
  return (
    <span className={isProse ? undefined : 'inline-flex flex-wrap items-baseline'}>
      {line.map((part, i) =>
        part.kind === 'latex' ? (
          <Typeset key={i} latex={part.latex} />
        ) : part.kind === 'number' ? (
          <LiveNumber key={i} part={part} />
        ) : (
          <span key={i} className="whitespace-pre-wrap">
            {part.text}
          </span>
        ),
      )}
    </span>
  );
}
