import { describe, expect, test } from '@jest/globals';
import { Effort } from '@yperkine/core';
import {
  answersNow,
  buildScene,
  emptyDocument,
  emptyStage,
  makeEntry,
  resolve,
  unanswered,
  type Answers,
  type Scene,
} from '@yperkine/demonstration';
import { askForCurves } from '../src/state/curvesBeside.ts';

/** A scene made within an effort, in which one curve is asked about. */
function sceneOf(
  text: string,
  effort = 4_000_000,
  other = '',
): { first: Scene; again: (before: Scene) => Scene } {
  const f = makeEntry('function', { order: 1, text, tier: 'tier-f' });
  const g = makeEntry('function', { order: 0, text: other, tier: 'tier-f' });
  const document = { ...emptyDocument(), entries: other ? { g, f } : { f } };
  const resolution = resolve(document, emptyStage);
  const size = { width: 400, height: 300, density: 1, furniture: true };
  const build = (before?: Scene) =>
    buildScene(
      { document, stage: emptyStage, resolution, size, here: null, effort: new Effort(effort) },
      before,
    );
  return { first: build(), again: build };
}
const curveOf = ({ tiers }: Scene) =>
  tiers.flatMap(({ marks }) => marks).find((mark) => mark.kind === 'curve');

describe('curves that are worked out beside the page', () => {
  test('are asked for once a frame until they are there, and are drawn in full then', () => {
    const { first, again } = sceneOf('f(x) = sum k from 1 to 25 of x^k/k');
    expect(askForCurves(first, unanswered)).toEqual({ isThere: false, isBehind: false });
    expect(askForCurves(first, answersNow()).isThere).toBe(true);
    const there = again(first);
    expect({ wanted: there.wanted, isOld: curveOf(there)?.isOld }).toEqual({ wanted: [], isOld: undefined });
    expect(curveOf(there)?.runs[0]?.length).toBeGreaterThan(2 * 300);
  });

  test('that take too long even there are asked for no more', () => {
    const { first, again } = sceneOf('f(x) = sum k from 1 to 41 of sin(k x)/k');
    const asked: string[] = [];
    const tooLong: Answers = {
      ask: (by) => {
        asked.push(by);
        return { state: 'unanswerable', reason: 'tooLong' };
      },
      version: () => 0,
    };
    expect(askForCurves(first, tooLong).isThere).toBe(true);
    const last = again(first);
    expect(askForCurves(last, tooLong).isThere).toBe(false);
    expect({ asked: asked.length, isOld: curveOf(last)?.isOld }).toEqual({ asked: 1, isOld: true });
  });

  test('are not asked for where only this frame has no time left: the next ones come to them', () => {
    const { first, again } = sceneOf('f(x) = x^2 sin x', 200_000, 'g(x) = x^3 cos x');
    const states = ({ isBehind, wanted, tiers }: Scene) => [
      isBehind,
      wanted.length,
      tiers.flatMap(({ marks }) => marks).filter((mark) => mark.kind === 'curve' && mark.isOld).length,
    ];
    expect(states(first)).toEqual([true, 0, 1]);
    expect(states(again(first))).toEqual([false, 0, 0]);
  });
});
