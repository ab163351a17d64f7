import * as rational from '../numbers/rational.ts';
import { boundariesOf, formulaOf } from '../algebra/rowFormula.ts';
import { enclose } from '../evaluate/enclosures.ts';
import { literalRational } from '../algebra/exponent.ts';
import { builtIn } from '../functions/table.ts';
import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';
import type { Box } from './isolate.ts';
import { sortedPlaces } from './place.ts';
import { programOf } from './programs.ts';
import { nowhere, rangeParts, union, type ZeroSet } from './zeroSet.ts';

/** What finds the zeros of formulas in one variable on one interval. */
export interface Solver {
  readonly variable: string;
  readonly low: number;
  readonly high: number;
  of(body: Expression): ZeroSet;
  /** Bounds of a formula over the whole interval; null where it has none. */
  rangeOf(body: Expression): Box | null;
}

/** Where formulas on an interval may fail to be analytic: at zeros of what they divide by, at ends of domains, at corners. */
export class Breaks {
  private readonly known = new WeakMap<Expression, ZeroSet>();

  constructor(
    private readonly solver: Solver,
    private readonly solverOn: (variable: string, low: number, high: number) => Solver,
  ) {}

  /**
   * The places where a formula may fail to be analytic or defined, as the roots of a set. The formula is taken as
   * it stands: x/x has a break at 0.
   */
  of(body: Expression): ZeroSet {
    const found = this.known.get(body);
    if (found) return found;
    const result = tree.dependsOn(body, this.solver.variable) ? union(this.breakSets(body)) : nowhere;
    this.known.set(body, result);
    return result;
  }

  private breakSets(body: Expression): ZeroSet[] {
    const inner = tree.children(body).map((part) => this.of(part));
    switch (body.kind) {
      case 'divide':
        return [...inner, this.atZerosOf(body.right)];
      case 'power':
        return this.isWholePower(body) ? inner : [...inner, this.atZerosOf(body.base)];
      case 'call':
        return [...inner, ...this.breakSetsOfCall(body)];
      case 'integral':
        return this.breakSetsOfIntegral(body);
      case 'apply':
      case 'spline':
      case 'product':
      case 'summation':
      case 'limit':
      case 'derivative':
        // Nothing is known of what is inside: the whole interval stays open.
        return [{ ...nowhere, undecided: [{ low: this.solver.low, high: this.solver.high }] }];
      default:
        return inner;
    }
  }

  /** Those of a function that is written through others, tan as sin over cos, are where these have theirs. */
  private breakSetsOfCall(body: tree.CallNode): ZeroSet[] {
    const { inTermsOf } = builtIn(body.name);
    const boundaries = boundariesOf(body).map((boundary) => this.atZerosOf(boundary));
    if (inTermsOf === undefined) return boundaries;
    return [...boundaries, this.of(formulaOf(inTermsOf, body.arguments))];
  }

  /**
   * An integral between bounds that move is analytic where these are, and where neither meets a break of its integrand,
   * if that is continuous all the way; of any other the whole interval stays open.
   */
  private breakSetsOfIntegral({ body, variable, from, to }: tree.IntegralNode): ZeroSet[] {
    const open = [{ ...nowhere, undecided: [{ low: this.solver.low, high: this.solver.high }] }];
    const isFree = this.solver.variable === variable || isPolynomialIn(body, this.solver.variable);
    if (!isFree) return open;
    const integrand =
      this.solver.variable === variable ? body : tree.substitute(body, this.solver.variable, tree.number(0));
    const [first, last] = [from, to].map((bound) => this.solver.rangeOf(bound));
    if (!first || !last) return open;
    const way = this.solverOn(variable, Math.min(first.low, last.low), Math.max(first.high, last.high));
    const breaks = way.low < way.high ? new Breaks(way, this.solverOn).ofContinuous(integrand) : [];
    if (!breaks) return open;
    return [from, to].flatMap((bound) => [
      this.of(bound),
      ...breaks.map((place) => this.atZerosOf(tree.subtract(bound, place))),
    ]);
  }

  /** Numbers between which a formula is analytic that is continuous on the whole interval; null where that is not shown. */
  ofContinuous(body: Expression): readonly Expression[] | null {
    const { roots, undecided } = this.of(body);
    const exact = roots.flatMap((place) => place.exact ?? []);
    if (exact.length < roots.length || undecided.length > 0) return null;
    const program = programOf(body, this.solver.variable);
    const at = (k: number): number =>
      this.solver.low + ((this.solver.high - this.solver.low) * k) / rangeParts;
    const parts = Array.from({ length: rangeParts }, (_, k) => enclose(program, at(k), at(k + 1)));
    return parts.every(({ sure }) => sure) ? exact : null;
  }

  /** Whether a power has no break of its own: a whole exponent from 0 up, or a constant base. */
  private isWholePower({ base, exponent }: tree.PowerNode): boolean {
    const value = literalRational(exponent);
    const isWhole = value !== null && rational.isInteger(value) && !rational.isNegative(value);
    return isWhole || !tree.dependsOn(base, this.solver.variable);
  }

  private atZerosOf(boundary: Expression): ZeroSet {
    const { roots, breaks, undecided } = this.solver.of(boundary);
    return { roots: sortedPlaces([...roots, ...breaks]), breaks: [], undecided, isZero: false };
  }
}

export const holdsIntegral = (node: Expression): boolean =>
  node.kind === 'integral' || tree.children(node).some(holdsIntegral);

/** Whether a formula is a polynomial in a name, its coefficients any formulas: it has no breaks because of it. */
function isPolynomialIn(node: Expression, name: string): boolean {
  if (!tree.dependsOn(node, name)) return true;
  const parts = (): boolean => tree.children(node).every((part) => isPolynomialIn(part, name));
  switch (node.kind) {
    case 'name':
      return true;
    case 'negate':
    case 'add':
    case 'subtract':
    case 'multiply':
      return parts();
    case 'divide':
      return !tree.dependsOn(node.right, name) && isPolynomialIn(node.left, name);
    case 'power': {
      const exponent = literalRational(node.exponent);
      const isWhole = exponent !== null && rational.isInteger(exponent) && !rational.isNegative(exponent);
      return isWhole && isPolynomialIn(node.base, name);
    }
    default:
      return false;
  }
}
