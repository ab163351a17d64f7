import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { latexFunction } from '@yperkine/core';
import { primed, type Id } from '@yperkine/demonstration';
import { Search } from 'lucide-react';
import { useEffect, useEffectEvent, useState } from 'react';
import { Typeset } from '../../parts/Typeset.tsx';
import { Veil } from '../../parts/Veil.tsx';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { curvesOf, type Curve } from '../../state/curves.ts';
import { isFreeQuestion, questions, type FreeOffer, type Offer, type Question } from '../studies/study.ts';
import { freeOffers, offers } from '../studies/table.ts';
import { typedAhead } from './typedAhead.ts';

/** Asks what the teacher wants to show, with a small picture for each study. */
export function Chooser() {
  const choosing = useWorkbenchState((state) => state.choosing);
  return choosing && <Open first={choosing.on} />;
}

const isAbout = ({ title, words }: Pick<Offer, 'title' | 'words'>, sought: string): boolean =>
  sought
    .toLowerCase()
    .split(/\s+/)
    .every((word) => `${title} ${words}`.toLowerCase().includes(word));

const isFree = (offer: Offer | FreeOffer): offer is FreeOffer => isFreeQuestion(offer.question);

function Open({ first }: { first: Id | null }) {
  const workbench = useWorkbench();
  const [ahead] = useState(typedAhead);
  const [sought, setSought] = useState(ahead.text);
  const [curves] = useState(() => curvesOf(workbench.current()));
  const [on, setOn] = useState(first ?? curves[0]?.id);
  const close = () => workbench.choosing(null);
  const ofCurve = on === undefined ? [] : offers;
  const found: {
    readonly question: Question;
    readonly list: readonly (Offer | FreeOffer)[];
  }[] = [...ofCurve, ...freeOffers]
    .map(({ question, list }) => ({
      question,
      list: (list as readonly (Offer | FreeOffer)[]).filter((offer) => isAbout(offer, sought)),
    }))
    .filter(({ list }) => list.length > 0);
  const choose = (offer: Offer | FreeOffer) => {
    close();
    if (isFree(offer)) offer.add(workbench);
    else if (on !== undefined) offer.add(workbench, on, undefined);
  };

  const chooseBest = () => {
    const best = found[0]?.list[0];
    if (best && sought) choose(best);
  };
  const begin = useEffectEvent(() => ahead.isSent && chooseBest());
  useEffect(() => void begin(), []);

  return (
    <Dialog open onClose={close} className="relative z-40">
      <Veil />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-3 sm:p-8">
        <DialogPanel className="card w-full max-w-4xl p-5 sm:p-7">
          <form
            className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2"
            onSubmit={(event) => {
              event.preventDefault();
              chooseBest();
            }}
          >
            <DialogTitle className="text-xl font-semibold">What do you want to show?</DialogTitle>
            <label className="flex min-h-10 min-w-44 flex-1 items-center gap-2 rounded-[10px] border border-rule bg-paper px-3 text-quiet">
              <Search size={17} aria-hidden />
              <input
                autoFocus
                aria-label="Look for a study"
                placeholder="slope, secant, value …"
                value={sought}
                onChange={(event) => setSought(event.target.value)}
                className="min-w-0 flex-1 bg-transparent text-ink outline-none"
              />
            </label>
            {on !== undefined && <OfWhich curves={curves} on={on} onChoose={setOn} />}
          </form>
          {found.length === 0 && (
            <p className="py-6 text-quiet">
              Nothing here is called “{sought}”. Try a word of the textbook, such as slope.
            </p>
          )}
          {found.map(({ question, list }) => (
            <section key={question} aria-label={questions[question]} className="mt-4">
              <h3 className="mb-2 font-semibold text-quiet">{questions[question]}</h3>
              <div className="grid grid-cols-2 gap-3 sm:grid-cols-3 md:grid-cols-4">
                {list.map((offer) => (
                  <button
                    key={offer.title}
                    type="button"
                    onClick={() => choose(offer)}
                    className="flex flex-col items-center gap-1 rounded-[10px] border border-rule px-3 pt-4 pb-3 font-semibold transition-colors hover:border-here hover:bg-here/8 focus-visible:border-here"
                  >
                    <offer.Picture />
                    {offer.title}
                  </button>
                ))}
              </div>
            </section>
          ))}
        </DialogPanel>
      </div>
    </Dialog>
  );
}

/** The curve that the study will be of. */
function OfWhich({ curves, on, onChoose }: { curves: readonly Curve[]; on: Id; onChoose: (id: Id) => void }) {
  return (
    <div role="group" aria-label="Of which function" className="flex items-center gap-1.5 text-quiet">
      for
      {curves.map(({ id, curve }) => (
        <button
          key={id}
          type="button"
          aria-pressed={id === on}
          aria-label={primed(curve.name, curve.order)}
          onClick={() => onChoose(id)}
          className="min-h-10 rounded-lg px-2.5 aria-pressed:bg-hover"
        >
          <Typeset latex={latexFunction(curve.name, curve.order)} />
        </button>
      ))}
    </div>
  );
}
