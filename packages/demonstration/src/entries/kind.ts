import type { AnswerTo, KnownNumber, QuestionKind, QuestionOf } from '@yperkine/core';
import type { Answered } from './answers.ts';
import type { z } from 'zod';
import type { RoundingRule } from '../numbers/format.ts';
import type { Directory } from './names.ts';
import type { Mark } from '../marks/mark.ts';
import type { Tone } from '../fields/tone.ts';
import type { TierView } from '../marks/view.ts';
import type { Id } from '../fields/fields.ts';
import type { CurveResult } from './curve.ts';
import type { Outcome } from './outcome.ts';
import type { Unit } from '../units/unit.ts';
import type { Said } from './study.ts';
import type { ParameterResult } from './parameter/result.ts';

/** What an entry may look at while it is worked out: everything else is none of its business. */
export interface WorkContext {
  readonly id: Id;
  readonly directory: Directory;
  /** How numbers are rounded, for who tells of one that keeps the entry from being worked out. */
  rule(): RoundingRule;
  /** The unit along the x-axis. */
  readonly xUnit: Unit;
  /** The value of a parameter that is shown just now, where it differs from the document. */
  readonly staged: string | number | undefined;
  /** A parameter that this entry depends on. */
  parameter(id: Id): ParameterResult | undefined;
  /** The number that a name stands for: a parameter, a value, or the result of an entry that was given the name. */
  number(name: string): KnownNumber | undefined;
  /** The unit of that number, or of a function's heights. */
  unit(name: string): Unit | undefined;
  /** A curve that this entry depends on, whatever kind of entry draws it. */
  curve(id: Id): CurveResult | undefined;
  /** What came out of an entry that this one depends on, for a kind that stands on one other kind alone. */
  result<R>(id: Id): R | undefined;
  /** How an entry that this one depends on is headed. */
  heading(id: Id): string | undefined;
  /** The answer to a question that may take long; one question an entry. */
  ask<K extends QuestionKind>(question: QuestionOf<K>): Answered<AnswerTo[K]>;
}

/** A number among what came out of an entry, which can be given a name. */
export interface NameableResult {
  /** Which one it is, in the stored form. */
  readonly key: string;
  /** What it is called until then: "slope", "intercept". */
  readonly label: string;
  readonly number: KnownNumber;
  readonly unit: Unit;
}

/** A point of an entry, which may leave a trail. */
export interface Spot {
  /** Which one it is, in the stored form. */
  readonly key: string;
  /** What it is called: "the point", "the second point". */
  readonly label: string;
  readonly x: number;
  readonly y: number;
  readonly tier: Id;
}

/** How what an entry says is written. */
export interface Wording {
  /** How numbers are rounded. */
  readonly rule: RoundingRule;
  /** The unit along the x-axis. */
  readonly xUnit: Unit;
  /** What another entry says. */
  said(id: Id): Said | undefined;
}

/** How an entry is headed in the working. */
export interface Head {
  readonly heading: string;
  readonly tone: Tone;
}

/** A name that an entry gives a meaning. */
interface DefinedName {
  readonly name: string;
  readonly isFunction: boolean;
  /** Whether it is either 1 or 0, so that it can stand alone in a condition. */
  readonly isTruth?: boolean;
}

/** Everything the product knows about one kind of entry: E is its stored form, R what comes out of it. */
export interface EntryKind<E, R> {
  readonly schema: z.ZodType<E>;
  /** What a new entry has until somebody chooses otherwise. */
  readonly defaults: Partial<E> | ((given: Partial<E>) => Partial<E>);
  /** Ids that the entry stands on: without them it means nothing and goes with them. */
  standsOn(entry: E): readonly Id[];
  /** Fields of its own, such as a title, from which nothing is worked out. */
  readonly onlySaid?: readonly (keyof E & string)[];
  /** Ids of the entries whose results this one needs; what it stands on, unless said otherwise. */
  dependsOn?(entry: E, directory: Directory): readonly Id[];
  /** The name that the entry defines. */
  defines?(entry: E): DefinedName | undefined;
  /**
   * Works the entry out. `previous` is its last result, of which unchanged parts may be kept.
   * Bad input is a problem, never an exception.
   */
  workOut(entry: E, context: WorkContext, previous: R | undefined): Outcome<R>;
  /** What it says of its result; asked for by what is in sight. */
  say?(result: R, entry: E, wording: Wording): Said;
  /** What there is to draw in a tier, in pixels. */
  marks(id: Id, entry: E, result: R, tier: TierView): readonly Mark[];
  /** Its heading; without a result while it cannot be worked out. */
  head(entry: E, result: R | undefined): Head;
  /** The number that its name stands for, for kinds that define one. */
  number?(result: R): KnownNumber;
  /** The unit of that number, where it has one. */
  unit?(result: R): Unit;
  /** Numbers of its result that can be named and used in later entries. */
  results?(result: R, xUnit: Unit): readonly NameableResult[];
  /** The curve that it draws, for kinds that draw one. */
  curve?(result: R): CurveResult;
  /** Curves that it draws beside that one: windows are fitted to them and tiers titled by them, but formulas do not use them. */
  alsoDraws?(result: R): readonly CurveResult[];
  /** Its points, which may leave a trail. */
  places?(result: R, entry: E): readonly Spot[];
}
