import type { Expression } from '../language/tree.ts';

/**
 * What a function tends to. `proved` says whether the limit is shown, by a series or because the function is continuous
 * there; otherwise it was found by evaluation close to the place, as those of integrals are.
 */
export type Limit =
  | {
      readonly kind: 'finite';
      readonly value: number;
      readonly proved: boolean;
      /** The number itself, where it is known. */
      readonly exact: Expression | null;
    }
  | { readonly kind: 'infinite'; readonly sign: 1 | -1 }
  /** The function is not defined beside the place. */
  | { readonly kind: 'undefined' }
  /** It swings, or tends to different values from the two sides. */
  | { readonly kind: 'none' }
  /** Nothing shows what it does. */
  | { readonly kind: 'undecided' };
