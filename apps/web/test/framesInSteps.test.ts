import { describe, expect, test } from '@jest/globals';
import {
  makeEntry,
  resolve,
  type Document,
  type EntryOf,
  type ReadoutResult,
  type Resolution,
} from '@yperkine/demonstration';
import { setField } from '../src/state/actions.ts';
import { Workbench } from '../src/state/workbench.ts';
import { documentOf, FrameClock } from './frameClock.ts';

/** Values that stand on one another: v₀ = a, v₁ = v₀ + 1, …; the last is n + a. */
const length = 12;
function chain(more: Partial<EntryOf<'parameter'>> = {}): Document {
  const entries: Record<string, Document['entries'][string]> = {
    a: makeEntry('parameter', { order: 0, name: 'a', value: '0', from: '-10', to: '10', ...more }),
  };
  for (let i = 0; i <= length; i++) {
    const text = i === 0 ? 'v_0 = a' : `v_${i} = v_${i - 1} + 1`;
    entries[`v${i}`] = makeEntry('value', { order: i + 1, text });
  }
  return documentOf(entries);
}

/** Frames that end after every step of work. */
function stepByStep(document: Document) {
  const clock = new FrameClock();
  const workbench = new Workbench(document, clock.schedule, { stretch: () => () => true });
  const frame = () => clock.run(1 / 60);
  return { workbench, frame };
}

function last(resolution: Resolution): number {
  const outcome = resolution.entries.get(`v${length}`)?.outcome;
  return outcome?.ok ? (outcome.result as ReadoutResult).value.value : NaN;
}

const outcomes = ({ entries }: Resolution) => [...entries.values()].map(({ outcome }) => outcome);

describe('what takes longer than a frame', () => {
  test('goes on in the next; the last picture stays until it is done', () => {
    const { workbench, frame } = stepByStep(chain());
    frame();
    setField(workbench, 'a', 'value', '5');
    let frames = 0;
    while (last(workbench.state.resolution) === length && frames < 1000) {
      expect(workbench.state.resolution.document.entries.a).toMatchObject({ value: '0' });
      frame();
      frames++;
    }
    // Every entry is read and worked out in a frame of its own.
    expect(frames).toBeGreaterThan(length);
    expect(frames).toBeLessThan(4 * length + 8);
    const { document, stage, resolution } = workbench.state;
    expect(resolution.document).toBe(document);
    expect(outcomes(resolution)).toEqual(outcomes(resolve(document, stage)));
  });

  test('who asks for it at once has it at once', () => {
    const { workbench, frame } = stepByStep(chain());
    setField(workbench, 'a', 'value', '5');
    frame();
    expect(last(workbench.current())).toBe(length + 5);
  });

  test('what is dragged on meanwhile is followed in steps, and reached', () => {
    const { workbench, frame } = stepByStep(chain());
    frame();
    const shown = new Set<number>();
    for (let i = 1; i <= 200; i++) {
      workbench.show('a', String(i / 100));
      frame();
      shown.add(last(workbench.state.resolution));
    }
    for (let i = 0; i < 200; i++) frame();
    expect(shown.size).toBeGreaterThan(3);
    expect(shown.size).toBeLessThan(20);
    expect(workbench.state.stage.values.a).toBe('2');
    expect(last(workbench.state.resolution)).toBe(length + 2);
  });

  test('of a document that was changed meanwhile nothing is shown but the newest', () => {
    const { workbench, frame } = stepByStep(chain());
    frame();
    for (const value of ['1', '2', '3']) {
      setField(workbench, 'a', 'value', value);
      for (let i = 0; i < 5; i++) frame();
      expect(last(workbench.state.resolution)).toBe(length);
    }
    for (let i = 0; i < 200; i++) frame();
    expect(last(workbench.state.resolution)).toBe(length + 3);
  });

  test('motion shows what belongs together, and is over in time', () => {
    const { workbench, frame } = stepByStep(chain({ from: '0', to: '4', seconds: '4', repeat: 'once' }));
    frame();
    workbench.play('a');
    const shown = new Set<number>();
    for (let i = 0; i < 6 * 60; i++) {
      frame();
      const { resolution, stage } = workbench.state;
      expect(last(resolution)).toBeCloseTo(length + Number(stage.values.a ?? 0), 12);
      shown.add(last(resolution));
    }
    expect(shown.size).toBeGreaterThan(3);
    expect(workbench.state.playing).toEqual({});
    expect(last(workbench.state.resolution)).toBe(length + 4);
  });

  test('a number that halts motion halts it at the same place', () => {
    const document = chain({ from: '0', to: '6', seconds: '6', repeat: 'once' });
    const entries = {
      ...document.entries,
      large: makeEntry('readout', { order: 90, text: '3 - (a - pi)^2', halt: 'greatest' }),
    };
    const { workbench, frame } = stepByStep({ ...document, entries });
    frame();
    workbench.play('a');
    for (let i = 0; i < 60 * 60; i++) frame();
    expect(workbench.state.playing).toEqual({});
    expect(workbench.state.stage.values.a as number).toBeCloseTo(Math.PI, 6);
  });
});
