import type { Entry } from '@yperkine/demonstration';
import { useState } from 'react';
import { lazily } from '../../../parts/lazily.tsx';
import { addDerivative } from '../../../state/studies.ts';
import { Sketch } from '../Sketch.tsx';
import type { StudyCard } from '../study.ts';

const Picture = () => (
  <Sketch>
    <path
      d="M8 14 C 24 30, 30 44, 42 58 S 60 74, 68 56 S 84 14, 92 18 S 102 34, 104 42"
      stroke="var(--f1)"
      strokeWidth={2.2}
      strokeDasharray="5 4.5"
    />
  </Sketch>
);

/** The rules come when they are first asked for. */
const RulesUsed = lazily(async () => (await import('./RulesUsed.tsx')).RulesUsed);

function Controls({ entry }: { readonly entry: Entry }) {
  const [isOpen, setOpen] = useState(false);
  if (entry.kind !== 'derivative') return null;
  return (
    <details className="mt-2" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer text-[0.95rem] text-quiet">The rules used, step by step</summary>
      {isOpen && <RulesUsed of={entry.of} degree={entry.degree} />}
    </details>
  );
}

export const card: StudyCard = {
  kind: 'derivative',
  offers: [
    {
      question: 'steep',
      rank: 5,
      title: 'Derivative',
      words: 'slope curve f prime rate of change own tier',
      Picture,
      add: (workbench, on) => addDerivative(workbench, on),
    },
  ],
  Controls,
};
