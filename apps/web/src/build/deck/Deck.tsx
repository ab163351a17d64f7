import { slidersOf } from '@yperkine/demonstration';
import { useState } from 'react';
import { useShallow } from 'zustand/shallow';
import { lazily } from '../../parts/lazily.tsx';
import { useWorkbenchState } from '../../state/context.ts';
import { perDocument } from '../../state/perDocument.ts';
import { DeckTools } from './DeckTools.tsx';
import { Lane } from './Lane.tsx';

const Steps = lazily(async () => (await import('./Steps.tsx')).Steps);

const sliderIds = perDocument((document) => slidersOf(document).map(([id]) => id));

/** The strip under the tiers with a lane for every parameter, a switch for every reveal, and what concerns them all. */
export function Deck() {
  const [asStudent, setStudent] = useState(false);
  const ids = useWorkbenchState(useShallow((state) => sliderIds(state.document)));
  const isEmpty = useWorkbenchState(({ document }) => Object.keys(document.entries).length === 0);
  const hasSteps = useWorkbenchState(({ document }) => Object.keys(document.steps).length > 0);
  if (isEmpty) return null;
  return (
    <section aria-label="Deck" className="flex max-h-[38vh] flex-col gap-1.5">
      {hasSteps && <Steps />}
      <DeckTools laneCount={ids.length} asStudent={asStudent} onStudent={setStudent} />
      {ids.length > 0 && (
        <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-y-auto rounded-[14px]">
          {ids.map((id) => (
            <Lane key={id} id={id} asStudent={asStudent} />
          ))}
        </div>
      )}
    </section>
  );
}
