import { askedKinds, functionsOf } from './code.mjs';
import { mutualFolders, tangles } from './imports.mjs';
import { readSources } from './sources.mjs';

/**
 * @typedef {object} Figure
 * @property {string} name
 * @property {number} was when it was first counted
 * @property {readonly string[]} places of which it is the number
 * @property {number} bound no change may go beyond it; it is lowered with every change that goes below
 * @property {number} aim
 */

/** @returns {Figure[]} */
export function figures() {
  const sources = readSources();
  const functions = functionsOf(sources);
  /** @param {(one: (typeof functions)[number]) => boolean} is */
  const those = (is) =>
    functions
      .filter(is)
      .map(({ place, lines, parameters }) => `${place} ${lines} lines, ${parameters} parameters`);
  const folders = mutualFolders(sources);
  return [
    {
      name: 'files in circles of imports, types counted',
      was: 102,
      places: tangles(sources, true).flat(),
      bound: 0,
      aim: 0,
    },
    {
      name: 'files in circles of imports when it runs',
      was: 10,
      places: tangles(sources, false).flat(),
      bound: 0,
      aim: 0,
    },
    { name: 'pairs of folders that import each other', was: 21, places: folders, bound: 0, aim: 0 },
    { name: 'functions over 90 lines', was: 9, places: those(({ lines }) => lines > 90), bound: 9, aim: 0 },
    {
      name: 'functions over 60 lines',
      was: 41,
      places: those(({ lines }) => lines > 60),
      bound: 40,
      aim: 10,
    },
    {
      name: 'functions of logic over 50 lines',
      was: 22,
      places: those(({ lines, isLogic }) => isLogic && lines > 50),
      bound: 22,
      aim: 0,
    },
    {
      name: 'functions of more than four parameters',
      was: 103,
      places: those(({ parameters }) => parameters > 4),
      bound: 97,
      aim: 15,
    },
    {
      name: 'questions for a kind outside its own folders',
      was: 140,
      places: askedKinds(sources),
      bound: 140,
      aim: 30,
    },
  ];
}
