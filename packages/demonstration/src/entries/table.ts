import { agreementKind } from './agreement/agreement.ts';
import { differenceQuotientKind } from './differenceQuotient/differenceQuotient.ts';
import { dataKind } from './data/data.ts';
import { derivativeKind } from './derivative/derivative.ts';
import { functionKind } from './function/function.ts';
import { givenDerivativeKind } from './givenDerivative/givenDerivative.ts';
import { headingKind } from './heading/heading.ts';
import { linearApproximationKind } from './linearApproximation/linearApproximation.ts';
import { coarseKind } from './coarse/coarse.ts';
import { distanceKind } from './distance/distance.ts';
import { holdsKind } from './holds/holds.ts';
import { joinsKind } from './joins/joins.ts';
import { keyPointsKind } from './keyPoints/keyPoints.ts';
import { meanValueKind } from './meanValue/meanValue.ts';
import { nearestKind } from './nearest/nearest.ts';
import { originalKind } from './original/original.ts';
import { readingKind } from './reading/reading.ts';
import { signStripKind } from './signStrip/signStrip.ts';
import { solutionsKind } from './solutions/solutions.ts';
import { lensKind } from './lens/lens.ts';
import { normalKind } from './normal/normal.ts';
import { parameterKind } from './parameter/parameter.ts';
import { pointKind } from './point/point.ts';
import { revealKind } from './reveal/reveal.ts';
import { secantKind } from './secant/secant.ts';
import { slopeEqualsKind } from './slopeEquals/slopeEquals.ts';
import { tangentKind } from './tangent/tangent.ts';
import { throughPointsKind } from './throughPoints/throughPoints.ts';
import { noteKind } from './note/note.ts';
import { statementKind } from './statement/statement.ts';
import { readoutKind } from './readout/readout.ts';
import { markerKind } from './marker/marker.ts';
import { trailKind } from './trail/trail.ts';
import { trialsKind } from './trials/trials.ts';
import { areaBetweenKind } from './areaBetween/areaBetween.ts';
import { averageValueKind } from './averageValue/averageValue.ts';
import { integralKind } from './integral/integral.ts';
import { runningTotalKind } from './runningTotal/runningTotal.ts';
import { sumErrorsKind } from './sumErrors/sumErrors.ts';
import { sumKind } from './sum/sum.ts';
import { valueKind } from './value/value.ts';
import { valueTableKind } from './valueTable/valueTable.ts';

/** Every kind of entry: adding one adds a folder and a row here. */
export const entryKinds = {
  function: functionKind,
  data: dataKind,
  parameter: parameterKind,
  point: pointKind,
  tangent: tangentKind,
  throughPoints: throughPointsKind,
  value: valueKind,
  valueTable: valueTableKind,
  derivative: derivativeKind,
  differenceQuotient: differenceQuotientKind,
  linearApproximation: linearApproximationKind,
  agreement: agreementKind,
  givenDerivative: givenDerivativeKind,
  heading: headingKind,
  coarse: coarseKind,
  distance: distanceKind,
  holds: holdsKind,
  joins: joinsKind,
  keyPoints: keyPointsKind,
  meanValue: meanValueKind,
  nearest: nearestKind,
  original: originalKind,
  reading: readingKind,
  signStrip: signStripKind,
  solutions: solutionsKind,
  lens: lensKind,
  normal: normalKind,
  reveal: revealKind,
  secant: secantKind,
  slopeEquals: slopeEqualsKind,
  note: noteKind,
  statement: statementKind,
  readout: readoutKind,
  marker: markerKind,
  trail: trailKind,
  trials: trialsKind,
  sum: sumKind,
  sumErrors: sumErrorsKind,
  integral: integralKind,
  areaBetween: areaBetweenKind,
  averageValue: averageValueKind,
  runningTotal: runningTotalKind,
} as const;
