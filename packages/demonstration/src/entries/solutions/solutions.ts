import {
  compile,
  evaluateAt,
  exactValue,
  knownNumber,
  latexFunction,
  latexName,
  printLatex,
  tree,
  type Expression,
  type ToldSolutions,
} from '@yperkine/core';
import { z } from 'zod';
import { format, type RoundingRule } from '../../numbers/format.ts';
import { latex, live, type Line } from '../../numbers/line.ts';
import { curveMark } from '../curveMark.ts';
import type { Mark } from '../../marks/mark.ts';
import { dashes, toneOf } from '../../fields/tone.ts';
import type { TierView } from '../../marks/view.ts';
import { typedSchema } from '../../fields/fields.ts';
import {
  certaintySentence,
  asWritten,
  closedInVariable,
  completeness,
  idsInVariableText,
  intervalStudy,
  onInterval,
  overTyped,
  studied,
  withAnswer,
  type TypedInterval,
} from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { worked } from '../outcome.ts';
import { countedPlaces, intervalText, placeParts, placeResults } from '../provedPlaces.ts';

const solutionsSchema = z.strictObject({
  ...onInterval,
  kind: z.literal('solutions'),
  /** What the curve is to be equal to: a number, a formula of parameters, or one in the same variable. */
  equals: typedSchema,
});
export type SolutionsEntry = z.infer<typeof solutionsSchema>;

export interface SolutionsResult {
  readonly curve: CurveResult;
  readonly found: ToldSolutions;
  /** The other side, whose heights are those of the curve at every solution. */
  readonly other: CurveResult;
  /** Whether a curve of the tier shows it already. */
  readonly isShown: boolean;
  /** The other side as it was typed. */
  readonly side: Expression;
  readonly interval: TypedInterval;
}

/** Where a curve is equal to a number or to another function: all places of an interval, with the line or curve drawn. */
export const solutionsKind: EntryKind<SolutionsEntry, SolutionsResult> = {
  schema: solutionsSchema,
  defaults: { equals: '0' },
  standsOn: intervalStudy.standsOn,
  dependsOn: (entry, directory) => [
    ...intervalStudy.dependsOn(entry, directory),
    ...idsInVariableText(entry.equals, directory),
  ],
  head: (entry, result) => ({
    heading: result
      ? `Where is ${primed(result.curve.name, result.curve.order)} equal to ${asWritten(entry.equals).replaceAll("'", '′')}?`
      : 'Where are two sides equal?',
    tone: result ? toneOf(result.curve.order, result.curve.family) : 'quiet',
  }),

  workOut: (entry, context) =>
    studied(entry, context, ({ curve, interval, asked }) => {
      const side = closedInVariable(entry.equals, curve, context);
      if (!side.ok) return side;
      const { typed, closed: equals } = side.result;
      const alone = functionAlone(typed, curve.variable);
      const known = context.curve(context.directory.idOf.get(alone ?? '') ?? '');
      const other = drawnSide(equals, curve);
      const isShown = known?.tier === curve.tier;
      return withAnswer(context, { ask: 'solve', order: 0, ...asked, equals }, (found) =>
        worked({
          curve,
          found,
          other,
          isShown,
          side: typed,
          interval,
        }),
      );
    }),

  say: (result, _entry, { rule }) => ({
    lines: linesOf(result, rule),
    sentence: sentenceOf(result, rule),
    certainty: completeness(result.found.complete),
  }),

  results: ({ found }, xUnit) => placeResults(found.solutions, xUnit),

  places: ({ curve, found, other }) =>
    found.solutions.map(({ value }, i) => ({
      key: `place ${i}`,
      label: `place ${i + 1}`,
      x: value,
      y: evaluateAt(other.program, value),
      tier: curve.tier,
    })),

  marks(id, _entry, { curve, found, other, isShown }, tier) {
    if (curve.tier !== tier.id) return [];
    const tone = toneOf(curve.order, curve.family);
    return [
      ...(isShown ? [] : [sideMark(id, other, tier)]),
      ...found.solutions.flatMap(({ value: x, exact }): Mark[] => {
        // The simpler side tells the height: 0 is 0 there, not what rounding leaves of it.
        const y = evaluateAt(other.program, x);
        if (!Number.isFinite(y)) return [];
        const place = { x: tier.toX(x), y: tier.toY(y), tone };
        const known = knownNumber(x, exact && exactValue(exact, new Map()));
        const text = `(${format(known, tier.rule).text}, ${format(knownNumber(y), tier.rule).text})`;
        return [
          { kind: 'dot', entry: id, ...place },
          { kind: 'label', ...place, text, isSpare: true },
        ];
      }),
    ];
  },
};

/** The name of a function that stands alone on a side: g(x). */
const functionAlone = (side: Expression, variable: string): string | null => {
  const isAlone =
    side.kind === 'apply' &&
    side.orders.every((order) => order === 0) &&
    side.arguments.length === 1 &&
    side.arguments[0]?.kind === 'name' &&
    side.arguments[0].name === variable;
  return isAlone ? side.name : null;
};

function drawnSide(body: Expression, curve: CurveResult): CurveResult {
  const program = compile(body, curve.variable);
  return { ...curve, body, program, functions: new Map(), parameters: [], exactParameters: new Map() };
}

/** The other side, thin and dashed: a level line, or a curve. */
function sideMark(id: string, other: CurveResult, tier: TierView): Mark {
  const look = { entry: id, tone: 'ink', weight: 1.5, dash: dashes.dashed } as const;
  if (!tree.mentioned(other.body).names.has(other.variable)) {
    const y = tier.toY(evaluateAt(other.program, 0));
    return {
      kind: 'line',
      ...look,
      x0: tier.frame.left,
      y0: y,
      x1: tier.frame.left + tier.frame.width,
      y1: y,
    };
  }
  return { kind: 'track', ...look, runs: curveMark(id, other, tier).runs };
}

function linesOf(
  { found: { solutions, everywhere }, curve, side }: SolutionsResult,
  rule: RoundingRule,
): Line[] {
  const { name, order, variable } = curve;
  const x = latexName(variable);
  const question = latex(`${latexFunction(name, order)}(${x}) = ${printLatex(side)}`);
  const stretches = everywhere.map((stretch): Line => [
    latex(`${x} \\in`),
    live(` ${intervalText(stretch, rule)}`),
  ]);
  return [
    [question],
    ...stretches,
    ...solutions.map((place): Line => [latex(x), ...placeParts(place, rule)]),
  ];
}

function equalThroughout(found: ToldSolutions, where: string, rule: RoundingRule): string {
  const stretches = found.everywhere.map((stretch) => intervalText(stretch, rule)).join(' and ');
  const rest = found.complete ? '' : ` ${certaintySentence(found, rule)}`;
  return `${where} both sides are equal on ${stretches}${rest === '' ? '.' : `;${rest}`}`;
}

function sentenceOf({ found, curve, interval }: SolutionsResult, rule: RoundingRule): string {
  const where = overTyped(curve.variable, interval);
  if (found.everywhere.length > 0) return equalThroughout(found, where, rule);
  if (found.complete && found.solutions.length === 0) return `${where} nowhere in this interval (proved).`;
  const places = countedPlaces(found.solutions.length);
  return found.complete
    ? `${where} this holds ${places}, and nowhere else (proved).`
    : `${where} this holds ${places} that could be proved; ${certaintySentence(found, rule)}`;
}
