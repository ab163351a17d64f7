/** A piece of notation that is hard to type: what the button shows, what it says, and what stands before and behind the cursor. */
interface Piece {
  readonly sign: string;
  readonly name: string;
  readonly before: string;
  readonly behind?: string;
}

/** For a function of `variable`; what is integrated over has another letter. */
const piecesFor = (variable: string): readonly Piece[] => [
  { sign: '√', name: 'Square root', before: '√(', behind: ')' },
  { sign: 'π', name: 'Pi', before: 'π' },
  { sign: 'xⁿ', name: 'Power', before: '^' },
  { sign: '≤', name: 'At most', before: ' ≤ ' },
  { sign: '′', name: 'Prime', before: "'" },
  { sign: 'd/dx', name: 'Derivative', before: `d/d${variable} (`, behind: ')' },
  { sign: '∫', name: 'Integral', before: `∫[0, ${variable}] `, behind: variable === 't' ? ' du' : ' dt' },
  { sign: '{', name: 'Pieces', before: ` if ${variable} < 0; `, behind: ' otherwise' },
];

/** Buttons that put notation in at the cursor of a formula field, good for touch. The field keeps the focus. */
export function Palette({
  variable,
  onInsert,
}: {
  readonly variable: string;
  readonly onInsert: (before: string, behind: string) => void;
}) {
  return (
    <div role="toolbar" aria-label="Notation" className="mt-1.5 flex flex-wrap gap-1">
      {piecesFor(variable).map(({ sign, name, before, behind = '' }) => (
        <button
          key={name}
          type="button"
          tabIndex={-1}
          aria-label={name}
          title={name}
          onPointerDown={(event) => event.preventDefault()}
          onClick={() => onInsert(before, behind)}
          className="min-h-9 min-w-10 rounded-lg border border-rule bg-sheet px-2 text-ink hover:bg-hover"
        >
          {sign}
        </button>
      ))}
    </div>
  );
}
