import type { Expression } from '../language/tree.ts';
import * as f from './forms.ts';
import type { Form, Powers, Sum } from './forms.ts';
import { NoRule, ratioOf } from './literals.ts';

const highestPower = 24;
const inverses = new Set(['arctan', 'artanh', 'arcsin', 'arccos', 'arsinh', 'arcosh']);

/** What a number stands for in sums that are written out. */
interface Generator {
  readonly written: Expression;
  /** The derivative by the variable; null where there is no rule for it. */
  readonly slope: (() => Form) | null;
  /** Which power of it is another sum. */
  readonly relation: { readonly power: number; readonly is: Sum } | null;
  /** Whether it is nowhere below 0. */
  readonly isSize: boolean;
  /** ln of its size; null where that is a generator of its own. */
  readonly logarithm: (() => Form) | null;
}

const call = (name: string, ...given: readonly Expression[]): Expression => ({
  kind: 'call',
  name,
  arguments: given,
});
const number = (n: bigint | number): Expression => ({ kind: 'number', text: String(n) });

/**
 * Formulas in one variable, written out as quotients of polynomials in it and in what stands for roots, sizes,
 * exponentials, waves and logarithms, with no more than the relations that hold between these: rⁿ = w for a root,
 * |u|² = u², sin² = 1 − cos², eᵃ⁺ᵇ = eᵃ eᵇ, the sums of angles, ln ab = ln |a| + ln |b|. What is written out as 0 is 0 wherever
 * it has a value; of anything else nothing is said. All of it throws NoRule where there is none.
 */
export class WrittenOut {
  private readonly known = new Map<string, number>();
  private readonly generators: Generator[] = [];
  /** What the logarithms of numbers are of, by their term. */
  private readonly logarithms = new Map<string, Form>();

  constructor(private readonly variable: string) {}

  of(node: Expression): Form {
    const ratio = ratioOf(node);
    if (ratio) return f.fraction(ratio.p, ratio.q);
    switch (node.kind) {
      case 'constant':
        if (node.name === 'infinity') throw new NoRule('infinity');
        return node.name === 'e' ? this.exp(f.whole(1)) : this.generator('pi', node, () => f.whole(0));
      case 'name':
        return this.generator(`name ${node.name}`, node, () => f.whole(node.name === this.variable ? 1 : 0));
      case 'negate':
        return f.minus(this.of(node.operand));
      case 'add':
        return this.sum(this.of(node.left), this.of(node.right));
      case 'subtract':
        return this.sum(this.of(node.left), f.minus(this.of(node.right)));
      case 'multiply':
        return this.product(this.of(node.left), this.of(node.right));
      case 'divide':
        return this.quotient(this.of(node.left), this.of(node.right));
      case 'power':
        return this.power(node.base, node.exponent);
      case 'call':
        return this.call(node.name, node.arguments);
      default:
        throw new NoRule(node.kind);
    }
  }

  /** The derivative by the variable. */
  slopeOf({ above, below }: Form): Form {
    const [a, b] = [this.slopeOfSum(above), this.slopeOfSum(below)];
    const [over, under] = [above, below].map((side): Form => ({ above: side, below: f.one })) as [Form, Form];
    const top = this.sum(this.product(a, under), f.minus(this.product(over, b)));
    return this.quotient(top, this.product(under, under));
  }

  private slopeOfSum(x: Sum): Form {
    let result = f.whole(0);
    for (const [key, c] of x)
      for (const [g, power] of f.powersOf(key)) {
        const { slope } = this.generators[g] as Generator;
        if (!slope) throw new NoRule('slope');
        const rest = f.single(c * BigInt(power), f.keyOf(new Map(f.powersOf(key)).set(g, power - 1)));
        result = this.sum(result, this.product({ above: rest, below: f.one }, slope()));
      }
    return result;
  }

  /** As a formula: what all terms have in common before them, so that no factor is hidden. */
  written({ above, below }: Form): Expression {
    const [top, bottom] = [this.writtenSum(above), this.writtenSum(below)];
    const isWhole = bottom.kind === 'number' && bottom.text === '1';
    return isWhole ? top : { kind: 'divide', left: top, right: bottom };
  }

  private writtenSum(x: Sum): Expression {
    const common = f.commonOf([...x.keys()]);
    const terms = [...x].map(([key, c]): Expression => {
      const powers = f.without(f.powersOf(key), common);
      const size = this.writtenProduct(powers, c < 0n ? -c : c);
      return c < 0n ? { kind: 'negate', operand: size } : size;
    });
    const [first = number(0), ...others] = terms;
    const whole = others.reduce((left, right): Expression => ({ kind: 'add', left, right }), first);
    if (common.size === 0) return whole;
    return { kind: 'multiply', left: this.writtenProduct(common, 1n), right: whole };
  }

  private writtenProduct(powers: Powers, c: bigint): Expression {
    const factors = [...powers].flatMap(([g, power]): Expression[] => {
      const base = (this.generators[g] as Generator).written;
      if (power === 0) return [];
      return [power === 1 ? base : { kind: 'power', base, exponent: number(power) }];
    });
    const all = c === 1n && factors.length > 0 ? factors : [number(c), ...factors];
    return all.reduce((left, right): Expression => ({ kind: 'multiply', left, right }));
  }

  private numberOf(name: string, generator: () => Generator): number {
    const known = this.known.get(name);
    if (known !== undefined) return known;
    const made = generator();
    this.known.set(name, this.generators.length);
    this.generators.push(made);
    return this.generators.length - 1;
  }

  private generator(
    name: string,
    written: Expression,
    slope: Generator['slope'],
    more: Partial<Generator> = {},
  ): Form {
    const g = this.numberOf(name, () => ({
      ...{ written, slope, relation: null, isSize: false, logarithm: null },
      ...more,
    }));
    return { above: f.single(1n, `${g}^1`), below: f.one };
  }

  private sum(u: Form, v: Form): Form {
    if (f.textOf(u.below) === f.textOf(v.below)) return f.lowest({ ...u, above: f.plus(u.above, v.above) });
    return f.lowest({
      above: f.plus(this.times(u.above, v.below), this.times(v.above, u.below)),
      below: this.times(u.below, v.below),
    });
  }

  private product(u: Form, v: Form): Form {
    return f.lowest({ above: this.times(u.above, v.above), below: this.times(u.below, v.below) });
  }

  private quotient(u: Form, v: Form): Form {
    return this.product(u, this.inverse(v));
  }

  private inverse({ above, below }: Form): Form {
    if (above.size === 0) throw new NoRule('division by 0');
    return f.lowest({ above: below, below: above });
  }

  private times(x: Sum, y: Sum): Sum {
    let result: Sum = new Map();
    for (const [k, a] of x)
      for (const [l, b] of y) {
        const powers = new Map(f.powersOf(k));
        for (const [g, power] of f.powersOf(l)) powers.set(g, (powers.get(g) ?? 0) + power);
        result = f.plus(result, this.reduced(powers, a * b));
      }
    return result;
  }

  /** A term by the relations of its generators. */
  private reduced(powers: Powers, c: bigint): Sum {
    for (const [g, power] of powers) {
      if (power > highestPower) throw new NoRule('power');
      const { relation } = this.generators[g] as Generator;
      if (!relation || power < relation.power) continue;
      const rest = this.reduced(new Map(powers).set(g, power - relation.power), c);
      return this.times(rest, relation.is);
    }
    return f.single(c, f.keyOf(powers));
  }

  private raised(u: Form, n: number): Form {
    if (Math.abs(n) > highestPower) throw new NoRule('power');
    if (n < 0) return this.inverse(this.raised(u, -n));
    let result = f.whole(1);
    for (let i = 0; i < n; i++) result = this.product(result, u);
    return result;
  }

  private power(base: Expression, exponent: Expression): Form {
    const ratio = ratioOf(exponent);
    if (!ratio) return this.exp(this.product(this.of(exponent), this.logarithm(this.of(base))));
    if (ratio.q > highestPower) throw new NoRule('power');
    if (base.kind === 'constant' && base.name === 'e') return this.exp(f.fraction(ratio.p, ratio.q));
    const u = this.of(base);
    return this.raised(ratio.q === 1 ? u : this.root(u, ratio.q), ratio.p);
  }

  /** a/b under a root is abⁿ⁻¹ under it, over b, where b is a number above 0. */
  private root({ above, below }: Form, n: number): Form {
    const divisor = f.numberOf(below);
    if (divisor === null) throw new NoRule('root');
    const w = f.scaled(above, divisor ** BigInt(n - 1));
    const root = (n === 2 ? this.squareRoot(w) : null) ?? this.lonelyRoot(w, n);
    return this.product(root, f.fraction(1, divisor));
  }

  private lonelyRoot(w: Sum, n: number): Form {
    const of = { above: w, below: f.one };
    const inner = this.written(of);
    const root: Form = this.generator(
      `root ${n} ${f.textOf(w)}`,
      n === 2
        ? call('sqrt', inner)
        : { kind: 'power', base: inner, exponent: { kind: 'divide', left: number(1), right: number(n) } },
      () => this.quotient(this.slopeOf(of), this.product(f.whole(n), this.raised(root, n - 1))),
      {
        relation: { power: n, is: w },
        isSize: n % 2 === 0,
        logarithm: () => this.product(f.fraction(1, n), this.logarithmOf(w)),
      },
    );
    return root;
  }

  /** The root of a term that is a square. */
  private squareRoot(w: Sum): Form | null {
    const term = f.termOf(w);
    if (!term || term.c < 0n || ![...term.powers.values()].every((power) => power % 2 === 0)) return null;
    const root = BigInt(Math.round(Math.sqrt(Number(term.c))));
    if (root * root !== term.c) return null;
    const halves = new Map([...term.powers].map(([g, power]) => [g, power / 2]));
    return this.size(f.single(root, f.keyOf(halves)));
  }

  private size(u: Sum): Form {
    const term = f.termOf(u);
    if (!term) return this.lonelySize(f.isNegative(u) ? f.scaled(u, -1n) : u);
    let result = f.whole(term.c < 0n ? -term.c : term.c);
    for (const [g, power] of term.powers) {
      const base = f.single(1n, `${g}^1`);
      const isSize = (this.generators[g] as Generator).isSize || power % 2 === 0;
      const factor = isSize ? { above: base, below: f.one } : this.lonelySize(base);
      result = this.product(result, this.raised(factor, power));
    }
    return result;
  }

  private lonelySize(of: Sum): Form {
    const inner = { above: of, below: f.one };
    const size: Form = this.generator(
      `size ${f.textOf(of)}`,
      call('abs', this.written(inner)),
      () => this.quotient(this.product(inner, this.slopeOf(inner)), size),
      {
        relation: { power: 2, is: this.times(of, of) },
        isSize: true,
        logarithm: () => this.logarithmOf(of),
      },
    );
    return size;
  }

  /** The terms of a form that is divided by nothing but a number; null of another. */
  private termsOf({ above, below }: Form): { p: bigint; q: bigint; key: string }[] | null {
    const divisor = f.numberOf(below);
    if (divisor === null) return null;
    return [...above].map(([key, c]) => {
      const shared = f.gcd(c, divisor);
      return { p: c / shared, q: divisor / shared, key };
    });
  }

  /** A power of e for each term: e^(p/q m) is a power of e^(m/q). */
  private exp(u: Form): Form {
    const terms = this.termsOf(u);
    if (!terms) return this.lonelyExp(u);
    let result = f.whole(1);
    for (const { p, q, key } of terms) {
      const logarithm = this.logarithms.get(key);
      // e^(ln a) is a, where a is a number.
      const base =
        logarithm && q === 1n ? logarithm : this.lonelyExp({ above: f.single(1n, key), below: f.single(q) });
      result = this.product(result, this.raised(base, Number(p)));
    }
    return result;
  }

  private lonelyExp(of: Form): Form {
    const power: Form = this.generator(
      `exp ${f.textOf(of.above)}/${f.textOf(of.below)}`,
      call('exp', this.written(of)),
      () => this.product(power, this.slopeOf(of)),
      { isSize: true, logarithm: () => of },
    );
    return power;
  }

  /** ln |u|, which is ln u where that has a value. */
  private logarithm({ above, below }: Form): Form {
    return this.sum(this.logarithmOf(above), f.minus(this.logarithmOf(below)));
  }

  private logarithmOf(x: Sum): Form {
    if (x.size === 0) throw new NoRule('logarithm of 0');
    const term = f.termOf(x);
    if (!term) {
      const content = f.contentOf(x) * (f.isNegative(x) ? -1n : 1n);
      const rest = new Map([...x].map(([key, c]) => [key, c / content]));
      return this.sum(this.logarithmOf(f.single(content)), this.lonelyLogarithm(rest));
    }
    let result = f.whole(0);
    for (const [prime, power] of f.factorsOf(term.c < 0n ? -term.c : term.c))
      result = this.sum(result, this.product(f.whole(power), this.lonelyLogarithm(f.single(prime))));
    for (const [g, power] of term.powers) {
      const known = (this.generators[g] as Generator).logarithm;
      const logarithm = known ? known() : this.lonelyLogarithm(f.single(1n, `${g}^1`));
      result = this.sum(result, this.product(f.whole(power), logarithm));
    }
    return result;
  }

  /** The logarithm of the size of what does not fall into factors. */
  private lonelyLogarithm(x: Sum): Form {
    const of = { above: x, below: f.one };
    const isNumber = f.numberOf(x) !== null;
    const inner = this.written(of);
    const logarithm = this.generator(
      `ln ${f.textOf(x)}`,
      call('ln', isNumber ? inner : call('abs', inner)),
      () => this.quotient(this.slopeOf(of), of),
    );
    if (isNumber) this.logarithms.set([...logarithm.above.keys()].join(''), of);
    return logarithm;
  }

  /** sin and cos of a sum, term by term. */
  private waves(u: Form): Waves {
    const terms = this.termsOf(u);
    if (!terms) return this.wavesOf(u);
    let result: Waves = { sin: f.whole(0), cos: f.whole(1) };
    for (const { p, q, key } of terms) {
      const angle = this.knownWaves(key, q) ?? this.wavesOf({ above: f.single(1n, key), below: f.single(q) });
      if (p > BigInt(highestPower) || -p > BigInt(highestPower)) throw new NoRule('multiple');
      const turned = p < 0n ? { ...angle, sin: f.minus(angle.sin) } : angle;
      for (let i = 0n; i < (p < 0n ? -p : p); i++) result = this.turned(result, turned);
    }
    return result;
  }

  private turned(a: Waves, b: Waves): Waves {
    return {
      sin: this.sum(this.product(a.sin, b.cos), this.product(a.cos, b.sin)),
      cos: this.sum(this.product(a.cos, b.cos), f.minus(this.product(a.sin, b.sin))),
    };
  }

  /** Of π and π/2. */
  private knownWaves(key: string, q: bigint): Waves | null {
    const pi = this.known.get('pi');
    if (pi === undefined || key !== `${pi}^1` || q > 2n) return null;
    return q === 1n ? { sin: f.whole(0), cos: f.whole(-1) } : { sin: f.whole(1), cos: f.whole(0) };
  }

  private wavesOf(angle: Form): Waves {
    const name = `${f.textOf(angle.above)}/${f.textOf(angle.below)}`;
    const inner = this.written(angle);
    const slope = (): Form => this.slopeOf(angle);
    const cos: Form = this.generator(`cos ${name}`, call('cos', inner), () =>
      f.minus(this.product(sin, slope())),
    );
    const [key] = [...cos.above.keys()] as [string];
    const square = f.plus(f.one, f.single(-1n, key.replace('^1', '^2')));
    const sin: Form = this.generator(`sin ${name}`, call('sin', inner), () => this.product(cos, slope()), {
      relation: { power: 2, is: square },
    });
    return { sin, cos };
  }

  private call(name: string, given: readonly Expression[]): Form {
    const [u, ...others] = given.map((part) => this.of(part));
    if (!u || others.length > 0) throw new NoRule(name);
    const waves = (): Waves => this.waves(u);
    const powers = (sign: 1 | -1): Form => {
      const down = this.exp(f.minus(u));
      return this.sum(this.exp(u), sign > 0 ? down : f.minus(down));
    };
    switch (name) {
      case 'exp':
        return this.exp(u);
      case 'ln':
        return this.logarithm(u);
      case 'sqrt':
        return this.root(u, 2);
      case 'cbrt':
        return this.root(u, 3);
      case 'abs':
        return this.quotient(this.size(u.above), this.size(u.below));
      case 'sin':
        return waves().sin;
      case 'cos':
        return waves().cos;
      case 'tan':
        return this.quotient(waves().sin, waves().cos);
      case 'cot':
        return this.quotient(waves().cos, waves().sin);
      case 'sec':
        return this.inverse(waves().cos);
      case 'csc':
        return this.inverse(waves().sin);
      case 'sinh':
        return this.product(f.fraction(1, 2), powers(-1));
      case 'cosh':
        return this.product(f.fraction(1, 2), powers(1));
      case 'tanh':
        return this.quotient(powers(-1), powers(1));
      default:
        return this.generator(
          `${name} ${f.textOf(u.above)}/${f.textOf(u.below)}`,
          call(name, this.written(u)),
          this.inverseSlope(name, u),
        );
    }
  }

  /** The derivative of an inverse function, u′/(1 + u²) for arctan u and its kin; null for any other. */
  private inverseSlope(name: string, u: Form): (() => Form) | null {
    const square = (): Form => this.product(u, u);
    const one = f.whole(1);
    const below = (): Form | null => {
      switch (name) {
        case 'arctan':
          return this.sum(one, square());
        case 'artanh':
          return this.sum(one, f.minus(square()));
        case 'arcsin':
          return this.root(this.sum(one, f.minus(square())), 2);
        case 'arccos':
          return f.minus(this.root(this.sum(one, f.minus(square())), 2));
        case 'arsinh':
          return this.root(this.sum(one, square()), 2);
        case 'arcosh':
          return this.root(this.sum(square(), f.whole(-1)), 2);
        default:
          return null;
      }
    };
    return inverses.has(name) ? () => this.quotient(this.slopeOf(u), below() as Form) : null;
  }
}

interface Waves {
  readonly sin: Form;
  readonly cos: Form;
}
