import { beforeEach, describe, expect, test } from '@jest/globals';
import { isDeepStrictEqual } from 'node:util';
import {
  answerSent,
  readExpression,
  type AnswerOutcome,
  type Question,
  type QuestionOf,
  withoutItsClaim,
} from '@yperkine/core';
import { AnswerDesk, calm, firstTurn, lost, patience, rest, turnAfter } from '../src/state/answerDesk.ts';
import type { AnswerMessage, QuestionMessage } from '../src/workers/messages.ts';

const question = (formula: string): QuestionOf<'solve'> => {
  const reading = readExpression(formula, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(formula);
  const zero = { kind: 'number', text: '0' } as const;
  return { ask: 'solve', body: reading.value, equals: zero, variable: 'x', interval: [-5, 5], order: 0 };
};

const mostHard = 2;

/** A worker whose answers come when the test says so. */
class Bench {
  /** Questions to be answered, and answers to be checked. */
  asked: QuestionMessage[] = [];
  checked: QuestionMessage[] = [];
  ended = 0;
  hired = 0;
  news = 0;
  timers = new Map<number, { readonly callback: () => void; readonly milliseconds: number }>();
  private timerCount = 0;
  private readonly answers = new Map<number, (message: AnswerMessage) => void>();
  private breakDown: ((why: 'fault' | 'notLoaded') => void) | null = null;
  readonly desk = new AnswerDesk({
    hire: (onAnswer, onBreakdown) => {
      this.hired++;
      this.breakDown = onBreakdown;
      return {
        ask: (message) => {
          (message.found ? this.checked : this.asked).push(message);
          this.answers.set(message.number, onAnswer);
        },
        end: () => void this.ended++,
      };
    },
    schedule: (callback, milliseconds) => {
      this.timers.set(++this.timerCount, { callback, milliseconds });
      return this.timerCount;
    },
    cancel: (timer) => void this.timers.delete(timer as number),
    mostHard,
    onNews: () => void this.news++,
  });

  /** Answers the question that was sent last, or the one that was sent so many before it; nothing is claimed to be complete. */
  reply(before = 0): void {
    const { number, question: sent } = this.asked.at(-1 - before) as QuestionMessage;
    const outcome = answerSent(sent);
    this.answers.get(number)?.({ number, outcome: withoutItsClaim(sent, outcome) ?? outcome, isLast: true });
  }
  /** Answers the question that was sent last with what is claimed to be complete. */
  replyWithClaim(): AnswerOutcome {
    const { number, question: sent } = this.asked.at(-1) as QuestionMessage;
    const outcome = answerSent(sent);
    this.answers.get(number)?.({ number, outcome, isLast: true });
    return outcome;
  }
  /** What the checker says of the answer that it was sent last. */
  replyToCheck(outcome: AnswerOutcome): void {
    const { number } = this.checked.at(-1) as QuestionMessage;
    this.answers.get(number)?.({ number, outcome, isLast: true });
  }
  /** Tells what is known so far of the question that was sent last. */
  replyInPart(): void {
    const { number, question: sent } = this.asked.at(-1) as QuestionMessage;
    this.answers.get(number)?.({ number, outcome: answerSent(sent), isLast: false });
  }
  /** Answers the question about a formula that was sent first. */
  replyTo(formula: string): void {
    const { body } = question(formula);
    const at = this.asked.findIndex(({ question: sent }) => isDeepStrictEqual(sent.body, body));
    this.reply(this.asked.length - 1 - at);
  }
  crash(why: 'fault' | 'notLoaded' = 'fault'): void {
    this.breakDown?.(why);
  }
  losePatience(): void {
    this.pass(patience);
  }
  /** Lets the time of all timers that were set to so many milliseconds be over. */
  pass(milliseconds: number): void {
    for (const [timer, { callback, milliseconds: set }] of [...this.timers]) {
      if (set !== milliseconds) continue;
      this.timers.delete(timer);
      callback();
    }
  }
}

describe('the desk that has questions answered', () => {
  let bench: Bench;
  const ask = (by: string, formula: string) => bench.desk.ask<'solve'>(by, question(formula));
  const places = (by: string, formula: string) => {
    const answered = ask(by, formula);
    return answered.state === 'answered'
      ? { x: answered.answer.solutions.map(({ value }) => value), of: answered.of }
      : answered.state;
  };
  const bodies = (questions: readonly Pick<QuestionMessage, 'question'>[]): Question['body'][] =>
    questions.map(({ question: { body } }) => body);
  beforeEach(() => {
    bench = new Bench();
  });

  test('an answer comes later, once, and is news for the entry that asked', () => {
    expect(ask('a', 'x - 1').state).toBe('waiting');
    expect(ask('a', 'x - 1').state).toBe('waiting');
    expect(bench.asked).toHaveLength(1);
    bench.reply();
    expect([bench.news, bench.desk.version('a'), bench.desk.version('b')]).toEqual([1, 1, 0]);
    expect(places('a', 'x - 1')).toEqual({ x: [1], of: 'now' });
    expect(places('b', 'x - 1')).toEqual({ x: [1], of: 'now' });
    expect(bench.asked).toHaveLength(1);
  });

  test('while a slider moves only the newest question is asked, and the last answer stays until then', () => {
    ask('a', 'x - 1');
    bench.reply();
    bench.pass(rest);
    for (const k of [2, 3, 4]) expect(places('a', `x - ${k}`)).toEqual({ x: [1], of: 'before' });
    expect(bench.asked).toHaveLength(2);
    bench.reply();
    bench.pass(rest);
    expect(places('a', 'x - 4')).toEqual({ x: [2], of: 'before' });
    bench.reply();
    expect(places('a', 'x - 4')).toEqual({ x: [4], of: 'now' });
    expect(bodies(bench.asked)).toEqual(bodies([1, 2, 4].map((k) => ({ question: question(`x - ${k}`) }))));
  });

  test('an entry that goes on asking rests between two questions, and the newest is asked in the end', () => {
    for (let k = 1; k <= 4; k++) {
      ask('a', `x - ${k}`);
      if (bench.asked.length === k) bench.reply();
    }
    expect(bench.asked).toHaveLength(1);
    bench.pass(rest);
    bench.reply();
    expect(places('a', 'x - 4')).toEqual({ x: [4], of: 'now' });
    expect(bench.asked).toHaveLength(2);
  });

  test('an entry that rests keeps no other from asking', () => {
    ask('a', 'x - 1');
    bench.reply();
    ask('a', 'x - 2');
    ask('b', 'x - 7/2');
    expect(bench.asked).toHaveLength(2);
    bench.reply();
    expect(places('b', 'x - 7/2')).toEqual({ x: [3.5], of: 'now' });
  });

  test('an entry that goes on asking does not keep others waiting', () => {
    ask('a', 'x - 1');
    ask('b', 'x - 7/2');
    ask('a', 'x - 2');
    bench.reply();
    expect(places('a', 'x - 2')).toEqual({ x: [1], of: 'before' });
    bench.reply();
    expect(places('b', 'x - 7/2')).toEqual({ x: [3.5], of: 'now' });
  });

  test('the answer of one entry is never shown by another', () => {
    ask('a', 'x - 1');
    ask('b', 'x - 2');
    bench.reply();
    expect(ask('b', 'x - 2').state).toBe('waiting');
  });

  test('a question that takes too long is given up with its worker, and others go on with a new one', () => {
    ask('a', 'x - 1');
    ask('b', 'x - 2');
    bench.losePatience();
    expect(ask('a', 'x - 1')).toEqual({ state: 'unanswerable', reason: 'tooLong' });
    expect([bench.ended, bench.hired]).toEqual([1, 2]);
    bench.reply();
    expect(places('b', 'x - 2')).toEqual({ x: [2], of: 'now' });
  });

  test('a hard question keeps no other waiting: another worker takes it', () => {
    ask('a', 'x - 1');
    ask('b', 'x - 2');
    expect(bench.asked).toHaveLength(1);
    bench.pass(firstTurn);
    expect([bench.asked.length, bench.hired]).toEqual([2, 2]);
    bench.reply();
    expect(places('b', 'x - 2')).toEqual({ x: [2], of: 'now' });
    // The one that is free again is used before a further one is hired.
    ask('c', 'x - 3');
    bench.reply();
    expect([places('c', 'x - 3'), bench.hired]).toEqual([{ x: [3], of: 'now' }, 2]);
    bench.reply(2);
    expect(places('a', 'x - 1')).toEqual({ x: [1], of: 'now' });
  });

  test('however many hard questions there are, every further one has its turn at once', () => {
    for (let k = 0; k < 8; k++) {
      ask(`e${k}`, `x - ${k}/2`);
      expect(bench.asked).toHaveLength(k + 1);
      bench.pass(firstTurn);
    }
    // Never more at a time than one beside the hard ones.
    expect(bench.hired - bench.ended).toBe(mostHard + 1);
    ask('easy', 'x - 9/2');
    bench.reply();
    expect(places('easy', 'x - 9/2')).toEqual({ x: [4.5], of: 'now' });
  });

  test('hard questions go round, each with more time at every turn', () => {
    const hards = ['a', 'b', 'c', 'd', 'e'];
    const askAll = () => {
      hards.forEach((by, k) => ask(by, `x - ${k}/2`));
      bench.pass(rest);
    };
    askAll();
    for (let turn = 0; turn < 5; turn++) bench.pass(firstTurn);
    bench.pass(rest);
    const formulas = () =>
      bodies(bench.asked).map((body) =>
        hards.find((_, k) => isDeepStrictEqual(body, question(`x - ${k}/2`).body)),
      );
    // Everybody has had a first turn; those that were set back go on with a longer one, as many as there are places.
    expect(formulas().slice(0, 5)).toEqual(hards);
    const begun = bench.asked.length;
    expect(begun).toBeLessThanOrEqual(hards.length + mostHard);
    // However often they ask, nothing is begun before a turn is over.
    askAll();
    expect(bench.asked).toHaveLength(begun);
    for (let round = 0; round < 4; round++) {
      bench.pass(turnAfter(1));
      bench.pass(rest);
    }
    for (const by of hards) expect(formulas().filter((other) => other === by).length).toBeGreaterThan(1);
    // Whatever is answered is there, and makes room.
    for (let k = 0; k < 12; k++) {
      for (const before of [2, 1, 0]) bench.reply(before);
      bench.pass(rest);
      bench.pass(turnAfter(1));
      bench.pass(turnAfter(2));
    }
    expect(hards.map((by, k) => places(by, `x - ${k}/2`))).toEqual(
      hards.map((_, k) => ({ x: [k / 2], of: 'now' })),
    );
  });

  test('a hard question that is alone is not set back', () => {
    ask('a', 'x - 1');
    for (const turn of [0, 1, 2]) bench.pass(turnAfter(turn));
    expect([bench.asked.length, bench.ended]).toEqual([1, 0]);
    bench.reply();
    expect(places('a', 'x - 1')).toEqual({ x: [1], of: 'now' });
  });

  test('one that has had turns never takes the worker of those that have had none', () => {
    for (const k of [0, 1, 2, 3, 4]) {
      ask(`e${k}`, `x - ${k}/2`);
      bench.pass(firstTurn);
    }
    bench.pass(rest);
    // Longer turns are going on wherever they may; the next question is begun at once all the same.
    const begun = bench.asked.length;
    ask('new', 'x - 9/2');
    expect(bench.asked).toHaveLength(begun + 1);
    bench.reply();
    expect(places('new', 'x - 9/2')).toEqual({ x: [4.5], of: 'now' });
  });

  test('a question that has long been in hand is given up at once when its entry asks another, or is gone', () => {
    ask('a', 'x - 1');
    bench.pass(rest);
    ask('a', 'x - 2');
    expect(bench.ended).toBe(0);
    bench.pass(lost);
    expect([bench.ended, bench.hired]).toEqual([1, 2]);
    bench.pass(rest);
    bench.pass(lost);
    ask('a', 'x - 3');
    expect([bench.ended, bench.hired, bench.asked.length]).toEqual([2, 3, 3]);
    // What was given up is not kept against it.
    bench.pass(rest);
    bench.reply();
    expect(places('a', 'x - 3')).toEqual({ x: [3], of: 'now' });
    ask('b', 'x - 4');
    bench.desk.forget('b');
    expect(bench.ended).toBe(3);
    expect(bench.timers.size).toBe(1);
  });

  test('of a hard question is told what is known so far, once it is hard', () => {
    ask('a', 'x - 1');
    bench.replyInPart();
    expect([ask('a', 'x - 1').state, bench.news]).toEqual(['waiting', 0]);
    bench.pass(firstTurn);
    expect([places('a', 'x - 1'), bench.news]).toEqual([{ x: [1], of: 'soFar' }, 1]);
    expect(bench.desk.version('a')).toBe(1);
    expect(places('a', 'x - 2')).toEqual({ x: [1], of: 'before' });
    expect(places('a', 'x - 1')).toEqual({ x: [1], of: 'soFar' });
    bench.replyInPart();
    expect(bench.news).toBe(2);
    bench.reply();
    expect(places('a', 'x - 1')).toEqual({ x: [1], of: 'now' });
  });

  test('what two entries ask alike is looked for once, and told to both', () => {
    ask('a', 'x - 1');
    ask('b', 'x - 1');
    bench.replyInPart();
    bench.pass(firstTurn);
    expect([bench.asked.length, bench.hired]).toEqual([1, 1]);
    expect(['a', 'b'].map((by) => places(by, 'x - 1'))).toEqual(
      ['a', 'b'].map(() => ({ x: [1], of: 'soFar' })),
    );
    expect(['a', 'b'].map((by) => bench.desk.version(by))).toEqual([1, 1]);
    // One that asks later is told as much at once.
    expect(places('late', 'x - 1')).toEqual({ x: [1], of: 'soFar' });
    bench.reply();
    for (const by of ['a', 'b', 'late']) expect(places(by, 'x - 1')).toEqual({ x: [1], of: 'now' });
    expect(bench.asked).toHaveLength(1);
  });

  test('a question that one entry has lost goes on for another that needs it', () => {
    ask('a', 'x - 1');
    ask('b', 'x - 1');
    bench.pass(rest);
    ask('a', 'x - 2');
    bench.pass(firstTurn);
    bench.pass(lost);
    expect([bench.ended, bodies(bench.asked)]).toEqual([0, [question('x - 1').body, question('x - 2').body]]);
    bench.replyTo('x - 1');
    expect(places('b', 'x - 1')).toEqual({ x: [1], of: 'now' });
    // It is given up once that one is gone, too.
    ask('b', 'x - 3');
    ask('c', 'x - 3');
    bench.pass(rest);
    bench.desk.forget('b');
    expect(bench.ended).toBe(0);
    bench.desk.forget('c');
    expect(bench.ended).toBe(1);
  });

  test('where two entries ask alike, both wait for the same further turn', () => {
    ask('a', 'x - 1');
    ask('b', 'x - 1');
    for (const k of [2, 3, 4]) {
      bench.pass(firstTurn);
      ask(`e${k}`, `x - ${k}`);
    }
    bench.pass(firstTurn);
    bench.pass(rest);
    const turns = bodies(bench.asked).filter((body) => isDeepStrictEqual(body, question('x - 1').body));
    expect(turns).toHaveLength(2);
  });

  test('where a question is given up, what was known of it stays', () => {
    ask('a', 'x - 1');
    bench.replyInPart();
    bench.losePatience();
    expect(places('a', 'x - 1')).toEqual({ x: [1], of: 'now' });
  });

  describe('what an answer claims is checked once nothing moves', () => {
    const claimed = (formula: string) => {
      const answered = ask('a', formula);
      if (answered.state !== 'answered') return answered.state;
      const { complete, isUnconfirmed = false } = answered.answer;
      return { of: answered.of, complete, isUnconfirmed };
    };
    const unclaimed = { complete: false, isUnconfirmed: true };

    test('until then it is told without its claim, and with it once that is confirmed', () => {
      ask('a', 'x - 1');
      const outcome = bench.replyWithClaim();
      expect(claimed('x - 1')).toEqual({ of: 'found', ...unclaimed });
      expect(bench.checked).toHaveLength(0);
      bench.pass(rest);
      bench.pass(calm);
      expect(bench.checked.map(({ found }) => found)).toEqual([outcome]);
      expect(claimed('x - 1')).toEqual({ of: 'found', ...unclaimed });
      bench.replyToCheck(outcome);
      expect(claimed('x - 1')).toEqual({ of: 'now', complete: true, isUnconfirmed: false });
      expect([bench.asked.length, bench.checked.length, bench.news]).toEqual([1, 1, 2]);
    });

    test('what is refused or takes too long is not claimed', () => {
      ask('a', 'x - 1');
      const outcome = bench.replyWithClaim();
      bench.pass(rest);
      bench.pass(calm);
      bench.replyToCheck(withoutItsClaim(question('x - 1'), outcome) as AnswerOutcome);
      expect(claimed('x - 1')).toEqual({ of: 'now', ...unclaimed });
      bench.pass(rest);
      ask('a', 'x - 2');
      bench.replyWithClaim();
      bench.pass(rest);
      bench.pass(calm);
      bench.losePatience();
      expect(claimed('x - 2')).toEqual({ of: 'now', ...unclaimed });
    });

    test('while a slider moves nothing is checked; a value to which it comes back is not looked for again', () => {
      for (const k of [1, 2, 3]) {
        const before = claimed(`x - ${k}`);
        expect(before).toEqual(k === 1 ? 'waiting' : { of: 'foundBefore', ...unclaimed });
        bench.replyWithClaim();
        bench.pass(rest);
      }
      expect(claimed('x - 2')).toEqual({ of: 'found', ...unclaimed });
      bench.pass(calm);
      expect(bench.asked).toHaveLength(3);
      expect(bodies(bench.checked)).toEqual(bodies([{ question: question('x - 2') }]));
    });

    test('a question without an answer comes before what is only to be checked', () => {
      ask('a', 'x - 1');
      bench.replyWithClaim();
      ask('b', 'x - 5');
      bench.pass(rest);
      ask('c', 'x - 6');
      bench.pass(calm);
      bench.reply();
      expect([bench.asked.length, bench.checked.length]).toEqual([3, 0]);
      bench.reply();
      expect(bench.checked).toHaveLength(1);
    });

    test('two entries that ask the same have it checked once, and an entry that is gone not at all', () => {
      ask('a', 'x - 1');
      ask('b', 'x - 1');
      const outcome = bench.replyWithClaim();
      bench.pass(rest);
      bench.pass(calm);
      bench.replyToCheck(outcome);
      expect([places('a', 'x - 1'), places('b', 'x - 1')]).toEqual([
        { x: [1], of: 'now' },
        { x: [1], of: 'now' },
      ]);
      expect(bench.checked).toHaveLength(1);
      ask('b', 'x - 2');
      bench.replyWithClaim();
      bench.desk.forget('b');
      bench.pass(rest);
      bench.pass(calm);
      expect(bench.checked).toHaveLength(1);
    });
  });

  test.each(['fault', 'notLoaded'] as const)('a worker that breaks down is replaced, and told: %s', (why) => {
    ask('a', 'x - 1');
    bench.crash(why);
    expect(ask('a', 'x - 1')).toEqual({ state: 'unanswerable', reason: why });
    ask('a', 'x - 2');
    bench.pass(rest);
    bench.reply();
    expect(places('a', 'x - 2')).toEqual({ x: [2], of: 'now' });
  });

  test('nothing is kept beyond a bound, however many questions are asked', () => {
    for (let k = 0; k < 700; k++) {
      ask('a', `x - ${k}/1000`);
      bench.reply();
      bench.pass(rest);
    }
    const kept = Array.from({ length: 700 }, (_, k) => ask('b', `x - ${k}/1000`)).filter(
      ({ state }) => state === 'answered',
    );
    expect(kept.length).toBeLessThanOrEqual(300);
    expect(bench.timers.size).toBeLessThanOrEqual(4);
  });

  test('a closed desk ends its worker and forgets what was asked', () => {
    ask('a', 'x - 1');
    bench.desk.close();
    expect(bench.ended).toBe(1);
    expect(bench.timers.size).toBe(0);
    bench.reply();
    expect(bench.news).toBe(0);
  });
});
