import {
  TooLarge,
  certificateOf,
  check,
  compile,
  keyPoints,
  limitOfProgram,
  printText,
  readExpression,
  readStatement,
  sentence,
  signs,
  solve,
  tree,
  writtenStatement,
  type Scope,
} from '../src/index.ts';
import { Random, randomFormula, randomText } from './inputs.ts';

export interface FuzzResult {
  readonly inputs: number;
  readonly answered: number;
  readonly refused: number;
  /** Inputs at which an exception escaped or an answer was wrong in itself, with what happened. */
  readonly faults: readonly string[];
  /** The longest that one input took, in milliseconds, and which it was. */
  readonly slowest: { readonly milliseconds: number; readonly input: string };
}

class Tally {
  private answered = 0;
  private refused = 0;
  private readonly faults: string[] = [];
  private slowest = { milliseconds: 0, input: '' };

  constructor(private readonly clock: () => number) {}

  /** Runs one input; `attempt` says whether it was answered (true) or refused with a sentence (false). */
  one(input: string, attempt: () => boolean): void {
    const start = this.clock();
    try {
      if (attempt()) this.answered++;
      else this.refused++;
    } catch (error) {
      this.faults.push(
        `${JSON.stringify(input)}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`,
      );
    }
    const milliseconds = this.clock() - start;
    if (milliseconds > this.slowest.milliseconds) this.slowest = { milliseconds, input };
  }

  get result(): FuzzResult {
    const { answered, refused, faults, slowest } = this;
    return { inputs: answered + refused + faults.length, answered, refused, faults, slowest };
  }
}

const scope: Scope = {
  names: new Set(['x', 'a', 't', 'x_0']),
  functions: new Set(['f', 'g']),
  points: new Set(['P', 'Q']),
};

/** Random texts through the reader: each gives a tree that is written and read again, or one sentence at its place. */
export function fuzzReader(seed: number, count: number, clock: () => number): FuzzResult {
  const random = new Random(seed);
  const tally = new Tally(clock);
  for (let i = 0; i < count; i++) {
    const text = randomText(random);
    tally.one(text, () => readAndWrite(text));
  }
  return tally.result;
}

function readAndWrite(text: string): boolean {
  const reading = readStatement(text, scope);
  if (!reading.ok) {
    const { from, to } = reading.problem;
    const isInside = from >= 0 && from <= to && to <= text.length;
    if (!isInside || sentence(reading.problem).length < 10)
      throw new Error('a problem without a place or a sentence');
    return false;
  }
  const written = writtenStatement(reading.value);
  if (reading.value.kind !== 'expression') return true;
  const again = readExpression(written.text, { ...scope, names: new Set([...scope.names, 'y']) });
  const isSame = again.ok && JSON.stringify(again.value) === JSON.stringify(reading.value.body);
  if (!isSame)
    throw new Error(
      `read again as ${again.ok ? printText(again.value) : again.problem.code}: ${written.text}`,
    );
  return true;
}

/** Random formulas through the analyses: no exception but TooLarge, and what is called complete is in order. */
export function fuzzAnalyses(seed: number, count: number, clock: () => number): FuzzResult {
  const random = new Random(seed);
  const tally = new Tally(clock);
  for (let i = 0; i < count; i++) {
    const text = randomFormula(random);
    const from = random.below(5) - 4;
    const to = from + 1 + random.below(5);
    const question = random.below(4);
    tally.one(`${text} on [${from}, ${to}], question ${question}`, () => analyse(text, [from, to], question));
  }
  return tally.result;
}

function analyse(text: string, interval: [number, number], question: number): boolean {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(sentence(reading.problem));
  const body = reading.value;
  try {
    switch (question) {
      case 0: {
        const { points } = keyPoints(body, 'x', interval);
        inOrder(
          points.map(({ x }) => x),
          interval,
        );
        break;
      }
      case 1: {
        const { intervals } = signs(body, 'x', interval, 1);
        inOrder(
          intervals.flatMap(({ from, to }) => [from.value, to.value]),
          interval,
        );
        break;
      }
      case 2: {
        const { solutions } = solve(body, tree.number(1), 'x', interval);
        inOrder(
          solutions.map(({ value }) => value),
          interval,
        );
        break;
      }
      default:
        limitOfProgram(compile(body, 'x'), interval[0], 'both');
    }
    return true;
  } catch (error) {
    if (error instanceof TooLarge) return false;
    throw error;
  }
}

export interface CertificateTally {
  readonly tried: number;
  /** Lists that were called complete and whose certificate was accepted. */
  readonly right: number;
  /** Lists that were not called complete, and formulas that are too large. */
  readonly undecided: number;
  /** Complete lists of which the checker could not show all: nothing is said against them. */
  readonly unshown: readonly string[];
  /** Complete lists that say what the checker showed not to be so. */
  readonly wrong: readonly string[];
}

/** Lists of key points of random formulas, each with its certificate, through the checker. */
export function fuzzCertificates(seed: number, count: number): CertificateTally {
  const random = new Random(seed);
  const tally = { tried: 0, right: 0, undecided: 0, unshown: [] as string[], wrong: [] as string[] };
  for (let i = 0; i < count; i++) {
    const text = randomFormula(random);
    const from = random.below(5) - 4;
    const on: [number, number] = [from, from + 1 + random.below(5)];
    tally.tried++;
    const verdict = certified(text, on);
    if (verdict === 'right' || verdict === 'undecided') tally[verdict]++;
    else tally[verdict].push(`${text} on [${on.join(', ')}]`);
  }
  return tally;
}

function certified(text: string, on: [number, number]): 'right' | 'undecided' | 'unshown' | 'wrong' {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(sentence(reading.problem));
  try {
    const { points, complete } = keyPoints(reading.value, 'x', on);
    if (!complete) return 'undecided';
    const certificate = certificateOf(reading.value, 'x', on);
    const { isAccepted, contradicted, contradictedJoints } = check(certificate, points);
    if (isAccepted) return 'right';
    return contradicted.length + contradictedJoints.length > 0 ? 'wrong' : 'unshown';
  } catch (error) {
    if (error instanceof TooLarge) return 'undecided';
    throw error;
  }
}

function inOrder(xs: readonly number[], [a, b]: readonly [number, number]): void {
  const isSorted = xs.every((x, i) => i === 0 || x >= (xs[i - 1] as number));
  if (!isSorted || xs.some((x) => !(x >= a && x <= b))) throw new Error(`not in order: ${xs.join(', ')}`);
}
