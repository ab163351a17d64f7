import { literal } from '../algebra/literal.ts';
import { rational } from '../numbers/rational.ts';
import { operandsOf, type Program, type Step } from '../evaluate/program.ts';
import * as tree from '../language/tree.ts';
import type { Condition, Expression } from '../language/tree.ts';
import { numberFormula } from './numberFormula.ts';

/** The variable of a formula that was made from a program. */
export const ownVariable = 'x';
/** Nodes of a formula beyond which it is none to be worked with. */
const largest = 4000;

/**
 * A program as a formula in `ownVariable`, its parameters as the numbers that they stand for. Null where it holds
 * integrals or limits, a parameter without a value, or where it would grow too large.
 */
export function formulaOfProgram(program: Program, parameters: readonly number[]): Expression | null {
  if (parameters.some((value) => !Number.isFinite(value))) return null;
  return written(program, tree.name(ownVariable), parameters.map(numberFormula));
}

function written(
  program: Program,
  variable: Expression,
  parameters: readonly Expression[],
): Expression | null {
  const values: (Expression | Condition)[] = [];
  const sizes: number[] = [];
  const of = (index: number): Expression => values[index] as Expression;
  for (const step of program.steps) {
    const value = stepFormula(step, of, values, variable, parameters);
    const size = operandsOf(step).reduce((sum, i) => sum + (sizes[i] as number), 1);
    if (!value || size > largest) return null;
    values.push(value);
    sizes.push(size);
  }
  return (values.at(-1) as Expression | undefined) ?? null;
}

function stepFormula(
  step: Step,
  of: (index: number) => Expression,
  values: readonly (Expression | Condition)[],
  variable: Expression,
  parameters: readonly Expression[],
): Expression | Condition | null {
  const truth = (index: number): Condition => values[index] as Condition;
  switch (step.op) {
    case 'constant':
      if (step.exact === 'pi' || step.exact === 'e') return tree.constant(step.exact);
      if (step.exact) return literal(step.exact);
      return Number.isFinite(step.value) ? numberFormula(step.value) : nothing;
    case 'variable':
      return variable;
    case 'parameter':
      return parameters[step.index] ?? null;
    case 'negate':
      return tree.negate(of(step.a));
    case 'add':
    case 'subtract':
    case 'multiply':
    case 'divide':
      return tree.binary(step.op, of(step.a), of(step.b));
    case 'power':
      return tree.power(of(step.a), of(step.b));
    case 'integerPower':
      return tree.power(of(step.a), literal(rational(step.n)));
    case 'rationalPower':
      return tree.power(of(step.a), literal(rational(step.p, step.q)));
    case 'call':
      return tree.call(step.name, ...step.operands.map(of));
    case 'spline':
      return tree.spline(step.spline, of(step.a));
    case 'guard':
      // What has a value equals itself.
      return tree.piecewise([
        { value: of(step.a), condition: tree.comparison(of(step.b), ['=', of(step.b)]) },
      ]);
    case 'compare':
      return tree.comparison(of(step.a), [step.relation, of(step.b)]);
    case 'and':
    case 'or':
      return { kind: step.op, left: truth(step.a), right: truth(step.b) };
    case 'not':
      return { kind: 'not', operand: truth(step.a) };
    case 'choose': {
      const otherwise = of(step.b);
      return tree.piecewise(
        [{ value: of(step.a), condition: truth(step.truth) }],
        otherwise === nothing ? undefined : otherwise,
      );
    }
    case 'sum':
      return sumOf(step, of);
    case 'integral':
    case 'limit':
      return null;
  }
}

/** A formula without a value anywhere. */
const nothing = tree.piecewise([]);

/** A sum whose bounds are numbers, term by term. */
function sumOf(
  step: Step & { op: 'sum' | 'integral' },
  of: (index: number) => Expression,
): Expression | null {
  const index = tree.name('#index');
  const body = written(step.body, index, step.inputs.map(of));
  const sum: tree.SummationNode | null = body && {
    kind: 'summation',
    variable: index.name,
    from: of(step.from),
    to: of(step.to),
    body,
  };
  return sum;
}
