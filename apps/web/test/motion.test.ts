import { describe, expect, test } from '@jest/globals';
import { makeEntry, type Document, type EntryOf, type Id, type ReadoutResult } from '@yperkine/demonstration';
import { restoreStart } from '../src/state/start.ts';
import { keepTrial } from '../src/state/trials.ts';
import { Workbench } from '../src/state/workbench.ts';
import { documentOf, FrameClock } from './frameClock.ts';

const parameter = (id: Id, more: Partial<EntryOf<'parameter'>> = {}): Document['entries'] => ({
  [id]: makeEntry('parameter', {
    order: 1,
    name: id,
    value: '0',
    from: '0',
    to: '10',
    seconds: '10',
    repeat: 'thereAndBack',
    ...more,
  }),
});
const readout = (text: string, halt: EntryOf<'readout'>['halt']): Document['entries'] => ({
  large: makeEntry('readout', { order: 2, text, halt }),
});
const value = (workbench: Workbench): number => {
  const outcome = workbench.current().entries.get('large')?.outcome;
  return outcome?.ok ? (outcome.result as ReadoutResult).value.value : NaN;
};

/** A workbench whose frames come when the test says so, and how to let it play for so many seconds. */
function playing(entries: Document['entries']) {
  const frames = new FrameClock();
  const workbench = new Workbench(documentOf(entries), frames.schedule);
  return { workbench, play: (seconds: number) => frames.run(seconds) };
}

describe('a number that halts motion', () => {
  test('stops it exactly where the number is greatest, between two frames', () => {
    const { workbench, play } = playing({ ...parameter('t'), ...readout('3 - (t - pi)^2', 'greatest') });
    workbench.play('t');
    play(8);
    expect(workbench.state.playing).toEqual({});
    expect(workbench.state.stage.values.t as number).toBeCloseTo(Math.PI, 6);
    expect(value(workbench)).toBeCloseTo(3, 11);
    expect(workbench.state.records.large?.greatest).toBeCloseTo(3, 11);
  });

  test('where it is least alone, it goes on over the greatest value', () => {
    // sin t is greatest at π/2 and least at 3π/2: common practice.
    const { workbench, play } = playing({ ...parameter('t'), ...readout('sin t', 'least') });
    workbench.play('t');
    play(9);
    expect(workbench.state.stage.values.t as number).toBeCloseTo((3 * Math.PI) / 2, 6);
  });

  test('pressed again it goes on to the next turn', () => {
    const { workbench, play } = playing({ ...parameter('t'), ...readout('sin t', 'either') });
    const stops = [0, 1, 2].map(() => {
      workbench.play('t');
      play(9);
      return workbench.state.stage.values.t as number;
    });
    stops.forEach((stop, k) => expect(stop).toBeCloseTo(Math.PI / 2 + k * Math.PI, 6));
  });

  test('one that never halts lets it go on', () => {
    const { workbench, play } = playing({ ...parameter('t'), ...readout('sin t', 'never') });
    workbench.play('t');
    play(9);
    expect(Object.keys(workbench.state.playing)).toEqual(['t']);
  });
});

describe('the least and greatest values so far', () => {
  test('are kept while the number moves, and begin anew when asked', () => {
    const { workbench, play } = playing({
      ...parameter('t', { repeat: 'once' }),
      ...readout('cos t', 'never'),
    });
    workbench.play('t');
    play(11);
    expect(workbench.state.records.large?.least).toBeCloseTo(-1, 3);
    expect(workbench.state.records.large?.greatest).toBe(1);
    workbench.forgetRecord('large');
    play(0.1);
    expect(workbench.state.records.large).toMatchObject({ least: Math.cos(10), greatest: Math.cos(10) });
  });
});

describe('keeping a trial', () => {
  test('without a slider or a point there is nothing to keep, and that is told', () => {
    const { workbench } = playing({});
    keepTrial(workbench);
    expect(workbench.state.document.entries).toEqual({});
    expect(workbench.state.notice?.text).toMatch('There is nothing to keep yet');
  });

  test('makes the table with sliders and results, then writes a row each time', () => {
    const { workbench, play } = playing({
      ...parameter('t', { value: '2' }),
      f: makeEntry('function', { order: 0, text: 'f(x) = x^2', tier: 'tier-f' }),
      p: makeEntry('point', { order: 3, on: 'f', parameter: 't' }),
      tangent: makeEntry('tangent', { order: 4, on: 'f', parameter: 't' }),
    });
    const table = () => Object.values(workbench.state.document.entries).find(({ kind }) => kind === 'trials');
    keepTrial(workbench);
    expect(table()).toMatchObject({ columns: "t; f(t); f'(t)", rows: [['2', '4', '4']] });
    workbench.setValue('t', '3');
    keepTrial(workbench);
    expect(table()).toMatchObject({
      rows: [
        ['2', '4', '4'],
        ['3', '9', '6'],
      ],
    });
    workbench.undo();
    expect(table()).toMatchObject({ rows: [['2', '4', '4']] });
    play(0.1);
  });
});

test('restoring the start takes trails and records away with the rest', () => {
  const { workbench, play } = playing({
    ...parameter('t'),
    ...readout('t', 'never'),
    m: makeEntry('marker', { order: 5, x: 't', y: '0', tier: 'tier-f' }),
    trail: makeEntry('trail', { order: 6, of: 'm', place: 'marker' }),
  });
  workbench.play('t');
  play(2);
  expect(workbench.trails.of('trail')?.length).toBeGreaterThan(10);
  restoreStart(workbench);
  expect(workbench.trails.of('trail')).toBeUndefined();
  expect(workbench.state).toMatchObject({ playing: {}, stage: { values: {} } });
  play(0.1);
  expect(workbench.state.records.large).toMatchObject({ least: 0, greatest: 0 });
});

test('ten minutes of playing keep nothing beyond the limits', () => {
  const { workbench, play } = playing({
    ...parameter('t', { seconds: '3' }),
    ...readout('sin t', 'never'),
    m: makeEntry('marker', { order: 5, x: 't', y: 'sin t', tier: 'tier-f' }),
    trail: makeEntry('trail', { order: 6, of: 'm', place: 'marker', limit: 200 }),
  });
  const size = () => JSON.stringify(workbench.state).length;
  workbench.play('t');
  play(30);
  const early = size();
  play(570);
  expect(workbench.trails.of('trail')?.length).toBe(200);
  expect(size()).toBeLessThan(early * 1.05);
  expect(workbench.state.history.past).toHaveLength(0);
});
