export * from './schema/document.ts';
export * from './fields/tone.ts';
export { openDocument, migrated, migratedChange, migrations, type Opened } from './schema/migrate.ts';
export type { Migration } from './schema/migration.ts';
export * from './changes/change.ts';
export * from './changes/accept.ts';
export { bytesOfDocument } from './schema/bytes.ts';
export { momentEdits, movingField, shownMoment } from './changes/moment.ts';
export * from './changes/start.ts';
export { settledEdits } from './changes/settled.ts';
export { closedTierEdits } from './changes/tiers.ts';
export * from './changes/windows.ts';
export * from './changes/history.ts';
export * from './changes/rebase.ts';
export * from './numbers/format.ts';
export { inThousands } from './numbers/inThousands.ts';
export * from './numbers/line.ts';
export { withoutNoise } from './numbers/withoutNoise.ts';
export { openedNumber, type OpenedNumber } from './numbers/opened.ts';
export { mathematicsLatex, prosePieces, type ProsePiece } from './entries/prose.ts';
export * from './units/unit.ts';
export { exactText, exactTextOf } from './numbers/exactText.ts';
export { couldBeSlider } from './entries/formula.ts';
export type { EntryProblem, Outcome } from './entries/outcome.ts';
export {
  isTable,
  likelyColumns,
  mostRows,
  pointsIn,
  readCsv,
  type CsvTable,
  type PointsOfTable,
  type RowFault,
} from './entries/data/csv.ts';
export type { DataEntry, DataResult } from './entries/data/data.ts';
export type { AgreementResult } from './entries/agreement/agreement.ts';
export type { DifferenceQuotientResult } from './entries/differenceQuotient/differenceQuotient.ts';
export type { ThroughPointsResult } from './entries/throughPoints/throughPoints.ts';
export { isGivenDerivative, type GivenDerivativeResult } from './entries/givenDerivative/givenDerivative.ts';
export { readPoints, writePoints } from './entries/throughPoints/pointList.ts';
export { entryKinds } from './entries/table.ts';
export { kindOf, makeEntry } from './schema/anyKind.ts';
export { plottedOf, primed, type CurveResult } from './entries/curve.ts';
export type { Head, NameableResult, Spot } from './entries/kind.ts';
export type { Said, StudyTable } from './entries/study.ts';
export type { ParameterEntry, Repeat } from './entries/parameter/parameter.ts';
export type { ParameterResult } from './entries/parameter/result.ts';
export type { PointResult } from './entries/point/point.ts';
export type { SecantResult } from './entries/secant/secant.ts';
export type { SlopeEqualsResult } from './entries/slopeEquals/slopeEquals.ts';
export type { ValueTableResult } from './entries/valueTable/valueTable.ts';
export { keyPointGroups, type KeyPointGroup } from './entries/keyPoints/kinds.ts';
export type { KeyPointsResult } from './entries/keyPoints/result.ts';
export type { SignStripResult } from './entries/signStrip/signStrip.ts';
export type { SolutionsResult } from './entries/solutions/solutions.ts';
export type { NearestResult } from './entries/nearest/nearest.ts';
export type { HoldsResult } from './entries/holds/holds.ts';
export { isInPieces, type JoinsResult } from './entries/joins/joins.ts';
export { isGivenAlone } from './entries/givenDerivative/givenDerivative.ts';
export { keptEnd, stagedInterval, readStagedInterval } from './entries/asking.ts';
export type { SumEntry, SumResult } from './entries/sum/result.ts';
export { ruleNames, sumRuleSchema, type SumRuleName } from './entries/sum/rules.ts';
export type { RuleErrors, SumErrorsResult } from './entries/sumErrors/sumErrors.ts';
export type { RunningTotalResult } from './entries/runningTotal/runningTotal.ts';
export type { AverageValueResult } from './entries/averageValue/averageValue.ts';
export type { TangentResult } from './entries/tangent/tangent.ts';
export {
  curveOf,
  curvesDrawn,
  placesOf,
  isShown,
  parameterOf,
  resolve,
  resultsOf,
  resolveInSteps,
} from './resolve/resolve.ts';
export { headOfEntry, saidOf } from './resolve/said.ts';
export { shownValue } from './entries/parameter/result.ts';
export type { Resolution, Resolved } from './resolve/resolution.ts';
export {
  answeredBy,
  answersNow,
  keyOfQuestion,
  unanswered,
  type Answered,
  type Answers,
  type WhyGivenUp,
} from './entries/answers.ts';
export { atOnce } from './resolve/steps.ts';
export type { Directory } from './entries/names.ts';
export * from './resolve/revealConditions.ts';
export { conditionOf, idsInCondition, type Visibility } from './resolve/visibility.ts';
export type { RevealEntry, RevealResult } from './entries/reveal/reveal.ts';
export type { MarkerResult } from './entries/marker/marker.ts';
export type { NoteEntry, NoteResult } from './entries/note/note.ts';
export type { ReadoutEntry, ReadoutResult } from './entries/readout/readout.ts';
export type { StatementEntry, StatementResult } from './entries/statement/statement.ts';
export { mostTrials, type TrialsResult } from './entries/trials/trials.ts';
export type { HeadingEntry } from './entries/heading/heading.ts';
export * from './stage/stage.ts';
export * from './stage/motion.ts';
export * from './scene/trails.ts';
export * from './stage/catch.ts';
export * from './numbers/slider.ts';
export { settingText, settingValue } from './numbers/setting.ts';
export * from './scene/followed.ts';
export * from './scene/scene.ts';
export { gridOf, keepCurve, type WantedCurve } from './entries/curveMark.ts';
export type { BoundHandle, Handle, SlideHandle, VertexHandle } from './scene/handles.ts';
export { curvesIn, type KeyLine, type TierTitle } from './scene/titles.ts';
export * from './marks/mark.ts';
export * from './fields/tone.ts';
export * from './marks/view.ts';
export * from './scene/nearest.ts';
export { stripAt, type FoundStrip } from './scene/stripAt.ts';
export { featureNear, type NearFeature } from './scene/nearFeature.ts';
export * from './changes/fit.ts';
export { roundStep, type Tick } from './scene/ticks.ts';
export { furniture, stripRow, type SceneSize } from './scene/layout.ts';
export * from './draw/theme.ts';
export * from './draw/surface.ts';
export { CanvasSurface } from './draw/canvasSurface.ts';
export { SvgSurface } from './draw/svgSurface.ts';
export { paint, paintBackdrop, paintBefore } from './draw/paint.ts';
export { hereOf, smallPicture, smallPictures } from './draw/picture.ts';
