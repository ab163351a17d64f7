import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { rehearse } from '../src/state/rehearsal.ts';
import { addGiven } from '../src/state/givens.ts';
import { underTest } from './bench.ts';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('the first formula is rehearsed on a workbench of its own, piece by piece', () => {
  const { workbench } = underTest();
  const { state } = workbench;
  rehearse(workbench);
  let pieces = 0;
  for (; jest.getTimerCount() > 0; pieces++) jest.runOnlyPendingTimers();
  expect(pieces).toBeGreaterThan(2);
  expect(workbench.state).toBe(state);
});

test('nothing is rehearsed where there is a curve, nor once it is called off', () => {
  const { workbench } = underTest();
  const callOff = rehearse(workbench);
  jest.runOnlyPendingTimers();
  callOff();
  expect(jest.getTimerCount()).toBe(0);
  addGiven(workbench, 'f(x) = sin x');
  rehearse(workbench);
  expect(jest.getTimerCount()).toBe(0);
});
