import * as tree from '../language/tree.ts';
import { applyOf, callOf, numeric, power, product, sum, type Canonical } from './canonical.ts';

/** What a canonical form is made of, one level down; nothing for numbers, names and what is kept as it is. */
export function partsOf(c: Canonical): readonly Canonical[] {
  switch (c.kind) {
    case 'number':
    case 'atom':
    case 'opaque':
      return [];
    case 'sum':
      return c.terms;
    case 'product':
      return c.factors;
    case 'power':
      return [c.base, c.exponent];
    case 'call':
    case 'apply':
      return c.operands;
  }
}

/** The form made anew from its parts, each of them changed. */
export function withParts(c: Canonical, change: (part: Canonical) => Canonical): Canonical {
  switch (c.kind) {
    case 'number':
    case 'atom':
    case 'opaque':
      return c;
    case 'sum':
      return sum(c.terms.map(change));
    case 'product':
      return product([numeric(c.coefficient), ...c.factors.map(change)]);
    case 'power':
      return power(change(c.base), change(c.exponent));
    case 'call':
      return callOf(c.name, c.operands.map(change));
    case 'apply':
      return applyOf(c.name, c.orders, c.operands.map(change));
  }
}

/** The form with every composite part of it changed, the innermost first, and itself last. */
export function mapped(c: Canonical, change: (part: Canonical) => Canonical): Canonical {
  if (partsOf(c).length === 0) return c;
  return change(withParts(c, (part) => mapped(part, change)));
}

/** Whether a form mentions a variable. */
export function dependsOn(c: Canonical, variable: string): boolean {
  if (c.kind === 'atom') return c.node.kind === 'name' && c.node.name === variable;
  if (c.kind === 'opaque') return tree.dependsOn(c.node, variable);
  return partsOf(c).some((part) => dependsOn(part, variable));
}

/** A form with each occurrence of a part replaced. */
export function replaced(form: Canonical, part: Canonical, by: Canonical): Canonical {
  if (form.key === part.key) return by;
  return withParts(form, (one) => replaced(one, part, by));
}

/** The factors of a form, powers among them whole; of a number none. */
export const factorsOf = (form: Canonical): readonly Canonical[] =>
  form.kind === 'product' ? form.factors : form.kind === 'number' ? [] : [form];
