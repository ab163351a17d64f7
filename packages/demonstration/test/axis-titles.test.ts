import { describe, expect, test } from '@jest/globals';
import { makeEntry, newTier, type Document } from '../src/index.ts';
import { documentWith, sceneOf } from './sample.ts';

describe('titles of axes', () => {
  const titled = (more: Partial<Document>) =>
    sceneOf({
      ...documentWith({
        f: makeEntry('function', { order: 1, text: 'V(t) = 2t', tier: 'tier-f', unit: 'L' }),
      }),
      ...more,
    });

  test('say variable and unit by themselves, or what was typed', () => {
    expect(titled({}).xTitle).toBe('');
    expect(titled({ xUnit: 'min' }).xTitle).toBe('t in min');
    expect(titled({ xUnit: 'min', xTitle: 'time' }).xTitle).toBe('time in min');
    expect(titled({}).tiers[0]?.title?.words).toBe('in L');
    const tiers = { 'tier-f': { ...newTier(1, { from: 0, to: 9 }), title: 'water let through' } };
    expect(titled({ tiers }).tiers[0]?.title?.words).toBe('water let through in L');
  });

  test('a title of the x-axis takes room of its own under the numbers', () => {
    const bottom = (more: Partial<Document>) => {
      const frame = titled(more).tiers.at(-1)?.view.frame;
      return (frame?.top ?? NaN) + (frame?.height ?? NaN);
    };
    expect(bottom({}) - bottom({ xUnit: 'min' })).toBeCloseTo(20, 9);
  });
});
