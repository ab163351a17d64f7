import { spend } from '../budget/effort.ts';
import { builtIn } from '../functions/table.ts';
import * as jet from '../numbers/jet.ts';
import type { Jet } from '../numbers/jet.ts';
import { isRelated } from '../algebra/exact.ts';
import type { NestedStep, Program, Step } from '../evaluate/program.ts';
import { integralOf } from '../evaluate/quadrature.ts';
import { indices } from '../evaluate/summation.ts';
import { and, choose, compare, nestedValue, or } from './values.ts';
import type { Relation, Side } from '../language/tree.ts';

/**
 * The Taylor coefficients of f at x up to the given order (f⁽ᵏ⁾(x)/k! at index k), by automatic
 * differentiation: exact up to rounding, never by small differences.
 *
 * From one side, the first coefficient is the limit from that side. From both, coefficients that differ
 * on the two sides are NaN, and so are all where f jumps.
 */
export function taylorCoefficients(
  program: Program,
  x: number,
  order: number,
  parameters: readonly number[] = [],
  side: Side = 'both',
): Jet {
  const along = (length: number, beside: Beside): Jet =>
    runJets(
      program,
      jet.variableJet(x, length),
      parameters.map((value) => jet.constantJet(value, length)),
      beside,
    );
  if (side !== 'both') return oneSided(along, order, side === 'left' ? -1 : 1);
  const direct = along(order + 1, 0);
  const isCorner = Number.isFinite(direct[0]) && direct.some(Number.isNaN);
  return isCorner ? merged(direct, oneSided(along, order, -1), oneSided(along, order, 1)) : direct;
}

/**
 * Whether f has a slope at x by the rules of differentiation alone: where pieces meet, both sides may seem to agree by
 * their digits only.
 */
export function hasPlainSlope(program: Program, x: number, parameters: readonly number[] = []): boolean {
  const constants = parameters.map((value) => jet.constantJet(value, 2));
  return !runJets(program, jet.variableJet(x, 2), constants, 0).some(Number.isNaN);
}

type Beside = -1 | 0 | 1;
/** Coefficients that a root of a square may use up. */
const spare = 6;

function oneSided(along: (length: number, beside: Beside) => Jet, order: number, side: 1 | -1): Jet {
  const plain = along(order + 1, side);
  return plain.some(Number.isNaN) ? along(order + 1 + spare, side).subarray(0, order + 1) : plain;
}

/** Two methods that are both right differ by no more than this, relative to their size. */
const agreement = 1e-11;

function merged(direct: Jet, left: Jet, right: Jet): Jet {
  const agrees = (a: number, b: number): boolean =>
    a === b ||
    (Number.isFinite(a - b) && Math.abs(a - b) <= agreement * Math.max(1, Math.abs(a), Math.abs(b)));
  const value = direct[0] as number;
  // At the end of the domain only an infinite slope is told by one side alone.
  if (Number.isNaN(left[0]) !== Number.isNaN(right[0])) return direct;
  const isContinuous = agrees(value, left[0] as number) && agrees(value, right[0] as number);
  let goesOn = isContinuous;
  return direct.map((_, k) => {
    if (k === 0) return value;
    goesOn &&= agrees(left[k] as number, right[k] as number);
    return goesOn ? (right[k] as number) : NaN;
  });
}

/** A coefficient of a step's jet beside its value at a point. */
const jetCost = 8;

/** The jets of f where its variable and parameters move along given jets. */
function runJets(program: Program, x: Jet, parameters: readonly Jet[], beside: Beside): Jet {
  spend(jetCost * x.length * program.steps.length);
  const jets: Jet[] = [];
  const of = (index: number): Jet => jets[index] as Jet;
  for (const step of program.steps) jets.push(stepJet(step, of, x, parameters, beside));
  const result = jets.at(-1) as Jet;
  return Number.isNaN(result[0]) ? new Float64Array(x.length).fill(NaN) : result;
}

/** f(x), f′(x), f″(x), … up to the given order. */
export function derivativesAt(
  program: Program,
  x: number,
  order: number,
  parameters: readonly number[] = [],
  side: Side = 'both',
): number[] {
  let factorial = 1;
  return [...taylorCoefficients(program, x, order, parameters, side)].map((coefficient, k) => {
    factorial *= Math.max(1, k);
    return coefficient * factorial;
  });
}

function stepJet(
  step: Step,
  of: (index: number) => Jet,
  x: Jet,
  parameters: readonly Jet[],
  beside: Beside,
): Jet {
  const { length } = x;
  switch (step.op) {
    case 'constant':
      return jet.constantJet(step.value, length);
    case 'variable':
      return x;
    case 'parameter':
      return parameters[step.index] ?? jet.constantJet(NaN, length);
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
      return beside !== 0 && of(step.a)[0] === 0
        ? jet.rationalPowerBeside(of(step.a), step.p, step.q, beside)
        : jet.rationalPower(of(step.a), step.p, step.q);
    case 'call':
      return called(step.name, step.operands.map(of), beside);
    case 'spline':
      return step.spline.jet(of(step.a), beside);
    case 'guard':
      return Number.isNaN(of(step.b)[0]) ? new Float64Array(length).fill(NaN) : of(step.a);
    case 'compare':
      return compared(step.relation, of(step.a), of(step.b), beside);
    case 'and':
      return truthJet(and(first(of(step.a)), first(of(step.b))), [of(step.a), of(step.b)], 0);
    case 'or':
      return truthJet(or(first(of(step.a)), first(of(step.b))), [of(step.a), of(step.b)], 1);
    case 'not':
      return of(step.a).map((c, k) => (k === 0 ? 1 - c : c));
    case 'choose': {
      const truth = of(step.truth);
      const chosen = choose(first(truth), 1, 0);
      if (Number.isNaN(chosen)) return new Float64Array(length).fill(NaN);
      const value = of(chosen === 1 ? step.a : step.b);
      return isBoundary(truth) ? value.map((c, k) => (k === 0 ? c : NaN)) : value;
    }
    case 'sum':
      return sum(step, of, length, beside);
    case 'integral':
      return integral(step, of, length);
    case 'limit':
      return limit(step, of, length);
  }
}

const first = (u: Jet): number => u[0] as number;
/** A truth that changes at the point carries NaN behind its value. */
const isBoundary = (truth: Jet): boolean => truth.length > 1 && Number.isNaN(truth[1]);

function called(name: string, operands: readonly Jet[], beside: Beside): Jet {
  const row = builtIn(name);
  const plain = row.jet(...operands);
  const isOpen = beside !== 0 && row.jetBeside && (plain.some(Number.isNaN) || name === 'sqrt');
  return isOpen && row.jetBeside ? row.jetBeside(beside, ...operands) : plain;
}

function compared(relation: Relation, a: Jet, b: Jet, beside: Beside): Jet {
  const difference = jet.subtract(a, b);
  const truth = compare(relation, first(a), first(b));
  const isMoving = first(difference) === 0 && difference.some((c) => c !== 0);
  if (!isMoving) return jet.constantJet(truth, a.length);
  if (beside !== 0) {
    return jet.constantJet(isRelated(jet.signBeside(difference, beside), relation) ? 1 : 0, a.length);
  }
  return jet.constantJet(truth, a.length).map((c, k) => (k === 0 ? c : NaN));
}

/** The truth of a junction, which changes at the point only where a side that changes is not overruled. */
function truthJet(value: number, sides: readonly Jet[], decisive: 0 | 1): Jet {
  const isOverruled = sides.some((side) => first(side) === decisive && !isBoundary(side));
  const changes = !isOverruled && sides.some(isBoundary);
  return jet.constantJet(value, (sides[0] as Jet).length).map((c, k) => (k > 0 && changes ? NaN : c));
}

function sum(
  step: NestedStep & { op: 'sum' | 'integral' },
  of: (index: number) => Jet,
  length: number,
  beside: Beside,
): Jet {
  const [from, to] = [of(step.from), of(step.to)];
  const range = indices(first(from), first(to));
  const nowhere = new Float64Array(length).fill(NaN);
  if (!range) return nowhere;
  const inputs = step.inputs.map(of);
  let total = jet.constantJet(0, length);
  for (let i = 0; i < range.count; i++) {
    const index = jet.constantJet(range.first + i, length);
    total = jet.add(total, runJets(step.body, index, inputs, beside));
  }
  return [from, to].every(standsStill) ? total : nowhere;
}

/**
 * ∫ from a to b with moving bounds and inputs: over s from 0 to 1 of f(a + s(b − a))·(b − a), each
 * coefficient by quadrature.
 */
function integral(
  step: NestedStep & { op: 'sum' | 'integral' },
  of: (index: number) => Jet,
  length: number,
): Jet {
  const [from, to] = [of(step.from), of(step.to)];
  const width = jet.subtract(to, from);
  const inputs = step.inputs.map(of);
  if (inputs.every(standsStill)) return movingBounds(step, of, inputs);
  const integrand = (s: number): Jet =>
    jet.multiply(runJets(step.body, jet.add(from, jet.scale(width, s)), inputs, 0), width);
  return Float64Array.from({ length }, (_, k) => integralOf((s) => integrand(s)[k] as number, 0, 1).value);
}

/** d/dx ∫ from u to v of f = f(v) v′ − f(u) u′, with the value itself by quadrature. */
function movingBounds(
  step: NestedStep & { op: 'sum' | 'integral' },
  of: (index: number) => Jet,
  inputs: readonly Jet[],
): Jet {
  const value = nestedValue(step, (index) => first(of(index)));
  const [from, to] = [of(step.from), of(step.to)];
  const at = (bound: Jet, c0: number): Jet =>
    standsStill(bound)
      ? jet.constantJet(c0, bound.length)
      : jet.integrateProduct(bound, runJets(step.body, bound, inputs, 0), c0);
  return jet.subtract(at(to, value), at(from, 0));
}

const standsStill = (u: Jet): boolean => u.every((c, k) => k === 0 || c === 0);

/** Only a limit that does not move has derivatives here; those of others come from the formula. */
function limit(step: NestedStep & { op: 'limit' }, of: (index: number) => Jet, length: number): Jet {
  const value = jet.constantJet(
    nestedValue(step, (index) => first(of(index))),
    length,
  );
  const moves = [step.target, ...step.inputs].some((input) => of(input).some((c, k) => k > 0 && c !== 0));
  return moves ? value.fill(NaN, 1) : value;
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
