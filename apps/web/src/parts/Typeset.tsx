import { memo, useMemo } from 'react';
import type { Line } from '@yperkine/demonstration';
import { LiveNumber } from './LiveNumber.tsx';
import { typeset } from './typesetting.ts';

/**
 * LaTeX, typeset once; it is typeset again only when the text changes. What cannot be typeset stands there as it is
 * written.
 */
export const Typeset = memo(function Typeset({ latex }: { latex: string }) {
  const markup = useMemo(() => typeset(latex), [latex]);
  return markup === null ? <span>{latex}</span> : <span dangerouslySetInnerHTML={{ __html: markup }} />;
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
