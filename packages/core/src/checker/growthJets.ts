import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import { constantGrowth, inverse, isNought, product, type Growth, type Growths } from './growth.ts';
import { ratioOf } from './literals.ts';
import * as n from './numbers.ts';
import type { Range } from './numbers.ts';

type Jet = readonly Growth[];

const nought = constantGrowth(n.whole(0));
const scale = (u: Growth, by: Range): Growth => ({ ...u, range: n.multiply(u.range, by) });

/**
 * How the Taylor coefficients of a function grow as x tends to ∞, told in t = 1/x: those of sums, products, quotients, powers,
 * e^u, ln u and arctan u from those of their parts (Moore, Interval Analysis, 1966; from memory). Null where there is no rule.
 */
export class GrowthJets {
  constructor(
    private readonly growths: Growths,
    private readonly variable: string,
    private readonly length: number,
  ) {}

  of(node: Expression): Jet | null {
    const value = this.growths.of(
      tree.substitute(node, this.variable, tree.divide(tree.number(1), tree.name(this.variable))),
    );
    if (!value) return null;
    if (!tree.dependsOn(node, this.variable)) return this.from(value, () => nought);
    switch (node.kind) {
      case 'name':
        return this.from(value, (k) => (k === 1 ? constantGrowth(n.whole(1)) : nought));
      case 'negate':
        return this.of(node.operand)?.map((one) => scale(one, n.whole(-1))) ?? null;
      case 'add':
      case 'subtract': {
        const [u, v] = [this.of(node.left), this.of(node.right)];
        const sign = n.whole(node.kind === 'add' ? 1 : -1);
        return u && v && this.from(value, (k) => this.sum([u[k] as Growth, scale(v[k] as Growth, sign)]));
      }
      case 'multiply': {
        const [u, v] = [this.of(node.left), this.of(node.right)];
        return u && v && this.product(u, v);
      }
      case 'divide': {
        const [u, v] = [this.of(node.left), this.of(node.right)];
        const below = v && this.reciprocal(v);
        return u && below && this.product(u, below);
      }
      case 'power': {
        if (node.base.kind === 'constant' && node.base.name === 'e') return this.exp(value, node.exponent);
        const [u, ratio] = [this.of(node.base), ratioOf(node.exponent)];
        return u && ratio && this.power(u, ratio.p, ratio.q, value);
      }
      case 'call': {
        const [argument] = node.arguments;
        const u = argument ? this.of(argument) : null;
        if (!u || !argument) return null;
        if (node.name === 'sqrt') return this.power(u, 1, 2, value);
        if (node.name === 'exp') return this.exp(value, argument);
        if (node.name === 'ln') return this.along(value, u, this.reciprocal(u));
        if (node.name !== 'arctan') return null;
        const square = this.product(u, u);
        const below = square && this.from(square[0] as Growth, (k) => square[k] as Growth);
        const first = below && this.growths.sum(below[0] as Growth, constantGrowth(n.whole(1)));
        return below && first && this.along(value, u, this.reciprocal([first, ...below.slice(1)]));
      }
      default:
        return null;
    }
  }

  /** A jet whose coefficients are made one after the other; null once one is not known. */
  private from(
    value: Growth,
    next: (k: number, known: Jet) => Growth | null,
    length = this.length,
  ): Jet | null {
    const jet = [value];
    for (let k = 1; k < length; k++) {
      const coefficient = next(k, jet);
      if (!coefficient) return null;
      jet.push(coefficient);
    }
    return jet;
  }

  private sum(terms: readonly Growth[]): Growth | null {
    return terms
      .filter((term) => !isNought(term))
      .reduce<Growth | null>(
        (all, term) => all && (isNought(all) ? term : this.growths.sum(all, term)),
        nought,
      );
  }

  /** As long as the first of them. */
  product(u: Jet, v: Jet): Jet | null {
    const at = (k: number): Growth | null =>
      this.sum(Array.from({ length: k + 1 }, (_, i) => product(u[i] as Growth, v[k - i] as Growth)));
    const first = at(0);
    return first && this.from(first, at, u.length);
  }

  reciprocal = (u: Jet): Jet | null => this.power(u, -1, 1);

  /** w = u^(p/q) by k q u₀ wₖ = Σ (i p − (k − i) q) uᵢ wₖ₋ᵢ. */
  private power(u: Jet, p: number, q: number, value?: Growth): Jet | null {
    const first = u[0] as Growth;
    if (!n.isOneSided(first.range) || !n.isBounded(first.range)) return null;
    const below = inverse(first);
    const known = value ?? (p === -1 && q === 1 ? below : null);
    return (
      known &&
      this.from(known, (k, w) => {
        const terms = Array.from({ length: k }, (_, j) => {
          const i = j + 1;
          const share = n.fraction(BigInt(i * p - (k - i) * q), BigInt(k * q));
          return scale(product(u[i] as Growth, w[k - i] as Growth), share);
        });
        const total = this.sum(terms);
        return total && product(total, below);
      })
    );
  }

  private exp(value: Growth, exponent: Expression): Jet | null {
    const u = this.of(exponent);
    return u && this.from(value, (k, w) => this.slope(u, w, k));
  }

  /** F(u) from the jet of F′(u). */
  private along(value: Growth, u: Jet, slope: Jet | null): Jet | null {
    return slope && this.from(value, (k) => this.slope(u, slope, k));
  }

  /** Σ i uᵢ vₖ₋ᵢ/k. */
  private slope(u: Jet, v: Jet, k: number): Growth | null {
    const terms = Array.from({ length: k }, (_, j) =>
      scale(product(u[j + 1] as Growth, v[k - j - 1] as Growth), n.fraction(BigInt(j + 1), BigInt(k))),
    );
    return this.sum(terms);
  }
}
