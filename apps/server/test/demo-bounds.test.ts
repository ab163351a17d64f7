import { describe, expect, test } from '@jest/globals';
import { Effort } from '@yperkine/core';
import {
  buildScene,
  emptyStage,
  fitInSteps,
  resolveInSteps,
  unanswered,
  withValue,
  type Resolution,
  type Scene,
} from '@yperkine/demonstration';
import { examples } from '../src/database/demo.ts';

/** Operations that nothing here ever needs, to count those that are. */
const plenty = 1e9;
/** Of which some tens of thousands take a millisecond on the machine of the tests. */
const atAStretch = 2_000_000;
const ofOneFrame = 3_000_000;

function spentOn<T>(work: () => T): { spent: number; made: T } {
  const effort = new Effort(plenty);
  const made = effort.spendOn(work);
  return { spent: plenty - effort.left, made };
}

/** Does work step by step. @returns what came of it and the most operations that one step took */
function inSteps<T>(work: Generator<unknown, T>): { longest: number; made: T } {
  let longest = 0;
  for (;;) {
    const { spent, made } = spentOn(() => work.next());
    longest = Math.max(longest, spent);
    if (made.done) return { longest, made: made.value };
  }
}

describe.each(examples.map(({ document }) => [document.title, document] as const))(
  'the shipped demonstration “%s”',
  (_title, document) => {
    const open = () => inSteps(resolveInSteps(document, emptyStage, undefined, unanswered));
    const size = { width: 880, height: 620, density: 1, furniture: true };
    const sceneOf = (resolution: Resolution, before?: Scene, stage = emptyStage) =>
      buildScene({ document, stage, resolution, size, here: null, effort: new Effort(ofOneFrame) }, before);

    test('is opened entry by entry, none of which takes long, and every entry has a result or waits for an answer', () => {
      const { longest, made } = open();
      expect(longest).toBeLessThan(atAStretch);
      expect(made.entries.size).toBe(Object.keys(document.entries).length);
    });

    test('is drawn in a few frames', () => {
      const { made: resolution } = open();
      let scene = sceneOf(resolution);
      let frames = 1;
      for (; scene.isBehind && frames < 10; frames++) scene = sceneOf(resolution, scene);
      expect({ isBehind: scene.isBehind, frames: frames <= 4 }).toEqual({ isBehind: false, frames: true });
    });

    test('is fitted axis by axis, none of which takes long', () => {
      const { made: resolution } = open();
      const { longest, made: edits } = inSteps(fitInSteps(document, resolution, 'both', document.x));
      expect(longest).toBeLessThan(2 * atAStretch + ofOneFrame);
      for (const edit of edits) expect(edit.new).not.toEqual(edit.old);
    });

    test('is worked out again within a frame while a slider moves', () => {
      const { made: first } = open();
      for (const [id, entry] of Object.entries(document.entries)) {
        if (entry.kind !== 'parameter' || entry.name === '') continue;
        const stage = withValue(emptyStage, id, Number.parseFloat(entry.value) + 0.013);
        const { longest } = inSteps(resolveInSteps(document, stage, first, unanswered));
        expect([entry.name, longest < atAStretch]).toEqual([entry.name, true]);
      }
    });
  },
);
