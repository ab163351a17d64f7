import type { EntryKindName } from '@yperkine/demonstration';
import { questions, type Offer, type Question, type StudyCard } from './study.ts';

/** Every folder beside this file that has a card is a study. */
const modules = import.meta.glob<StudyCard>('./*/card.tsx', { eager: true, import: 'card' });

export const studyCards: ReadonlyMap<EntryKindName, StudyCard> = new Map(
  Object.values(modules).map((card) => [card.kind, card]),
);

/** What the chooser offers under each of its questions, in their order. */
export const offers: readonly { readonly question: Question; readonly list: readonly Offer[] }[] = (
  Object.keys(questions) as Question[]
).map((question) => ({
  question,
  list: [...studyCards.values()]
    .flatMap((card) => card.offers)
    .filter((offer) => offer.question === question)
    .sort((a, b) => a.rank - b.rank),
}));
