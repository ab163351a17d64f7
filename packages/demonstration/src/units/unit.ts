/**
 * A unit of measurement: whole exponents over a teacher's own symbols, such as L¹ min⁻¹. Nothing is converted: a minute is
 * not sixty seconds here. Empty for a bare number.
 */
export type Unit = ReadonlyMap<string, number>;

export const bare: Unit = new Map();

const superscripts = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/**
 * Reads a unit as it is typed: m/s, m/s^2, m s⁻², kg·m/s², L per min, 1/min. What cannot be read is one symbol of its own,
 * so that nothing typed is refused.
 */
export function readUnit(text: string): Unit {
  const plain = text
    .trim()
    .replace(/\s+per\s+/g, '/')
    .replace(/⁻?[⁰¹²³⁴⁵⁶⁷⁸⁹]+/g, raisedToPlain);
  if (plain === '') return bare;
  return readQuotient(plain) ?? new Map([[text.trim(), 1]]);
}

const raisedToPlain = (raised: string): string =>
  `^${[...raised].map((c) => (c === '⁻' ? '-' : String(superscripts.indexOf(c)))).join('')}`;

/** Every factor behind a solidus is divided by, as in m/s/s; brackets hold several: J/(kg·K). */
function readQuotient(text: string): Unit | null {
  const [numerator = '', ...denominators] = text.split('/').map((part) => part.trim());
  const above = numerator === '1' ? bare : readProduct(numerator);
  const below = denominators.map((part) => readProduct(part.replace(/^\((.*)\)$/, '$1')));
  if (!above || below.includes(null)) return null;
  return (below as Unit[]).reduce((unit, divisor) => per(unit, divisor), above);
}

const factorPattern = /^(\p{L}+|[°%€$£′″]\p{L}*)(?:\^\(?(-?\d{1,2})\)?)?$/u;

function readProduct(text: string): Unit | null {
  let unit = bare;
  for (const part of text.split(/[·*\s]+/)) {
    const [, symbol, exponent = '1'] = factorPattern.exec(part) ?? [];
    if (symbol === undefined) return null;
    unit = times(unit, new Map([[symbol, Number(exponent)]]));
  }
  return unit;
}

/** The unit of a product. */
export const times = (a: Unit, b: Unit): Unit => combined(a, b, 1);
/** The unit of a quotient; `count` times divided, as for a derivative of that order. */
export const per = (a: Unit, b: Unit, count = 1): Unit => combined(a, b, -count);

function combined(a: Unit, b: Unit, sign: number): Unit {
  const exponents = new Map(a);
  for (const [symbol, exponent] of b) {
    const sum = (exponents.get(symbol) ?? 0) + sign * exponent;
    if (sum === 0) exponents.delete(symbol);
    else exponents.set(symbol, sum);
  }
  return exponents;
}

export const isSameUnit = (a: Unit, b: Unit): boolean => per(a, b).size === 0;

/** The unit as it is printed: L/min², kg·m/s², 1/min; nothing for a bare number. */
export function unitText(unit: Unit): string {
  const raised = ([symbol, exponent]: readonly [string, number]): string =>
    symbol + (exponent === 1 ? '' : [...String(exponent)].map((d) => superscripts[Number(d)]).join(''));
  const above = [...unit].filter(([, exponent]) => exponent > 0).map(raised);
  const below = [...unit].filter(([, exponent]) => exponent < 0).map(([s, e]) => raised([s, -e]));
  if (above.length + below.length === 0) return '';
  const divisor = below.length > 1 ? `/(${below.join('·')})` : below.length === 1 ? `/${below[0] ?? ''}` : '';
  return (above.join('·') || '1') + divisor;
}

/**
 * How fast something rises or falls: "at a rate of 3 cm/min", or "by 3 for each unit of x" between bare numbers.
 * @param rate the rate without its sign
 * @param average whether it is the mean rate over an interval
 */
export function rateWords(rate: string, unit: Unit, variable: string, average = false): string {
  if (unit.size > 0) return `at ${average ? 'an average' : 'a rate'} of ${withUnit(rate, unit)}`;
  return `by ${rate} ${average ? 'on average ' : ''}for each unit of ${variable}`;
}

/** A number's text with its unit behind it. */
export const withUnit = (text: string, unit: Unit): string =>
  unit.size === 0 ? text : `${text} ${unitText(unit)}`;
