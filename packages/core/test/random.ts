import fc from 'fast-check';
import { tree, type Expression } from '../src/index.ts';

/** Runs and seed of property tests; a failure prints the seed and the path to replay it. */
export const replayable = { seed: 20261124, numRuns: 400 } as const;

const functionNames = ['sin', 'cos', 'tan', 'exp', 'ln', 'sqrt', 'arctan', 'sinh', 'cosh', 'tanh', 'arsinh'];

/** Random trees in x of the constructs of the language. */
export const expressions: fc.Arbitrary<Expression> = fc.letrec<{ node: Expression }>((tie) => ({
  node: fc.oneof(
    { maxDepth: 4, withCrossShrink: true },
    fc.oneof(
      fc.constant(tree.name('x')),
      fc.integer({ min: 0, max: 9 }).map((n) => tree.number(n)),
      fc.constantFrom('0.5', '1.25', '2E-3').map((text) => tree.number(text)),
      fc.constantFrom(tree.constant('pi'), tree.constant('e')),
    ),
    fc
      .tuple(fc.constantFrom('add', 'subtract', 'multiply', 'divide' as const), tie('node'), tie('node'))
      .map(([kind, left, right]) => tree.binary(kind as 'add', left, right)),
    tie('node').map(tree.negate),
    fc
      .tuple(tie('node'), fc.integer({ min: 2, max: 4 }))
      .map(([base, n]) => tree.power(base, tree.number(n))),
    fc
      .tuple(fc.constantFrom(...functionNames), tie('node'))
      .map(([name, argument]) => tree.call(name, argument)),
  ),
})).node;

export const points = fc.double({ min: -3, max: 3, noNaN: true, noDefaultInfinity: true });
