import type { ComparisonNode, Condition } from '../language/tree.ts';

/**
 * Whether a condition holds, given what is known of its comparisons; null where that cannot be told: one side decides
 * an `and` or an `or` even where nothing is known of the other (Kleene's strong logic of three values).
 */
export function truthOf(
  condition: Condition,
  ofComparison: (comparison: ComparisonNode) => boolean | null,
): boolean | null {
  switch (condition.kind) {
    case 'comparison':
      return ofComparison(condition);
    case 'and':
    case 'or': {
      const decisive = condition.kind === 'or';
      const sides = [truthOf(condition.left, ofComparison), truthOf(condition.right, ofComparison)];
      if (sides.includes(decisive)) return decisive;
      return sides.includes(null) ? null : !decisive;
    }
    case 'not': {
      const inner = truthOf(condition.operand, ofComparison);
      return inner === null ? null : !inner;
    }
  }
}
