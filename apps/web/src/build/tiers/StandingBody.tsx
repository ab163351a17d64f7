import {
  format,
  headOfEntry,
  relation,
  withUnit,
  type Id,
  type ReadoutResult,
  type TextSize,
} from '@yperkine/demonstration';
import { knownNumber, printLatex } from '@yperkine/core';
import { FormulaLine } from '../../parts/Typeset.tsx';
import { useResolved, useSaid, useWorkbench, useWorkbenchState } from '../../state/context.ts';
import type { StandingEntry } from '../../state/texts.ts';
import { cssColour } from '../../theme/colour.ts';

/** Sizes of texts on the graphs; on a narrow screen the large ones are smaller. */
const sizes: Readonly<Record<TextSize, string>> = {
  small: '0.92rem',
  medium: '1.06rem',
  large: 'clamp(1.15rem, 2.6vw, 1.5rem)',
  title: 'clamp(1.35rem, 3.6vw, 2.1rem)',
};

/** What a standing text says: its paragraphs, or its large number with the records under it. */
export function StandingBody({ id, entry }: { id: Id; entry: StandingEntry }) {
  const resolved = useResolved(id);
  const said = useSaid(id);
  const tone = useWorkbenchState(({ resolution }) => {
    const source = entry.kind === 'statement' ? resolution.entries.get(entry.of) : undefined;
    return source ? headOfEntry(source).tone : null;
  });
  const style = {
    fontSize: sizes[entry.size],
    color: cssColour(entry.look.tone ?? tone ?? 'ink'),
  };
  if (!resolved?.outcome.ok) {
    return (
      <p style={style} className="text-quiet">
        …
      </p>
    );
  }
  if (entry.kind === 'readout') {
    return (
      <div style={style}>
        <LargeNumber id={id} entry={entry} result={resolved.outcome.result as ReadoutResult} />
      </div>
    );
  }
  if (!said) return null;
  const { lines, sentence } = said;
  return (
    <div style={style}>
      {lines.map((line, i) => (
        <p key={i} className="min-h-[1lh]">
          <FormulaLine line={line} isProse={entry.kind === 'note'} />
        </p>
      ))}
      {sentence && <p>{sentence}</p>}
    </div>
  );
}

interface LargeNumberProps {
  readonly id: Id;
  readonly entry: Extract<StandingEntry, { kind: 'readout' }>;
  readonly result: ReadoutResult;
}

function LargeNumber({ id, entry, result }: LargeNumberProps) {
  const workbench = useWorkbench();
  const record = useWorkbenchState(({ records }) => records[id]);
  const rule = useWorkbenchState(({ resolution }) => resolution.rule);
  const { text, isExact } = format(result.value, rule);
  return (
    <>
      <p className="leading-tight">
        {entry.title ? (
          <span className="mr-2 text-[0.7em] text-quiet">{entry.title}</span>
        ) : (
          <FormulaLine line={[{ kind: 'latex', latex: printLatex(result.formula) }]} />
        )}
        {!entry.title && <span className="live-number"> {relation(isExact)} </span>}
        <span className="live-number font-semibold">{withUnit(text, result.unit)}</span>
      </p>
      {entry.keeps && record && (
        <p className="flex flex-wrap items-center gap-x-3 text-[0.9rem] text-quiet">
          <span>least so far {format(knownNumber(record.least), rule).text}</span>
          <span>greatest so far {format(knownNumber(record.greatest), rule).text}</span>
          <button
            type="button"
            onClick={() => workbench.forgetRecord(id)}
            className="underline underline-offset-2 hover:text-ink"
          >
            Start again
          </button>
        </p>
      )}
    </>
  );
}
