import {
  emptyDocument,
  makeEntry,
  newTier,
  usualLook,
  type Document,
  type Entry,
  type Look,
  type Step,
} from '@yperkine/demonstration';
import { opening } from './slope.ts';

const profile =
  'h(x) = 40 + 10x^2 if 0 <= x < 2; 80 + 40(x - 2) if 2 <= x < 3; ' +
  '60 + 60(x - 4)^2 if 3 <= x < 5; 120 + 120(x - 5) - 30(x - 5)^2 if 5 <= x <= 7';

const look = (part: Partial<Look>): Look => ({ ...usualLook, ...part });

/** A place where two pieces of the path meet, with a word on how they do. */
const join = (order: number, x: string, text: string): Entry =>
  makeEntry('marker', {
    order,
    x,
    y: `h(${x})`,
    tier: 'tier-f',
    look: look({ point: 'diamond', size: 7, tone: 'ink', label: 'text', text }),
  });

const reveal = (order: number, number: number, title: string): Entry =>
  makeEntry('reveal', { order, name: `question_${number}`, title });

/** A part of the working that a reveal shows. */
const part = (order: number, title: string, shownWhen: string): Entry =>
  makeEntry('heading', { order, title, shownWhen });

/** A step of the lesson with the reveals that are on; what it does not set stays as it is. */
const step = (
  order: number,
  title: string,
  [question1, question2, question3]: readonly [boolean, boolean, boolean],
  set: Partial<Step> = {},
): Step => ({
  order,
  title,
  values: null,
  reveals: { question1, question2, question3 },
  windows: null,
  clearsTrails: false,
  ...set,
});

const wholePath = { x: { from: 0, to: 7 }, y: { 'tier-f': { from: 0, to: 260 } } };
const hollow = { x: { from: 2.5, to: 5.5 }, y: { 'tier-f': { from: 40, to: 180 } } };

const jointNote = [
  'Three joins. At 2 km the slope is 40 m a km on either side: the path goes on smoothly.',
  'At 3 km it rises by 40 on the left and falls by 120 on the right: a corner, the crag. There is no slope there.',
  'At 5 km both sides rise by 120: smooth again.',
].join('\n');

/** A walker on a path in pieces: motion, a slope tier, joins, and three questions that are revealed one by one. */
export function cragHollowDemonstration(): Document {
  return {
    ...emptyDocument('The path over Crag Hollow'),
    x: { from: 0, to: 7 },
    startX: { from: 0, to: 7 },
    xTyped: true,
    decimals: 1,
    xUnit: 'km',
    xTitle: 'way from the hut',
    entries: {
      note: opening(
        'A walker leaves the hut and goes over the crag, through the hollow and up to the ridge. Press play in the deck and say aloud when the path gets steeper. Then take the three questions, one step at a time: the switches show them as well.',
      ),
      path: makeEntry('function', { order: 1, text: profile, tier: 'tier-f', unit: 'm' }),
      w: makeEntry('parameter', {
        order: 2,
        name: 'w',
        value: '0.6',
        from: '0',
        to: '7',
        step: '0.01',
        pace: 'speed',
        speed: '0.5',
        repeat: 'once',
        unit: 'km',
      }),
      walker: makeEntry('marker', {
        order: 3,
        x: 'w',
        y: 'h(w)',
        tier: 'tier-f',
        look: look({ size: 9 }),
      }),
      steps: makeEntry('trail', { order: 4, of: 'walker', place: 'marker', drawn: 'dots', limit: 300 }),
      title: makeEntry('note', {
        order: 5,
        text: 'The path over Crag Hollow',
        size: 'large',
        standing: { at: 'screen', x: 0.14, y: 0.09 },
      }),
      height: makeEntry('readout', {
        order: 6,
        text: 'h(w)',
        title: 'height in m',
        keeps: false,
        size: 'large',
        standing: { at: 'screen', x: 0.14, y: 0.2 },
      }),
      inHollow: makeEntry('note', {
        order: 7,
        text: 'Down in the hollow: {120 - h(w)} m under the crag.',
        shownWhen: '3 < w < 5',
        look: look({ tone: 'f1' }),
        standing: { at: 'graph', tier: 'tier-f', x: 3.05, y: 225 },
      }),
      question1: reveal(8, 1, 'How steep?'),
      question2: reveal(9, 2, 'Where smooth?'),
      question3: reveal(10, 3, 'How deep?'),
      steep: part(11, 'How steep is the path?', 'question1'),
      slope: makeEntry('derivative', {
        order: 12,
        of: 'path',
        tier: 'tier-slope',
        look: look({ line: 'dotted', weight: 3 }),
      }),
      slopeMarker: makeEntry('marker', { order: 13, x: 'w', y: "h'(w)", tier: 'tier-slope' }),
      slopeNumber: makeEntry('readout', {
        order: 13.5,
        text: "h'(w)",
        title: 'slope in m a km',
        keeps: false,
        look: look({ tone: 'f1' }),
        standing: { at: 'graph', tier: 'tier-slope', x: 0.25, y: 132 },
      }),
      slopeNote: makeEntry('note', {
        order: 14,
        text: "Under the walker the path changes by {h'(w)} m a km. Its slope $h'(x)$ has its own tier: above zero the walker climbs, below zero she goes down.",
      }),
      smooth: part(15, 'Where are the joins smooth?', 'question2'),
      first: join(16, '2', 'smooth'),
      second: join(17, '3', 'corner'),
      third: join(18, '5', 'smooth'),
      joinNote: makeEntry('note', { order: 19, text: jointNote }),
      deep: part(20, 'How deep is the hollow?', 'question3'),
      level: makeEntry('slopeEquals', { order: 21, on: 'path', level: '0', from: '0', to: '7' }),
      deepNote: makeEntry('note', {
        order: 22,
        text: "At the bottom the path is level: $h'(4) = 0$, at {h(4)} m. That is {h(3) - h(4)} m under the crag. The ridge at the end is level, too, and the corner at 3 km is a high point without any slope.",
      }),
    },
    tiers: {
      'tier-f': newTier(1, { from: 0, to: 260 }),
      'tier-slope': newTier(2, { from: -140, to: 140 }),
    },
    steps: {
      walk: step(1, 'The walk', [false, false, false], {
        values: { w: '0.6' },
        windows: wholePath,
        clearsTrails: true,
      }),
      steep: step(2, 'How steep?', [true, false, false]),
      smooth: step(3, 'Where smooth?', [true, true, false]),
      deep: step(4, 'How deep?', [false, false, true], {
        values: { w: '4' },
        windows: hollow,
        clearsTrails: true,
      }),
    },
  };
}
