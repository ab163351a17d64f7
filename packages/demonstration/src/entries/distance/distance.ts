import { latexFunction, latexName } from '@yperkine/core';
import { z } from 'zod';
import { latex } from '../../numbers/line.ts';
import { curveMark } from '../curveMark.ts';
import { toneOf } from '../../fields/tone.ts';
import { common, idSchema } from '../../fields/fields.ts';
import { primed, asStated, type StatedCurve } from '../curve.ts';
import type { EntryKind } from '../kind.ts';
import { distanceInputs, distanceProgram, type NearestResult } from '../nearest/nearest.ts';
import { waiting, worked } from '../outcome.ts';

const distanceSchema = z.strictObject({
  ...common,
  kind: z.literal('distance'),
  /** The nearest-point study whose distance it is. */
  of: idSchema,
  name: z.string().min(1).max(60),
  tier: idSchema,
  family: z.int().min(0).max(9),
});
export type DistanceEntry = z.infer<typeof distanceSchema>;

/** The distance from a free point to the place of a curve at x, as a function of x. */
export const distanceKind: EntryKind<DistanceEntry, StatedCurve> = {
  schema: distanceSchema,
  defaults: { name: 'D', family: 2 },
  standsOn: ({ of }) => [of],
  head: ({ name, family }) => ({ heading: `Distance ${name} from P`, tone: toneOf(0, family) }),
  curve: (result) => result,
  say: asStated,

  workOut(entry, context) {
    const study = context.result<NearestResult>(entry.of);
    if (!study) return waiting('This waits for its nearest point, which cannot be worked out yet.');
    const { curve } = study;
    const { program, body } = distanceProgram(curve);
    const head = `${latexFunction(entry.name, 0)}(${latexName(curve.variable)})`;
    return worked({
      name: entry.name,
      order: 0,
      family: entry.family,
      variable: curve.variable,
      body,
      program,
      functions: curve.functions,
      parameters: distanceInputs(study, program),
      exactParameters: new Map(),
      latex: head,
      lines: [[latex(`${head} = |PQ|`)]],
      sentence: `At each ${curve.variable} its height is the distance from P to the point of ${primed(curve.name, curve.order)} there.`,
      tier: entry.tier,
      unit: curve.unit,
    });
  },

  marks: (id, _entry, result, tier) => (result.tier === tier.id ? [curveMark(id, result, tier)] : []),
};
