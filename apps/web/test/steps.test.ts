import { describe, expect, test } from '@jest/globals';
import { addReveal, firstShownBy, showBy, switchReveal } from '../src/state/reveals.ts';
import {
  keepStep,
  moveStep,
  removeStep,
  retakeStep,
  setStep,
  setStepPart,
  revealedBy,
  stepBeside,
  stepIdsOf,
} from '../src/state/steps.ts';
import { addTrail } from '../src/state/trails.ts';
import type { Workbench } from '../src/state/workbench.ts';
import { withTangent } from './bench.ts';

/** A tangent at a, a reveal, and two steps: a = 1 with the reveal off, a = 2 with it on. */
function withSteps() {
  const bench = withTangent();
  const { workbench } = bench;
  const a = bench.idOf('parameter');
  addReveal(workbench);
  workbench.setValue(a, '1');
  keepStep(workbench);
  workbench.setValue(a, '2');
  switchReveal(workbench, bench.idOf('reveal'), true);
  keepStep(workbench);
  bench.frame();
  const [first = '', second = ''] = stepIdsOf(workbench.state.document);
  const shown = () => [bench.all('parameter')[0]?.value, bench.all('reveal')[0]?.switchedOn];
  const step = (id: string) => workbench.state.document.steps[id];
  return { ...bench, a, first, second, shown, step };
}

const go = (workbench: Workbench, by: -1 | 1): void => {
  const id = stepBeside(workbench, by);
  if (id !== undefined) workbench.showStep(id);
};

describe('steps', () => {
  test('show what was kept; a run through several is undone as one', () => {
    const { workbench, first, second, shown } = withSteps();
    expect(workbench.state.step).toBe(second);
    workbench.showStep(first);
    expect(shown()).toEqual(['1', false]);
    go(workbench, 1);
    expect([workbench.state.step, ...shown()]).toEqual([second, '2', true]);
    go(workbench, 1);
    expect(workbench.state.step).toBe(second);
    go(workbench, -1);
    expect(shown()).toEqual(['1', false]);
    workbench.undo();
    expect([workbench.state.step, ...shown()]).toEqual([null, '2', true]);
    go(workbench, 1);
    expect(workbench.state.step).toBe(first);
  });

  test('a step is kept behind the one that is shown, moved, and deleted with a way back', () => {
    const { workbench, first, second } = withSteps();
    workbench.showStep(first);
    keepStep(workbench);
    const between = workbench.state.step ?? '';
    expect(stepIdsOf(workbench.state.document)).toEqual([first, between, second]);
    moveStep(workbench, between, 1);
    moveStep(workbench, between, 1);
    expect(stepIdsOf(workbench.state.document)).toEqual([first, second, between]);
    removeStep(workbench, second);
    expect(stepIdsOf(workbench.state.document)).toEqual([first, between]);
    expect(workbench.state.notice).toEqual({ text: 'Deleted: Step 2.', canUndo: true });
    workbench.undo();
    expect(stepIdsOf(workbench.state.document)).toEqual([first, second, between]);
  });

  test('what a step reveals is the first entry that waits for a switch which it turns on', () => {
    const { workbench, idOf, first, second } = withSteps();
    const tangent = idOf('tangent');
    showBy(workbench, tangent, 'question_1', true);
    workbench.showStep(first);
    expect(revealedBy(workbench, first)).toEqual([]);
    const reveals = revealedBy(workbench, second);
    expect(reveals.map(({ name }) => name)).toEqual(['question_1']);
    expect(firstShownBy(workbench, reveals)).toBe(tangent);
    expect(firstShownBy(workbench, [])).toBeUndefined();
    workbench.showStep(second);
    expect(revealedBy(workbench, second)).toEqual([]);
    expect(firstShownBy(workbench, reveals)).toBeUndefined();
  });

  test('more than a hundred are not kept, and that is said', () => {
    const { workbench } = withSteps();
    for (let i = 0; i < 100; i++) keepStep(workbench);
    expect(stepIdsOf(workbench.state.document)).toHaveLength(100);
    expect(workbench.state.notice?.text).toBe('A demonstration has 100 steps at most.');
  });

  test('a part that a step leaves alone stays as it is, also when the step is kept anew', () => {
    const { workbench, a, first, shown, step } = withSteps();
    setStepPart(workbench, first, 'values', false);
    workbench.showStep(first);
    expect(shown()).toEqual(['2', false]);
    workbench.setValue(a, '3');
    retakeStep(workbench, first);
    expect(step(first)?.values).toBeNull();
    setStepPart(workbench, first, 'values', true);
    expect(step(first)?.values).toMatchObject({ [a]: '3' });
  });

  test('motion goes on through a step that sets no values, and ends where one is set', () => {
    const { workbench, a, first, second, frame, shown, result } = withSteps();
    setStepPart(workbench, second, 'values', false);
    workbench.showStep(first);
    workbench.play(a);
    frame();
    frame(500);
    go(workbench, 1);
    expect(Object.keys(workbench.state.playing)).toEqual([a]);
    expect(workbench.state.stage.values[a]).toBeGreaterThan(1);
    workbench.showStep(first);
    frame();
    expect(workbench.state.playing).toEqual({});
    expect(shown()).toEqual(['1', false]);
    expect(result<{ value: { value: number } }>('parameter').value.value).toBe(1);
  });

  test('a value in motion is kept as it is at that moment', () => {
    const { workbench, a, second, frame, step } = withSteps();
    workbench.play(a);
    frame();
    frame(500);
    const now = workbench.state.stage.values[a] as number;
    retakeStep(workbench, second);
    expect(Number(step(second)?.values?.[a])).toBeCloseTo(now, 6);
  });

  test('one that clears the trails leaves none; through the others they stay, and are not joined', () => {
    const bench = withSteps();
    const { workbench, a, first, second, frame } = bench;
    addTrail(workbench, bench.idOf('tangent'), 'point');
    const trail = bench.idOf('trail');
    const places = () => (workbench.trails.of(trail)?.places() ?? []).map(([x]) => x);
    const walk = () => {
      for (const value of ['2', '2.2', '2.4']) {
        workbench.show(a, value);
        frame();
      }
    };
    walk();
    const walked = places();
    expect(walked).toHaveLength(3);
    workbench.showStep(first);
    frame();
    expect(places()).toEqual([...walked, NaN]);
    setStep(workbench, second, 'clearsTrails', true);
    workbench.showStep(second);
    frame();
    expect(places()).toEqual([]);
    walk();
    expect(places()).toEqual(walked);
  });

  test('a trail goes on without a break through a step that moves nothing', () => {
    const bench = withSteps();
    const { workbench, a, second, frame } = bench;
    addTrail(workbench, bench.idOf('tangent'), 'point');
    setStepPart(workbench, second, 'values', false);
    for (const value of ['2', '2.2', '2.4', '2.6']) {
      if (value === '2.4') workbench.showStep(second);
      workbench.show(a, value);
      frame();
    }
    const places = workbench.trails.of(bench.idOf('trail'))?.places() ?? [];
    expect(places.map(([x]) => x)).toEqual([2, 2.2, 2.4, 2.6]);
  });
});
