import type { Expression } from '../language/tree.ts';

/** What is claimed of a part of the axis: of the derivative of one order, how many zeros it has inside. */
export interface Claim {
  readonly order: number;
  readonly from: number;
  readonly to: number;
  /** 'all' where it is 0 throughout, 'nowhere' where the function is not defined. */
  readonly zeros: 0 | 1 | 'all' | 'nowhere';
  /** The number at which the zero is, or the end to which it comes, where a formula for it is known. */
  readonly at?: Expression;
}

/** How a claim was shown. */
export type Shown =
  /** The values lie between two numbers on one side of 0. */
  | { readonly by: 'bounds'; readonly low: number; readonly high: number }
  /** What stands above the fraction line keeps its sign, poles or not. */
  | { readonly by: 'numerator' }
  /** It only rises or only falls, and its values at the ends tell the rest. */
  | { readonly by: 'slope'; readonly rises: boolean }
  /** It is a polynomial, or a quotient of two, whose zeros are counted. */
  | { readonly by: 'count' }
  /** Its factors are looked at one by one. */
  | { readonly by: 'factors' }
  /** At one number it is 0 with all its derivatives below one that is 0 nowhere on the part. */
  | { readonly by: 'multiplicity'; readonly multiplicity: number }
  /** Written out it is 0. */
  | { readonly by: 'identity' }
  | { readonly by: 'domain' };

/** A certificate: a function, an interval, and claims about parts that cover it. */
export interface Certificate {
  readonly body: Expression;
  readonly variable: string;
  readonly from: number;
  readonly to: number;
  /** Orders of the derivatives that are covered. */
  readonly orders: readonly number[];
  /** Ends of the interval and places that are looked at by themselves, each between two doubles. */
  readonly joints: readonly {
    readonly low: number;
    readonly high: number;
    /** The number itself, where a formula for it is known. */
    readonly at?: Expression;
  }[];
  readonly claims: readonly Claim[];
}

/** A point of the list that a certificate belongs to. */
export interface Listed {
  readonly kind: string;
  readonly x: number;
  /** The height, or of holes and open ends what it comes to. */
  readonly y?: number | null;
  /** What it comes to from either side. */
  readonly sides?: {
    readonly left: { readonly value: number } | null;
    readonly right: { readonly value: number } | null;
  };
}

export interface Checked {
  /** Whether every claim was shown, they cover the interval, and the list says what follows from them. */
  readonly isAccepted: boolean;
  /** How each claim was shown; null for one that was not. */
  readonly shown: readonly (Shown | null)[];
  /** The sign of each part without a zero; 0 where it is not known. */
  readonly signs: readonly (-1 | 0 | 1)[];
  /** Parts that no claim covers. */
  readonly gaps: readonly { readonly order: number; readonly from: number; readonly to: number }[];
  /** Claims that the list does not follow. */
  readonly contradicted: readonly Claim[];
  /** Joints of which the list says what is not so. */
  readonly contradictedJoints: Certificate['joints'];
}

/** A stretch of the axis, and the sign that a function is said to have on it; 0 where it is said to be 0 throughout. */
export interface SignedStretch {
  readonly from: number;
  readonly to: number;
  readonly sign: -1 | 0 | 1;
}

/** Where an equation is said to hold: at single numbers, and throughout stretches. */
export interface ListedSolutions {
  readonly at: readonly number[];
  readonly everywhere: readonly { readonly from: number; readonly to: number }[];
}
