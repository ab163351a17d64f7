import type { APIRequestContext } from '@playwright/test';
import { currentVersion, emptyDocument, type Change } from '@yperkine/demonstration';
import { addGiven } from '../../apps/web/src/state/givens.ts';
import { Workbench } from '../../apps/web/src/state/workbench.ts';

/** Makes a demonstration of the signed-in teacher over the wire. @returns its id */
export async function makeDemonstration(
  request: APIRequestContext,
  address: string,
  changes: readonly Change[] = [],
): Promise<string> {
  const demonstrations = `${address}/api/demonstrations`;
  const made = await request.post(demonstrations, { data: {} });
  if (made.status() !== 201) throw new Error(`no demonstration was made: ${await made.text()}`);
  const { id } = (await made.json()) as { id: string };
  if (changes.length > 0) {
    const data = { base: 0, format: currentVersion, changes };
    const saved = await request.post(`${demonstrations}/${id}/changes`, { data });
    if (saved.status() !== 200) throw new Error(`nothing was saved: ${await saved.text()}`);
  }
  return id;
}

/** What stating some givens in a new demonstration changes. */
export function changesStating(givens: readonly string[]): readonly Change[] {
  const workbench = new Workbench(emptyDocument(), () => undefined);
  for (const given of givens) {
    const addition = addGiven(workbench, given);
    if (!addition.ok) throw new Error(addition.message);
    workbench.seal();
  }
  return workbench.state.history.past.map(({ change }) => change);
}
