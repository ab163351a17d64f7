import { builtIn } from '../functions/table.ts';
import * as jet from './jet.ts';
import type { Jet } from './jet.ts';
import type { Program, Step } from './program.ts';

/**
 * The Taylor coefficients of f at x up to the given order (f⁽ᵏ⁾(x)/k! at index k), by automatic
 * differentiation: exact up to rounding, never by small differences.
 */
export function taylorCoefficients(
  program: Program,
  x: number,
  order: number,
  parameters: readonly number[] = [],
): Jet {
  const length = order + 1;
  const jets: Jet[] = [];
  const of = (index: number): Jet => jets[index] as Jet;
  for (const step of program.steps) jets.push(stepJet(step, of, x, length, parameters));
  return jets.at(-1) as Jet;
}

/** f(x), f′(x), f″(x), … up to the given order. */
export function derivativesAt(
  program: Program,
  x: number,
  order: number,
  parameters: readonly number[] = [],
): number[] {
  let factorial = 1;
  return [...taylorCoefficients(program, x, order, parameters)].map((coefficient, k) => {
    factorial *= Math.max(1, k);
    return coefficient * factorial;
  });
}

function stepJet(
  step: Step,
  of: (index: number) => Jet,
  x: number,
  length: number,
  parameters: readonly number[],
): Jet {
  switch (step.op) {
    case 'constant':
      return jet.constantJet(step.value, length);
    case 'variable':
      return jet.variableJet(x, length);
    case 'parameter':
      return jet.constantJet(parameters[step.index] ?? NaN, length);
    case 'negate':
      return jet.negate(of(step.a));
    case 'add':
      return jet.add(of(step.a), of(step.b));
    case 'subtract':
      return jet.subtract(of(step.a), of(step.b));
    case 'multiply':
      return jet.multiply(of(step.a), of(step.b));
    case 'divide':
      return jet.divide(of(step.a), of(step.b));
    case 'power':
      return generalPower(of(step.a), of(step.b));
    case 'integerPower':
      return jet.integerPower(of(step.a), step.n);
    case 'rationalPower':
      return jet.rationalPower(of(step.a), step.p, step.q);
    case 'call':
      return builtIn(step.name).jet(...step.operands.map(of));
    case 'guard':
      return Number.isNaN(of(step.b)[0]) ? jet.constantJet(NaN, length).fill(NaN) : of(step.a);
  }
}

/** u^v = e^(v ln u) for a positive base; a constant exponent also works for other bases where it has a value. */
function generalPower(u: Jet, v: Jet): Jet {
  const exponent = v[0] as number;
  const isConstant = v.every((c, k) => k === 0 || c === 0);
  if (isConstant && Number.isInteger(exponent) && Math.abs(exponent) <= 10_000) {
    return jet.integerPower(u, exponent);
  }
  return jet.exp(jet.multiply(v, jet.ln(u)));
}
