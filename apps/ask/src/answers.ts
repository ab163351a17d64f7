import {
  Effort,
  OutOfEffort,
  SingleValues,
  awayFromJumps,
  closedFormula,
  compile,
  derivativeOf,
  derivativesAt,
  evaluateAt,
  evenPartition,
  exactValue,
  hasSingleValues,
  holdsBinder,
  integral,
  isTooLarge,
  certificateOf,
  certificateOfSolutions,
  checkLimit,
  check,
  checkedIntegral,
  shownIntegral,
  checkSigns,
  checkSolutions,
  keyPoints,
  knownNumber,
  limitOfProgram,
  numberFormula,
  lineFormula,
  partOf,
  plainValueAt,
  printLatex,
  printText,
  rational,
  readStatement,
  riemannSum,
  secant,
  sentence,
  slopesBeside,
  signs,
  solve,
  tangentAt,
  toldValue,
  tree,
  writtenNumber,
  writtenStatement,
  type Certificate,
  type Checked,
  type Expression,
  type KeyPoint,
  type Limit,
  type Place,
  type Scope,
  type SideHeight,
  type Sides,
  type Tangent,
} from '@yperkine/core';
import { certificateRow } from './certificates.ts';
import { questionSchema, type Question, type QuestionAbout } from './questions.ts';

const variable = 'x';

/** A question that cannot be answered, in one sentence for the person who asked. */
class Unanswerable extends Error {}

/** Counted operations that one question may take: some seconds' work. */
const mostOperations = 250_000_000;

/** The answer to one line of JSON, as one line of JSON. Never throws. */
export function answerLine(line: string): string {
  try {
    const question = parsed(line);
    return JSON.stringify(new Effort(mostOperations).spendOn(() => answer(question)));
  } catch (error) {
    return JSON.stringify({ error: messageOf(error) });
  }
}

function messageOf(error: unknown): string {
  if (error instanceof Unanswerable) return error.message;
  if (error instanceof OutOfEffort) return 'This takes more operations than are allowed and was given up.';
  if (isTooLarge(error)) return 'This formula is too large to be worked out.';
  if (error instanceof SingleValues)
    return 'A factorial has values at whole numbers only: between them there is nothing to look at.';
  return `The question could not be answered: ${error instanceof Error ? error.message : String(error)}`;
}

function parsed(line: string): Question {
  let json: unknown;
  try {
    json = JSON.parse(line);
  } catch {
    throw new Unanswerable('This line is not JSON.');
  }
  const result = questionSchema.safeParse(json);
  if (result.success) return result.data;
  const [issue] = result.error.issues;
  const where = issue?.path.join('.') ?? '';
  throw new Unanswerable(
    `The question is not understood${where ? ` at “${where}”` : ''}: ${issue?.message ?? ''}.`,
  );
}

function answer(question: Question): unknown {
  switch (question.ask) {
    case 'value':
      return values(question);
    case 'derivative':
      return derivative(question);
    case 'keyPoints':
      return keyPointsRow(question);
    case 'signs': {
      const body = closed(question);
      const { intervals, complete } = signs(body, variable, question.on, question.order);
      const rows = intervals.map(({ from, to, sign }) => ({ from: from.value, to: to.value, sign }));
      const row = { intervals: rows, complete };
      if (!question.certificate) return row;
      const certificate = certificateOf(body, variable, question.on, question.order, 0);
      return certified(row, certificate, checkSigns(certificate, rows));
    }
    case 'solve':
      return solutions(question);
    case 'tangent':
      return tangent(question);
    case 'secant': {
      const program = compile(closed(question), variable);
      return { slope: plain(secant(program, question.at, question.h, question.kind).slope) };
    }
    case 'limit':
      return limit(question);
    case 'sum':
      return sum(question);
    case 'integral':
      return definiteIntegral(question);
    case 'read':
      return read(question);
  }
}

/** The ends of an interval from left to right, and the sign that turning it round gives an integral. */
function ordered([a, b]: readonly [number, number]): { on: [number, number]; sign: 1 | -1 } {
  return a <= b ? { on: [a, b], sign: 1 } : { on: [b, a], sign: -1 };
}

/** The same rule seen from the other end. */
function mirrored(rule: QuestionAbout<'sum'>['rule']): QuestionAbout<'sum'>['rule'] {
  if (rule === 'left') return 'right';
  if (rule === 'right') return 'left';
  return typeof rule === 'object' ? { fraction: 1 - rule.fraction } : rule;
}

function sum(question: QuestionAbout<'sum'>): unknown {
  const { n, rule } = question;
  if (rule === 'simpson' && n % 2 !== 0)
    throw new Unanswerable('Parabolas take the parts in pairs: n has to be even.');
  const { on, sign } = ordered(question.on);
  const turnedRule = sign > 0 ? rule : mirrored(rule);
  const body = closed(question);
  const found = riemannSum(body, variable, evenPartition(...on, n), turnedRule);
  const parts = Array.from(found.xs, (_, i) => {
    const { x, height, area } = partOf(found, sign > 0 ? i : found.xs.length - 1 - i);
    return { x, height: plain(height), area: plain(sign * area) };
  });
  const row = { total: plain(sign * found.total), dx: (question.on[1] - question.on[0]) / n, parts };
  if (rule !== 'lower' && rule !== 'upper') return row;
  if (!question.certificate) return { ...row, proved: found.isProved };
  // Where the function is least and greatest follows from where it turns and what it does at its joints.
  const certificate = certificateOf(body, variable, on, 0, 1);
  const checked = check(certificate, keyPoints(body, variable, on, 0, 1).points);
  return {
    ...row,
    proved: found.isProved && checked.isAccepted,
    certificate: certificateRow(certificate, checked),
  };
}

function definiteIntegral(question: QuestionAbout<'integral'>): unknown {
  const body = closed(question);
  const found = integral(body, variable, question.on, { isTotal: question.total });
  const { value, exact, diverges, undefinedOn } = found;
  const checked = question.certificate
    ? checkedIntegral(body, variable, question.on, found, question.total)
    : null;
  // What is estimated may be shown by the checker's own bounds; what it does not accept is called estimated.
  const { bound, certainty } = question.certificate ? shownIntegral(found, checked) : found;
  return {
    value: plain(value),
    exact: textOf(exact),
    bound: plain(bound),
    certainty: Number.isNaN(value) ? null : certainty,
    diverges,
    ...(question.certificate
      ? {
          certificate: checked && {
            accepted: checked.isAccepted,
            bounds: checked.bounds,
            parts: checked.parts.map(({ from, to, bounds }) => ({ from, to, bounds })),
          },
        }
      : {}),
    ...(undefinedOn.length > 0
      ? { undefinedOn: undefinedOn.map(({ low, high }) => [plain(low), plain(high)]) }
      : {}),
  };
}

/** Numbers as JSON can carry them: null for what is undefined, infinities by name. */
function plain(value: number | null): number | string | null {
  if (value === null || Number.isNaN(value)) return null;
  return Number.isFinite(value) ? (value === 0 ? 0 : value) : String(value);
}

/** The formula of the question in x alone, its parameters put in. */
function closed({ f, parameters }: { f: string; parameters: Record<string, number> }): Expression {
  return closedFormula(formula(f, parameters), new Map(Object.entries(parameters)));
}

function formula(text: string, parameters: Record<string, number>): Expression {
  const scope: Scope = { names: new Set([variable, ...Object.keys(parameters)]), functions: new Set() };
  const reading = readStatement(text, scope);
  if (!reading.ok) throw new Unanswerable(sentence(reading.problem));
  const statement = reading.value;
  if (statement.kind === 'expression') return checked(statement.body, parameters);
  if (statement.kind === 'function' && statement.variables.length === 1) {
    const body = tree.substitute(statement.body, statement.variables[0] as string, tree.name(variable));
    return checked(body, parameters);
  }
  throw new Unanswerable('This is not a function of x: write a formula such as x^2 - 1.');
}

function checked(body: Expression, parameters: Record<string, number>): Expression {
  const unknown = [...tree.mentioned(body).names].find((name) => name !== variable && !(name in parameters));
  if (unknown !== undefined)
    throw new Unanswerable(`“${unknown}” has no value: give it among the parameters.`);
  return body;
}

function values(question: QuestionAbout<'value'>): unknown {
  const { f, parameters, at } = question;
  const body = formula(f, parameters);
  const simple = closed(question);
  const program = compile(simple, variable);
  const told = (x: number): number =>
    toldValue(closedFormula(body, new Map(Object.entries({ ...parameters, [variable]: x })))).value;
  // Where fractions or narrow bounds of doubles reach, a long list takes a hundredth of the time.
  const quick = (x: number): number | null => {
    const place = rational.parseDecimal(String(x).toUpperCase().replace('E+', 'E'));
    const fraction = place && exactValue(simple, new Map([[variable, place]]));
    return fraction ? rational.toNumber(fraction) : holdsBinder(body) ? null : plainValueAt(program, x);
  };
  const found = at.map((x) => quick(x) ?? told(x));
  const beyond = at.filter((_, i) => Math.abs(found[i] ?? 0) === Infinity);
  return {
    values: found.map((value) => (Number.isFinite(value) ? plain(value) : null)),
    // Larger than any double, and not infinite.
    ...(beyond.length > 0 ? { tooLarge: beyond } : {}),
  };
}

function derivative(question: QuestionAbout<'derivative'>): unknown {
  const body = closed(question);
  const program = compile(body, variable);
  // Limits inside a formula are differentiated as formulas only.
  const byFormula = hasLimits(body) ? compile(body, variable, undefined, question.order) : null;
  const values = question.at.map((x) => {
    const value = derivativesAt(program, x, question.order)[question.order] ?? NaN;
    return plain(Number.isNaN(value) && byFormula ? evaluateAt(byFormula, x) : value);
  });
  try {
    const body = formula(question.f, question.parameters);
    if (hasSingleValues(body, variable)) throw new SingleValues();
    const slope = awayFromJumps(derivativeOf(body, variable, question.order), body, [variable]);
    return { text: printText(slope), latex: printLatex(slope), values };
  } catch (error) {
    if (!isTooLarge(error) && !(error instanceof SingleValues)) throw error;
    return { text: null, latex: null, values, error: messageOf(error) };
  }
}

const hasLimits = (node: Expression): boolean => node.kind === 'limit' || tree.children(node).some(hasLimits);

const textOf = (exact: Expression | null): string | null => exact && printText(exact);

function pointRow({ kind, x, y, exact, proved, absolute, sides }: KeyPoint): unknown {
  const side = (height: SideHeight | null): unknown => height && plain(height.value);
  return {
    kind,
    x: plain(x),
    y: plain(y),
    exact: textOf(exact),
    proved,
    ...(absolute === undefined ? {} : { absolute }),
    ...(sides === undefined ? {} : { left: side(sides.left), right: side(sides.right) }),
  };
}

function solutions(question: QuestionAbout<'solve'>): unknown {
  const equals = closed({ f: question.equals, parameters: question.parameters });
  const body = closed(question);
  const found = solve(body, equals, variable, question.on, question.order);
  const row = ({ value, exact }: Place) => ({ x: plain(value), exact: textOf(exact) });
  const everywhere = found.everywhere.map(({ from, to, includesFrom, includesTo }) => ({
    from: from.value,
    to: to.value,
    includesFrom,
    includesTo,
  }));
  const told = {
    solutions: found.solutions.map(row),
    complete: found.complete,
    ...(everywhere.length > 0 ? { everywhere } : {}),
  };
  if (!question.certificate) return told;
  const certificate = certificateOfSolutions(body, equals, variable, question.on, question.order);
  // Of a derivative that is compared with a function there is none.
  if (!certificate) return { ...told, complete: false, certificate: null };
  const at = found.solutions.map(({ value }) => value);
  return certified(told, certificate, checkSolutions(certificate, { at, everywhere }));
}

function keyPointsRow(question: QuestionAbout<'keyPoints'>): unknown {
  const body = closed(question);
  const { points, complete, undecided } = keyPoints(body, variable, question.on, question.order);
  const row = {
    complete,
    points: points.map(pointRow),
    undecided: undecided.map(({ low, high }) => [low, high]),
  };
  if (!question.certificate) return row;
  const certificate = certificateOf(body, variable, question.on, question.order);
  return certified(row, certificate, check(certificate, points));
}

/** A list with its certificate: what the checker does not accept is not called complete. */
const certified = (row: { complete: boolean }, certificate: Certificate, checked: Checked): unknown => ({
  ...row,
  complete: row.complete && checked.isAccepted,
  certificate: certificateRow(certificate, checked),
});

function tangent(question: QuestionAbout<'tangent'>): unknown {
  const body = closed(question);
  const program = compile(body, variable);
  const exact = rational.parseDecimal(String(question.at).toUpperCase());
  const at = knownNumber(question.at, exact);
  const line = tangentAt({ body, variable, program }, at);
  return { ...lineRow(line), ...sidesOf(line, () => slopesBeside(program, at)) };
}

/** The slopes from the left and the right; of a curve that goes on smoothly both are its slope. */
function sidesOf(line: Tangent, beside: () => Sides): { left: unknown; right: unknown } {
  if (line.kind === 'undefined') return { left: null, right: null };
  if (line.kind === 'line' && line.side === 'both') {
    const slope = plain(line.slope.value);
    return { left: slope, right: slope };
  }
  const { left, right } = beside();
  return { left: left && plain(left.value), right: right && plain(right.value) };
}

function lineRow(line: Tangent): Record<string, unknown> {
  const none = { slope: null, intercept: null, equation: null, vertical: false };
  if (line.kind === 'vertical') {
    return { ...none, equation: `x = ${printText(writtenNumber(line.x))}`, vertical: true };
  }
  if (line.kind !== 'line') return none;
  return {
    slope: plain(line.slope.value),
    intercept: plain(line.intercept.value),
    equation: `y = ${printText(lineFormula(line.slope, line.intercept, variable))}`,
    vertical: false,
  };
}

function limit(question: QuestionAbout<'limit'>): unknown {
  const { at, side } = question;
  const body = closed(question);
  const found = limitOfProgram(compile(body, variable), at, side);
  const row = limitRow(found);
  if (!question.certificate) return row;
  if (found.kind === 'undecided' || found.kind === 'undefined') return { ...row, certificate: null };
  const place = Number.isFinite(at) ? numberFormula(at) : at > 0 ? 1 : -1;
  const sides = side === 'both' ? (['left', 'right'] as const) : [side];
  const { isAccepted, bounds } = checkLimit(body, variable, place, sides, found);
  return { ...row, proved: isAccepted, certificate: { accepted: isAccepted, bounds } };
}

function limitRow(limit: Limit): Record<string, unknown> {
  switch (limit.kind) {
    case 'finite':
      return { value: plain(limit.value), exact: textOf(limit.exact), proved: limit.proved, exists: true };
    case 'infinite':
      return { value: plain(limit.sign * Infinity), exists: false };
    case 'undefined':
    case 'none':
      return { value: null, exists: false };
    case 'undecided':
      return { value: null, exists: null };
  }
}

const letters = [...'abcdfghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZαβγδεζηθικλμνξρστφχψωΔΘΛΞΦΨΩ'];
const indices = ['', '_0', '_1', '_2', '_3', '_4', '_5', '_6', '_7', '_8', '_9', '_n', '_i', '_max', '_min'];
/** To be read, a text may use any letter, with an index, and what letters usually stand for. */
const usualPoints = new Set(['P', 'Q']);
const usualFunctions = new Set(['f', 'g', 'h']);
const usualNames = letters
  .filter((letter) => !usualFunctions.has(letter) && !usualPoints.has(letter))
  .flatMap((letter) => indices.map((index) => letter + index));

function read(question: QuestionAbout<'read'>): unknown {
  const scope: Scope = {
    names: new Set([...usualNames, 'Δx', 'Δy', ...Object.keys(question.parameters)]),
    functions: usualFunctions,
    points: usualPoints,
  };
  const first = readStatement(question.text, scope);
  if (first.ok) return writtenStatement(first.value);
  // A function may have two variables as well as one.
  const second = readStatement(question.text, {
    ...scope,
    argumentCounts: new Map([...usualFunctions].map((name) => [name, 2])),
  });
  if (second.ok) return writtenStatement(second.value);
  // h is as often a step as a function.
  const third = readStatement(question.text, {
    ...scope,
    names: new Set([...scope.names, 'h']),
    functions: new Set(['f', 'g']),
  });
  if (third.ok) return writtenStatement(third.value);
  const { problem } = first;
  return {
    error: sentence(problem),
    from: problem.from,
    to: problem.to,
    ...(problem.correction === undefined ? {} : { correction: problem.correction }),
  };
}
