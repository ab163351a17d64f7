import type { Expression, Functions, KnownNumber, Program, Rational, Tangent } from '@yperkine/core';
import type { Id } from '../schema/document.ts';
import type { Line } from '../numbers/line.ts';
import type { SliderScale } from '../stage/slider.ts';

/** A function of one variable that can be drawn: a given one or a derivative. */
export interface CurveResult {
  /** How it is called: f, and for a derivative its order. */
  readonly name: string;
  readonly order: number;
  readonly variable: string;
  readonly body: Expression;
  readonly program: Program;
  /** Defined functions that the body mentions, itself included. */
  readonly functions: Functions;
  /** Values in the order of `program.parameters`. */
  readonly parameters: readonly number[];
  readonly exactParameters: ReadonlyMap<string, Rational>;
  readonly latex: string;
  readonly lines: readonly Line[];
  /** Tiers that the curve is drawn in. */
  readonly tier: Id;
}

export interface ParameterResult {
  readonly name: string;
  readonly value: KnownNumber;
  /** The value as it is shown: the digits of a setting, or a rounded number while it moves. */
  readonly text: string;
  readonly scale: SliderScale;
}

export interface PointResult {
  readonly curve: CurveResult;
  readonly at: ParameterResult;
  readonly y: KnownNumber;
  readonly lines: readonly Line[];
  readonly sentence: string;
}

export interface TangentResult {
  readonly curve: CurveResult;
  readonly at: ParameterResult;
  readonly tangent: Tangent;
  readonly lines: readonly Line[];
  readonly sentence: string;
  /** Slope as it is written beside the triangle. */
  readonly slopeText: string;
}

export interface Results {
  readonly function: CurveResult;
  readonly parameter: ParameterResult;
  readonly point: PointResult;
  readonly tangent: TangentResult;
  readonly derivative: CurveResult;
}
