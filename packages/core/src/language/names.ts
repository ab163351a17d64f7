import { ownNames } from './ownNames.ts';
import { builtInSpellings } from '../functions/table.ts';

/** What a name may stand for while a text is read. */
export interface Scope {
  /** Variables and parameters. */
  readonly names: ReadonlySet<string>;
  /** Defined functions. */
  readonly functions: ReadonlySet<string>;
  /** How many arguments a defined function takes, where it is not one. */
  readonly argumentCounts?: ReadonlyMap<string, number>;
  /** Named points, whose coordinates are x_P and y_P. */
  readonly points?: ReadonlySet<string>;
  /** Names that are either 1 or 0: in a condition such a name alone says that it is 1. */
  readonly truths?: ReadonlySet<string>;
  /** The variable that the text is a function of; (x²)′ is the derivative by it. */
  readonly variable?: string;
  /** What the argument of a sine is, and the value of its inverse; radians where nothing is said. */
  readonly angles?: 'radians' | 'degrees';
}

export const emptyScope: Scope = { names: new Set(), functions: new Set() };

/** A scope in which some names are variables, whatever else they mean outside. */
export function withVariables(scope: Scope, variables: readonly string[]): Scope {
  const functions = new Set(scope.functions);
  variables.forEach((variable) => functions.delete(variable));
  const [variable = scope.variable] = variables;
  return {
    ...scope,
    names: new Set([...scope.names, ...variables]),
    functions,
    ...(variable === undefined ? {} : { variable }),
  };
}

export const greekLetters = ownNames<string>({
  alpha: 'α',
  beta: 'β',
  gamma: 'γ',
  delta: 'δ',
  epsilon: 'ε',
  zeta: 'ζ',
  eta: 'η',
  theta: 'θ',
  iota: 'ι',
  kappa: 'κ',
  lambda: 'λ',
  mu: 'μ',
  nu: 'ν',
  xi: 'ξ',
  rho: 'ρ',
  sigma: 'σ',
  tau: 'τ',
  phi: 'φ',
  chi: 'χ',
  psi: 'ψ',
  omega: 'ω',
  Gamma: 'Γ',
  Delta: 'Δ',
  Theta: 'Θ',
  Lambda: 'Λ',
  Xi: 'Ξ',
  Sigma: 'Σ',
  Phi: 'Φ',
  Psi: 'Ψ',
  Omega: 'Ω',
});

/** The one spelling under which a name is kept: Greek as letters, index after an underscore. */
export function canonicalName(letters: string, index: string): string {
  const base = greekLetters[letters] ?? letters;
  return index === '' ? base : `${base}_${index}`;
}

const constantSpellings = ownNames<'pi' | 'e'>({ π: 'pi', pi: 'pi', e: 'e' });

export type NameMeaning =
  | { readonly kind: 'constant'; readonly name: 'pi' | 'e' }
  | { readonly kind: 'builtIn'; readonly name: string }
  | { readonly kind: 'function'; readonly name: string }
  | { readonly kind: 'name'; readonly name: string }
  | { readonly kind: 'point'; readonly name: string };

/** Words of the notation; none of them is a name. */
const words = ['if', 'otherwise', 'for', 'and', 'or', 'not', 'from', 'to', 'of'] as const;
export type Word = (typeof words)[number];
const wordSet: ReadonlySet<string> = new Set(words);
export const isWord = (text: string): boolean => wordSet.has(text);
/** Words that begin a sum, an integral or a limit when what belongs to them follows. */
const openingWords = new Set(['sum', 'integral', 'lim']);

/** What a spelling means here, if anything. A name of the document shadows nothing built in. */
export function meaningOf(letters: string, index: string, scope: Scope): NameMeaning | undefined {
  const canonical = canonicalName(letters, index);
  if (scope.functions.has(canonical)) return { kind: 'function', name: canonical };
  if (scope.names.has(canonical)) return { kind: 'name', name: canonical };
  if (scope.points?.has(canonical)) return { kind: 'point', name: canonical };
  if (isCoordinate(letters, index, scope)) return { kind: 'name', name: canonical };
  if (letters === 'log' && index !== '') return { kind: 'builtIn', name: 'logBase' };
  if (index !== '') return undefined;
  const fixed = constantSpellings[letters];
  if (fixed) return { kind: 'constant', name: fixed };
  const builtIn = builtInSpellings.get(letters);
  return builtIn ? { kind: 'builtIn', name: builtIn } : undefined;
}

const isCoordinate = (letters: string, index: string, scope: Scope): boolean =>
  (letters === 'x' || letters === 'y') && scope.points?.has(canonicalName(index, '')) === true;

/** Spellings of other schools, and of other words for the same; they are read where the letters have no meaning of their own. */
const otherSpellings = ownNames<string>({
  tg: 'tan',
  ctg: 'cot',
  cotg: 'cot',
  cotan: 'cot',
  cosec: 'csc',
  arctg: 'arctan',
  arcctg: 'arccot',
  arccotg: 'arccot',
  arccosec: 'arccsc',
  sh: 'sinh',
  ch: 'cosh',
  th: 'tanh',
  tgh: 'tanh',
  cth: 'coth',
  ctgh: 'coth',
  cosech: 'csch',
  arsh: 'arsinh',
  arch: 'arcosh',
  arth: 'artanh',
  arcth: 'arcoth',
  arcsinh: 'arsinh',
  arccosh: 'arcosh',
  arctanh: 'artanh',
  arccoth: 'arcoth',
  arcsech: 'arsech',
  arccsch: 'arcsch',
  lg: 'log',
  sgn: 'sign',
});

/** What a spelling means where it may also be that of another school. */
export function otherSpelling(letters: string, index: string, scope: Scope): NameMeaning | undefined {
  const other = index === '' ? otherSpellings[letters] : undefined;
  const row = other === undefined ? undefined : builtInSpellings.get(other);
  return row === undefined ? meaningOf(letters, index, scope) : { kind: 'builtIn', name: row };
}

/** Letters from which on a spelling of another school is never a product of its letters: cosec x is no cos(e c x). */
const leastWord = 4;

export const isWordOfOtherSchool = (letters: string): boolean =>
  letters.length >= leastWord && letters in otherSpellings;

/** Whether a definition may claim this name. */
export function isReserved(canonical: string): boolean {
  return (
    canonical in constantSpellings ||
    builtInSpellings.has(canonical) ||
    isWord(canonical) ||
    openingWords.has(canonical)
  );
}

/**
 * The known name nearest to an unknown one: one that differs only in capitals first,
 * then one within a single insertion, deletion, replacement or swap of neighbours.
 */
export function nearestName(unknown: string, scope: Scope): string | undefined {
  const known = [...scope.names, ...scope.functions, ...builtInSpellings.keys(), 'pi'];
  const lower = unknown.toLowerCase();
  const byCase = known.find((candidate) => candidate.toLowerCase() === lower);
  if (byCase) return byCase;
  if (unknown.length < 3) return undefined;
  return known.find((candidate) => candidate.length > 1 && isOneEditAway(lower, candidate.toLowerCase()));
}

function isOneEditAway(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1) return false;
  let start = 0;
  while (start < Math.min(a.length, b.length) && a[start] === b[start]) start++;
  const restA = a.slice(start);
  const restB = b.slice(start);
  const swapped = `${restA[1] ?? ''}${restA[0] ?? ''}${restA.slice(2)}`;
  return (
    restA.slice(1) === restB.slice(1) ||
    restA.slice(1) === restB ||
    restA === restB.slice(1) ||
    swapped === restB
  );
}
