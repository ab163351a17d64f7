import {
  curveOf,
  inOrder,
  lastOrder,
  makeEntry,
  mostTrials,
  parameterOf,
  placeOfStudy,
  resolve,
  slidersOf,
  type EntryOf,
  type Id,
  type TrialsResult,
} from '@yperkine/demonstration';
import { added, newId, setField } from './actions.ts';
import { firstTierOf } from './texts.ts';
import type { Workbench } from './workbench.ts';

/** Keeping trials: the present parameters and results as a row of a table. */

const mostLikelyColumns = 8;

/** The sliders, and what the points and tangents that there are say: value and slope at their place. */
function likelyColumns(workbench: Workbench): string {
  const { document } = workbench.state;
  const resolution = workbench.current();
  const sliders = slidersOf(document).flatMap(([, entry]) =>
    entry.kind === 'parameter' ? [entry.name] : [],
  );
  const results = inOrder(document.entries).flatMap(([, entry]) => {
    const place = placeOfStudy(entry);
    const curve = place && curveOf(resolution, place.on);
    const at = place && parameterOf(resolution, place.parameter);
    if (!curve || !at) return [];
    const order = curve.order + (entry.kind === 'point' ? 0 : 1);
    return entry.kind === 'point' || entry.kind === 'tangent'
      ? [`${curve.name}${"'".repeat(order)}(${at.name})`]
      : [];
  });
  return [...new Set([...sliders, ...results])].slice(0, mostLikelyColumns).join('; ');
}

const trialsIn = (workbench: Workbench): [Id, EntryOf<'trials'>][] =>
  inOrder(workbench.state.document.entries).flatMap(([id, entry]) =>
    entry.kind === 'trials' ? [[id, entry] as [Id, EntryOf<'trials'>]] : [],
  );

/** Writes what is shown just now as a row of every table of trials; the first time it makes the table. */
export function keepTrial(workbench: Workbench): void {
  const tables = trialsIn(workbench);
  if (tables.length === 0) {
    const columns = likelyColumns(workbench);
    if (columns === '')
      return workbench.tell('There is nothing to keep yet: make a slider, or put a point on a curve.');
    const empty = makeEntry('trials', {
      order: lastOrder(workbench.state.document.entries),
      columns,
      tier: firstTierOf(workbench),
    });
    const id = newId();
    const { document, stage } = workbench.state;
    const preview = { ...document, entries: { ...document.entries, [id]: empty } };
    const row = rowNow(resolve(preview, stage, workbench.current()).entries.get(id)?.outcome);
    workbench.change([added(id, row ? { ...empty, rows: [row] } : empty)]);
    return;
  }
  const together = newId();
  for (const [id, entry] of tables) {
    const row = rowNow(workbench.current().entries.get(id)?.outcome);
    if (!row) continue;
    if (entry.rows.length >= mostTrials)
      workbench.tell(`A table keeps at most ${mostTrials} trials; take some away first.`);
    else setField(workbench, id, 'rows', [...entry.rows, row], together);
  }
}

function rowNow(outcome: { ok: boolean; result?: unknown } | undefined): string[] | null {
  return outcome?.ok ? [...(outcome.result as TrialsResult).now] : null;
}
