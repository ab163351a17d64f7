/** A small generator of pseudo-random numbers with a seed (mulberry32), so that every run can be replayed. */
export class Random {
  constructor(private state: number) {}

  /** From 0, inclusive, to 1, exclusive. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }

  below(n: number): number {
    return Math.floor(this.next() * n);
  }

  pick<T>(items: readonly T[]): T {
    return items[this.below(items.length)] as T;
  }
}

const words = [
  ...[
    'x',
    'a',
    'f',
    'g',
    'sin',
    'cos',
    'ln',
    'exp',
    'sqrt',
    'log_2',
    'root',
    'min',
    'floor',
    'abs',
    'e',
    'pi',
  ],
  ...[
    'if',
    'otherwise',
    'for',
    'and',
    'or',
    'not',
    'from',
    'to',
    'of',
    'sum',
    'integral',
    'lim',
    'd/dx',
    'dx',
    'dt',
  ],
  ...[
    '+',
    '-',
    '*',
    '/',
    '^',
    '(',
    ')',
    '[',
    ']',
    '{',
    '}',
    '|',
    ',',
    ';',
    '=',
    '<',
    '≤',
    '>',
    '≥',
    '≠',
    '!',
    '°',
  ],
  ...[
    '1',
    '2',
    '3.5',
    '.5',
    '1E-3',
    '½',
    '²',
    '⁻¹',
    "'",
    '′',
    '√',
    '∛',
    '∞',
    '→',
    '∫',
    '∑',
    '∂',
    '∂_1',
    'π',
    'α',
  ],
  ...[
    '\\frac{',
    '\\sqrt',
    '\\left(',
    '\\right)',
    '\\sin',
    '\\int_',
    '\\sum_{',
    '\\begin{cases}',
    '\\end{cases}',
    '\\\\',
  ],
  ...[
    '_',
    '_1',
    'x_0',
    '&',
    '\\text{if}',
    '\\lim_',
    '}',
    '^{',
    ' ',
    '  ',
    '\u0000',
    '\ud83d',
    '😀',
    '\u200b',
    '"',
    '#',
  ],
  ...['⌊', '⌋', '⌈', '⌉', '%', 'mod', '∏', '∏[k=1,', '\\prod_', '\\binom', 'binomial(', '↦', ':', ':=', '$'],
  ...[
    'ˣ',
    'ⁿ',
    '⁺',
    '⁽',
    '⅓',
    '₀',
    '¹',
    '’',
    '”',
    'tg ',
    'ch ',
    'Sin',
    'sin2',
    '𝑥',
    'ℎ',
    '—',
    ' 000',
    'e-3',
    'lim_(',
  ],
];

/** A text of words of the notation and of others, well formed or not. */
export function randomText(random: Random): string {
  const kind = random.below(20);
  if (kind === 0)
    return String.fromCharCode(...Array.from({ length: random.below(40) }, () => random.below(65536)));
  if (kind === 1)
    return random
      .pick(['(', '|', '-', 'sin ', '√', '∫[0,1] ', '{', 'f(', 'not ', '\\frac{'])
      .repeat(random.below(400));
  if (kind < 8) return mutated(random, randomFormula(random, 1 + random.below(4)));
  const length = 1 + random.below(kind === 2 ? 200 : 14);
  return Array.from({ length }, () => random.pick(words)).join(random.pick(['', ' ']));
}

/** The text with a piece or two of it replaced by a word, or as it is. */
function mutated(random: Random, text: string): string {
  let result = text;
  for (let i = random.below(3); i > 0; i--) {
    const at = random.below(result.length + 1);
    result = result.slice(0, at) + random.pick(words) + result.slice(at + random.below(3));
  }
  return result;
}

const unary = ['sin', 'cos', 'exp', 'ln', 'sqrt', 'abs', 'arctan', 'tan', 'floor', 'cbrt', 'sinh', 'sign'];

/** A formula in x that can be read, of the given depth at most. */
export function randomFormula(random: Random, depth = 3): string {
  if (depth === 0 || random.next() < 0.15) {
    return random.pick(['x', 'x', 'x', String(random.below(7)), '0.5', '1/3', 'π', 'e', '-2', '0']);
  }
  const part = (): string => randomFormula(random, depth - 1);
  switch (random.below(9)) {
    case 0:
      return `(${part()}) + (${part()})`;
    case 1:
      return `(${part()}) - (${part()})`;
    case 2:
    case 3:
      return `(${part()})*(${part()})`;
    case 4:
      return `(${part()})/(${part()})`;
    case 5:
      return `(${part()})^${random.pick(['2', '3', '(1/2)', '(-1)', '(2/3)', '(x)'])}`;
    case 6:
      return `(${part()} if x < ${random.below(3)}; ${part()} otherwise)`;
    case 7:
      return `${random.pick(['min', 'max'])}(${part()}, ${part()})`;
    default:
      return `${random.pick(unary)}(${part()})`;
  }
}
