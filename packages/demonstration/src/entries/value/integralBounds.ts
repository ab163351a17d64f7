import { closedFormula, compile, evaluateAt, type Expression } from '@yperkine/core';
import type { Bounds } from '../../numbers/line.ts';
import { functionsMentioned, parameterValues } from '../formula.ts';
import { compiled } from '../formulaValue.ts';
import type { WorkContext } from '../kind.ts';

/** Between which a formula that is one integral is proved to lie; null for any other, and until that is known. */
export function integralBounds(body: Expression, context: WorkContext): Bounds | null {
  const functions = body.kind === 'integral' ? functionsMentioned(body, context) : null;
  if (!functions) return null;
  const { program, formula } = compiled(body, functions);
  const { parameters, exactParameters } = parameterValues(program.parameters, context);
  // While numbers in it are on the move nobody reads its bounds.
  if (!program.parameters.every((name) => exactParameters.has(name))) return null;
  const values = new Map(program.parameters.map((name, i) => [name, parameters[i] as number]));
  const closed = closedFormula(formula, values);
  if (closed.kind !== 'integral') return null;
  const [from, to] = [closed.from, closed.to].map((end) => evaluateAt(compile(end, ''), 0, [])) as [
    number,
    number,
  ];
  if (Number.isNaN(from) || Number.isNaN(to)) return null;
  const { variable } = closed;
  const told = context.ask<'integral'>({
    ask: 'integral',
    isTotal: false,
    body: closed.body,
    variable,
    interval: [from, to],
  });
  return told.state === 'answered' && told.of === 'now' ? told.answer.bounds : null;
}
