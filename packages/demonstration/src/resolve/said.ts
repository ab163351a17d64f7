import type { Head, Wording } from '../entries/kind.ts';
import type { Progress } from '../entries/outcome.ts';
import type { Said } from '../entries/study.ts';
import type { RoundingRule } from '../numbers/format.ts';
import { kindOf } from '../schema/anyKind.ts';
import type { Id } from '../schema/document.ts';
import type { Unit } from '../units/unit.ts';
import type { Resolution, Resolved } from './resolution.ts';
import { unlessItThrows } from './unlessItThrows.ts';

interface Remembered {
  readonly rule: RoundingRule;
  readonly xUnit: Unit;
  readonly said: Said;
}
const remembered = new WeakMap<Resolved, Remembered>();

const nothing: Said = { lines: [], sentence: '' };

/**
 * What an entry says of what it came to; undefined while it could not be worked out. It is put into words when it is first
 * asked for, and again only where its result or the way in which numbers are written has changed.
 */
export function saidOf(resolution: Resolution, id: Id): Said | undefined {
  const resolved = resolution.entries.get(id);
  if (!resolved?.outcome.ok) return undefined;
  const { rule, xUnit } = resolution;
  const known = remembered.get(resolved);
  if (known?.rule === rule && known.xUnit === xUnit) return known.said;
  const said = inWords(resolved, { rule, xUnit, said: (of) => saidOf(resolution, of) });
  remembered.set(resolved, { rule, xUnit, said });
  return said;
}

function inWords({ entry, outcome }: Resolved, wording: Wording): Said {
  if (!outcome.ok) return nothing;
  const { say } = kindOf(entry);
  const { result, progress } = outcome;
  return say
    ? inProgress(
        unlessItThrows(() => say(result, entry, wording), nothing),
        progress,
      )
    : nothing;
}

/** What is known so far is told as that: how sure it is will be told with the whole. */
function inProgress(said: Said, progress: Progress | undefined): Said {
  if (!progress) return said;
  const { sentence, ...more } = progress;
  if (sentence === undefined) return { ...said, ...more };
  const { certainty: _tooEarly, ...rest } = said;
  return { ...rest, ...more, sentence };
}

/** How an entry is headed in the working. */
export function headOfEntry({ entry, outcome }: Resolved): Head {
  const nameless: Head = { heading: 'An entry that cannot be shown', tone: 'ink' };
  const head = unlessItThrows(
    () => kindOf(entry).head(entry, outcome.ok ? outcome.result : undefined),
    nameless,
  );
  return entry.look.tone === null ? head : { ...head, tone: entry.look.tone };
}
