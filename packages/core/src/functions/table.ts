import { exponential } from './exponential.ts';
import { hyperbolic } from './hyperbolic.ts';
import { powers } from './powers.ts';
import { rounding } from './rounding.ts';
import type { BuiltIn } from './row.ts';
import { trigonometric } from './trigonometric.ts';

/** Every built-in function: one row says everything about it. */
export const builtIns: readonly BuiltIn[] = [
  ...trigonometric,
  ...hyperbolic,
  ...exponential,
  ...powers,
  ...rounding,
];

const byName = new Map(builtIns.map((row) => [row.name, row]));

/** Accepted spelling → name of the function. */
export const builtInSpellings: ReadonlyMap<string, string> = new Map(
  builtIns.flatMap((row) => row.spellings.map((spelling) => [spelling, row.name] as const)),
);

/** The functions that can be typed by a name, as they are written out and spoken. */
export const knownFunctions: readonly { readonly spelling: string; readonly spoken: string }[] = builtIns
  .map(({ spellings, spoken }) => ({ spelling: spellings[0] ?? '', spoken }))
  .filter(({ spelling }) => /^\p{L}+$/u.test(spelling));

/** @throws RangeError for a name that no row has; trees made by the reader never mention one */
export function builtIn(name: string): BuiltIn {
  const row = byName.get(name);
  if (!row) throw new RangeError(`no built-in function is called ${name}`);
  return row;
}
