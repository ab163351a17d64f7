import { printLatex, printLatexCondition } from './printLatex.ts';
import { mathmlOf, printMathmlCondition } from './printMathml.ts';
import { printSpeech, spokenCondition } from './printSpeech.ts';
import { printCondition, printText } from './printText.ts';
import type { Statement } from './read.ts';
import * as tree from './tree.ts';
import type { Expression } from './tree.ts';

/** One line in all four forms in which it can be written. */
export interface Written {
  readonly text: string;
  readonly latex: string;
  readonly mathml: string;
  readonly speech: string;
}

/** A statement as typed text, LaTeX, MathML and spoken English. */
export function writtenStatement(statement: Statement): Written {
  switch (statement.kind) {
    case 'expression':
      return writtenExpression(statement.body);
    case 'condition':
      return {
        text: printCondition(statement.condition),
        latex: printLatexCondition(statement.condition),
        mathml: mathmlOf(printMathmlCondition(statement.condition)),
        speech: spokenCondition(statement.condition),
      };
    case 'equation':
      return equal(writtenExpression(statement.left), writtenExpression(statement.right));
    case 'value':
      return equal(writtenExpression(tree.name(statement.name)), writtenExpression(statement.body));
    case 'function':
    case 'givenDerivative':
      return equal(writtenExpression(headOfFunction(statement)), writtenExpression(statement.body));
    case 'point':
      return writtenPoint(statement.name, statement.x, statement.y);
  }
}

function headOfFunction(statement: Statement & { kind: 'function' | 'givenDerivative' }): Expression {
  if (statement.kind === 'givenDerivative') {
    return tree.apply(statement.name, statement.order, tree.name(statement.variable));
  }
  const orders = statement.variables.map(() => 0);
  return tree.applyAll(statement.name, orders, statement.variables.map(tree.name));
}

function writtenExpression(node: Expression): Written {
  return {
    text: printText(node),
    latex: printLatex(node),
    mathml: mathmlOf(node),
    speech: printSpeech(node),
  };
}

const unwrapped = (mathml: string): string => mathml.replace(/^<math[^>]*>|<\/math>$/g, '');

function equal(left: Written, right: Written): Written {
  return {
    text: `${left.text} = ${right.text}`,
    latex: `${left.latex}=${right.latex}`,
    mathml: mathmlOf(`<mrow>${unwrapped(left.mathml)}<mo>=</mo>${unwrapped(right.mathml)}</mrow>`),
    speech: `${left.speech} equals ${right.speech}`,
  };
}

function writtenPoint(name: string, x: Expression, y: Expression): Written {
  const [a, b] = [writtenExpression(x), writtenExpression(y)];
  const label = writtenExpression(tree.name(name));
  return equal(label, {
    text: `(${a.text}, ${b.text})`,
    latex: `\\left(${a.latex}, ${b.latex}\\right)`,
    mathml: mathmlOf(
      `<mrow><mo>(</mo>${unwrapped(a.mathml)}<mo>,</mo>${unwrapped(b.mathml)}<mo>)</mo></mrow>`,
    ),
    speech: `the point with coordinates ${a.speech} and ${b.speech}`,
  });
}
