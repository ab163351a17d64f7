import {
  DerivativeOutOfEffort,
  Effort,
  keepDerivative,
  OutOfEffort,
  isTooLarge,
  type KnownNumber,
} from '@yperkine/core';
import { keyOfQuestion, unanswered, type Answers } from '../entries/answers.ts';
import { kindOf } from '../schema/anyKind.ts';
import type { CurveResult } from '../entries/curve.ts';
import type { EntryKind, NameableResult, Spot, WorkContext } from '../entries/kind.ts';
import { headOfEntry } from './said.ts';
import { unlessItThrows } from './unlessItThrows.ts';
import { failed, waiting, type Outcome } from '../entries/outcome.ts';
import type { ParameterResult } from '../entries/parameter/result.ts';
import type { RoundingRule } from '../numbers/format.ts';
import { inOrder, type Document, type Entry, type Id } from '../schema/document.ts';
import type { Stage } from '../stage/stage.ts';
import { readUnit, type Unit } from '../units/unit.ts';
import { atOnce } from './steps.ts';
import { isSameContent } from './content.ts';
import { directoryOf } from './directory.ts';
import type { Directory } from '../entries/names.ts';
import type { Resolution, Resolved } from './resolution.ts';
import { visibilitiesOf } from './visibility.ts';

/**
 * Works out a document as the stage shows it. Names are settled first, then every entry after those
 * it depends on; an entry is worked out again only if one of its inputs changed since `previous`.
 * @param answers to long questions; where the last resolution got them from, unless said otherwise
 */
export function resolve(
  document: Document,
  stage: Stage,
  previous?: Resolution,
  answers: Answers = previous?.answers ?? unanswered,
): Resolution {
  return atOnce(resolveInSteps(document, stage, previous, answers));
}

/** The same piece by piece, for who has other things to do in between. */
export function* resolveInSteps(
  document: Document,
  stage: Stage,
  previous: Resolution | undefined,
  answers: Answers,
): Generator<void, Resolution> {
  return yield* new Resolver(document, stage, previous, answers).run();
}

/** Operations that one entry may take at a stretch. */
const ofOneEntry = 2_000_000;
/** Derivatives that one entry may ask for. */
const mostDerivatives = 8;
const derivativeWanted = 'A derivative is being worked out …';

class Resolver {
  private readonly directory: Directory;
  private readonly rule: RoundingRule;
  private readonly xUnit: Unit;
  private readonly done = new Map<Id, Resolved>();
  private readonly dependencies = new Map<Id, readonly Id[]>();
  private readonly open = new Set<Id>();
  private readonly workedOut: Id[] = [];

  constructor(
    private readonly document: Document,
    private readonly stage: Stage,
    private readonly previous: Resolution | undefined,
    private readonly answers: Answers,
  ) {
    const directory = directoryOf(document);
    this.directory = previous?.directory.key === directory.key ? previous.directory : directory;
    const isSameUnit = previous !== undefined && previous.xUnitText === document.xUnit;
    this.xUnit = isSameUnit ? previous.xUnit : readUnit(document.xUnit);
    const { decimals, looks } = document;
    const isSameRule =
      previous?.rule.decimals === decimals && previous.rule.decimalMark === looks.decimalMark;
    this.rule = isSameRule ? previous.rule : { decimals, decimalMark: looks.decimalMark };
  }

  *run(): Generator<void, Resolution> {
    const order = inOrder(this.document.entries).map(([id]) => id);
    // Formulas are read one by one, so that entries which stand on each other are not all read at a stretch.
    for (const id of order) {
      this.dependencies.set(id, this.dependenciesOf(id, this.document.entries[id] as Entry));
      yield;
    }
    for (const id of order) {
      this.visit(id);
      yield;
    }
    const entries = new Map(order.map((id) => [id, this.done.get(id) as Resolved]));
    return {
      document: this.document,
      entries,
      directory: this.directory,
      visibilities: visibilitiesOf(this.document, (id) => this.contextFor(id), this.previous?.visibilities),
      rule: this.rule,
      xUnit: this.xUnit,
      xUnitText: this.document.xUnit,
      workedOut: this.workedOut,
      answers: this.answers,
    };
  }

  private visit(id: Id): Resolved | undefined {
    const finished = this.done.get(id);
    const entry = this.document.entries[id];
    if (finished || !entry) return finished;
    if (this.open.has(id)) return undefined;
    this.open.add(id);
    const kind = kindOf(entry);
    const dependencies = this.dependencies.get(id) ?? [];
    const results = dependencies.map((dependency) => this.visit(dependency)?.outcome);
    const inCircle = dependencies.find(
      (dependency) => this.open.has(dependency) && !this.done.has(dependency),
    );
    const staged = this.stage.values[id];
    const news = this.answers.version(id);
    const inputs = [this.directory, this.xUnit, staged, news, inCircle, ...results];
    const resolved = this.reuse(id, entry, inputs) ?? {
      ...this.workOut(id, entry, kind, inputs, inCircle),
      dependencies,
    };
    this.done.set(id, resolved);
    this.open.delete(id);
    return resolved;
  }

  /** Formulas are read for the names in them only when they or the names changed, not whenever a slider moves. */
  private dependenciesOf(id: Id, entry: Entry): readonly Id[] {
    const before = this.previous?.entries.get(id);
    const isSame =
      before && this.previous?.directory === this.directory && isSameContent(before.entry, entry);
    if (isSame) return before.dependencies;
    const kind = kindOf(entry);
    return unlessItThrows(() => kind.dependsOn?.(entry, this.directory) ?? kind.standsOn(entry), []);
  }

  /** What it came to before, in the look and at the place that it has now. */
  private reuse(id: Id, entry: Entry, inputs: readonly unknown[]): Resolved | undefined {
    const before = this.previous?.entries.get(id);
    const isSame =
      before !== undefined &&
      before.inputs.length === inputs.length &&
      before.inputs.every((input, i) => input === inputs[i]) &&
      (before.rule === null || before.rule === this.rule) &&
      isSameContent(before.entry, entry);
    if (!isSame) return undefined;
    return before.entry === entry ? before : { ...before, entry };
  }

  private workOut(
    id: Id,
    entry: Entry,
    kind: EntryKind<Entry, unknown>,
    inputs: readonly unknown[],
    inCircle: Id | undefined,
  ): Omit<Resolved, 'dependencies'> {
    this.workedOut.push(id);
    const before = this.previous?.entries.get(id);
    const isSameKind = before?.entry.kind === entry.kind && before.outcome.ok;
    const last = isSameKind ? before.outcome.result : undefined;
    const context = this.contextFor(id);
    const outcome =
      inCircle !== undefined
        ? failed('This goes in a circle: it depends on itself through its own names.')
        : this.directory.duplicates.has(id)
          ? failed('This name is already taken by an earlier entry; please choose another.')
          : attempted(() => this.inTime(id, () => kind.workOut(entry, context, last)));
    return { id, entry, outcome, inputs, rule: context.looksAtRule() ? this.rule : null };
  }

  /**
   * What an entry comes to within the operations that one may take. Derivatives for which they do not suffice are asked
   * for as long questions are.
   */
  private inTime(id: Id, work: () => Outcome<unknown>): Outcome<unknown> {
    const asked = new Set<string>();
    for (;;) {
      try {
        return new Effort(ofOneEntry).spendOn(work);
      } catch (error) {
        if (!(error instanceof DerivativeOutOfEffort)) throw error;
        const { node: body, variable, order } = error;
        const question = { ask: 'derivative', body, variable, order } as const;
        const key = keyOfQuestion(question);
        // A formula that is made anew at every try would be asked about for ever.
        if (asked.has(key) || asked.size === mostDerivatives) throw error;
        asked.add(key);
        const told = this.answers.ask<'derivative'>(id, question);
        if (told.state === 'unanswerable') throw error;
        if (told.state === 'waiting' || told.of !== 'now') return waiting(derivativeWanted);
        keepDerivative(error, told.answer);
      }
    }
  }

  private holderOf(name: string): Resolved | undefined {
    return this.done.get(this.directory.idOf.get(name) ?? '');
  }

  /** The result that was given a name. */
  private named(name: string): NameableResult | undefined {
    const key = this.directory.resultOf.get(name);
    return resultsIn(this.holderOf(name), this.xUnit).find((result) => result.key === key);
  }

  private isOfResult(name: string): boolean {
    return this.directory.resultOf.has(name);
  }

  private contextFor(id: Id): WorkContext & { looksAtRule: () => boolean } {
    const { rule } = this;
    let isLookedAt = false;
    return {
      id,
      directory: this.directory,
      rule: () => {
        isLookedAt = true;
        return rule;
      },
      looksAtRule: () => isLookedAt,
      xUnit: this.xUnit,
      staged: this.stage.values[id],
      parameter: (of) => parameterIn(this.done.get(of)),
      number: (name) => (this.isOfResult(name) ? this.named(name)?.number : numberIn(this.holderOf(name))),
      unit: (name) => (this.isOfResult(name) ? this.named(name)?.unit : unitIn(this.holderOf(name))),
      curve: (of) => curveIn(this.done.get(of)),
      result: <R>(of: Id) => resultIn(this.done.get(of)) as R | undefined,
      heading: (of) => headingIn(this.done.get(of)),
      ask: (question) => this.answers.ask(id, question),
    };
  }
}

/**
 * Whatever an entry throws is its own sentence: the others work. A formula that goes too deep or grows too long runs
 * into the same wall at every try; anything else is a fault of ours, and is told as such.
 */
function attempted(workOut: () => Outcome<unknown>): Outcome<unknown> {
  try {
    return workOut();
  } catch (error) {
    const isTooMuch = isTooLarge(error) || error instanceof OutOfEffort;
    return failed(
      isTooMuch
        ? 'This is too large to be worked out; please split it into smaller parts.'
        : 'This cannot be worked out, through a fault of the program. All else works on.',
    );
  }
}

function resultsIn(resolved: Resolved | undefined, xUnit: Unit): readonly NameableResult[] {
  return resolved?.outcome.ok ? (kindOf(resolved.entry).results?.(resolved.outcome.result, xUnit) ?? []) : [];
}

/** The numbers of an entry's result that can be named. */
export const resultsOf = ({ entries, xUnit }: Resolution, id: Id): readonly NameableResult[] =>
  resultsIn(entries.get(id), xUnit);

function parameterIn(resolved: Resolved | undefined): ParameterResult | undefined {
  return resolved?.outcome.ok && resolved.entry.kind === 'parameter'
    ? (resolved.outcome.result as ParameterResult)
    : undefined;
}

function numberIn(resolved: Resolved | undefined): KnownNumber | undefined {
  return resolved?.outcome.ok ? kindOf(resolved.entry).number?.(resolved.outcome.result) : undefined;
}

function unitIn(resolved: Resolved | undefined): Unit | undefined {
  if (!resolved?.outcome.ok) return undefined;
  const { unit, curve } = kindOf(resolved.entry);
  return unit?.(resolved.outcome.result) ?? curve?.(resolved.outcome.result).unit;
}

const resultIn = (resolved: Resolved | undefined): unknown =>
  resolved?.outcome.ok ? resolved.outcome.result : undefined;

const headingIn = (resolved: Resolved | undefined): string | undefined =>
  resolved?.outcome.ok ? headOfEntry(resolved).heading : undefined;

function curveIn(resolved: Resolved | undefined): CurveResult | undefined {
  return resolved?.outcome.ok ? kindOf(resolved.entry).curve?.(resolved.outcome.result) : undefined;
}

/** The value of a parameter entry, if it could be worked out. */
export const parameterOf = (resolution: Resolution, id: Id): ParameterResult | undefined =>
  parameterIn(resolution.entries.get(id));

/** The curve that an entry draws, if it draws one and could be worked out. */
export const curveOf = (resolution: Resolution, id: Id): CurveResult | undefined =>
  curveIn(resolution.entries.get(id));

/** All curves that an entry draws. */
export function curvesDrawn({ entries }: Resolution, id: Id): readonly CurveResult[] {
  const resolved = entries.get(id);
  const own = curveIn(resolved);
  const others = resolved?.outcome.ok
    ? (kindOf(resolved.entry).alsoDraws?.(resolved.outcome.result) ?? [])
    : [];
  return own ? [own, ...others] : others;
}

/** The points of an entry, which may leave a trail. */
export function placesOf({ entries }: Resolution, id: Id): readonly Spot[] {
  const resolved = entries.get(id);
  return resolved?.outcome.ok
    ? (kindOf(resolved.entry).places?.(resolved.outcome.result, resolved.entry) ?? [])
    : [];
}

/** Whether an entry's marks are on the graphs just now. */
export const isShown = ({ visibilities }: Resolution, id: Id): boolean =>
  visibilities.get(id)?.isShown ?? false;
