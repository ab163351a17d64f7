import { memo, useDeferredValue, useMemo } from 'react';
import { inThousands, type Line } from '@yperkine/demonstration';
import { LiveNumber } from './LiveNumber.tsx';
import { longest, typeset } from './typesetting.ts';

/** Characters of LaTeX above which it is long to typeset. */
const long = 300;

/**
 * LaTeX, typeset once; it is typeset again only when the text changes. What cannot be typeset stands there as it is
 * written.
 */
export const Typeset = memo(function Typeset({ latex }: { latex: string }) {
  if (latex.length > longest) return <TooLong length={latex.length} />;
  return latex.length > long ? <LongFormula latex={latex} /> : <Formula latex={latex} />;
});

/** What is long to typeset is put in when there is a pause; once it is there, it never says what was true before. */
function LongFormula({ latex }: { latex: string }) {
  const isThere = useDeferredValue(true, false);
  return isThere && <Formula latex={latex} />;
}

function Formula({ latex }: { latex: string }) {
  const markup = useMemo(() => typeset(latex), [latex]);
  return markup === null ? <span>{latex}</span> : <span dangerouslySetInnerHTML={{ __html: markup }} />;
}

function TooLong({ length }: { length: number }) {
  return (
    <span className="text-[0.95rem] text-quiet">
      a formula of {inThousands(length)} characters, too long to be shown
    </span>
  );
}

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
