import { describe, expect, test } from '@jest/globals';
import { emptyStage, followedWindows, makeEntry, resolve, type Document } from '../src/index.ts';
import { documentWith, given, slider } from './sample.ts';

describe('the window follows the step of a secant', () => {
  const withSecant = (more: object = {}) =>
    documentWith({
      f: given(1, 'f(x) = x^2'),
      a: slider(2, 'a', '1'),
      h: slider(3, 'h', '1'),
      s: makeEntry('secant', { order: 4, on: 'f', parameter: 'a', step: 'h', windowFollows: true, ...more }),
    });
  const windowsAt = (document: Document, h: string) =>
    followedWindows(document, resolve(document, { ...emptyStage, values: { h } }));

  test.each(['forward', 'backward', 'symmetric'] as const)(
    '%s: secant and curve keep their size while the gap shrinks',
    (direction) => {
      const document = withSecant({ direction });
      const shares = ['1', '0.01', '-0.001'].map((h) => {
        const windows = windowsAt(document, h);
        const width = (windows?.x.to ?? NaN) - (windows?.x.from ?? NaN);
        const y = windows?.y['tier-f'];
        return [Math.abs(Number(h)) / width, ((y?.to ?? NaN) - (y?.from ?? NaN)) / width];
      });
      for (const [share, slopeScale] of shares) {
        expect(share).toBeCloseTo(0.35, 9);
        // The document's window is as high as it is wide, so slopes stay what they look like.
        expect(slopeScale).toBeCloseTo(1, 6);
      }
    },
  );

  test('both ends of the secant are in it', () => {
    const windows = windowsAt(withSecant(), '0.1');
    expect(windows?.x.from).toBeLessThan(1);
    expect(windows?.x.to).toBeGreaterThan(1.1);
    expect(windows?.y['tier-f']?.from).toBeLessThan(1);
    expect(windows?.y['tier-f']?.to).toBeGreaterThan(1.21);
  });

  test('no secant asks for it, the step is 0, or the secant is hidden: the window is the document’s', () => {
    expect(windowsAt(withSecant({ windowFollows: false }), '0.1')).toBeNull();
    expect(windowsAt(withSecant(), '0')).toBeNull();
    expect(windowsAt(withSecant({ hidden: true }), '0.1')).toBeNull();
  });
});
