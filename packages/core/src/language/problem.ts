/**
 * What can be wrong with a text. A problem is data (a code, a range of the text, values);
 * `sentence` is the one place where it becomes words.
 */
export interface Problem {
  readonly code: ProblemCode;
  /** Range of UTF-16 positions in the text, `to` exclusive; equal for a place between characters. */
  readonly from: number;
  readonly to: number;
  /** The piece of text or the name that the problem is about. */
  readonly subject: string;
  /** What the marked range could be replaced by, if there is one good guess. */
  readonly correction?: string;
}

export type ProblemCode =
  | 'empty'
  | 'tooLong'
  | 'tooNested'
  | 'unexpectedCharacter'
  | 'unexpectedEnd'
  | 'unexpectedSign'
  | 'decimalComma'
  | 'commaOfThousands'
  | 'spacedNumber'
  | 'remainderSign'
  | 'limitTarget'
  | 'productStart'
  | 'derivativeVariable'
  | 'primesWithoutBracket'
  | 'numbersSideBySide'
  | 'unknownName'
  | 'functionWithoutArgument'
  | 'missingFunctionBracket'
  | 'powerOfTen'
  | 'powerOrConstant'
  | 'wrongArgumentCount'
  | 'pointWithoutName'
  | 'inversePower'
  | 'emptyBracket'
  | 'bracketNotClosed'
  | 'bracketNotOpened'
  | 'barNotClosed'
  | 'reservedName'
  | 'headNotUnderstood'
  | 'bodyMissing'
  | 'secondEquals'
  | 'tooLarge'
  | 'conditionExpected'
  | 'relationHere'
  | 'otherwiseNotLast'
  | 'differentialMissing'
  | 'wordMissing'
  | 'boundsMissing'
  | 'infinityHere'
  | 'pointHere'
  | 'pointNotUnderstood'
  | 'latexNotUnderstood';

const sentences: Record<ProblemCode, (problem: Problem) => string> = {
  empty: () => 'There is nothing here yet: write a formula such as x^2 − 1.',
  tooLong: () => 'This text is longer than 10,000 characters; please shorten it.',
  tooNested: () => 'This formula is nested too deeply to be read; please split it into named parts.',
  unexpectedCharacter: (p) => `“${p.subject}” has no meaning in a formula.`,
  unexpectedEnd: (p) =>
    p.subject ? `Something is missing after “${p.subject}”.` : 'Something is missing at the end.',
  unexpectedSign: (p) => `A number or a name is expected here, not “${p.subject}”.`,
  decimalComma: (p) => `Write the decimal mark as a point: ${p.correction ?? p.subject}.`,
  commaOfThousands: (p) =>
    `“${p.subject}” can be read in two ways: write ${p.subject.replace(',', '')} without the comma, or ${p.subject.replace(',', '.')} with a point.`,
  spacedNumber: (p) => `Write a long number without spaces: ${p.correction ?? p.subject}.`,
  remainderSign: (p) => `“%” is hundredths here; a remainder is written as ${p.subject}.`,
  derivativeVariable: () => 'Say which variable it is differentiated by, as in d/dt (3t^2).',
  productStart: () => 'A product begins at a whole number, as in ∏[k = 1, n] (1 + k).',
  limitTarget: () => 'A limit says where its variable goes, as in lim[x → 2] f(x).',
  primesWithoutBracket: () => 'Put what is differentiated in brackets, as in (x^2)′.',
  numbersSideBySide: (p) => `Two numbers stand side by side (${p.subject}): put a sign between them.`,
  unknownName: (p) =>
    p.correction
      ? `“${p.subject}” is not known here. Did you mean ${p.correction}?`
      : `“${p.subject}” is not known here.`,
  functionWithoutArgument: (p) => `${p.subject} needs something to work on, as in ${p.subject}(x).`,
  missingFunctionBracket: (p) =>
    `${p.subject} is a function: write its argument in brackets, as in ${p.correction ?? `${p.subject}(x)`}.`,
  powerOfTen: (p) => `A power of ten is written with a capital E: ${p.subject}.`,
  powerOrConstant: (p) =>
    `“${p.subject}” can be read in two ways: write ${p.correction ?? ''} for a power of ten, or put spaces around the sign.`,
  wrongArgumentCount: (p) => `${p.subject} was given the wrong number of values.`,
  pointWithoutName: (p) => `A point is given a name, as in P = ${p.subject}.`,
  inversePower: (p) =>
    `${p.subject}^-1 can be read in two ways: write arc${p.subject} x for the inverse function or 1/${p.subject} x for the reciprocal.`,
  emptyBracket: () => 'There is nothing inside this bracket.',
  bracketNotClosed: () => 'This bracket is never closed.',
  bracketNotOpened: () => 'This closing bracket has no opening one.',
  barNotClosed: () => 'This absolute-value bar has no partner.',
  reservedName: (p) => `“${p.subject}” already has a meaning; please choose another name.`,
  headNotUnderstood: (p) => `“${p.subject}” is not a name that can be defined: write f(x) = … or a = ….`,
  bodyMissing: () => 'Something is missing after the equals sign.',
  secondEquals: () => 'A definition has one equals sign; here is another.',
  conditionExpected: () => 'A condition is expected here, such as x < 3 or 0 ≤ x ≤ 12.',
  relationHere: (p) => `To limit ${p.subject}, write: for 1 ≤ ${p.subject} ≤ 3.`,
  otherwiseNotLast: () => 'The piece with otherwise comes last.',
  differentialMissing: () => 'An integral ends with its variable, as in ∫[0, 1] f(t) dt.',
  wordMissing: (p) => `The word “${p.subject}” is missing here.`,
  boundsMissing: (p) =>
    p.subject === '∑' || p.subject === '∏'
      ? `Give the bounds: ${p.subject}[i = 1, 5] f(i).`
      : 'Give the bounds: ∫_0^3 f(x) dx.',
  infinityHere: () => '∞ is not a number: it can be the target of a limit or the end of an interval.',
  pointHere: (p) => `${p.subject} is a point; its coordinates are x_${p.subject} and y_${p.subject}.`,
  pointNotUnderstood: () => 'A point is written with two coordinates, as in P = (2.5, 1).',
  latexNotUnderstood: (p) => `“${p.subject}” is not known here.`,
  tooLarge: () => 'This formula is too large to be worked out; please split it into smaller parts.',
};

/** The problem as one plain sentence for the person who typed the text. */
export function sentence(problem: Problem): string {
  return sentences[problem.code](problem);
}

export type Reading<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem };

/** Thrown and caught inside the reader only; never escapes `read…`. */
class ProblemSignal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.code);
  }
}

export function fail(code: ProblemCode, from: number, to: number, subject = '', correction?: string): never {
  throw new ProblemSignal({ code, from, to, subject, ...(correction === undefined ? {} : { correction }) });
}

/** Runs a reading step; a problem that it signals becomes a value, any other exception passes. */
export function reading<T>(step: () => T): Reading<T> {
  try {
    return { ok: true, value: step() };
  } catch (error) {
    if (error instanceof ProblemSignal) return { ok: false, problem: error.problem };
    throw error;
  }
}
