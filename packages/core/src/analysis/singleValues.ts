import * as tree from '../language/tree.ts';
import type { Expression } from '../language/tree.ts';

/** Thrown where slopes or signs are asked of a function that has values at single numbers only. */
export class SingleValues extends Error {}

/** Whether a formula holds a factorial of the variable, and so has values at single numbers only. */
export const hasSingleValues = (node: Expression, variable: string): boolean =>
  (node.kind === 'call' &&
    node.name === 'factorial' &&
    node.arguments.some((argument) => tree.dependsOn(argument, variable) && !isStepped(argument))) ||
  tree.children(node).some((child) => hasSingleValues(child, variable));

/** Whole parts are whole numbers on stretches. */
const isStepped = (node: Expression): boolean =>
  node.kind === 'call' && (node.name === 'floor' || node.name === 'ceil' || node.name === 'round');

/** @throws SingleValues */
export function refuseSingleValues(body: Expression, variable: string): void {
  if (hasSingleValues(body, variable)) throw new SingleValues('values at single numbers only');
}
