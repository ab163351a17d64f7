import { exactValue } from './exact.ts';
import { builtIn } from '../functions/table.ts';
import { printText } from '../language/printText.ts';
import * as tree from '../language/tree.ts';
import type { CallNode, Expression } from '../language/tree.ts';
import { canonical, product, quotient, whole } from './canonical.ts';
import { insideOf } from './pieces.ts';
import { literal } from './literal.ts';
import * as polynomials from './polynomial.ts';
import * as rational from '../numbers/rational.ts';
import type { Rational } from '../numbers/rational.ts';
import { formulaOf } from './rowFormula.ts';
import { shortest } from './shortest.ts';

/** A stretch between two numbers, open to a side where there is none, with the formula that holds on it. */
interface Stretch {
  readonly from: Rational | undefined;
  readonly to: Rational | undefined;
  readonly body: Expression;
}

/** Stretches that a textbook would write out. */
const mostStretches = 8;
const kinked: ReadonlySet<string> = new Set(['abs', 'min', 'max']);

/**
 * A formula with absolute values, minima and maxima written in pieces: |x − 1| as 1 − x for x < 1 and x − 1 otherwise.
 * Null where it has none, or the places at which they turn are no rational numbers.
 */
export function inPieces(body: Expression, variable: string): Expression | null {
  const first = innermostKink(body, variable);
  if (!first) return null;
  const stretches = stretchesOf(body, variable, undefined, undefined);
  if (!stretches) return atMovingPlace(body, first, variable);
  const joined: Stretch[] = [];
  for (const stretch of stretches) {
    const before = joined.at(-1);
    const goesOn = before && printText(before.body) === printText(stretch.body);
    if (goesOn) joined[joined.length - 1] = { ...before, to: stretch.to };
    else joined.push(stretch);
  }
  if (joined.length > mostStretches) return null;
  const last = joined.at(-1) as Stretch;
  const pieces = joined.slice(0, -1).map(({ to, body: value }) => ({
    value,
    condition: tree.comparison(tree.name(variable), ['<', literal(to as Rational)]),
  }));
  return pieces.length === 0 ? last.body : tree.piecewise(pieces, last.body);
}

/** The first call, from the inside out, that turns where its boundary is 0 and moves with the variable. */
function innermostKink(node: Expression, variable: string): CallNode | undefined {
  for (const child of tree.children(node)) {
    const found = innermostKink(child, variable);
    if (found) return found;
  }
  const isKink = node.kind === 'call' && kinked.has(node.name) && tree.dependsOn(node, variable);
  return isKink ? node : undefined;
}

const boundaryOf = ({ name, arguments: args }: CallNode): Expression =>
  formulaOf(builtIn(name).boundaries?.[0] as string, args);

/** What a call is where its boundary is positive (1) or negative (−1). */
function sideOf({ name, arguments: args }: CallNode, sign: number): Expression {
  const { sides } = builtIn(name);
  return formulaOf((sign < 0 ? sides?.negative : sides?.positive) as string, args);
}

function stretchesOf(
  body: Expression,
  variable: string,
  from: Rational | undefined,
  to: Rational | undefined,
): Stretch[] | null {
  const kink = innermostKink(body, variable);
  if (!kink) return [{ from, to, body }];
  const boundary = boundaryOf(kink);
  const roots = allRoots(boundary, variable);
  if (!roots || roots.length > mostStretches) return null;
  const inside = roots.filter(
    (root) => (!from || rational.compare(root, from) > 0) && (!to || rational.compare(root, to) < 0),
  );
  const ends = [from, ...inside, to];
  const found: Stretch[] = [];
  for (let i = 1; i < ends.length; i++) {
    const [start, end] = [ends[i - 1], ends[i]];
    const value = exactValue(boundary, new Map([[variable, insideOf(start, end)]]));
    if (!value) return null;
    const side = sideOf(kink, rational.compare(value, rational.zero));
    const inner = stretchesOf(replacedNode(body, kink, side), variable, start, end);
    if (!inner || found.length + inner.length > mostStretches) return null;
    found.push(...inner);
  }
  return found;
}

/** All real zeros of a polynomial, in ascending order, where all of them are rational; null for anything else. */
function allRoots(boundary: Expression, variable: string): Rational[] | null {
  const polynomial = polynomials.polynomialOf(canonical(boundary), variable);
  if (!polynomial) return null;
  if (polynomials.degree(polynomial) < 1) return [];
  const found: Rational[] = [];
  for (const { factor } of polynomials.squareFreeFactors(polynomial)) {
    const { roots, rest } = polynomials.rationalRoots(factor);
    const isWhole = polynomials.degree(rest) < 1 || hasNoZero(rest);
    if (!isWhole) return null;
    found.push(...roots);
  }
  return found.sort(rational.compare);
}

const hasNoZero = (p: polynomials.Polynomial): boolean =>
  polynomials.degree(p) === 2 && rational.isNegative(polynomials.discriminant(p));

/** |x − a| with a name in the place where it turns: one call, whose boundary is a line with a slope that is known. */
function atMovingPlace(body: Expression, kink: CallNode, variable: string): Expression | null {
  const boundary = boundaryOf(kink);
  const at = (x: number): Expression => tree.substitute(boundary, variable, tree.number(String(x)));
  const polynomial = polynomials.polynomialOf(canonical(tree.subtract(boundary, at(0))), variable);
  if (!polynomial || polynomials.degree(polynomial) !== 1) return null;
  const slope = polynomial[1] as Rational;
  const turn = shortest(
    product([whole(-1), quotient(canonical(at(0)), canonical(literal(slope)))]),
    'fraction',
  );
  const sides = [-1, 1].map((side) =>
    replacedNode(body, kink, sideOf(kink, rational.isNegative(slope) ? -side : side)),
  );
  const [left, right] = sides as [Expression, Expression];
  if (innermostKink(left, variable) || innermostKink(right, variable)) return null;
  const condition = tree.comparison(tree.name(variable), ['<', turn]);
  return tree.piecewise([{ value: left, condition }], right);
}

/** The tree with every node that is written like `from` replaced. */
export function replacedNode(node: Expression, from: Expression, to: Expression): Expression {
  const text = printText(from);
  const visit = (part: Expression): Expression => {
    if (part === from) return to;
    const isSame = part.kind === from.kind && printText(part) === text;
    return isSame ? to : tree.mapChildren(part, visit);
  };
  return visit(node);
}
