import { Effort } from '@yperkine/core';
import { buildScene, emptyDocument } from '@yperkine/demonstration';
import { curvesOf } from './curves.ts';
import { addGiven } from './givens.ts';
import { Workbench } from './workbench.ts';

/** What the rehearsal is played with: one term of each kind that takes a path of its own. */
const given = 'f(x) = x^2 - 1';
const size = { width: 640, height: 400, density: 1, furniture: true, isTypesetOver: true };
const operations = 200_000;

/** The first formula of a demonstration, from what is typed to its picture, on a workbench that nobody sees. */
function* firstFormula(): Generator<void, void> {
  const workbench = new Workbench(emptyDocument(), () => undefined);
  yield;
  addGiven(workbench, given);
  yield;
  const { document, stage, here } = workbench.state;
  const { trails } = workbench;
  const resolution = workbench.current();
  buildScene({ document, stage, resolution, size, here, trails, effort: new Effort(operations) });
}

/** Calls back when the page has nothing else to do; returns how to call it off. Not every browser can tell. */
function whenIdle(callback: () => void): () => void {
  if (typeof requestIdleCallback !== 'function') {
    const timer = setTimeout(callback, 500);
    return () => clearTimeout(timer);
  }
  const idle = requestIdleCallback(callback);
  return () => cancelIdleCallback(idle);
}

/**
 * The browser runs what is new to it many times slower. Where a demonstration has no curve yet, what its first formula
 * takes is done once for nothing, piece by piece, while nobody asks for anything: when it is typed it is there at once.
 * @returns how to call it off
 */
export function rehearse(workbench: Workbench): () => void {
  if (curvesOf(workbench.current()).length > 0) return () => undefined;
  const steps = firstFormula();
  let callOff = whenIdle(step);
  function step(): void {
    if (!steps.next().done) callOff = whenIdle(step);
  }
  return () => callOff();
}
