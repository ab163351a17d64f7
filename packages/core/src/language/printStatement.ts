import { printLatex, printLatexCondition } from './printLatex.ts';
import { mathmlOf, printMathmlCondition } from './printMathml.ts';
import { printSpeech, spokenCondition } from './printSpeech.ts';
import { printCondition, printText } from './printText.ts';
import type { Statement } from './read.ts';
import * as tree from './tree.ts';
import type { Condition, Expression } from './tree.ts';

/** One line in all four forms in which it can be written. */
export interface Written {
  readonly text: string;
  readonly latex: string;
  readonly mathml: string;
  readonly speech: string;
}

/** A form in which a line can be written: how its parts are, and how they are joined. */
interface Form {
  readonly expression: (node: Expression) => string;
  readonly condition: (condition: Condition) => string;
  readonly equal: (left: string, right: string) => string;
  readonly point: (x: string, y: string) => string;
}

const asText: Form = {
  expression: printText,
  condition: (condition) => printCondition(condition),
  equal: (left, right) => `${left} = ${right}`,
  point: (x, y) => `(${x}, ${y})`,
};
const asLatex: Form = {
  expression: printLatex,
  condition: printLatexCondition,
  equal: (left, right) => `${left}=${right}`,
  point: (x, y) => `\\left(${x}, ${y}\\right)`,
};
const asSpeech: Form = {
  expression: printSpeech,
  condition: spokenCondition,
  equal: (left, right) => `${left} equals ${right}`,
  point: (x, y) => `the point with coordinates ${x} and ${y}`,
};
const unwrapped = (mathml: string): string => mathml.replace(/^<math[^>]*>|<\/math>$/g, '');
const asMathml: Form = {
  expression: mathmlOf,
  condition: (condition) => mathmlOf(printMathmlCondition(condition)),
  equal: (left, right) => mathmlOf(`<mrow>${unwrapped(left)}<mo>=</mo>${unwrapped(right)}</mrow>`),
  point: (x, y) => mathmlOf(`<mrow><mo>(</mo>${unwrapped(x)}<mo>,</mo>${unwrapped(y)}<mo>)</mo></mrow>`),
};

/** A statement as typed text, LaTeX, MathML and spoken English. */
export const writtenStatement = (statement: Statement): Written => ({
  text: statementIn(asText, statement),
  latex: latexOfStatement(statement),
  mathml: statementIn(asMathml, statement),
  speech: statementIn(asSpeech, statement),
});

export const latexOfStatement = (statement: Statement): string => statementIn(asLatex, statement);

function statementIn(form: Form, statement: Statement): string {
  const equal = (left: Expression, right: Expression): string =>
    form.equal(form.expression(left), form.expression(right));
  switch (statement.kind) {
    case 'expression':
      return form.expression(statement.body);
    case 'condition':
      return form.condition(statement.condition);
    case 'equation':
      return equal(statement.left, statement.right);
    case 'value':
      return equal(tree.name(statement.name), statement.body);
    case 'function':
    case 'givenDerivative':
      return equal(headOfFunction(statement), statement.body);
    case 'point': {
      const [x, y] = [form.expression(statement.x), form.expression(statement.y)];
      return form.equal(form.expression(tree.name(statement.name)), form.point(x, y));
    }
  }
}

function headOfFunction(statement: Statement & { kind: 'function' | 'givenDerivative' }): Expression {
  if (statement.kind === 'givenDerivative') {
    return tree.apply(statement.name, statement.order, tree.name(statement.variable));
  }
  const orders = statement.variables.map(() => 0);
  return tree.applyAll(statement.name, orders, statement.variables.map(tree.name));
}
