import { expect, test } from '@jest/globals';
import { Frames } from '../src/state/frames.ts';

/** Frames that come when the test says so, whose stretch is over after so many looks at the clock. */
function framesOf(looks: number) {
  let waiting: ((time: number) => void)[] = [];
  let time = 0;
  const frames = new Frames(
    (callback) => waiting.push(callback),
    () => {
      let seen = 0;
      return () => ++seen > looks;
    },
  );
  const run = () => {
    const now = waiting;
    waiting = [];
    now.forEach((callback) => callback(++time));
    return now.length;
  };
  return { frames, run };
}

test('however often it is asked for, a frame runs every step once, in order', () => {
  const { frames, run } = framesOf(Infinity);
  const done: string[] = [];
  for (const name of ['a', 'b', 'c']) frames.onFrame((time) => done.push(`${name}${time}`));
  frames.request();
  frames.request();
  expect([run(), run()]).toEqual([1, 0]);
  expect(done).toEqual(['a1', 'b1', 'c1']);
});

test('what a frame has no time left for comes first in the next, before that frame itself', () => {
  const { frames, run } = framesOf(1);
  const done: string[] = [];
  for (const name of ['a', 'b', 'c']) frames.onFrame((time) => done.push(`${name}${time}`));
  frames.request();
  run();
  expect(done).toEqual(['a1', 'b1']);
  frames.request();
  run();
  expect(done).toEqual(['a1', 'b1', 'c2']);
  for (let frame = 0; frame < 5; frame++) run();
  // What was asked for meanwhile is done as well, and then it rests.
  expect(done).toEqual(['a1', 'b1', 'c2', 'a3', 'b3', 'c4']);
  expect(run()).toBe(0);
});

test('a step that was taken out is not run any more', () => {
  const { frames, run } = framesOf(0);
  const done: string[] = [];
  frames.onFrame(() => done.push('a'));
  const takeOut = frames.onFrame(() => done.push('b'));
  frames.request();
  run();
  takeOut();
  while (run() > 0 && done.length < 9);
  expect(done).not.toContain('b');
});
