import {
  headOf,
  sentence,
  tree,
  type Expression,
  type FunctionBody,
  type Functions,
  type Problem,
  type Rational,
} from '@yperkine/core';
import type { Directory } from './names.ts';
import type { Id } from '../fields/fields.ts';
import { inferredUnit, type UnitsOfNames } from '../units/inferred.ts';
import { bare, readUnit, type Unit } from '../units/unit.ts';
import type { WorkContext } from './kind.ts';
import { failed, type Outcome } from './outcome.ts';

const heads = new Map<string, ReturnType<typeof headOf>>();
const mostHeads = 2000;

/** Heads are read again and again while a slider moves, so the last ones are kept. */
export function rememberedHead(text: string): ReturnType<typeof headOf> {
  if (heads.has(text)) return heads.get(text);
  if (heads.size >= mostHeads) heads.clear();
  const head = headOf(text);
  heads.set(text, head);
  return head;
}

/** What is wrong with a text that cannot be read, with what would mend it. */
export function unreadable(problem: Problem): Outcome<never> {
  return failed(sentence(problem), {
    range: { from: problem.from, to: problem.to },
    ...(problem.correction === undefined ? {} : { correction: problem.correction }),
    ...(couldBeSlider(problem) ? { missingName: problem.subject } : {}),
  });
}

/** An unknown letter may be meant as a number; a longer name close to a known one is a slip. */
export function couldBeSlider({ code, subject, correction }: Problem): boolean {
  return code === 'unknownName' && correction === undefined && /^\p{L}(?:_?\w+)?$/u.test(subject);
}

/** The entries that a formula mentions by name. */
export function idsMentioned(body: Expression, directory: Directory, variable?: string): Id[] {
  const { names, functions } = tree.mentioned(body);
  const known = [...names].filter((name) => name !== variable).concat([...functions]);
  return known.map((name) => directory.idOf.get(name)).filter((id) => id !== undefined);
}

/** The bodies of all functions that a formula mentions, directly or through others; null while one is missing. */
export function functionsMentioned(body: Expression, context: WorkContext): Functions | null {
  const functions = new Map<string, FunctionBody>();
  for (const name of tree.mentioned(body).functions) {
    const curve = context.curve(context.directory.idOf.get(name) ?? '');
    if (!curve) return null;
    curve.functions.forEach((value, key) => functions.set(key, value));
    if (!curve.functions.has(name))
      functions.set(curve.name, { variables: [curve.variable], body: curve.body });
  }
  return functions;
}

/** The units of everything that a formula may name. */
export const unitsOfNames = ({ unit, xUnit }: WorkContext): UnitsOfNames => ({
  of(name) {
    const known = unit(name);
    return known && known.size > 0 ? known : undefined;
  },
  x: xUnit,
});

/** The unit that a function is given, or the one that follows from what it is made of; and a warning about unlike ones. */
export function statedUnit(
  stated: string,
  body: Expression,
  context: WorkContext,
): { unit: Unit; sentence: string } {
  const { unit, clash } = inferredUnit(body, unitsOfNames(context));
  return {
    unit: stated.trim() === '' ? (unit ?? bare) : readUnit(stated),
    sentence: clash === null ? '' : `This adds ${clash}, which are not the same kind of quantity.`,
  };
}

/** Values of parameters by name, exact where they are. A parameter that cannot be worked out is undefined. */
export function parameterValues(names: readonly string[], context: WorkContext) {
  const exactParameters = new Map<string, Rational>();
  const parameters = names.map((name) => {
    const value = context.number(name);
    if (value?.exact) exactParameters.set(name, value.exact);
    return value?.value ?? NaN;
  });
  return { parameters, exactParameters };
}
