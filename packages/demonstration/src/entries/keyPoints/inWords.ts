import {
  exactValue,
  knownNumber,
  printText,
  type Asymptote,
  type Expression,
  type KnownNumber,
  type SideHeight,
} from '@yperkine/core';
import { exactText } from '../../numbers/exactText.ts';
import { format, formatTidily, type RoundingRule } from '../../numbers/format.ts';
import { latex, lineEquation, words, type Line } from '../../numbers/line.ts';
import { unitText, type Unit } from '../../units/unit.ts';
import { certaintySentence, overTyped } from '../asking.ts';
import { primed, type CurveResult } from '../curve.ts';
import { placeParts } from '../provedPlaces.ts';
import type { StudyTable } from '../study.ts';
import { kindWords, type FoundPoint } from './kinds.ts';
import type { KeyPointsEntry, KeyPointsResult } from './result.ts';
import { summaryOf, type Proof } from './proof.ts';

type Sides = NonNullable<FoundPoint['sides']>;

const exactly = (value: number, exact: Expression | null): KnownNumber =>
  knownNumber(value, exact && exactValue(exact, new Map()));

/** The coordinates of a key point, exact where they are known to be. */
export const knownX = ({ x, exact }: FoundPoint): KnownNumber => exactly(x, exact);
export const knownY = ({ y, exactY }: FoundPoint): KnownNumber => exactly(y ?? NaN, exactY);

/** 2.000, → 1.000 for a limit without a value, and both limits of a jump. */
export function heightText(point: FoundPoint, rule: RoundingRule): string {
  const { kind, y, sides } = point;
  const text = (number: KnownNumber): string => format(number, rule).text;
  if (kind === 'jump' && sides)
    return jumpText(sides, (side) => formatTidily(exactly(side.value, side.exact), rule).text);
  if (y === null) return '–';
  return kind === 'hole' || kind === 'openEnd' ? `→ ${text(knownY(point))}` : text(knownY(point));
}

/** Both limits at a jump: −0.75 to 3; of one that comes from one side alone that limit. */
const jumpText = ({ left, right }: Sides, text: (side: SideHeight) => string): string => {
  const told = [left, right].flatMap((side) => (side ? [text(side)] : []));
  return told.length === 2 ? told.join(' to ') : `→ ${told.join('')}`;
};

export function linesOf(
  { shows }: KeyPointsEntry,
  shown: readonly FoundPoint[],
  { asymptotes, curve }: KeyPointsResult,
  rule: RoundingRule,
): Line[] {
  const lines = shows.includes('asymptotes') ? asymptoteLines(asymptotes, curve.variable, rule) : [];
  return shown.length + lines.length === 0 ? [[words('Nothing of the kinds that are chosen.')]] : lines;
}

/** y = 2x + 1 is an asymptote to the right; one to both sides is told once. */
function asymptoteLines(asymptotes: readonly Asymptote[], variable: string, rule: RoundingRule): Line[] {
  const [first, second] = asymptotes;
  const isOne = first && second && isSameLine(first, second);
  return (isOne ? [first] : asymptotes).map((asymptote) => {
    const { slope, intercept, towards } = asymptote;
    const isLevel = slope.value === 0;
    const equation = isLevel
      ? [latex('y'), ...placeParts(intercept, rule)]
      : lineEquation(knownForm(slope), knownForm(intercept), variable, rule).line;
    const where = isOne ? 'to both sides' : `to the ${towards}`;
    return [...equation, words(`: ${isLevel ? 'level' : 'slanting'} asymptote ${where}`)];
  });
}

const knownForm = ({ value, exact }: Asymptote['slope']): KnownNumber => exactly(value, exact);

const isSameLine = (a: Asymptote, b: Asymptote): boolean =>
  [
    [a.slope, b.slope],
    [a.intercept, b.intercept],
  ].every(([p, q]) => p && q && p.value === q.value && printText(p.exact) === printText(q.exact));

export function sentenceOf(
  { answer, curve, interval }: KeyPointsResult,
  { shows }: KeyPointsEntry,
  proof: Proof | null,
  rule: RoundingRule,
): string {
  const where = overTyped(curve.variable, interval);
  // What a second check refuses is not called proved beside it.
  const first =
    proof?.isAccepted === false ? [] : [`${where}: ${certaintySentence(answer, rule, searchedThere)}`];
  const sure = [...first, ...(proof ? [summaryOf(proof, curve)] : [])].join(' ');
  const open = answer.asymptotes.undecided;
  if (open.length === 0 || !shows.includes('asymptotes')) return sure;
  const sides = open.length === 2 ? 'to either side' : `to the ${open[0]}`;
  return `${sure} Whether ${primed(curve.name, curve.order)} has a level or slanting asymptote ${sides} is not decided.`;
}

const searchedThere = '; what is listed there was found by search';

/** Rows that a table is read with. */
const mostRows = 200;

export function tableOf(
  shown: readonly FoundPoint[],
  curve: CurveResult,
  rule: RoundingRule,
  xUnit: Unit,
): StudyTable {
  const inUnit = (heading: string, unit: Unit): string =>
    unit.size === 0 ? heading : `${heading} in ${unitText(unit)}`;
  const rows = shown.slice(0, mostRows).map((point) => {
    const [x, y] = [knownX(point), knownY(point)];
    return {
      cells: [
        kindWords(point) + (point.proved ? '' : ' (by search)'),
        format(x, rule).text,
        heightText(point, rule),
        exactPlaceText(point),
      ],
      numbers: [null, x, point.y === null ? null : y, null],
      place: { x: point.x, y: point.y },
      isGoal: point.absolute === true,
      isDoubtful: !point.proved,
    };
  });
  return {
    caption: `Key points of ${primed(curve.name, curve.order)}`,
    head: [
      'kind',
      inUnit(curve.variable, xUnit),
      inUnit(`${primed(curve.name, curve.order)}(${curve.variable})`, curve.unit),
      'exact',
    ],
    wordColumns: [0],
    rows,
    ...(shown.length > mostRows ? { note: `These are the first ${mostRows} of ${shown.length}.` } : {}),
  };
}

/** (π/2, 1), or the first coordinate alone where the other is known by its digits only. */
function exactPlaceText({ kind, exact, exactY, sides }: FoundPoint): string {
  const x = exact && exactText(exact);
  if (x === null) return '–';
  if (kind === 'pole') return `x = ${x}`;
  if (kind === 'jump' && sides)
    return `(${x}, ${jumpText(sides, (side) => (side.exact && exactText(side.exact)) ?? '…')})`;
  return `(${x}, ${(exactY && exactText(exactY)) ?? '…'})`;
}
