import { emptyDocument, makeEntry, newTier, type Document, type Entry } from '@yperkine/demonstration';
import { opening } from './slope.ts';

/** One stretch of the inflow, shaded with its area while its part is revealed. */
const part = (order: number, number: number, from: string, to: string): Entry =>
  makeEntry('integral', { order, on: 'inflow', from, to, shownWhen: `part_${number}` });

const reveal = (order: number, name: string, title: string): Entry =>
  makeEntry('reveal', { order, name, title });

/** A tank is filled and emptied at rates that go from straight line to straight line: its content, part by part. */
export function tankDemonstration(): Document {
  return {
    ...emptyDocument('The tank’s running total'),
    x: { from: 0, to: 12 },
    startX: { from: 0, to: 12 },
    xTyped: true,
    xTicks: 1,
    decimals: 2,
    xUnit: 'min',
    xTitle: 'time',
    entries: {
      note: opening(
        'Water runs into the tank of the field station and out of it; the rate goes from one straight line to the next. At first the tank is empty. Reveal the parts one after another and add up their triangles and rectangles by hand, those under the axis with a minus sign. Then show the total so far: it has to agree after each of them.',
      ),
      inflow: makeEntry('throughPoints', {
        order: 1,
        name: 'r',
        variable: 't',
        points: '(0, 0), (2, 4), (5, 4), (9, -4), (12, 2)',
        start: '(0, 0), (2, 4), (5, 4), (9, -4), (12, 2)',
        shape: 'broken',
        tier: 'tier-f',
        unit: 'L/min',
      }),
      a: makeEntry('parameter', {
        order: 2,
        name: 'a',
        value: '7',
        from: '0',
        to: '12',
        step: '0.01',
        seconds: '12',
        repeat: 'once',
        unit: 'min',
        shownWhen: 'total',
      }),
      content: makeEntry('runningTotal', {
        order: 3,
        on: 'inflow',
        from: '0',
        parameter: 'a',
        name: 'V',
        tier: 'tier-total',
        shownWhen: 'total',
      }),
      part1: reveal(4, 'part_1', 'From 0 to 2'),
      part2: reveal(5, 'part_2', 'From 2 to 5'),
      part3: reveal(6, 'part_3', 'From 5 to 7'),
      part4: reveal(7, 'part_4', 'From 7 to 9'),
      part5: reveal(7.2, 'part_5', 'From 9 to 11'),
      part6: reveal(7.4, 'part_6', 'From 11 to 12'),
      total: reveal(7.6, 'total', 'The total so far'),
      bends: reveal(8, 'bends', 'Where does it bend?'),
      first: part(9, 1, '0', '2'),
      second: part(10, 2, '2', '5'),
      third: part(11, 3, '5', '7'),
      fourth: part(12, 4, '7', '9'),
      fifth: part(12.2, 5, '9', '11'),
      sixth: part(12.4, 6, '11', '12'),
      turn: makeEntry('note', {
        order: 13,
        text: 'After 7 minutes the rate is 0: the tank holds {V(7)} litres, more than ever before or after. Then more runs out than in, and the total falls until the rate is 0 again, at 11 minutes with {V(11)} litres. After that it rises to {V(12)} litres at the end.',
        shownWhen: 'total',
      }),
      strip: makeEntry('signStrip', {
        order: 14,
        on: 'inflow',
        from: '0',
        to: '12',
        degree: 1,
        under: 'tier-total',
        shownWhen: 'total and bends',
      }),
      bend: makeEntry('note', {
        order: 15,
        text: 'The slope of V is the rate r. Where r falls, from 5 to 9 minutes, V bends down, first while it still grows and then while it shrinks. Where r rises, V bends up; where r stays the same, V is straight.',
        shownWhen: 'bends',
      }),
    },
    tiers: {
      'tier-f': newTier(1, { from: -5, to: 5 }),
      'tier-total': newTier(2, { from: -1, to: 22 }),
    },
  };
}
