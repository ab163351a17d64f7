import { describe, expect, test } from '@jest/globals';
import { rational } from '@yperkine/core';
import {
  calmed,
  catchOn,
  catchRadius,
  decimalText,
  emptyStage,
  fineStep,
  nearestDecimal,
  nearestMultiple,
  nearestPosition,
  positionOf,
  runOf,
  stepped,
  type ParameterEntry,
  type ParameterResult,
  type Run,
  type SliderScale,
} from '../src/index.ts';
import { documentWith, resultOf, slider } from './sample.ts';

describe('motion', () => {
  const run = (repeat: Run['repeat'], start = 0): Run => ({ from: 0, to: 10, start, seconds: 5, repeat });

  test('once: to the end and no further; from the end it begins anew', () => {
    expect(positionOf(run('once'), 2.5)).toEqual({ value: 5, isOver: false });
    expect(positionOf(run('once', 8), 7)).toEqual({ value: 10, isOver: true });
    expect(positionOf(run('once', 10), 1)).toEqual({ value: 2, isOver: false });
  });

  test('over and over: forward only', () => {
    expect(positionOf(run('overAndOver'), 6).value).toBeCloseTo(2, 12);
    expect(positionOf(run('overAndOver', 8), 2).value).toBeCloseTo(2, 12);
  });

  test('there and back: turns at both limits', () => {
    expect(positionOf(run('thereAndBack'), 6).value).toBeCloseTo(8, 12);
    expect(positionOf(run('thereAndBack'), 11).value).toBeCloseTo(2, 12);
  });

  test('the place depends on time alone, not on the number of frames', () => {
    const few = positionOf(run('thereAndBack', 3), 7.3).value;
    let many = few;
    for (let i = 1; i <= 730; i++) many = positionOf(run('thereAndBack', 3), (7.3 * i) / 730).value;
    expect(many).toBe(few);
  });

  test('a run without length or time is over at once', () => {
    expect(positionOf({ ...run('once'), to: 0 }, 1).isOver).toBe(true);
    expect(positionOf({ ...run('once'), seconds: 0 }, 1).isOver).toBe(true);
  });
});

describe('motion by steps', () => {
  const stepping = (repeat: Run['repeat'], start = 0, to = 2): Run => ({
    from: 0,
    to,
    start,
    seconds: 5,
    repeat,
    stepping: { size: 0.5, pause: 2 },
  });
  const places = (run: Run, count: number) =>
    Array.from({ length: count }, (_, k) => positionOf(run, 2 * k + 0.01).value);

  test('rests at each stop for its pause, at the first one too', () => {
    expect(positionOf(stepping('once'), 1.99).value).toBe(0);
    expect(places(stepping('once'), 6)).toEqual([0, 0.5, 1, 1.5, 2, 2]);
    expect(positionOf(stepping('once'), 8.01).isOver).toBe(true);
  });

  test('over and over it is forward only; there and back it turns at the last stop', () => {
    expect(places(stepping('overAndOver'), 7)).toEqual([0, 0.5, 1, 1.5, 2, 0, 0.5]);
    expect(places(stepping('thereAndBack'), 10)).toEqual([0, 0.5, 1, 1.5, 2, 1.5, 1, 0.5, 0, 0.5]);
  });

  test('from between two stops the first step leads to the next; the right limit is a stop in any case', () => {
    expect(places(stepping('once', 0.7), 4)).toEqual([0.7, 1, 1.5, 2]);
    expect(places(stepping('once', 1.5, 2.2), 4)).toEqual([1.5, 2, 2.2, 2.2]);
    expect(places(stepping('once', 2), 3)).toEqual([0, 0.5, 1]);
  });

  test('a parameter asks for it, or for a pace in units a second', () => {
    const document = documentWith({
      a: slider(1, 'a', '1', { from: '0', to: '10', pace: 'speed', speed: '2', seconds: '99' }),
      b: slider(2, 'b', '1', { motion: 'steps', step: '0.25', pause: '0.5' }),
    });
    const run = (id: string) =>
      runOf(document.entries[id] as ParameterEntry, resultOf<ParameterResult>(document, id));
    expect(run('a')).toMatchObject({ seconds: 5, stepping: null });
    expect(run('b').stepping).toEqual({ size: 0.25, pause: 0.5 });
  });

  test('each stop of a slider is its exact decimal; smooth motion does not catch on steps', () => {
    const document = documentWith({
      a: slider(1, 'a', '0', { from: '0', to: '1', step: '0.1', motion: 'steps' }),
      b: slider(2, 'b', '0', { from: '0', to: '1', step: '0.1' }),
    });
    const stage = { ...emptyStage, values: { a: 0.1 + 0.2, b: 0.34567 } };
    expect(resultOf<ParameterResult>(document, 'a', stage).value.exact).toEqual(rational.rational(3, 10));
    expect(resultOf<ParameterResult>(document, 'b', stage).value.value).toBe(0.34567);
  });

  test('for those who want less motion a run has ten jumps, a second apart at least', () => {
    const quick: Run = { from: 0, to: 10, start: 0, seconds: 2, repeat: 'once' };
    expect(calmed(quick).stepping).toEqual({ size: 1, pause: 1 });
    expect(calmed({ ...quick, seconds: 40 }).stepping).toEqual({ size: 1, pause: 4 });
    const closing = calmed({ ...quick, from: 1, to: 0.001, seconds: 6, pace: 'closing' });
    expect(positionOf(closing, 1.9)).toEqual(positionOf(closing, 1));
    expect(positionOf(closing, 6)).toEqual({ value: 0.001, isOver: true });
  });
});

describe('dragging', () => {
  test('catches on a round value within its radius, and only there', () => {
    const pixels = 50;
    const inside = 2 + (catchRadius - 1) / pixels;
    const outside = 2 + (catchRadius + 1) / pixels;
    expect(catchOn(inside, [1, 2, 3], pixels)).toEqual({ value: 2, isCaught: true });
    expect(catchOn(outside, [1, 2, 3], pixels)).toEqual({ value: outside, isCaught: false });
    expect(catchOn(1.5, [], pixels).isCaught).toBe(false);
  });
});

describe('numbers as the text of a setting', () => {
  test.each([
    [0.1 + 0.2, '0.3'],
    [-4, '-4'],
    [2.5e-7, '0.00000025'],
    [1e21, '1000000000000000000000'],
  ])('%s is %s, without the dust of binary fractions', (value, text) => {
    expect(decimalText(nearestDecimal(value))).toBe(text);
  });

  test('a number too small for so many places is written so that it can be read again', () => {
    const text = decimalText(nearestDecimal(3e-20));
    expect(text).toBe('3E-20');
    expect(rational.parseDecimal(text)).toEqual(nearestDecimal(3e-20));
  });

  test('as many digits as are asked for', () => {
    expect(decimalText(nearestDecimal(3.14159265, 3))).toBe('3.14');
  });

  test('the multiple of a step is exact, also where the window is tiny', () => {
    expect(nearestMultiple(0.74, 0.1)).toEqual(rational.rational(7, 10));
    expect(nearestMultiple(-2.6e-9, 1e-9)).toEqual(rational.rational(-3, 10n ** 9n));
  });
});

describe('the positions of a slider', () => {
  const scale = (from: string, to: string, step: string): SliderScale => ({
    from: rational.parseDecimal(from) ?? rational.zero,
    to: rational.parseDecimal(to) ?? rational.one,
    step: rational.parseDecimal(step) ?? rational.one,
  });

  test('are start + k·step in exact decimals', () => {
    expect(nearestPosition(0.30000000004, scale('0', '1', '0.1'))).toBe('0.3');
    expect(nearestPosition(1.24, scale('0.05', '3', '0.1'))).toBe('1.25');
    expect(nearestPosition(99, scale('0', '1', '0.1'))).toBe('1');
  });

  test('are stepped without dust: ten tenths are one', () => {
    let value = '0';
    for (let i = 0; i < 10; i++) value = stepped(value, 1, scale('0', '2', '0.1'));
    expect(value).toBe('1');
    expect(stepped('1.95', 1, scale('0', '2', '0.1'))).toBe('2');
  });

  test('divide a range into about a thousand', () => {
    expect(fineStep(-5, 5)).toBe('0.01');
    expect(fineStep(0, 0.02)).toBe('0.00001');
    expect(fineStep(0, 5000)).toBe('10');
  });
});
