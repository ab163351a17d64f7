export * as rational from './numbers/rational.ts';
export type { Rational } from './numbers/rational.ts';
export { derivativeOf, DerivativeOutOfEffort } from './algebra/differentiate.ts';
export { exactForm } from './algebra/exactForm.ts';
export { literal } from './algebra/literal.ts';
export { polynomialDegree } from './algebra/polynomialDegree.ts';
export type { ExactEnds } from './area/stretches.ts';
export { simplify } from './algebra/simplify.ts';
export { isTooLarge, TooLarge } from './budget/tooLarge.ts';
export { hasSingleValues, SingleValues } from './analysis/singleValues.ts';
export * as tree from './language/tree.ts';
export type { Condition, Expression } from './language/tree.ts';
export {
  readCondition,
  readDefinition,
  readExpression,
  readStatement,
  headOf,
  isDefinition,
  type Definition,
  type Head,
  type Statement,
} from './language/read.ts';
export { latexOfStatement, writtenStatement, type Written } from './language/printStatement.ts';
export { printSpeech } from './language/printSpeech.ts';
export { mathmlOf } from './language/printMathml.ts';
export { sentence, type Problem, type ProblemCode, type Reading } from './language/problem.ts';
export { emptyScope, isReserved, canonicalName, type Scope } from './language/names.ts';
export { printCondition, printText, truthAlone } from './language/printText.ts';
export { latexFunction, latexName, latexNumber, printLatex } from './language/printLatex.ts';
export { compile, noFunctions, type FunctionBody, type Functions, type Program } from './evaluate/program.ts';
export { integralOfProgram, limitOfProgram } from './values/ofPrograms.ts';
export { evaluatorFor, type Evaluator } from './values/evaluator.ts';
export { WasmEvaluator } from './values/wasm.ts';
export { ArrayEvaluator } from './values/arrays.ts';
export { compare, evaluateAt } from './values/values.ts';
export { signChange } from './evaluate/signChange.ts';
export { derivativesAt, taylorCoefficients } from './values/jets.ts';
export { isContinuousBetween } from './evaluate/continuity.ts';
export { enclose } from './evaluate/enclosures.ts';
export type { Interval } from './numbers/interval.ts';
export { exactTruth, exactValue } from './algebra/exact.ts';
export { truthOf } from './algebra/truth.ts';
export {
  tangentAt,
  knownNumber,
  normalTo,
  isDefinedBeside,
  type Tangent,
  type Tangible,
} from './slope/tangent.ts';
export { completeDerivatives } from './slope/glued.ts';
export { awayFromJumps } from './algebra/jumps.ts';
export { meetsZeroToZero } from './evaluate/zeroToZero.ts';
export { slopesBeside, type KnownNumber, type SideSlope, type Sides } from './slope/sides.ts';
export { lineFormula, writtenNumber } from './slope/equation.ts';
export { quotientTable, secant, type QuotientKind, type QuotientRow, type Secant } from './slope/quotient.ts';
export { meanValuePoints, type Conditions, type MeanValue, type Obstacle } from './slope/meanValue.ts';
export { evenPartition, samplePoints, type PointRule, type SumRule } from './area/rules.ts';
export {
  extremeSum,
  partOf,
  riemannSum,
  sumOver,
  type RiemannSum,
  type SumPart,
  type Values,
} from './area/sums.ts';
export { exactSum, type ExactRule } from './area/exactSum.ts';
export { extremeHeights, type ExtremeHeights } from './area/extremes.ts';
export { integral } from './area/integral.ts';
export type { DefiniteIntegral, IntegralCertainty, IntegralPart } from './area/parts.ts';
export { orderOfConvergence, type SumError } from './area/convergenceOrder.ts';
export { ledIntegral, type Led } from './area/led.ts';
export { antiderivative } from './algebra/antiderivative/antiderivative.ts';
export {
  keyPoints,
  type EndExtreme,
  type KeyPoint,
  type KeyPointKind,
  type KeyPoints,
  type SideHeight,
} from './analysis/keyPoints.ts';
export { certificateOf, certificateOfSolutions } from './analysis/certificate.ts';
export { checkedIntegral, shownIntegral } from './area/certificate.ts';
export { check, checkSigns, checkSolutions } from './checker/check.ts';
export { checkLimit, type CheckedLimit } from './checker/limits.ts';
export type { Certificate, Checked, Claim, Shown } from './checker/claims.ts';
export { signs, type Signs } from './analysis/signs.ts';
export { whereHolds } from './analysis/holds.ts';
export { solve, type Held, type Solutions } from './analysis/solve.ts';
export { formulaFromDerivative, fromDerivative } from './analysis/fromDerivative.ts';
export { joins, type Join, type JoinSide } from './analysis/joins.ts';
export { besidePlace, mendingAt, type Beside, type Mending, type MendingValues } from './analysis/mending.ts';
export { isNowhereDefined } from './analysis/domain.ts';
export { asymptotes, type Asymptote, type Asymptotes, type KnownForm } from './analysis/asymptotes.ts';
export { findingSentence, readFromDerivative, type Behaviour, type Finding } from './analysis/reading.ts';
export { derivativeSteps, ruleNames, type Rule, type RuleStep } from './algebra/rules.ts';
export { knownFunctions } from './functions/table.ts';
export {
  drawEquation,
  equationOf,
  implicitSlope,
  type DrawnEquation,
  type Equation,
} from './curve/equation.ts';
export { through } from './interpolation/through.ts';
export type { ExactPoint, Shape, Table } from './language/table.ts';
export { Spline } from './interpolation/spline.ts';
export { closedFormula } from './analysis/question.ts';
export { numberFormula } from './limit/numberFormula.ts';
export type { Located, Place } from './analysis/place.ts';
export {
  answerTo,
  indicator,
  squaredDistance,
  type Answer,
  type AnswerTo,
  type NearestPoint,
  type Question,
  type QuestionKind,
  type QuestionOf,
  type ToldIntegral,
  type ToldJoin,
  type ToldValues,
  type ToldKeyPoint,
  type LocatedHeld,
  type ToldSolutions,
} from './questions/answers.ts';
export {
  answerSent,
  answersInStages,
  keepDerivative,
  sendable,
  type AnswerStage,
  type Outcome as AnswerOutcome,
} from './questions/sentAnswers.ts';
export { withoutItsClaim } from './questions/claimed.ts';
export type { Limit } from './limit/found.ts';
export { sampleCurve } from './curve/sample.ts';
export type { Grid, SampledCurve } from './curve/sampled.ts';
export { roughCurve } from './curve/rough.ts';
export { Effort, ifInTime, OutOfEffort } from './budget/effort.ts';
export { slopeProgram } from './questions/answers.ts';
export { chooseXRange, chooseYRange, type Plotted, type Range } from './curve/window.ts';
export { findFeatures, type Feature } from './curve/features.ts';
export type { SignThroughout } from './analysis/throughout.ts';
export { holdsBinder, plainValueAt, toldValue } from './questions/value.ts';
