import type { Entry, EntryKindName, Id } from '@yperkine/demonstration';
import type { ComponentType } from 'react';
import type { MenuAction } from '../../parts/ActionMenu.tsx';
import type { Workbench } from '../../state/workbench.ts';

/** The questions by which the chooser is ordered. */
export const questions = {
  steep: 'How steep?',
  where: 'Where?',
  much: 'How much?',
  words: 'In words, marks and numbers',
  given: 'A further given',
} as const;
export type Question = keyof typeof questions;
/** Questions about a curve. */
export type CurveQuestion = Exclude<Question, FreeQuestion>;
/** Questions whose answers stand on nothing. */
export const freeQuestions = ['words', 'given'] as const;
export type FreeQuestion = (typeof freeQuestions)[number];
export const isFreeQuestion = (question: Question): question is FreeQuestion =>
  (freeQuestions as readonly Question[]).includes(question);

/** How a study is offered. */
export interface Offer {
  readonly question: CurveQuestion;
  /** Whether it is about the whole curve, and so is not offered where one place of it was clicked. */
  readonly isOfWhole?: boolean;
  /** Its place among those of one question. */
  readonly rank: number;
  readonly title: string;
  /** Other words by which a teacher may look for it. */
  readonly words: string;
  /** A small drawing of what it shows; it stands beside its title and says nothing of its own. */
  readonly Picture: ComponentType;
  /** Puts the study in, on a curve and at an x where one was chosen. */
  readonly add: (workbench: Workbench, on: Id, at: number | undefined) => void;
}

/** An entry that the chooser offers whether there is a curve or not: it stands on nothing. */
export interface FreeOffer extends Omit<Offer, 'add' | 'question' | 'isOfWhole'> {
  readonly question: FreeQuestion;
  readonly add: (workbench: Workbench) => void;
}

/** What the build view knows about one kind of entry, beside its result. */
export interface StudyCard {
  readonly kind: EntryKindName;
  readonly offers: readonly (Offer | FreeOffer)[];
  /** Settings in the card's menu. */
  readonly actions?: (workbench: Workbench, id: Id, entry: Entry) => readonly MenuAction[];
  /** What the card shows in place of typeset lines and a sentence. */
  readonly Body?: ComponentType<{ readonly id: Id; readonly entry: Entry }>;
  /** Settings in the card itself. */
  readonly Controls?: ComponentType<{ readonly id: Id; readonly entry: Entry }>;
}
