import type { Id } from '../fields/fields.ts';
import type { PointShape } from '../fields/look.ts';
import type { Tone } from '../fields/tone.ts';

/** How a point is drawn, where its kind does not say. */
interface PointLook {
  readonly shape?: PointShape;
  /** Its radius in pixels. */
  readonly size?: number;
}

/** A stretch of one sign, with what that means in a word and in a sentence. */
export interface StripPart {
  readonly x0: number;
  readonly x1: number;
  /** Null where it is not 0, and which sign it has is not told. */
  readonly sign: -1 | 0 | 1 | null;
  readonly word: string;
  readonly sentence: string;
}

/** The slant of the lines that fill an area. */
export type Hatch = 'up' | 'down' | 'none';

/** Something to draw, in pixels of the scene and in colour roles; it knows nothing of canvases. */
export type Mark =
  | {
      readonly kind: 'curve';
      readonly entry: Id;
      /** Joined runs as x₀ y₀ x₁ y₁ …; between two runs nothing is drawn. */
      readonly runs: readonly Float64Array[];
      readonly tone: Tone;
      readonly dash: readonly number[];
      readonly weight: number;
      /** It waits for a better one, and is drawn so that this is seen. */
      readonly isOld?: boolean;
      /** It stands beside the curve of its entry: a click on it means no place of that one. */
      readonly isAside?: boolean;
    }
  | {
      readonly kind: 'line';
      readonly entry: Id;
      readonly x0: number;
      readonly y0: number;
      readonly x1: number;
      readonly y1: number;
      readonly tone: Tone;
      readonly weight: number;
      readonly dash: readonly number[];
    }
  | { readonly kind: 'polygon'; readonly entry: Id; readonly points: readonly number[]; readonly tone: Tone }
  /** A point that is dragged by its parameter. */
  | (PointLook & {
      readonly kind: 'point';
      readonly entry: Id;
      readonly x: number;
      readonly y: number;
      readonly tone: Tone;
      readonly parameter: Id;
      /** Where x stands when the parameter is 0, for a parameter that is a step from there; 0 unless given. */
      readonly offset?: number;
      /** −1 where x moves against the parameter. */
      readonly sign?: number;
    })
  /** A point that a function goes through: dragged in both directions. */
  | (PointLook & {
      readonly kind: 'vertex';
      readonly entry: Id;
      readonly index: number;
      readonly x: number;
      readonly y: number;
      readonly tone: Tone;
    })
  /** A round magnifier over a corner of the tier, with what is seen in it. */
  | {
      readonly kind: 'lens';
      readonly entry: Id;
      readonly x: number;
      readonly y: number;
      readonly radius: number;
      /** The place that is magnified. */
      readonly source: { readonly x: number; readonly y: number };
      readonly text: string;
      readonly tone: Tone;
      readonly marks: readonly Mark[];
    }
  /** A place on a curve that is read, not dragged. */
  | (PointLook & {
      readonly kind: 'dot';
      /** The entry that it stands for, where it is more than a reading. */
      readonly entry?: Id;
      readonly x: number;
      readonly y: number;
      readonly tone: Tone;
    })
  /** The line that a moving point has left: it is no curve of a function and cannot be picked. */
  | {
      readonly kind: 'track';
      readonly entry: Id;
      readonly runs: readonly Float64Array[];
      readonly tone: Tone;
      readonly dash: readonly number[];
      readonly weight: number;
    }
  /** Measured places, as x₀ y₀ x₁ y₁ …; small, since there are many. */
  | (PointLook & { readonly kind: 'dots'; readonly points: readonly number[]; readonly tone: Tone })
  /** An interval along the bottom of a tier, whose ends can be dragged. */
  | {
      readonly kind: 'span';
      readonly entry: Id;
      readonly x0: number;
      readonly x1: number;
      readonly y: number;
      readonly tone: Tone;
    }
  /** A row of signs under a tier; the scene finds its height. */
  | {
      readonly kind: 'strip';
      readonly entry: Id;
      readonly tone: Tone;
      /** What has these signs. */
      readonly title: string;
      readonly top: number;
      readonly parts: readonly StripPart[];
      /** Pixels at which neighbouring parts meet: at a zero, or where there is no value. */
      readonly meetings: readonly { readonly x: number; readonly isZero: boolean }[];
    }
  /** Rectangles on a base line, hatched by the side on which they lie, so that sign is not told by colour alone. */
  | {
      readonly kind: 'bars';
      readonly entry: Id;
      /** x₀ x₁ y of each rectangle. */
      readonly bars: Float64Array;
      readonly base: number;
      readonly tone: Tone;
      readonly hatch: Hatch;
      /** Whether only its outline is drawn, so that what lies under it stays as it is. */
      readonly isOutline?: boolean;
      /** Whether each rectangle has its outline: thousands of them are one area. */
      readonly hasEdges: boolean;
      readonly dash: readonly number[];
    }
  /** Areas as closed outlines x₀ y₀ x₁ y₁ …, hatched. */
  | {
      readonly kind: 'area';
      readonly entry: Id;
      readonly outlines: readonly Float64Array[];
      readonly tone: Tone;
      readonly hatch: Hatch;
      /** Whether only its outline is drawn, so that what lies under it stays as it is. */
      readonly isOutline?: boolean;
      readonly hasEdges: boolean;
      readonly dash: readonly number[];
    }
  /** An end between two parts of a partition, which can be dragged along the base line. */
  | {
      readonly kind: 'cut';
      readonly entry: Id;
      readonly index: number;
      readonly x: number;
      readonly y: number;
      readonly tone: Tone;
    }
  /** A height that can be dragged up and down. */
  | {
      readonly kind: 'level';
      readonly entry: Id;
      readonly x: number;
      readonly y: number;
      readonly tone: Tone;
    }
  /** A text in a box of its own near a place; the scene finds where it covers nothing. */
  | {
      readonly kind: 'label';
      readonly x: number;
      readonly y: number;
      readonly tone: Tone;
      readonly text: string;
      /** One of many that a list tells as well: it is left out where there is no room for it. */
      readonly isSpare?: boolean;
    }
  /** A small text without a box at exactly this place. */
  | {
      readonly kind: 'note';
      readonly x: number;
      readonly y: number;
      readonly tone: Tone;
      readonly text: string;
      readonly anchor: 'start' | 'middle' | 'end';
    };

export type MarkOf<K extends Mark['kind']> = Extract<Mark, { kind: K }>;
