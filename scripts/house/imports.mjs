import { dirname } from 'node:path';

/** @typedef {import('./sources.mjs').Source} Source */

/**
 * Files that import one another in a circle, by Tarjan's strongly connected components.
 * @param {readonly Source[]} sources
 * @param {boolean} withTypes whether imports of types count
 * @returns {string[][]} one group for each tangle, the largest first
 */
export function tangles(sources, withTypes) {
  const graph = new Map(
    sources.map(({ path, imports }) => [
      path,
      imports.filter(({ isType }) => withTypes || !isType).map((one) => one.path),
    ]),
  );
  /** @type {Map<string, { index: number, low: number }>} */
  const seen = new Map();
  /** @type {string[]} */
  const stack = [];
  /** @type {string[][]} */
  const found = [];
  /** @param {string} path */
  const visit = (path) => {
    const own = { index: seen.size, low: seen.size };
    seen.set(path, own);
    stack.push(path);
    for (const next of graph.get(path) ?? []) {
      if (!seen.has(next)) visit(next);
      if (stack.includes(next)) own.low = Math.min(own.low, seen.get(next)?.low ?? own.low);
    }
    if (own.low < own.index) return;
    const group = stack.splice(stack.indexOf(path));
    if (group.length > 1) found.push(group.sort());
  };
  for (const { path } of sources) if (!seen.has(path)) visit(path);
  return found.sort((a, b) => b.length - a.length);
}

/**
 * Pairs of folders of which each holds a file that imports one of the other; a folder and one inside it are none.
 * @param {readonly Source[]} sources
 * @returns {string[]}
 */
export function mutualFolders(sources) {
  /** @type {Set<string>} */
  const ways = new Set();
  for (const { path, imports } of sources)
    for (const other of imports) {
      const [from, to] = [dirname(path), dirname(other.path)];
      if (from !== to && !isInside(from, to) && !isInside(to, from)) ways.add(`${from} ${to}`);
    }
  return [...ways]
    .map((way) => /** @type {[string, string]} */ (way.split(' ')))
    .filter(([from, to]) => from < to && ways.has(`${to} ${from}`))
    .map(([from, to]) => `${from} ↔ ${to}`);
}

/** @param {string} a @param {string} b */
const isInside = (a, b) => a.startsWith(`${b}/`);
