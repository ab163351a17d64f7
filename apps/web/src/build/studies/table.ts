import type { EntryKindName } from '@yperkine/demonstration';
import {
  freeQuestions,
  isFreeQuestion,
  questions,
  type CurveQuestion,
  type FreeOffer,
  type FreeQuestion,
  type Offer,
  type Question,
  type StudyCard,
} from './study.ts';

/** Every folder beside this file that has a card is a kind of entry that can be chosen. */
const modules = import.meta.glob<StudyCard>('./*/card.tsx', { eager: true, import: 'card' });

export const studyCards: ReadonlyMap<EntryKindName, StudyCard> = new Map(
  Object.values(modules).map((card) => [card.kind, card]),
);

const all = [...studyCards.values()].flatMap((card) => card.offers).sort((a, b) => a.rank - b.rank);

const isFree = (offer: Offer | FreeOffer): offer is FreeOffer => isFreeQuestion(offer.question);

/** What the chooser offers for a curve, under each of its questions. */
export const offers: readonly { readonly question: CurveQuestion; readonly list: readonly Offer[] }[] = (
  Object.keys(questions) as Question[]
)
  .filter((question): question is CurveQuestion => !isFreeQuestion(question))
  .map((question) => ({
    question,
    list: all.filter((offer): offer is Offer => !isFree(offer) && offer.question === question),
  }));

/** What it offers whether there is a curve or not. */
export const freeOffers: readonly { readonly question: FreeQuestion; readonly list: readonly FreeOffer[] }[] =
  freeQuestions.map((question) => ({
    question,
    list: all.filter(isFree).filter((offer) => offer.question === question),
  }));
