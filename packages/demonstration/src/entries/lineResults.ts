import type { Tangent } from '@yperkine/core';
import { per, type Unit } from '../units/unit.ts';
import type { CurveResult } from './curve.ts';
import type { NameableResult } from './kind.ts';

/** Slope and intercept of a line at a curve as results that can be named; of a vertical line there is neither. */
export const lineResults = (line: Tangent, { unit }: CurveResult, xUnit: Unit): NameableResult[] =>
  line.kind === 'line'
    ? [
        { key: 'slope', label: 'slope', number: line.slope, unit: per(unit, xUnit) },
        { key: 'intercept', label: 'intercept', number: line.intercept, unit },
      ]
    : [];
