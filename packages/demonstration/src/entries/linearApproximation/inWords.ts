import {
  exactValue,
  knownNumber,
  latexFunction,
  latexName,
  rational,
  type KnownNumber,
} from '@yperkine/core';
import { exactText } from '../../numbers/exactText.ts';
import { formatBound, formatTidily, type RoundingRule } from '../../numbers/format.ts';
import {
  countedIn,
  equalsResult,
  latex,
  lineEquation,
  live,
  unitPart,
  words,
  type Line,
} from '../../numbers/line.ts';
import { withUnit } from '../../units/unit.ts';
import { primed } from '../curve.ts';
import type { Wording } from '../kind.ts';
import { shownValue } from '../parameter/result.ts';
import type { LinearApproximationResult, Stretch } from './result.ts';

/** What it is, its equation, the difference where they are compared, and where that is small enough. */
export function approximationLines(
  result: LinearApproximationResult,
  limit: string,
  { rule, xUnit }: Pick<Wording, 'rule' | 'xUnit'>,
): Line[] {
  const { of, at, beside, name, variable, tangent, off, good } = result;
  const [f, l, x] = [latexFunction(of.name, of.order), latexFunction(name, 0), latexName(variable)];
  const [a, b] = [latexName(at.name), latexName(beside.name)];
  const slope = `${latexFunction(of.name, of.order + 1)}(${a})`;
  const [, ...equation] = lineEquation(tangent.slope, tangent.intercept, variable, rule).line;
  return [
    [latex(`${l}(${x}) = ${f}(${a}) + ${slope}(${x} - ${a})`)],
    [latex(`${l}(${x})`), ...equation, ...countedIn(of.unit, variable, xUnit)],
    [latex(`${f}(${b}) - ${l}(${b})`), ...equalsResult(off, rule), ...unitPart(of.unit)],
    [
      latex(`\\bigl|${f}(${x}) - ${l}(${x})\\bigr| \\le`),
      live(` ${limit}`),
      words(' for '),
      latex(`${x} \\in`),
      live(good ? ` [${ends(good, rule).join(', ')}]` : ' …'),
    ],
  ];
}

/** How far off it is where they are compared, and on which part it is good enough. */
export function approximationSentence(
  result: LinearApproximationResult,
  limit: string,
  rule: RoundingRule,
): string {
  const { of, name, variable, beside, off, good, interval, isProved, isSought } = result;
  const f = primed(of.name, of.order);
  const place = `${variable} = ${shownValue(beside, rule)}`;
  const most = `off by at most ${withUnit(limit, of.unit)}`;
  const here = Number.isFinite(off.value)
    ? offWords(off, { f, name, place })
    : `${f} has no value at ${place}, so there is no difference there.`;
  if (isSought) return `${here} Where ${name} is ${most} is being worked out …`;
  if (!good) return `${here} Where ${name} is ${most} could not be found out.`;
  const [from, to] = inwards(good, rule);
  const isCut = good.from.value <= interval.from || good.to.value >= interval.to;
  const part = `rom ${variable} = ${from} to ${to} ${name} is ${most}`;
  const sure = isProved ? ' (proved)' : '; this could not be proved';
  return isCut
    ? `${here} At least f${part}${sure}; what lies beyond was not looked at.`
    : `${here} F${part}${sure}.`;
}

/** Share of a size by which the digits of an end may be off. */
const rounding = 1e-9;

/** The ends of the good part in their exact forms, as far as they have any. */
function ends(good: Stretch, rule: RoundingRule): string[] {
  const rounded = inwards(good, rule);
  return [good.from, good.to].map(({ exact }, i) => (exact && exactText(exact)) ?? (rounded[i] as string));
}

/** The ends as decimals, rounded into the good part: what is said of it holds for what is written. */
function inwards({ from, to }: Stretch, rule: RoundingRule): readonly [string, string] {
  const unit = 10 ** -rule.decimals;
  const written = ({ value, exact }: Stretch['from'], way: 1 | -1): KnownNumber => {
    const fraction = exact && exactValue(exact, new Map());
    if (fraction && rational.toDecimal(fraction, rule.decimals) !== null) return knownNumber(value, fraction);
    return knownNumber(way * Math.ceil((way * value) / unit + rounding) * unit);
  };
  const [low, high] = [written(from, 1), written(to, -1)];
  return low.value < high.value
    ? [formatTidily(low, rule).text, formatTidily(high, rule).text]
    : [formatBound(from.value, 'up', rule) ?? '', formatBound(to.value, 'down', rule) ?? ''];
}

function offWords(off: KnownNumber, { f, name, place }: { f: string; name: string; place: string }): string {
  if (off.value === 0)
    return off.exact
      ? `At ${place} both have the same value.`
      : `At ${place} they differ by less than can be told.`;
  return `At ${place} ${name} is ${off.value > 0 ? 'below' : 'above'} ${f}.`;
}
