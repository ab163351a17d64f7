import {
  titlePixels,
  type Frame,
  type KeyLine,
  type Looks,
  type Scene,
  type TierTitle,
  type TypeLook,
} from '@yperkine/demonstration';
import clsx from 'clsx';
import { Prose } from '../../parts/Prose.tsx';
import { Typeset } from '../../parts/Typeset.tsx';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';
import { cssColour } from '../../theme/colour.ts';

/** Titles and keys over the canvas; they change only when a tier or a line comes, goes or is named anew. */
export interface Furniture {
  readonly look: TypeLook;
  readonly corner: Looks['key'];
  readonly tiers: readonly {
    readonly id: string;
    readonly frame: Frame;
    readonly title: TierTitle | null;
    readonly key: readonly KeyLine[];
  }[];
  /** The title of the x-axis, and the middle of the place under it. */
  readonly xTitle: { readonly text: string; readonly middle: number };
}

export function furnitureOf(scene: Scene): Furniture {
  const [first] = scene.tiers;
  const width = first?.view.frame.width ?? 0;
  const left = first?.view.frame.left ?? 0;
  return {
    look: scene.looks.titles,
    corner: scene.looks.key,
    tiers: scene.tiers.map(({ id, view: { frame }, title, key }) => ({
      id,
      frame: { ...frame, top: Math.round(frame.top) },
      title,
      key,
    })),
    xTitle: { text: scene.xTitle, middle: left + width / 2 },
  };
}

/** Mathematics is set a little larger than the words beside it. */
const mathematicsGrowth = 18 / titlePixels.medium;

export function TierFurniture({ furniture: { look, corner, tiers, xTitle } }: { furniture: Furniture }) {
  const size = titlePixels[look.size];
  const face = look.face === 'mathematics' && 'font-mathematics';
  return (
    <>
      {tiers.map(({ id, frame: { top, left }, title }) =>
        title ? (
          <div
            key={id}
            className={clsx('pointer-events-none absolute flex items-baseline gap-2.5', face)}
            style={{ bottom: `calc(100% - ${top - 4}px)`, left }}
          >
            {title.names.map(({ latex, tone }) => (
              <span
                key={latex}
                style={{ color: cssColour(tone), fontSize: size * mathematicsGrowth, lineHeight: 1.2 }}
              >
                <Typeset latex={latex} />
              </span>
            ))}
            <span className="text-quiet" style={{ fontSize: size, lineHeight: 1.2 }}>
              <Prose text={title.words} />
            </span>
          </div>
        ) : null,
      )}
      {tiers.map(({ id, frame, key }) => (
        <Key key={id} lines={key} frame={frame} corner={corner} />
      ))}
      {xTitle.text !== '' && (
        <div
          className={clsx('pointer-events-none absolute bottom-0.5 -translate-x-1/2 whitespace-nowrap', face)}
          style={{ left: xTitle.middle, fontSize: size, lineHeight: 1.3 }}
        >
          <Prose text={xTitle.text} />
        </div>
      )}
    </>
  );
}

interface KeyProps {
  readonly lines: readonly KeyLine[];
  readonly frame: Frame;
  readonly corner: Looks['key'];
}

/** Places of a box in the corner of a frame, by its own left upper corner and a shift by its own size. */
const corners = {
  none: [0, 0],
  topLeft: [0, 0],
  topRight: [1, 0],
  bottomLeft: [0, 1],
  bottomRight: [1, 1],
} as const;
const keyMargin = 8;

/** Which line is which; pointing at one makes the line stand out. */
function Key({ lines, frame, corner }: KeyProps) {
  const workbench = useWorkbench();
  const emphasis = useWorkbenchState((state) => state.emphasis);
  if (lines.length === 0) return null;
  const [across, down] = corners[corner];
  return (
    <ul
      aria-label="Key"
      data-over-graph
      className="absolute rounded-lg border border-rule bg-sheet/92 px-2.5 py-1 text-sm"
      style={{
        left: frame.left + (across ? frame.width - keyMargin : keyMargin),
        top: frame.top + (down ? frame.height - keyMargin : keyMargin),
        transform: `translate(${-100 * across}%, ${-100 * down}%)`,
      }}
    >
      {lines.map(({ entry, tone, dash, latex, words }) => (
        <li
          key={entry}
          onPointerEnter={() => workbench.emphasise(entry)}
          onPointerLeave={() => workbench.emphasise(null)}
          className={clsx('flex items-center gap-2 py-0.5', emphasis === entry && 'font-semibold')}
        >
          <svg width={26} height={8} aria-hidden>
            <line
              x1={0}
              y1={4}
              x2={26}
              y2={4}
              stroke={cssColour(tone)}
              strokeWidth={2.5}
              strokeDasharray={dash.join(' ')}
            />
          </svg>
          {latex === null ? words : <Typeset latex={latex} />}
        </li>
      ))}
    </ul>
  );
}
