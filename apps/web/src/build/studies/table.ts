import type { EntryKindName } from '@yperkine/demonstration';
import { questions, type CurveQuestion, type GivenOffer, type Offer, type StudyCard } from './study.ts';

/** Every folder beside this file that has a card is a kind of entry that can be chosen. */
const modules = import.meta.glob<StudyCard>('./*/card.tsx', { eager: true, import: 'card' });

export const studyCards: ReadonlyMap<EntryKindName, StudyCard> = new Map(
  Object.values(modules).map((card) => [card.kind, card]),
);

const all = [...studyCards.values()].flatMap((card) => card.offers).sort((a, b) => a.rank - b.rank);

/** What the chooser offers for a curve, under each of its questions. */
export const offers: readonly { readonly question: CurveQuestion; readonly list: readonly Offer[] }[] = (
  Object.keys(questions) as (keyof typeof questions)[]
).flatMap((question) =>
  question === 'given'
    ? []
    : [{ question, list: all.filter((offer): offer is Offer => offer.question === question) }],
);

/** What it offers whether there is a curve or not. */
export const givens: readonly GivenOffer[] = all.filter(
  (offer): offer is GivenOffer => offer.question === 'given',
);
