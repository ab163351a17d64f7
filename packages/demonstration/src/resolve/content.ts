import { kindOf } from '../schema/anyKind.ts';
import type { Entry } from '../schema/document.ts';
import { common } from '../fields/fields.ts';

/** Where an entry stands, whether and how it is seen, what its results are called: nothing is worked out from that. */
const apart: ReadonlySet<string> = new Set(Object.keys(common));

/** Whether two states of an entry have the same content: all from which anything is worked out. */
export function isSameContent(before: Entry, now: Entry): boolean {
  if (before === now) return true;
  if (before.kind !== now.kind) return false;
  const onlySaid: readonly string[] = kindOf(now).onlySaid ?? [];
  const [old, next] = [before, now].map((entry) => new Map<string, unknown>(Object.entries(entry))) as [
    Map<string, unknown>,
    Map<string, unknown>,
  ];
  return [...new Set([...old.keys(), ...next.keys()])].every(
    (field) => apart.has(field) || onlySaid.includes(field) || old.get(field) === next.get(field),
  );
}
