import type { Expression } from '../language/tree.ts';
import { NoRule, ratioOf, withinRules } from './literals.ts';

/**
 * Whether a formula is 0 wherever it has a value: it is written out as a quotient of polynomials in the variable and in
 * what stands for roots, sizes, exponentials, waves and logarithms, with no more than the relations that hold between
 * these (r² = w for a root, sin² = 1 − cos², eᵃ⁺ᵇ = eᵃ eᵇ, the sums of angles, ln ab = ln |a| + ln |b|). That this leaves
 * nothing above the fraction line shows the identity; of what is left nothing is said.
 */
export const isIdenticallyZero = (formula: Expression): boolean =>
  withinRules(() => new Identity().of(formula).above.size === 0) ?? false;

/** Coefficients by products of generators, each written as its number and its power: "0^2 3^1"; "" is 1. */
type Sum = ReadonlyMap<string, bigint>;
interface Form {
  readonly above: Sum;
  readonly below: Sum;
}
/** Powers by generator. */
type Powers = ReadonlyMap<number, number>;

/** Terms that are written out. */
const mostTerms = 400;
const highestPower = 24;

/** What a generator stands for, beside a name or a function of which nothing more is known. */
type Generator =
  | { readonly kind: 'other' }
  /** e to a product of generators. */
  | { readonly kind: 'exp'; readonly of: Form }
  | { readonly kind: 'sin'; readonly cos: number }
  /** The n-th root of w. */
  | { readonly kind: 'root'; readonly n: number; readonly w: Sum }
  | { readonly kind: 'size'; readonly of: Sum };

const powersOf = (key: string): Powers =>
  new Map(key === '' ? [] : key.split(' ').map((part) => part.split('^').map(Number) as [number, number]));
const keyOf = (powers: Powers): string =>
  [...powers]
    .filter(([, power]) => power !== 0)
    .sort(([a], [b]) => a - b)
    .map(([generator, power]) => `${generator}^${power}`)
    .join(' ');

const single = (coefficient: bigint, key = ''): Sum =>
  new Map(coefficient === 0n ? [] : [[key, coefficient]]);
const one = single(1n);
const whole = (n: bigint | number): Form => ({ above: single(BigInt(n)), below: one });

function plus(x: Sum, y: Sum): Sum {
  const sum = new Map(x);
  for (const [key, c] of y) {
    const total = (sum.get(key) ?? 0n) + c;
    if (total === 0n) sum.delete(key);
    else sum.set(key, total);
  }
  if (sum.size > mostTerms) throw new NoRule('too many terms');
  return sum;
}
const scaled = (x: Sum, by: bigint): Sum => new Map([...x].map(([key, c]) => [key, c * by]));
const minus = (u: Form): Form => ({ ...u, above: scaled(u.above, -1n) });

/** The one term of a sum; null where it has more or none. */
function termOf(x: Sum): { c: bigint; powers: Powers } | null {
  const [first, ...others] = x;
  return first && others.length === 0 ? { c: first[1], powers: powersOf(first[0]) } : null;
}

const textOf = (x: Sum): string =>
  [...x]
    .map(([key, c]) => `${c}*${key}`)
    .sort()
    .join('+');

const gcd = (a: bigint, b: bigint): bigint => {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y > 0n) [x, y] = [y, x % y];
  return x;
};
const contentOf = (x: Sum): bigint => [...x.values()].reduce(gcd, 0n);

/** Whether the coefficient of the term that comes first by its key is below 0. */
const isNegative = (x: Sum): boolean => {
  const [first] = [...x].sort(([a], [b]) => (a < b ? -1 : 1));
  return first !== undefined && first[1] < 0n;
};

/** Without what divides both sides: whole numbers, and products of generators. */
function lowest({ above, below }: Form): Form {
  if (above.size === 0) return { above, below: one };
  const divisor = gcd(contentOf(above), contentOf(below)) * (isNegative(below) ? -1n : 1n);
  const keys = [...above.keys(), ...below.keys()].map(powersOf);
  const shared = new Map(
    [...(keys[0] as Powers)].map(([g]) => [g, Math.min(...keys.map((powers) => powers.get(g) ?? 0))]),
  );
  const less = (x: Sum): Sum =>
    new Map(
      [...x].map(([key, c]) => {
        const powers = new Map([...powersOf(key)].map(([g, power]) => [g, power - (shared.get(g) ?? 0)]));
        return [keyOf(powers), c / divisor];
      }),
    );
  return { above: less(above), below: less(below) };
}

class Identity {
  private readonly known = new Map<string, number>();
  private readonly generators: Generator[] = [];

  of(node: Expression): Form {
    const ratio = ratioOf(node);
    if (ratio) return { above: single(BigInt(ratio.p)), below: single(BigInt(ratio.q)) };
    switch (node.kind) {
      case 'constant':
        if (node.name === 'infinity') throw new NoRule('infinity');
        return node.name === 'e' ? this.exp(whole(1)) : this.generator('pi');
      case 'name':
        return this.generator(`name ${node.name}`);
      case 'negate':
        return minus(this.of(node.operand));
      case 'add':
        return this.sum(this.of(node.left), this.of(node.right));
      case 'subtract':
        return this.sum(this.of(node.left), minus(this.of(node.right)));
      case 'multiply':
        return this.product(this.of(node.left), this.of(node.right));
      case 'divide':
        return this.product(this.of(node.left), this.inverse(this.of(node.right)));
      case 'power':
        return this.power(node.base, node.exponent);
      case 'call':
        return this.call(node.name, node.arguments);
      default:
        throw new NoRule(node.kind);
    }
  }

  private generator(name: string, meaning: Generator = { kind: 'other' }): Form {
    return { above: single(1n, `${this.numberOf(name, meaning)}^1`), below: one };
  }

  private numberOf(name: string, meaning: Generator): number {
    const known = this.known.get(name) ?? this.generators.length;
    if (known === this.generators.length) {
      this.known.set(name, known);
      this.generators.push(meaning);
    }
    return known;
  }

  private sum(u: Form, v: Form): Form {
    if (textOf(u.below) === textOf(v.below)) return lowest({ ...u, above: plus(u.above, v.above) });
    return lowest({
      above: plus(this.times(u.above, v.below), this.times(v.above, u.below)),
      below: this.times(u.below, v.below),
    });
  }

  private product(u: Form, v: Form): Form {
    return lowest({ above: this.times(u.above, v.above), below: this.times(u.below, v.below) });
  }

  private inverse({ above, below }: Form): Form {
    if (above.size === 0) throw new NoRule('division by 0');
    return lowest({ above: below, below: above });
  }

  private times(x: Sum, y: Sum): Sum {
    let result: Sum = new Map();
    for (const [k, a] of x)
      for (const [l, b] of y) {
        const powers = new Map(powersOf(k));
        for (const [g, power] of powersOf(l)) powers.set(g, (powers.get(g) ?? 0) + power);
        result = plus(result, this.reduced(powers, a * b));
      }
    return result;
  }

  /** A term by the relations of its generators. */
  private reduced(powers: Powers, c: bigint): Sum {
    for (const [g, power] of powers) {
      if (power > highestPower) throw new NoRule('power');
      const meaning = this.generators[g] as Generator;
      const [least, instead] = this.relationOf(meaning);
      if (instead === null || power < least) continue;
      const rest = this.reduced(new Map(powers).set(g, power - least), c);
      return this.times(rest, instead);
    }
    return single(c, keyOf(powers));
  }

  /** What stands for which power of a generator. */
  private relationOf(meaning: Generator): [number, Sum | null] {
    switch (meaning.kind) {
      case 'root':
        return [meaning.n, meaning.w];
      case 'size':
        return [2, this.times(meaning.of, meaning.of)];
      case 'sin':
        return [2, plus(one, single(-1n, `${meaning.cos}^2`))];
      default:
        return [0, null];
    }
  }

  private raised(u: Form, n: number): Form {
    if (n < 0) return this.inverse(this.raised(u, -n));
    let result = whole(1);
    for (let i = 0; i < n; i++) result = this.product(result, u);
    return result;
  }

  private power(base: Expression, exponent: Expression): Form {
    const ratio = ratioOf(exponent);
    if (!ratio) return this.exp(this.product(this.of(exponent), this.logarithm(this.of(base))));
    if (Math.abs(ratio.p) > highestPower || ratio.q > highestPower) throw new NoRule('power');
    if (base.kind === 'constant' && base.name === 'e')
      return this.exp({ above: single(BigInt(ratio.p)), below: single(BigInt(ratio.q)) });
    const u = this.of(base);
    return this.raised(ratio.q === 1 ? u : this.root(u, ratio.q), ratio.p);
  }

  /** a/b under a root is ab^(n − 1) under it, over b, where b is a number above 0. */
  private root({ above, below }: Form, n: number): Form {
    const divisor = termOf(below);
    if (!divisor || divisor.powers.size > 0) throw new NoRule('root');
    const w = scaled(above, divisor.c ** BigInt(n - 1));
    const over = { above: one, below: single(divisor.c) };
    const square = n === 2 ? this.squareRoot(w) : null;
    if (square) return this.product(square, over);
    return this.product(this.generator(`root ${n} ${textOf(w)}`, { kind: 'root', n, w }), over);
  }

  /** The root of a term that is a square. */
  private squareRoot(w: Sum): Form | null {
    const term = termOf(w);
    if (!term || term.c < 0n || ![...term.powers.values()].every((power) => power % 2 === 0)) return null;
    const root = BigInt(Math.round(Math.sqrt(Number(term.c))));
    if (root * root !== term.c) return null;
    const halves = new Map([...term.powers].map(([g, power]) => [g, power / 2]));
    return this.size(single(root, keyOf(halves)));
  }

  private size(u: Sum): Form {
    const term = termOf(u);
    if (!term) {
      const of = isNegative(u) ? scaled(u, -1n) : u;
      return this.generator(`size ${textOf(of)}`, { kind: 'size', of });
    }
    let result = whole(term.c < 0n ? -term.c : term.c);
    for (const [g, power] of term.powers) {
      const meaning = this.generators[g] as Generator;
      const isAbove =
        meaning.kind === 'exp' || meaning.kind === 'size' || (meaning.kind === 'root' && meaning.n % 2 === 0);
      const base = single(1n, `${g}^1`);
      const factor =
        isAbove || power % 2 === 0
          ? { above: base, below: one }
          : this.generator(`size ${textOf(base)}`, { kind: 'size', of: base });
      result = this.product(result, this.raised(factor, power));
    }
    return result;
  }

  /** The terms of a form that is divided by nothing but a number. */
  private termsOf({ above, below }: Form): { p: bigint; q: bigint; key: string }[] {
    const divisor = termOf(below);
    if (!divisor || divisor.powers.size > 0) throw new NoRule('quotient');
    return [...above].map(([key, c]) => {
      const shared = gcd(c, divisor.c);
      return { p: c / shared, q: divisor.c / shared, key };
    });
  }

  /** A power of e for each term: e^(p/q m) is a power of e^(m/q). */
  private exp(u: Form): Form {
    const divisor = termOf(u.below);
    if (!divisor || divisor.powers.size > 0)
      return this.generator(`exp ${textOf(u.above)}/${textOf(u.below)}`, { kind: 'exp', of: u });
    let result = whole(1);
    for (const { p, q, key } of this.termsOf(u)) {
      const logarithm = this.logarithms.get(key);
      const of = { above: single(1n, key), below: single(q) };
      // e^(ln a) is a, where there is a logarithm of it.
      const base = logarithm && q === 1n ? logarithm : this.generator(`exp ${key}/${q}`, { kind: 'exp', of });
      if (p > BigInt(highestPower) || -p > BigInt(highestPower)) throw new NoRule('power');
      result = this.product(result, this.raised(base, Number(p)));
    }
    return result;
  }

  /** What the logarithms that stand for themselves are of, by their term. */
  private readonly logarithms = new Map<string, Form>();

  /** ln |u|, which is ln u where that has a value. */
  private logarithm({ above, below }: Form): Form {
    return this.sum(this.logarithmOf(above), minus(this.logarithmOf(below)));
  }

  private logarithmOf(x: Sum): Form {
    if (x.size === 0) throw new NoRule('logarithm of 0');
    const term = termOf(x);
    if (!term) {
      const content = contentOf(x) * (isNegative(x) ? -1n : 1n);
      const rest = new Map([...x].map(([key, c]) => [key, c / content]));
      return this.sum(this.logarithmOf(single(content)), this.lone(rest, { above: rest, below: one }));
    }
    let result = whole(0);
    for (const [prime, power] of factorsOf(term.c < 0n ? -term.c : term.c))
      result = this.sum(result, this.product(whole(power), this.lone(single(prime), whole(prime))));
    for (const [g, power] of term.powers)
      result = this.sum(result, this.product(whole(power), this.logarithmOfGenerator(g)));
    return result;
  }

  private logarithmOfGenerator(g: number): Form {
    const meaning = this.generators[g] as Generator;
    const base = single(1n, `${g}^1`);
    switch (meaning.kind) {
      case 'exp':
        return meaning.of;
      case 'root':
        return this.product({ above: one, below: single(BigInt(meaning.n)) }, this.logarithmOf(meaning.w));
      case 'size':
        return this.logarithmOf(meaning.of);
      default:
        return this.lone(base, { above: base, below: one });
    }
  }

  /** The logarithm of the size of what does not fall into factors. */
  private lone(x: Sum, of: Form): Form {
    const form = this.generator(`ln ${textOf(x)}`);
    const [key] = [...form.above.keys()] as [string];
    const isPositive = termOf(x)?.powers.size === 0;
    if (isPositive) this.logarithms.set(key, of);
    return form;
  }

  /** sin and cos of a sum, term by term. */
  private waves(u: Form): { sin: Form; cos: Form } {
    const terms = this.isSum(u) ? this.termsOf(u) : null;
    if (!terms) return this.wavesOf(`${textOf(u.above)}/${textOf(u.below)}`);
    let [sin, cos] = [whole(0), whole(1)];
    for (const { p, q, key } of terms) {
      const angle = this.turned(this.wavesOf(`${key}/${q}`, key, q), p);
      [sin, cos] = [
        this.sum(this.product(sin, angle.cos), this.product(cos, angle.sin)),
        this.sum(this.product(cos, angle.cos), minus(this.product(sin, angle.sin))),
      ];
    }
    return { sin, cos };
  }

  private isSum({ below }: Form): boolean {
    return termOf(below)?.powers.size === 0;
  }

  private wavesOf(name: string, key = '', q = 1n): { sin: Form; cos: Form } {
    // π and π/2, of which the waves are known.
    const isPi = this.known.has('pi') && key === `${this.known.get('pi') as number}^1`;
    if (isPi && q === 1n) return { sin: whole(0), cos: whole(-1) };
    if (isPi && q === 2n) return { sin: whole(1), cos: whole(0) };
    const cos = this.numberOf(`cos ${name}`, { kind: 'other' });
    return { sin: this.generator(`sin ${name}`, { kind: 'sin', cos }), cos: this.generator(`cos ${name}`) };
  }

  /** sin and cos of a whole multiple of an angle. */
  private turned(angle: { sin: Form; cos: Form }, times: bigint): { sin: Form; cos: Form } {
    const count = times < 0n ? -times : times;
    if (count > BigInt(highestPower)) throw new NoRule('multiple');
    let [sin, cos] = [whole(0), whole(1)];
    for (let i = 0n; i < count; i++)
      [sin, cos] = [
        this.sum(this.product(sin, angle.cos), this.product(cos, angle.sin)),
        this.sum(this.product(cos, angle.cos), minus(this.product(sin, angle.sin))),
      ];
    return { sin: times < 0n ? minus(sin) : sin, cos };
  }

  private call(name: string, given: readonly Expression[]): Form {
    const [u, ...others] = given.map((part) => this.of(part));
    if (!u || others.length > 0) throw new NoRule(name);
    const half = { above: one, below: single(2n) };
    const [up, down] = [(): Form => this.exp(u), (): Form => this.exp(minus(u))];
    switch (name) {
      case 'exp':
        return up();
      case 'ln':
        return this.logarithm(u);
      case 'sqrt':
        return this.root(u, 2);
      case 'cbrt':
        return this.root(u, 3);
      case 'abs':
        return this.product(this.size(u.above), this.inverse(this.size(u.below)));
      case 'sin':
        return this.waves(u).sin;
      case 'cos':
        return this.waves(u).cos;
      case 'tan': {
        const { sin, cos } = this.waves(u);
        return this.product(sin, this.inverse(cos));
      }
      case 'cot': {
        const { sin, cos } = this.waves(u);
        return this.product(cos, this.inverse(sin));
      }
      case 'sec':
        return this.inverse(this.waves(u).cos);
      case 'csc':
        return this.inverse(this.waves(u).sin);
      case 'sinh':
        return this.product(half, this.sum(up(), minus(down())));
      case 'cosh':
        return this.product(half, this.sum(up(), down()));
      case 'tanh':
        return this.product(this.sum(up(), minus(down())), this.inverse(this.sum(up(), down())));
      default:
        return this.generator(`${name} ${textOf(u.above)}/${textOf(u.below)}`);
    }
  }
}

const largestPrime = 1000n;

/** The prime factors of a number above 0; what is left beyond small ones as it is. */
function factorsOf(n: bigint): [bigint, number][] {
  const factors: [bigint, number][] = [];
  let rest = n;
  for (let p = 2n; p <= largestPrime && rest > 1n; p++) {
    let power = 0;
    while (rest % p === 0n) {
      rest /= p;
      power++;
    }
    if (power > 0) factors.push([p, power]);
  }
  return rest > 1n ? [...factors, [rest, 1]] : factors;
}
