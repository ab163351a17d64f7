import { describe, expect, test } from '@jest/globals';
import {
  curveOf,
  emptyDocument,
  plainText,
  slidersOf,
  saidOf,
  type TangentResult,
} from '@yperkine/demonstration';
import { fit, removeEntry, setField } from '../src/state/actions.ts';
import { addGiven, makeParameter } from '../src/state/givens.ts';
import { addDerivative, addStudy } from '../src/state/studies.ts';
import { underTest, withTangent } from './bench.ts';

describe('stating givens', () => {
  test('a function is one change together with its window', () => {
    const { workbench } = underTest();
    expect(addGiven(workbench, 'f(x) = 3x^2 - 5x - 2')).toEqual({ ok: true });
    expect(workbench.state.document.x).not.toEqual(emptyDocument().x);
    workbench.undo();
    expect(workbench.state.document).toEqual(emptyDocument());
  });

  test('a second function leaves the window still', () => {
    const { workbench } = withTangent();
    const { x } = workbench.state.document;
    addGiven(workbench, 'g(x) = 1000x + 3');
    expect(workbench.state.document.x).toBe(x);
  });

  test('a bare formula takes the next free name', () => {
    const { workbench } = withTangent();
    expect(addGiven(workbench, 'x^2 + 1')).toEqual({ ok: true });
    expect(JSON.stringify(workbench.state.document)).toContain('g(x) = x^2 + 1');
  });

  test.each([
    ['f(x) = 2 +', 'Something is missing after “+”.'],
    ['f(x) = x', '“f” is already taken; please choose another name.'],
    ['', 'There is nothing here yet: write a formula such as x^2 − 1.'],
  ])('%s is answered by a sentence and changes nothing', (typed, message) => {
    const { workbench } = withTangent();
    const before = workbench.state.document;
    expect(addGiven(workbench, typed)).toMatchObject({ ok: false, message });
    expect(workbench.state.document).toBe(before);
  });

  test('the problem of a bare formula is marked where it was typed', () => {
    const { workbench } = underTest();
    expect(addGiven(workbench, 'x + sinn x')).toMatchObject({
      problem: { from: 4, to: 8, correction: 'sin' },
    });
  });

  test('an unknown letter becomes a slider', () => {
    const { workbench, idOf } = underTest();
    expect(addGiven(workbench, 'k x')).toMatchObject({ missingName: 'k' });
    makeParameter(workbench, 'k');
    expect(addGiven(workbench, 'k x')).toEqual({ ok: true });
    expect(curveOf(workbench.current(), idOf('function'))?.parameters).toEqual([1]);
  });
});

describe('studies', () => {
  test('point and tangent of a curve share one slider', () => {
    const { workbench, idOf } = withTangent();
    addStudy(workbench, 'point', idOf('function'));
    const kinds = Object.values(workbench.state.document.entries).map(({ kind }) => kind);
    expect(kinds.filter((kind) => kind === 'parameter')).toHaveLength(1);
  });

  test('the derivative gets a tier of its own, in one change', () => {
    const { workbench, idOf } = withTangent();
    addDerivative(workbench, idOf('function'));
    expect(Object.keys(workbench.state.document.tiers)).toHaveLength(2);
    workbench.undo();
    expect(Object.keys(workbench.state.document.tiers)).toHaveLength(1);
  });

  test('deleting a function takes its studies, their slider and their tier along, and undo brings all back', () => {
    const { workbench, idOf } = withTangent();
    addDerivative(workbench, idOf('function'));
    const before = workbench.state.document;
    removeEntry(workbench, idOf('function'));
    expect(workbench.state.document.entries).toEqual({});
    expect(Object.keys(workbench.state.document.tiers)).toEqual(['tier-f']);
    workbench.undo();
    expect(workbench.state.document).toEqual(before);
  });

  test('a slider that a formula mentions stays when its tangent goes', () => {
    const { workbench, idOf } = withTangent();
    addGiven(workbench, 'g(x) = a x');
    removeEntry(workbench, idOf('tangent'));
    expect(idOf('parameter')).not.toBe('');
  });

  test('Fit is a change that can be undone', async () => {
    const { workbench } = withTangent();
    const { x } = workbench.state.document;
    workbench.showWindows({ from: 50, to: 60 }, {});
    workbench.settleWindows();
    await fit(workbench, 'both');
    expect(workbench.state.document.x).toEqual(x);
    workbench.undo();
    expect(workbench.state.document.x).toEqual({ from: 50, to: 60 });
  });
});

describe('dragging and playing', () => {
  test('many moves between two frames are worked out once; the document changes on release only', () => {
    const { workbench, frame, idOf, result } = withTangent();
    const before = workbench.state.document;
    let resolved = 0;
    workbench.store.subscribe(
      (state, previous) => (resolved += state.resolution === previous.resolution ? 0 : 1),
    );
    for (let i = 0; i < 20; i++) workbench.show(idOf('parameter'), String(1 + i / 100));
    frame();
    expect(resolved).toBe(1);
    expect(workbench.state.resolution.workedOut).toEqual([idOf('parameter'), idOf('tangent')]);
    expect(workbench.state.document).toBe(before);
    workbench.settle(idOf('parameter'));
    expect(workbench.state.document.entries[idOf('parameter')]).toMatchObject({ value: '1.19' });
    expect(result<TangentResult>('tangent').at.setting).toBe('1.19');
    workbench.undo();
    expect(workbench.state.document).toEqual(before);
  });

  test('a state is worked out once, whoever asks for it first', () => {
    const { workbench, frame, idOf } = withTangent();
    workbench.show(idOf('parameter'), '1.4');
    const asked = workbench.current();
    expect(workbench.current()).toBe(asked);
    frame();
    expect(workbench.state.resolution).toBe(asked);
    workbench.emphasise(idOf('function'));
    frame();
    expect(workbench.state.resolution).toBe(asked);
  });

  test('a run follows the clock, not the frames, and touches only the stage', () => {
    const { workbench, frame, idOf, result } = withTangent();
    const parameter = idOf('parameter');
    const before = workbench.state.document;
    workbench.play(parameter);
    frame();
    frame(1000);
    const coarse = result<TangentResult>('tangent').at.value.value;
    workbench.stop();
    workbench.settle(parameter);
    workbench.setValue(parameter, '1');
    workbench.play(parameter);
    frame();
    for (let i = 0; i < 100; i++) frame(10);
    expect(result<TangentResult>('tangent').at.value.value).toBeCloseTo(coarse, 9);
    expect(workbench.state.document).toEqual(before);
  });

  test('what motion has reached stays when the slider only loses the focus', () => {
    const { workbench, frame, idOf, result } = withTangent();
    workbench.play(idOf('parameter'));
    frame();
    frame(700);
    workbench.stop();
    const reached = result<TangentResult>('tangent').at.value.value;
    workbench.settle(idOf('parameter'));
    frame();
    expect(result<TangentResult>('tangent').at.value.value).toBe(reached);
  });

  test('nothing plays, nothing moves: no frame is asked for', () => {
    const { frame, isAsked } = withTangent();
    frame();
    frame();
    expect(isAsked()).toBe(false);
  });

  test('several lanes move at once, each by its own clock, and each can be stopped alone', () => {
    const { workbench, frame } = withTangent();
    addGiven(workbench, 'b = 0');
    addGiven(workbench, 'c = 0');
    const [a, b, c] = slidersOf(workbench.state.document).map(([id]) => id) as [string, string, string];
    setField(workbench, b, 'repeat', 'once');
    setField(workbench, b, 'seconds', '1');
    workbench.choose(a);
    workbench.playAll();
    expect(workbench.state.here).toBe(a);
    frame();
    frame(400);
    const moved = () => [a, b, c].map((id) => workbench.state.stage.values[id]);
    expect(moved().every((value) => typeof value === 'number')).toBe(true);
    workbench.stop(c);
    const still = workbench.state.stage.values[c];
    frame(400);
    expect(workbench.state.stage.values[c]).toBe(still);
    frame(400);
    // b ran once, from the middle, in less than its second.
    expect(Object.keys(workbench.state.playing)).toEqual([a]);
    workbench.show(a, '2');
    expect(workbench.state.playing).toEqual({});
  });

  test('a slider that is set by hand leaves the others moving', () => {
    const { workbench, frame } = withTangent();
    addGiven(workbench, 'b = 0');
    const [a, b] = slidersOf(workbench.state.document).map(([id]) => id) as [string, string];
    workbench.playAll();
    frame();
    workbench.setValue(b, '1');
    expect(Object.keys(workbench.state.playing)).toEqual([a]);
  });

  test('while it moves a value is not called exact; set by hand it is', () => {
    const { workbench, frame, idOf } = withTangent();
    addStudy(workbench, 'point', idOf('function'));
    const line = () => plainText(saidOf(workbench.current(), idOf('point'))?.lines[0] ?? []);
    expect(line()).toBe('f(1) = −4.000');
    workbench.play(idOf('parameter'));
    frame();
    frame(300);
    expect(line()).toContain('≈');
  });
});
