import type { Migration } from './migration.ts';
import { each, type Stored } from './toVersion3.ts';

const usualLook = {
  tone: null,
  line: null,
  weight: null,
  point: null,
  size: null,
  label: null,
  text: '',
  layer: 0,
};

/** What version 4 added to the entries of version 3: a start to come back to, motion by steps, what students may move. */
function added({ kind, value, points }: Stored): Stored {
  switch (kind) {
    case 'parameter':
      return { start: value, pace: 'seconds', speed: '1', motion: 'smooth', pause: '1', students: 'move' };
    case 'throughPoints':
      return { start: points };
    default:
      return {};
  }
}

/** From version 3: every entry has a look and a condition; what stood there is the start. */
export const toVersion4: Migration = (document) => ({
  ...document,
  startX: document.x,
  looks: {
    backdrop: 'viewer',
    grid: true,
    axes: true,
    numbers: true,
    piScale: false,
    sameScale: false,
    key: 'none',
    decimalMark: '.',
    titles: { face: 'plain', size: 'medium' },
    tickNumbers: { face: 'plain', size: 'medium' },
  },
  tiers: each(document.tiers, ({ y }) => ({ startY: y })),
  entries: each(document.entries, (entry) => ({ shownWhen: '', look: usualLook, ...added(entry) })),
});
