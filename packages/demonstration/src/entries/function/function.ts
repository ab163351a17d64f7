import {
  compile,
  latexFunction,
  latexName,
  printLatex,
  readDefinition,
  sentence,
  TooLarge,
  tree,
  type Definition,
  type FunctionBody,
  type Functions,
  type Problem,
  type Rational,
} from '@yperkine/core';
import { latex } from '../../numbers/line.ts';
import type { Directory } from '../../resolve/directory.ts';
import { curveMark } from '../../scene/curveMark.ts';
import type { Id } from '../../schema/document.ts';
import type { EntryKind, WorkContext } from '../kind.ts';
import { failed, waiting, worked, type Outcome } from '../outcome.ts';
import type { CurveResult } from '../results.ts';

/** A function given by a formula, such as f(x) = 3x^2 - 5x - 2. */
export const functionKind: EntryKind<'function'> = {
  dependsOn(entry, directory) {
    const reading = readDefinition(entry.text, directory.scope);
    return reading.ok ? idsMentioned(reading.value, directory) : [];
  },

  workOut(entry, context, previous) {
    const reading = readDefinition(entry.text, context.directory.scope);
    if (!reading.ok) return unreadable(reading.problem);
    const definition = reading.value;
    if (definition.variable === undefined) {
      return failed(`A function needs its variable: write ${definition.name}(x) = ….`);
    }
    const functions = functionsFor(definition, context);
    if (!functions) return waiting('This waits for another entry that cannot be worked out yet.');
    const body = sameTree(previous?.body, definition.body);
    const isSame =
      previous?.name === definition.name &&
      previous.body === body &&
      sameFunctions(previous.functions, functions);
    try {
      const program = isSame ? previous.program : compile(body, definition.variable, functions);
      return worked({
        ...namedCurve(definition.name, definition.variable, body),
        program,
        functions: isSame ? previous.functions : functions,
        ...parameterValues(program.parameters, context),
        tier: entry.tier,
      });
    } catch (error) {
      if (error instanceof TooLarge)
        return failed('This formula is too large to be worked out; please split it into smaller parts.');
      throw error;
    }
  },

  marks: (id, _entry, result, tier) => (result.tier === tier.id ? [curveMark(id, result, tier)] : []),
};

function unreadable(problem: Problem): Outcome<never> {
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

function idsMentioned({ body, variable }: Definition, directory: Directory): Id[] {
  const { names, functions } = tree.mentioned(body);
  const known = [...names].filter((name) => name !== variable).concat([...functions]);
  return known.map((name) => directory.idOf.get(name)).filter((id) => id !== undefined);
}

/** The bodies of all functions that the definition mentions, directly or through others. */
function functionsFor({ body }: Definition, context: WorkContext): Functions | null {
  const functions = new Map<string, FunctionBody>();
  for (const name of tree.mentioned(body).functions) {
    const curve = context.curve(context.directory.idOf.get(name) ?? '');
    if (!curve) return null;
    curve.functions.forEach((value, key) => functions.set(key, value));
    functions.set(curve.name, { variables: [curve.variable], body: curve.body });
  }
  return functions;
}

/** The previous tree where it is equal, so that what was compiled for it is found again. */
function sameTree(previous: CurveResult['body'] | undefined, next: CurveResult['body']): CurveResult['body'] {
  return previous && JSON.stringify(previous) === JSON.stringify(next) ? previous : next;
}

function sameFunctions(a: Functions, b: Functions): boolean {
  return a.size === b.size && [...a].every(([name, { body }]) => b.get(name)?.body === body);
}

export function namedCurve(name: string, variable: string, body: CurveResult['body']) {
  const head = `${latexFunction(name, 0)}(${latexName(variable)})`;
  const text = `${head} = ${printLatex(body)}`;
  return { name, order: 0, variable, body, latex: text, lines: [[latex(text)]] };
}

/** Values of parameters by name, exact where they are. A parameter that cannot be worked out is undefined. */
export function parameterValues(names: readonly string[], context: WorkContext) {
  const exactParameters = new Map<string, Rational>();
  const parameters = names.map((name) => {
    const value = context.result(context.directory.idOf.get(name) ?? '', 'parameter')?.value;
    if (value?.exact) exactParameters.set(name, value.exact);
    return value?.value ?? NaN;
  });
  return { parameters, exactParameters };
}
