import {
  compile,
  derivativeOf,
  evaluateAt,
  exactValue,
  knownNumber,
  tangentAt,
  TooLarge,
  type Expression,
  type Functions,
  type KnownNumber,
  type Tangent,
} from '@yperkine/core';
import { formatTidily, type RoundingRule } from '../numbers/format.ts';
import { primed } from './curve.ts';
import { parameterValues } from './formula.ts';
import type { WorkContext } from './kind.ts';

/**
 * What f′(a) is by the definition's limit where the rules of differentiation give nothing; what there is instead of it
 * where it is not there: a corner, a vertical tangent, an end of f, no value. Null for any other formula.
 */
export function slopeAsDefined(
  body: Expression,
  functions: Functions,
  context: WorkContext,
): KnownNumber | MissingSlope | null {
  if (body.kind !== 'apply') return null;
  const [order = 0] = body.orders;
  const [argument] = body.arguments;
  const of = functions.get(body.name);
  const [variable] = of?.variables ?? [];
  if (!of || !argument || body.arguments.length !== 1 || variable === undefined || order === 0) return null;
  try {
    const place = numberOf(argument, functions, context);
    if (!Number.isFinite(place.value)) return null;
    const below = derivativeOf(of.body, variable, order - 1);
    const program = compile(of.body, variable, functions, order - 1);
    const { parameters } = parameterValues(program.parameters, context);
    const tangent = tangentAt({ body: below, variable, program }, place, parameters);
    // A slope that the rules do not give may be there by the definition, too.
    if (tangent.kind === 'undefined' && order > 1) return null;
    if (tangent.kind === 'line' && tangent.side === 'both') return tangent.slope;
    return { tangent, name: body.name, order, variable, place };
  } catch (error) {
    if (error instanceof TooLarge) return null;
    throw error;
  }
}

function numberOf(formula: Expression, functions: Functions, context: WorkContext): KnownNumber {
  const program = compile(formula, '', functions);
  const { parameters, exactParameters } = parameterValues(program.parameters, context);
  return knownNumber(evaluateAt(program, 0, parameters), exactValue(formula, exactParameters));
}

/** What there is at a place instead of a derivative. */
export interface MissingSlope {
  readonly tangent: Tangent;
  readonly name: string;
  readonly order: number;
  readonly variable: string;
  readonly place: KnownNumber;
}

/** Why there is no derivative, in one sentence. */
export function whyNoSlope(
  { tangent, name, order, variable, place }: MissingSlope,
  rule: RoundingRule,
): string {
  const at = `${variable} = ${formatTidily(place, rule).text}`;
  const [slope, below] = [primed(name, order), primed(name, order - 1)];
  const text = (number: KnownNumber): string => formatTidily(number, rule).text;
  switch (tangent.kind) {
    case 'undefined':
      return `${slope} does not exist here: ${below} has no value at ${at}.`;
    case 'vertical':
      return `${slope} does not exist here: at ${at} the tangent to ${below} is vertical.`;
    case 'line':
      return `${at} is an end of ${below}: there is only a one-sided slope, ${text(tangent.slope)}.`;
    case 'noSlope': {
      const { left, right } = tangent;
      const isCorner = left && right && Number.isFinite(left.value) && Number.isFinite(right.value);
      return isCorner
        ? `${slope} does not exist at this corner: the slope is ${text(left)} from the left and ${text(right)} from the right.`
        : `${slope} does not exist here: ${below} has no single slope at ${at}.`;
    }
  }
}
