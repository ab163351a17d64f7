import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { programOf } from '../src/analysis/programs.ts';
import { printText, tree, type Expression } from '../src/index.ts';
import * as balls from '../src/numbers/ball.ts';
import type { Enclosed } from '../src/numbers/ball.ts';
import * as big from '../src/numbers/bigFloat.ts';
import { enclosePrecisely } from '../src/limit/enclosed.ts';
import { limitOfFormula, type ProvedLimit } from '../src/limit/growth/limitOfFormula.ts';
import { replayable } from './random.ts';
import { cases } from '../../../tests/cases.ts';

const x = tree.name('x');
const leaf = fc.constantFrom<Expression>(
  ...[x, x, x, tree.number(1), tree.number(2), tree.number(3), tree.divide(tree.number(1), x)],
);
const operations = fc.constantFrom('add', 'subtract', 'multiply', 'divide' as const);
const functions = fc.constantFrom(...['sin', 'cos', 'ln', 'exp', 'sqrt', 'arctan', 'tanh', 'abs', 'floor']);
const formulas = fc.letrec<{ node: Expression }>((tie) => ({
  node: fc.oneof(
    { maxDepth: 4 },
    leaf,
    leaf,
    fc.tuple(operations, tie('node'), tie('node')).map(([kind, a, b]) => tree.binary(kind as 'add', a, b)),
    fc.tuple(functions, tie('node')).map(([name, a]) => tree.call(name, a)),
    fc.tuple(tie('node'), fc.constantFrom(2, 3)).map(([a, n]) => tree.power(a, tree.number(n))),
  ),
})).node;

const bits = 1500;

/** The value 10^(±digits) from the place, where it can be told. */
function seen(body: Expression, towards: 1 | -1 | 0, digits: bigint): Enclosed {
  const size = big.fromInteger(10n ** digits + 7n);
  const at = towards === 0 ? big.divide(big.one, size, 2 * bits) : towards > 0 ? size : big.negate(size);
  try {
    return enclosePrecisely(programOf(body, 'x'), balls.exactly(at), [], bits);
  } catch (error) {
    if (error instanceof big.OutOfRange) return 'unsure';
    throw error;
  }
}

/** What speaks against a limit in values closer and closer to the place; null where nothing does. */
function objection(limit: ProvedLimit, near: Enclosed, nearer: Enclosed): string | null {
  if (near === 'unsure' || nearer === 'unsure') return null;
  if (limit.kind === 'undefined') return near && nearer ? 'it has values' : null;
  if (limit.kind === 'none') return null;
  if (!near || !nearer) return 'it has no values';
  if (limit.kind === 'infinite') {
    const grows = big.sign(big.subtract(big.absolute(nearer.middle), big.absolute(near.middle), bits)) > 0;
    return grows && big.sign(nearer.middle) === limit.sign ? null : 'it does not grow';
  }
  const [before, after] = [near, nearer].map(({ middle }) => Math.abs(big.toDouble(middle) - limit.value));
  const isNear = (after as number) <= 1e-9 * Math.max(1, Math.abs(limit.value));
  return isNear || (after as number) < 0.9 * (before as number) ? null : 'it stays away';
}

test('limits of random compositions at 0 and ±∞ are borne out by values with hundreds of digits', () => {
  let decided = 0;
  const count = cases(400, 1200);
  fc.assert(
    fc.property(formulas, fc.constantFrom(1, -1, 0 as const), (body, towards) => {
      const target = towards === 0 ? { exact: tree.number(0) } : (towards as 1 | -1);
      const limit = limitOfFormula(body, { variable: 'x', target, side: 1 });
      if (limit === null || limit === 'undecided') return;
      decided++;
      const place = towards as 1 | -1 | 0;
      const found = objection(limit, seen(body, place, 60n), seen(body, place, 120n));
      expect([printText(body), towards, limit, found]).toEqual([printText(body), towards, limit, null]);
    }),
    { ...replayable, numRuns: count },
  );
  expect(decided).toBeGreaterThan(0.95 * count);
});
