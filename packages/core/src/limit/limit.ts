import { simplify } from '../algebra/simplify.ts';
import { enclose } from '../evaluate/enclosures.ts';
import type { Evaluated } from '../evaluate/evaluated.ts';
import type { Program } from '../evaluate/program.ts';
import * as tree from '../language/tree.ts';
import type { Side } from '../language/tree.ts';
import { signOfConstant } from './constantSign.ts';
import { formulaOfProgram, ownVariable } from './formulaOfProgram.ts';
import { limitOfFormula, type Goal, type ProvedLimit } from './growth/limitOfFormula.ts';
import type { Limit } from './found.ts';
import { numberFormula } from './numberFormula.ts';
import { searchedLimit } from './searched.ts';

/** The limit of a program as its variable tends to `target` (±Infinity for the limit at infinity). */
export function limitBy({ program, parameters, at }: Evaluated, target: number, side: Side): Limit {
  if (Number.isNaN(target)) return { kind: 'undefined' };
  const formula = formulaOfProgram(program, parameters);
  const from = (direction: 1 | -1): Limit => {
    const goal: Goal = { variable: ownVariable, target: placeOf(target), side: direction };
    const found = formula && limitOfFormula(formula, goal);
    return found ? told(found) : searchedLimit(at, target, direction);
  };
  if (!Number.isFinite(target)) return from(target > 0 ? -1 : 1);
  if (isContinuousAt(program, target, parameters)) {
    const value = at(target);
    const there = formula && tree.substitute(formula, ownVariable, numberFormula(target));
    return { kind: 'finite', value, proved: true, exact: there && simplify(there) };
  }
  if (side !== 'both') return from(side === 'left' ? -1 : 1);
  return joined(from(-1), from(1));
}

const placeOf = (target: number): Goal['target'] =>
  Number.isFinite(target) ? { exact: numberFormula(target) } : target > 0 ? 1 : -1;

/** Share of a place, or of 1, around it in which a function has to be continuous. */
const surroundings = 1e-9;

function isContinuousAt(program: Program, target: number, parameters: readonly number[]): boolean {
  if (!enclose(program, target, target, parameters).sure) return false;
  const beside = Math.max(Math.abs(target), 1) * surroundings;
  return enclose(program, target - beside, target + beside, parameters).sure;
}

/** A limit by series as the limit of a program. */
const told = (found: ProvedLimit | 'undecided'): Limit =>
  found === 'undecided'
    ? { kind: 'undecided' }
    : found.kind === 'finite'
      ? { ...found, proved: true }
      : found;

/** Share by which limits found by evaluation may differ and be the same. */
const agreement = 1e-12;

/** A limit exists where both one-sided ones do and agree; infinite ones of one sign agree too. */
function joined(left: Limit, right: Limit): Limit {
  if (left.kind === 'undecided' || right.kind === 'undecided') {
    // One that does not exist is enough.
    const isNone = [left, right].some(({ kind }) => kind === 'none' || kind === 'undefined');
    return { kind: isNone ? 'none' : 'undecided' };
  }
  if (left.kind === 'infinite' && right.kind === 'infinite' && left.sign === right.sign) return left;
  if (left.kind !== 'finite' || right.kind !== 'finite') return { kind: 'none' };
  if (left.exact && right.exact) {
    const sign = signOfConstant(tree.subtract(left.exact, right.exact));
    return sign === 0 ? right : { kind: Number.isNaN(sign) ? 'undecided' : 'none' };
  }
  const scale = Math.max(Math.abs(left.value), Math.abs(right.value));
  return Math.abs(left.value - right.value) <= agreement * scale
    ? { ...right, proved: false }
    : { kind: 'none' };
}
