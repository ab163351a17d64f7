import { describe, expect, test } from '@jest/globals';
import { buildScene, makeEntry, newTier, type Document, type Id, type Scene } from '@yperkine/demonstration';
import { Workbench } from '../src/state/workbench.ts';
import { documentOf, FrameClock } from './frameClock.ts';

const six = ['x^3/9 - x', 'sin x', 'x/2 + 1', '2cos x', 'e^(-x^2/4)', '1/(1 + x^2)'];
const names = 'fghpqr';

/** Six curves on two tiers, a tangent, a lens, a trail and a note that follow a, and entries that do not. */
function busyDocument(): Document {
  const place = { on: 'f', parameter: 'a' };
  const entries: Record<Id, Document['entries'][Id]> = {
    a: makeEntry('parameter', { order: 10, name: 'a', value: '-2', from: '-4', to: '4', seconds: '4' }),
    b: makeEntry('parameter', { order: 11, name: 'b', value: '1' }),
    tangent: makeEntry('tangent', { order: 12, ...place }),
    lens: makeEntry('lens', { order: 13, ...place }),
    slope: makeEntry('derivative', { order: 14, of: 'f', tier: 'slope' }),
    trail: makeEntry('trail', { order: 15, of: 'tangent', place: 'point' }),
    note: makeEntry('note', { order: 16, text: 'At {a} the height is {f(a)}.' }),
    still: makeEntry('note', { order: 17, text: 'b is {b}, and {definition of f}' }),
    value: makeEntry('value', { order: 18, text: 'm = f(1) + b' }),
    shown: makeEntry('marker', { order: 19, x: 'b', y: '1', tier: 'tier-f', shownWhen: 'a > 0' }),
  };
  six.forEach((body, i) => {
    const name = names[i] ?? '';
    entries[name] = makeEntry('function', {
      order: i,
      text: `${name}(x) = ${body}`,
      tier: 'tier-f',
      family: i,
    });
  });
  const document = documentOf(entries);
  return { ...document, tiers: { ...document.tiers, slope: newTier(2, { from: -3, to: 3 }) } };
}

/** Everything that follows the slider, and nothing else. */
const following = ['a', 'lens', 'note', 'tangent', 'trail'];

describe('while a lane plays', () => {
  const clock = new FrameClock();
  const workbench = new Workbench(busyDocument(), clock.schedule);
  let scene: Scene | undefined;
  const paint = () => {
    const { document, stage, resolution, here } = workbench.state;
    scene = buildScene(
      {
        document,
        stage,
        resolution,
        here,
        trails: workbench.trails,
        size: { width: 800, height: 560, density: 2, furniture: true },
      },
      scene,
    );
    return scene;
  };
  clock.run(0.1);
  paint();
  workbench.play('a');
  clock.run(0.2);

  test('a frame works out again what follows the slider, and nothing else', () => {
    for (let frame = 0; frame < 60; frame++) {
      clock.run(1 / 60);
      expect([...workbench.state.resolution.workedOut].sort()).toEqual(following);
    }
  });

  test('a frame draws again what moved; no curve is sampled anew', () => {
    paint();
    for (let frame = 0; frame < 60; frame++) {
      clock.run(1 / 60);
      const drawn = new Set(paint().markedAgain);
      expect([...drawn].filter((id) => !following.includes(id) && id !== 'shown')).toEqual([]);
    }
  });

  test('a frame changes the state a few times, however much moves', () => {
    let changes = 0;
    const stop = workbench.store.subscribe(() => changes++);
    clock.run(1);
    stop();
    // Motion and what came of it: two a frame.
    expect(changes).toBeLessThanOrEqual(2 * 60);
    expect(changes).toBeGreaterThanOrEqual(60);
  });
});
