import { knownNumber, latexFunction, latexName, rational, type KnownNumber } from '@yperkine/core';
import { format, formatTidily, type RoundingRule } from '../../numbers/format.ts';
import { equalsResult, latex, live, unitPart, words, type Line } from '../../numbers/line.ts';
import { errorOf, fractionText, integralParts, isMissing, whyMissing } from '../areas.ts';
import { asWritten, type TypedInterval } from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import { withUnit } from '../../units/unit.ts';
import { ruleNames, sideByRule, sumName, type Side, type SumRuleName } from './rules.ts';
import type { SumResult } from './result.ts';

/** Terms that are written out before and after the dots. */
const writtenBefore = 2;

/** The sum with its sign and its numbers, the width of a part and the sample points with theirs, and the true area. */
export function sumLines(parts: SumResult, rule: RoundingRule): Line[] {
  const { total, unit, told, curve, against } = parts;
  const truth: Line[] =
    told && !isMissing(told.integral)
      ? [
          [latex(boundedIntegral(curve)), ...integralParts(told.integral, unit, rule)],
          [words('error '), ...errorParts(errorOf(total, told.integral), rule), ...unitPart(unit)],
        ]
      : [];
  const second: Line[] = against
    ? [
        [
          words(`${ruleNames[against.rule]} `),
          ...equalsResult(knownNumber(against.sum.total), rule),
          ...unitPart(unit),
        ],
      ]
    : [];
  return [
    [latex(sigma(parts)), ...equalsResult(total, rule, fractionText(total.exact)), ...unitPart(unit)],
    ...writtenOut(parts, rule),
    ...steps(parts, rule),
    ...second,
    ...truth,
  ];
}

const errorParts = (error: KnownNumber, rule: RoundingRule): Line =>
  equalsResult(error, rule, fractionText(error.exact));

/** ∫ from a to b, as Δx names them: the numbers stand in the heading, and nothing is typeset while they move. */
function boundedIntegral({ name, order, variable }: CurveResult): string {
  const x = latexName(variable);
  return `\\int_a^b ${latexFunction(name, order)}(${x})\\,d${x}`;
}

/** The sum in signs. */
function sigma({ rule, curve, countName, isEven, hasPicks }: SumResult): string {
  const f = latexFunction(curve.name, curve.order);
  const x = latexName(curve.variable);
  const width = isEven ? `\\Delta ${x}` : `\\Delta ${x}_i`;
  const n = isEven ? latexName(countName) : 'n';
  if (rule === 'simpson')
    return `\\frac{\\Delta ${x}}{3}\\bigl(${f}(${x}_0) + 4${f}(${x}_1) + 2${f}(${x}_2) + \\dots + ${f}(${x}_{${n}})\\bigr)`;
  if (rule === 'trapezoid')
    return `\\sum_{i=1}^{${n}} \\tfrac{${f}(${x}_{i-1}) + ${f}(${x}_i)}{2}\\,${width}`;
  const at = hasPicks ? `${x}_i^*` : samplePoint(x, rule);
  return `\\sum_{i=1}^{${n}} ${f}(${at})\\,${width}`;
}

/** 0.8·(1.347 + 2.862 + 2.955 + … + 1.117): the numbers of this very sum. */
function writtenOut({ sum, isEven, rule: name, count, interval }: SumResult, rule: RoundingRule): Line[] {
  if (!sum || name === 'simpson') return [];
  const text = (value: number): string => inSum(format(knownNumber(value), rule).text);
  const terms = (of: Float64Array): string => {
    const shown =
      of.length <= writtenBefore + 2
        ? [...of].map(text)
        : [...of.subarray(0, writtenBefore)].map(text).concat('…', text(of.at(-1) as number));
    return shown.join(' + ');
  };
  if (!isEven) return [[live(`≈ ${terms(sum.areas)}`)]];
  return [[live(`≈ ${formatTidily(widthOf(interval, count), rule).text}·(${terms(sum.heights)})`)]];
}

/** (b − a)/n, exactly where the ends are rational. */
function widthOf({ from, to, exact: [a, b] }: TypedInterval, count: number): KnownNumber {
  const exact = a && b && rational.divide(rational.subtract(b, a), rational.rational(count));
  return knownNumber((to - from) / count, exact);
}

const inSum = (text: string): string => (text.startsWith('−') ? `(${text})` : text);
/** Δx = (8 − 2)/4 = 1.5 and xᵢ* = 2 + (i − 1)·1.5. */
function steps(
  { curve, interval, count, isEven, rule: name, fraction, countName, hasPicks }: SumResult,
  rule: RoundingRule,
): Line[] {
  if (!isEven) return [];
  const x = latexName(curve.variable);
  const { from, texts } = interval;
  const [a, b] = [asWritten(texts.from), asWritten(texts.to)];
  const bracket = (text: string): string => (/[-−+]/.test(text) ? `(${text})` : text);
  const { text, isExact } = formatTidily(widthOf(interval, count), rule);
  const lines: Line[] = [
    [
      latex(`\\Delta ${x} = \\frac{b - a}{${latexName(countName)}}`),
      live(` = (${b} − ${bracket(a)})/${count} ${isExact ? '=' : '≈'} ${text}`),
    ],
  ];
  const share = hasPicks ? undefined : sharesInLatex(String(fraction))[name];
  if (share === undefined) return lines;
  const start = from === 0 ? [] : [live(`${a} `), latex('+\\,')];
  return [
    ...lines,
    [latex(`${samplePoint(x, name)} =`), live(' '), ...start, latex(share), live(`·${text}`)],
  ];
}

/** How many widths a sample point lies from the left end. */
const sharesInLatex = (fraction: string): Partial<Record<SumRuleName, string>> => ({
  left: '(i - 1)',
  right: 'i',
  midpoint: '\\bigl(i - \\tfrac12\\bigr)',
  fraction: `(i - 1 + ${fraction})`,
});

/** How a sample point is written: an end of its part, or a point in it. */
const samplePoint = (x: string, rule: SumRuleName): string =>
  rule === 'left' ? `${x}_{i-1}` : rule === 'right' ? `${x}_i` : `${x}_i^*`;

/** Share of a total that is nothing but rounding. */
const rounding = 1e-13;

/** Whether the sum is too small or too large, by how much, and why. */
export function sumSentence(parts: SumResult, rule: RoundingRule): string {
  const { told, total, unit, curve, isEven, hasPicks, count } = parts;
  const f = primed(curve.name, curve.order);
  const partition = isEven ? '' : ` The ${count} parts are not equally wide.`;
  if (!told) return partition.trim();
  if (isMissing(told.integral))
    return `${whyMissing(told.integral, f, rule)} The sum is a number all the same.${partition}`;
  const { value: error, exact } = errorOf(total, told.integral);
  const name = hasPicks ? 'sum' : sumName(parts.rule);
  if (exact && error === 0) return `The ${name} equals the integral exactly.${partition}`;
  const noise = told.integral.bound + rounding * Math.max(1, Math.abs(total.value));
  if (Math.abs(error) <= noise)
    return `The ${name} differs from the area by less than can be told.${partition}`;
  const side: Side = error < 0 ? 'below' : 'above';
  const by = withUnit(format(knownNumber(Math.abs(error)), rule).text, unit);
  const known = hasPicks || parts.isQuick ? null : sideByRule(parts.rule, told.slope, told.bend, f);
  const why =
    known?.side === side
      ? `, because ${known.reason}`
      : told.slope === 'both' && !parts.isQuick && (parts.rule === 'left' || parts.rule === 'right')
        ? `; ${f} neither rises nor falls throughout, so the rule alone does not tell the side`
        : '';
  return `The ${name} is ${side} the area by ${by}: ${side === 'below' ? 'an underestimate' : 'an overestimate'}${why}.${partition}`;
}
