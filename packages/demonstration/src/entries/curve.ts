import type { Expression, Functions, Plotted, Program, Range, Rational } from '@yperkine/core';
import type { Unit } from '../units/unit.ts';
import type { Id } from '../fields/fields.ts';
import type { Said } from './study.ts';

/** What the choice of a window looks at. */
export const plottedOf = (curve: CurveResult, x: Range): Plotted => curve.standIn?.(x) ?? curve;

/** A function of one variable that can be drawn: a given one or a derivative. */
export interface CurveResult {
  /** How it is called: f, and for a derivative its order. */
  readonly name: string;
  readonly order: number;
  /** The family of colours that it and everything derived from it wears. */
  readonly family: number;
  readonly variable: string;
  readonly body: Expression;
  readonly program: Program;
  /** Defined functions that the body mentions, itself included. */
  readonly functions: Functions;
  /** The unit of its heights. */
  readonly unit: Unit;
  /** Values in the order of `program.parameters`. */
  readonly parameters: readonly number[];
  readonly exactParameters: ReadonlyMap<string, Rational>;
  readonly latex: string;
  /** A stand-in over a window that is cheaper to look at, for a curve whose every value takes an integral. */
  readonly standIn?: (x: Range) => Plotted | null;
  /** How it is called over its tier, as LaTeX, where that is not its name and variable. */
  readonly title?: string;
  /** Tiers that the curve is drawn in. */
  readonly tier: Id;
}

/** A curve that says what it is: no number in it waits for how numbers are written. */
export interface StatedCurve extends CurveResult, Said {}

/** What such a curve says. */
export const asStated = ({ lines, sentence }: StatedCurve): Said => ({ lines, sentence });

/** A name with its primes: f, f′, f″, f⁽⁴⁾. */
export const primed = (name: string, order: number): string =>
  name +
  (['', '′', '″', '‴'][order] ??
    `⁽${[...String(order)].map((digit) => '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(digit)]).join('')}⁾`);
