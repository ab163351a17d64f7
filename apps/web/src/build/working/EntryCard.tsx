import { headOfEntry, type Entry, type Id } from '@yperkine/demonstration';
import { memo, useState } from 'react';
import { ResultNames } from './ResultNames.tsx';
import { ShownWhen, useAbsence } from './ShownWhen.tsx';
import { PlaceField } from './PlaceField.tsx';
import { Button } from '../../parts/Button.tsx';
import { lazily } from '../../parts/lazily.tsx';
import { OwnTrouble } from '../../parts/OwnTrouble.tsx';
import { Sight } from '../../parts/Sight.tsx';
import { removeEntry } from '../../state/actions.ts';
import { useResolved, useWorkbench, useWorkbenchState, useSaid } from '../../state/context.ts';
import { studyCards } from '../studies/table.ts';
import { CardFrame } from './CardFrame.tsx';
import { cardActions, type Asked } from './cardActions.ts';
import { isFormula, type FormulaEntry } from './formulaEntry.ts';
import { GivenFormula } from './GivenFormula.tsx';
import { Lines, Sentence, StudyBody, Unresolved } from './StudyBody.tsx';

const LookFields = lazily(async () => (await import('./LookFields.tsx')).LookFields);

/** One entry of the working: its statement, its result in typeset mathematics, its sentence. */
export const EntryCard = memo(function EntryCard({ id }: { id: Id }) {
  const entry = useWorkbenchState((state) => state.document.entries[id]);
  if (!entry || entry.kind === 'parameter') return null;
  return (
    <OwnTrouble instead={<BrokenCard id={id} />} tryAgainWith={entry}>
      <Sight>
        <Card id={id} entry={entry} />
      </Sight>
    </OwnTrouble>
  );
});

/** An entry that cannot be shown can be taken out; the others stay as they are. */
function BrokenCard({ id }: { id: Id }) {
  const workbench = useWorkbench();
  return (
    <section className="border-b border-rule px-5 py-3.5">
      <p role="alert" className="mb-2 text-danger">
        This entry cannot be shown, through a fault of the program. All else works on.
      </p>
      <Button onClick={() => removeEntry(workbench, id)}>Delete it</Button>
    </section>
  );
}

function Card({ id, entry }: { id: Id; entry: Entry }) {
  const workbench = useWorkbench();
  const tone = useWorkbenchState(({ resolution }) => {
    const resolved = resolution.entries.get(id);
    return resolved ? headOfEntry(resolved).tone : null;
  });
  const [asked, setAsked] = useState<Asked | null>(null);
  const absence = useAbsence(id, entry);
  if (!tone) return null;
  const { Controls, Body } = studyCards.get(entry.kind) ?? {};
  return (
    <CardFrame
      id={id}
      entry={entry}
      tone={tone}
      absence={absence}
      actions={() => cardActions(workbench, id, entry, setAsked)}
    >
      {Body ? (
        <Body id={id} entry={entry} />
      ) : isFormula(entry) ? (
        <GivenBody id={id} entry={entry} />
      ) : (
        <StudyBody id={id} tone={tone} />
      )}
      <PlaceField study={id} />
      <ResultNames id={id} entry={entry} isOpen={asked === 'names'} />
      <ShownWhen id={id} entry={entry} isOpen={asked === 'condition'} />
      {asked === 'look' && <LookFields id={id} entry={entry} onClose={() => setAsked(null)} />}
      {Controls && <Controls id={id} entry={entry} />}
    </CardFrame>
  );
}

function GivenBody({ id, entry }: { id: Id; entry: FormulaEntry }) {
  const workbench = useWorkbench();
  const outcome = useResolved(id)?.outcome;
  const said = useSaid(id);
  const isOpen = useWorkbenchState((state) => state.open === id);
  const problem = outcome && !outcome.ok ? outcome.problem : null;
  if (isOpen) return <GivenFormula id={id} entry={entry} problem={problem} />;
  return (
    <>
      <div className="relative">
        <button
          type="button"
          aria-label={`Change the formula ${entry.text}`}
          onClick={() => workbench.openEntry(id)}
          className="absolute inset-0 rounded-lg hover:bg-hover"
        />
        {/* The line lies over its button and lets it through, but for numbers that can be opened. */}
        <div className="pointer-events-none relative [&_button]:pointer-events-auto">
          {said ? (
            <Lines lines={said.lines} tone="ink" />
          ) : (
            <span className="block py-1 text-[1.06rem]">{entry.text}</span>
          )}
        </div>
      </div>
      {said && <Sentence text={said.sentence} />}
      {problem && <Unresolved problem={problem} />}
    </>
  );
}
