import {
  compile,
  evaluateAt,
  formulaFromDerivative,
  isReserved,
  knownNumber,
  latexFunction,
  latexName,
  TooLarge,
  tree,
  type Expression,
  type KnownNumber,
} from '@yperkine/core';
import { z } from 'zod';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { equalsResult, latex, unitPart, words } from '../../numbers/line.ts';
import type { Mark } from '../../marks/mark.ts';
import { dashes, toneOf, totalFamily } from '../../fields/tone.ts';
import { common, idSchema, typedSchema } from '../../fields/fields.ts';
import { withUnit } from '../../units/unit.ts';
import { areaMarks, areaUnit, boundLatex, fractionText, numberOf } from '../areas.ts';
import { asWritten, closedCurve, noFunction } from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import { parameterValues } from '../formula.ts';
import { formulaOf, idsInText, typedValue } from '../formulaValue.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { failed, waiting, worked } from '../outcome.ts';
import { runningRuns, standIn } from './runningRuns.ts';

const runningTotalSchema = z.strictObject({
  ...common,
  kind: z.literal('runningTotal'),
  on: idSchema,
  /** Where the total begins: a number or a formula of parameters. */
  from: typedSchema,
  /** The parameter up to which it is shaded. */
  parameter: idSchema,
  name: z.string().min(1).max(60),
  tier: idSchema,
});
export type RunningTotalEntry = z.infer<typeof runningTotalSchema>;

export interface RunningTotalResult extends CurveResult {
  readonly of: CurveResult;
  readonly start: number;
  readonly at: number;
  /** The total up to there. */
  readonly value: number;
  readonly total: KnownNumber;
  /** What it is, as LaTeX, and the name of the place that moves. */
  readonly definition: string;
  readonly placeName: string;
  readonly madeFrom: readonly unknown[];
}

/** A(x) = ∫ₐˣ f as a curve of its own, with the area up to a place that moves. */
export const runningTotalKind: EntryKind<RunningTotalEntry, RunningTotalResult> = {
  schema: runningTotalSchema,
  defaults: {},
  standsOn: ({ on, parameter }) => [on, parameter],
  dependsOn: ({ on, parameter, from }, directory) => [on, parameter, ...idsInText(from, directory)],
  defines: ({ name }) => ({ name, isFunction: true }),
  head: ({ name }, result) => ({
    heading: result ? `Running total ${name} of ${primed(result.of.name, result.of.order)}` : 'Running total',
    tone: toneOf(0, totalFamily),
  }),
  curve: (result) => result,

  workOut(entry, context, previous) {
    const { name, tier } = entry;
    if (isReserved(name)) return failed(`“${name}” already has a meaning; please choose another name.`);
    const of = context.curve(entry.on);
    if (!of) return waiting(noFunction);
    const at = context.parameter(entry.parameter);
    if (!at) return waiting('This waits for its slider, which cannot be worked out yet.');
    const start = typedValue(entry.from, context);
    const from = formulaOf(entry.from, context.directory);
    if (!start.ok) return start;
    if (!from) return failed('The total begins at a number.');
    if (!Number.isFinite(start.result.value.value)) return failed('The total begins at a number.');
    const madeFrom = [of.program, entry.from, name];
    const isSame = previous?.madeFrom.every((part, i) => part === madeFrom[i]) ?? false;
    try {
      const body = isSame && previous ? previous.body : totalOf(of, from);
      const program = isSame && previous ? previous.program : compile(body, of.variable, of.functions);
      const values = parameterValues(program.parameters, context);
      const x = at.value.value;
      const known = knownTotal(of, context, [start.result.value.value, x]);
      const total = known ?? knownNumber(evaluateAt(program, x, values.parameters));
      const { value } = total;
      const unit = areaUnit(of, context.xUnit);
      const head = `${latexFunction(name, 0)}(${latexName(of.variable)})`;
      const f = latexFunction(of.name, of.order);
      const t = boundVariable(of.variable);
      const definition = `${head} = \\int_{${boundLatex(entry.from, context)}}^{${latexName(of.variable)}} ${f}(${t})\\,d${t}`;
      const curve = {
        name,
        order: 0,
        family: totalFamily,
        variable: of.variable,
        body,
        program,
        functions: of.functions,
        ...values,
        latex: head,
        tier,
        unit,
        of,
        start: start.result.value.value,
        at: x,
        value,
        total,
        definition,
        placeName: at.name,
        madeFrom,
      };
      return worked({ ...curve, standIn: (range) => standIn(curve, range) });
    } catch (error) {
      if (error instanceof TooLarge) return failed('This formula is too large to be worked out.');
      throw error;
    }
  },

  say(result, { from }, { rule }) {
    const { name, of, total, unit, placeName, definition } = result;
    const [x, f] = [latexName(of.variable), latexFunction(of.name, of.order)];
    return {
      lines: [
        [latex(definition)],
        [
          latex(`${latexFunction(name, 0)}(${latexName(placeName)})`),
          ...equalsResult(total, rule, fractionText(total.exact)),
          ...unitPart(unit),
        ],
        [latex(`${latexFunction(name, 1)}(${x}) = ${f}(${x})`), words(' wherever it is continuous')],
      ],
      sentence: sentenceOf(result, from, rule),
    };
  },

  places: ({ at, value, tier }) => [{ key: 'point', label: 'the total', x: at, y: value, tier }],
  results: ({ total, unit }) => [{ key: 'total', label: 'total', number: total, unit }],

  marks(id, entry, result, tier) {
    const { of, start, at, value } = result;
    const tone = toneOf(0, totalFamily);
    const own: Mark[] =
      result.tier === tier.id
        ? [
            { kind: 'curve', entry: id, runs: runningRuns(result, tier), tone, dash: [10, 5], weight: 2.5 },
            ...(Number.isFinite(value)
              ? [
                  {
                    kind: 'point',
                    entry: id,
                    x: tier.toX(at),
                    y: tier.toY(value),
                    tone,
                    parameter: entry.parameter,
                  } as const,
                ]
              : []),
          ]
        : [];
    if (of.tier !== tier.id) return own;
    const height = evaluateAt(of.program, at, of.parameters);
    const ends = [Math.min(start, at), Math.max(start, at)] as const;
    const edge: Mark[] = Number.isFinite(height)
      ? [
          {
            kind: 'line',
            entry: id,
            x0: tier.toX(at),
            y0: tier.toY(0),
            x1: tier.toX(at),
            y1: tier.toY(height),
            tone,
            weight: 2,
            dash: dashes.whole,
          },
          {
            kind: 'point',
            entry: id,
            x: tier.toX(at),
            y: tier.toY(height),
            tone,
            parameter: entry.parameter,
          },
        ]
      : [];
    return [...areaMarks(id, of, ends, tone, tier), ...edge, ...own];
  },
};

/** The total exactly, once the worker has told it. */
function knownTotal(
  of: CurveResult,
  context: WorkContext,
  interval: readonly [number, number],
): KnownNumber | null {
  const closed = closedCurve(of, context);
  if (!closed.ok) return null;
  const { body } = closed.result;
  const told = context.ask({ ask: 'integral', isTotal: false, body, variable: of.variable, interval });
  return told.state === 'answered' && told.of !== 'before' ? numberOf(told.answer) : null;
}

/** The letter that runs under the integral: t, unless that is the variable itself. */
const boundVariable = (variable: string): string => (variable === 't' ? 'u' : 't');

/** A formula where an antiderivative is found that holds everywhere; an integral otherwise. */
function totalOf({ body, variable }: CurveResult, from: Expression): Expression {
  const formula = formulaFromDerivative(body, variable, from, [tree.number(0)]);
  if (formula) return formula;
  const bound = boundVariable(variable);
  const taken = tree.mentioned(body).names;
  const letter = taken.has(bound) ? `${bound}_0` : bound;
  return {
    kind: 'integral',
    variable: letter,
    from,
    to: tree.name(variable),
    body: tree.substitute(body, variable, tree.name(letter)),
  };
}

function sentenceOf(
  { value, of, at: x, placeName: at, unit }: RunningTotalResult,
  from: string,
  rule: RoundingRule,
): string {
  const height = evaluateAt(of.program, x, of.parameters);
  const f = primed(of.name, of.order);
  if (Number.isNaN(value))
    return `There is no total from ${asWritten(from)} to ${at}: ${f} is not defined, or grows beyond every bound, on the way.`;
  const total = withUnit(format(knownNumber(value), rule).text, unit);
  const now =
    height > 0
      ? `it is still growing, since ${f} is positive there`
      : height < 0
        ? `it is shrinking, since ${f} is negative there`
        : `its rate ${f} is 0 at ${at}`;
  return `From ${asWritten(from)} to ${at} it has come to ${total}; ${now}.`;
}
