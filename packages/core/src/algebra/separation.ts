import { literalRational } from './exponent.ts';
import { printText } from '../language/printText.ts';
import type { Expression } from '../language/tree.ts';
import { canonical } from './canonical.ts';
import * as rational from '../numbers/rational.ts';

/** Bounds of the conjugates of two algebraic integers whose quotient a number is, as binary logarithms. */
interface Bounds {
  readonly above: number;
  readonly below: number;
}

/** Degrees of fields beyond which nothing is told. */
const largestDegree = 100_000;

/**
 * How near to 0 a number made of fractions and roots can come without being 0: |x| < 2^(−bits) shows that it is 0.
 * Null for any number that is not, or not plainly, such a one. Sines and cosines of fractions of π are algebraic, too.
 *
 * Source: Burnikel, Funke, Mehlhorn, Schirra, Schmitt, A separation bound for real algebraic expressions (2001),
 * theorem 1 (from memory): with bounds u of the conjugates of the numerator and l of those of the denominator, both
 * algebraic integers of degree D at most, a number other than 0 is at least 1/(u^(D−1)·l).
 * @param formula free of names
 */
export function separationBits(formula: Expression): number | null {
  const measured = new Measure();
  const bounds = measured.of(formula);
  if (!bounds || measured.degree > largestDegree) return null;
  const bits = (measured.degree - 1) * Math.max(0, bounds.above) + Math.max(0, bounds.below);
  return Number.isFinite(bits) ? Math.ceil(bits * 1.001) + 8 : null;
}

class Measure {
  degree = 1;
  /** Roots and waves that have been counted: the same one widens the field once. */
  private readonly counted = new Set<string>();

  private count(number: string, degree: number): void {
    if (!this.counted.has(number)) this.degree *= degree;
    this.counted.add(number);
  }

  of(node: Expression): Bounds | null {
    switch (node.kind) {
      case 'number':
        return ofRational(rational.parseDecimal(node.text));
      case 'negate':
        return this.of(node.operand);
      case 'add':
      case 'subtract':
      case 'multiply':
      case 'divide': {
        const [a, b] = [this.of(node.left), this.of(node.right)];
        return a && b && joined(node.kind, a, b);
      }
      case 'power':
        return this.ofPower(node.base, literalRational(node.exponent));
      case 'call':
        return this.ofCall(node.name, node.arguments);
      default:
        return null;
    }
  }

  private ofCall(name: string, [first, second]: readonly Expression[]): Bounds | null {
    if (!first) return null;
    if (name === 'sqrt') return this.ofPower(first, rational.rational(1, 2));
    if (name === 'cbrt') return this.ofPower(first, rational.rational(1, 3));
    if (name === 'root' && second) {
      const degree = literalRational(first);
      return degree && !rational.isZero(degree)
        ? this.ofPower(second, rational.divide(rational.one, degree))
        : null;
    }
    if (name === 'abs') return this.of(first);
    return name === 'sin' || name === 'cos' ? this.ofWave(first) : null;
  }

  /** 2 sin(p/q·π) is an algebraic integer of a degree below 4q; all its conjugates lie between −2 and 2. */
  private ofWave(angle: Expression): Bounds | null {
    const form = canonical(angle);
    if (form.kind !== 'product' || form.factors.length !== 1 || form.factors[0]?.key !== '#pi') return null;
    const parts = 4 * Number(form.coefficient.denominator);
    this.count(`π/${parts}`, parts);
    return { above: 1, below: 1 };
  }

  private ofPower(base: Expression, exponent: rational.Rational | null): Bounds | null {
    const inner = exponent && this.of(base);
    if (!inner || !exponent) return null;
    const [p, q] = [Number(exponent.numerator), Number(exponent.denominator)];
    const raised = { above: Math.abs(p) * inner.above, below: Math.abs(p) * inner.below };
    const root = q === 1 ? raised : this.root(raised, q, printText(base));
    return p < 0 ? { above: root.below, below: root.above } : root;
  }

  private root({ above, below }: Bounds, degree: number, of: string): Bounds {
    this.count(`${degree}: ${of}`, degree);
    return above >= below
      ? { above: (above + (degree - 1) * below) / degree, below }
      : { above, below: ((degree - 1) * above + below) / degree };
  }
}

const ofRational = (value: rational.Rational | null): Bounds | null =>
  value && { above: sizeOf(value.numerator), below: sizeOf(value.denominator) };

/** A bound from above of the binary logarithm of a whole number. */
function sizeOf(n: bigint): number {
  const digits = (n < 0n ? -n : n).toString(2);
  const leading = parseInt(digits.slice(0, 40), 2);
  return Math.max(0, Math.log2(leading + 1) + Math.max(0, digits.length - 40));
}

function joined(kind: 'add' | 'subtract' | 'multiply' | 'divide', a: Bounds, b: Bounds): Bounds {
  switch (kind) {
    case 'add':
    case 'subtract':
      return { above: sumOfLogarithms(a.above + b.below, a.below + b.above), below: a.below + b.below };
    case 'multiply':
      return { above: a.above + b.above, below: a.below + b.below };
    case 'divide':
      return { above: a.above + b.below, below: a.below + b.above };
  }
}

/** log₂(2^a + 2^b). */
const sumOfLogarithms = (a: number, b: number): number =>
  Math.max(a, b) + Math.log2(1 + 2 ** -Math.abs(a - b));
