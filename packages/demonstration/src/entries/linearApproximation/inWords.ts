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
import { asWritten } from '../asking.ts';
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
  const definition = [latex(`${l}(${x}) = ${f}(${a}) + ${slope}(${x} - ${a})`)];
  if (!tangent) return [definition];
  const [, ...equation] = lineEquation(tangent.slope, tangent.intercept, variable, rule).line;
  return [
    definition,
    [latex(`${l}(${x})`), ...equation, ...countedIn(of.unit, variable, xUnit)],
    [latex(`${f}(${b}) - ${l}(${b})`), ...equalsResult(off, rule), ...unitPart(of.unit)],
    [
      latex(`\\bigl|${f}(${x}) - ${l}(${x})\\bigr| \\le`),
      live(` ${limit}`),
      words(' for '),
      latex(`${x} \\in`),
      live(good ? ` ${intervalOf(good, rule)}` : ' …'),
    ],
  ];
}

/** How far off it is where they are compared, and on which part it is good enough. */
export function approximationSentence(
  result: LinearApproximationResult,
  limit: string,
  rule: RoundingRule,
): string {
  const { of, at, name, variable, beside, off, good, interval, isProved, isSought } = result;
  if (result.whyNone !== '') return `${result.whyNone} There is no linear approximation there.`;
  const f = primed(of.name, of.order);
  const place = `${variable} = ${shownValue(beside, rule)}`;
  const most = `off by at most ${withUnit(limit, of.unit)}`;
  const here = Number.isFinite(off.value)
    ? offWords(off, { f, name, place })
    : `${f} has no value at ${place}, so there is no difference there.`;
  if (isSought) return `${here} Where ${name} is ${most} is being worked out …`;
  const a = at.value.value;
  if (a < interval.from || a > interval.to)
    return `${here} Where ${name} is ${most} is looked for from ${asWritten(interval.texts.from)} to ${asWritten(interval.texts.to)} alone, and ${at.name} does not lie there.`;
  const part = good && partInWords(good, result, rule);
  if (!good || part === null) return `${here} Where ${name} is ${most} could not be found out.`;
  const sure = isProved ? ' (proved)' : '; this could not be proved';
  const isCut = good.from.value <= interval.from || good.to.value >= interval.to;
  return isCut
    ? `${here} At least ${part} ${name} is ${most}${sure}; what lies beyond was not looked at.`
    : `${here} ${part.replace(/^./, (first) => first.toUpperCase())} ${name} is ${most}${sure}.`;
}

/** Share of a size by which the digits of an end may be off. */
const rounding = 1e-9;
/** Decimal places up to which the ends of a narrow part are written. */
const mostDecimals = 9;
/** Beyond this size a number is written with a few digits only. */
const largestWritten = 1e9;

/** "from x = 0.684 to 1.316", rounded into the part; of a very narrow or far one the distance to a; null where it has none. */
function partInWords(
  good: Stretch,
  { at, variable }: LinearApproximationResult,
  rule: RoundingRule,
): string | null {
  const ends = inwards(good, rule);
  if (ends) return `from ${variable} = ${ends.join(' to ')}`;
  const a = at.value.value;
  const reach = formatBound(Math.min(a - good.from.value, good.to.value - a) * (1 - rounding), 'down', rule);
  return reach === null || reach === '0' ? null : `within ${reach} of ${at.name}`;
}

/** The part in interval notation: its ends in their exact forms, as far as they have any. */
function intervalOf(good: Stretch, rule: RoundingRule): string {
  const rounded = inwards(good, rule);
  const [from, to] = [good.from, good.to].map(
    ({ exact }, i) => (exact && exactText(exact)) ?? rounded?.[i] ?? '…',
  ) as [string, string];
  return `${good.includesFrom ? '[' : '('}${from}, ${to}${good.includesTo ? ']' : ')'}`;
}

/**
 * The ends as decimals, rounded into the part: what is said of it holds for what is written. A narrow part has as many
 * places as it takes; null where they cannot be told apart.
 */
function inwards(good: Stretch, rule: RoundingRule): readonly [string, string] | null {
  if (Math.max(Math.abs(good.from.value), Math.abs(good.to.value)) > largestWritten) return null;
  for (let decimals = rule.decimals; decimals <= Math.max(rule.decimals, mostDecimals); decimals++) {
    const [low, high] = [
      inner(good.from, good.includesFrom, 1, decimals),
      inner(good.to, good.includesTo, -1, decimals),
    ];
    const written = ({ value, exact }: KnownNumber): string =>
      formatTidily(knownNumber(value, exact), { ...rule, decimals }).text;
    if (low.value < high.value) return [written(low), written(high)];
  }
  return null;
}

/** An end of the part, or the nearest number inside it with so many places. */
function inner(
  { value, exact }: Stretch['from'],
  isIncluded: boolean,
  way: 1 | -1,
  decimals: number,
): KnownNumber {
  const fraction = isIncluded && exact ? exactValue(exact, new Map()) : null;
  if (fraction && rational.toDecimal(fraction, decimals) !== null) return knownNumber(value, fraction);
  const unit = 10 ** -decimals;
  return knownNumber(way * Math.ceil((way * value) / unit + rounding) * unit);
}

function offWords(off: KnownNumber, { f, name, place }: { f: string; name: string; place: string }): string {
  if (off.value === 0)
    return off.exact
      ? `At ${place} both have the same value.`
      : `At ${place} they differ by less than can be told.`;
  return `At ${place} ${name} is ${off.value > 0 ? 'below' : 'above'} ${f}.`;
}
