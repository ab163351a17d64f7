import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { SightedStore } from '../src/state/sight.ts';
import { withTangent } from './bench.ts';

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

/** A workbench whose slider plays, and a part of the page that counts how often it is told. */
function playing() {
  const bench = withTangent();
  const { workbench } = bench;
  const sight = new SightedStore(workbench.store);
  const told = jest.fn();
  const stop = sight.subscribe(told);
  workbench.togglePlay(bench.idOf('parameter'));
  bench.frame();
  told.mockClear();
  return { ...bench, sight, told, stop };
}

describe('what a part of the page sees of a motion', () => {
  test('in sight, every frame', () => {
    const { frame, sight, told, workbench } = playing();
    for (let i = 0; i < 10; i++) frame();
    expect(told).toHaveBeenCalledTimes(10);
    expect(sight.getState()).toBe(workbench.state);
  });

  test('out of sight, nothing is said while it goes on, and what is past not for long once it rests', () => {
    const { frame, sight, told, workbench } = playing();
    sight.see(false);
    told.mockClear();
    const before = sight.getState();
    for (let i = 0; i < 60; i++) {
      frame();
      jest.advanceTimersByTime(16);
    }
    expect(told).not.toHaveBeenCalled();
    expect(sight.getState()).toBe(before);
    jest.advanceTimersByTime(500);
    expect(told).toHaveBeenCalledTimes(1);
    expect(sight.getState()).toBe(workbench.state);
  });

  test('between two looks the state that it sees is one and the same', () => {
    const { frame, sight } = playing();
    sight.see(false);
    const seen = sight.getState();
    frame();
    expect(sight.getState()).toBe(seen);
  });

  test('once it comes into sight, what is there now', () => {
    const { frame, sight, told, workbench } = playing();
    sight.see(false);
    frame();
    told.mockClear();
    sight.see(true);
    expect(told).toHaveBeenCalledTimes(1);
    expect(sight.getState()).toBe(workbench.state);
  });

  test('whatever else changes, at once: a stop, a choice, an edit', () => {
    const { frame, idOf, sight, told, workbench } = playing();
    sight.see(false);
    frame();
    told.mockClear();
    workbench.togglePlay(idOf('parameter'));
    expect(told).toHaveBeenCalledTimes(1);
    expect(sight.getState()).toBe(workbench.state);
    workbench.emphasise(idOf('tangent'));
    workbench.setValue(idOf('parameter'), '2');
    expect(sight.getState()).toBe(workbench.state);
    expect(told.mock.calls.length).toBeGreaterThan(2);
  });

  test('nobody listens any more: nothing is left running, and a new listener sees the present', () => {
    const { frame, sight, stop, told, workbench } = playing();
    sight.see(false);
    frame();
    stop();
    expect(jest.getTimerCount()).toBe(0);
    told.mockClear();
    frame();
    sight.subscribe(told);
    expect(sight.getState()).toBe(workbench.state);
    expect(told).not.toHaveBeenCalled();
  });
});
