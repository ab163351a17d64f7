import { prosePieces } from '@yperkine/demonstration';
import { useWorkbenchState } from '../state/context.ts';
import { Typeset } from './Typeset.tsx';

/** A short text in which $…$ is typeset mathematics. */
export function Prose({ text }: { text: string }) {
  const directory = useWorkbenchState(({ resolution }) => resolution.directory);
  return prosePieces(text, directory).map((piece, i) =>
    piece.kind === 'mathematics' ? (
      <Typeset key={i} latex={piece.latex} />
    ) : (
      <span key={i}>{piece.kind === 'words' ? piece.text : `{${piece.text}}`}</span>
    ),
  );
}
