import { rational, type Range } from '@yperkine/core';
import {
  curvesIn,
  inOrder,
  isDrawable,
  limits,
  shownX,
  shownY,
  windowEdits,
  type Edit,
  type Id,
} from '@yperkine/demonstration';
import clsx from 'clsx';
import { useState } from 'react';
import { Button } from '../../parts/Button.tsx';
import { TextField } from '../../parts/TextField.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { fit } from '../../state/actions.ts';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';

type Axis = 'x' | Id;

/** Limits, ticks and titles of every axis. */
export function WindowForm() {
  const workbench = useWorkbench();
  const document = useWorkbenchState((state) => state.document);
  const stage = useWorkbenchState((state) => state.stage);
  const resolution = useWorkbenchState((state) => state.resolution);
  const [problem, setProblem] = useState<{ axis: Axis; message: string } | null>(null);

  const variable = curvesIn(resolution, inOrder(document.tiers)[0]?.[0] ?? '')[0]?.curve.variable ?? 'x';
  const setRange = (axis: Axis, range: Range) => {
    const message = !(range.from < range.to)
      ? 'The first limit must be smaller than the second.'
      : isDrawable(range)
        ? null
        : 'These limits lie too close together or too far apart to be drawn.';
    setProblem(message === null ? null : { axis, message });
    if (message === null) workbench.change(rangeEdits(axis, range));
  };
  const rangeEdits = (axis: Axis, range: Range): Edit[] => {
    const edits = windowEdits(document, axis, range);
    return axis === 'x'
      ? [...edits, { at: 'document', field: 'xTyped', old: document.xTyped, new: true }]
      : edits;
  };
  const setTitle = (axis: Axis, title: string) =>
    workbench.change([
      axis === 'x'
        ? { at: 'document', field: 'xTitle', old: document.xTitle, new: title }
        : {
            at: 'field',
            of: 'tiers',
            id: axis,
            field: 'title',
            old: document.tiers[axis]?.title,
            new: title,
          },
    ]);
  const setTicks = (axis: Axis, text: string) => {
    const spacing = text === '' ? null : Number(text);
    if (spacing !== null && !(spacing > 0))
      return setProblem({ axis, message: 'Tick spacing must be above 0.' });
    setProblem(null);
    workbench.change([
      axis === 'x'
        ? { at: 'document', field: 'xTicks', old: document.xTicks, new: spacing }
        : {
            at: 'field',
            of: 'tiers',
            id: axis,
            field: 'yTicks',
            old: document.tiers[axis]?.yTicks,
            new: spacing,
          },
    ]);
  };

  const row = (axis: Axis, label: string, range: Range, ticks: number | null, title: string) => (
    <fieldset key={axis} className="mb-3">
      <legend className="mb-1 font-semibold">{label}</legend>
      <div className="grid grid-cols-3 gap-2.5">
        <NumberField
          label="From"
          value={limitText(range.from)}
          onCommit={(v) => setRange(axis, { ...range, from: Number(v) })}
        />
        <NumberField
          label="To"
          value={limitText(range.to)}
          onCommit={(v) => setRange(axis, { ...range, to: Number(v) })}
        />
        <NumberField
          label={axis === 'x' && document.looks.piScale ? 'Ticks every … π' : 'Ticks every'}
          value={ticks === null ? '' : limitText(ticks)}
          emptyMeans="automatic"
          onCommit={(v) => setTicks(axis, v)}
        />
      </div>
      <div className={clsx('mt-2 grid gap-2.5', axis === 'x' && 'grid-cols-[2fr_1fr]')}>
        <TextField
          label="Title"
          maxLength={limits.title}
          value={title}
          onCommit={(text) => setTitle(axis, text)}
        />
        {axis === 'x' && (
          <TextField
            label={`Unit of ${variable}`}
            maxLength={limits.unit}
            value={document.xUnit}
            onCommit={(unit) =>
              workbench.change([{ at: 'document', field: 'xUnit', old: document.xUnit, new: unit }])
            }
          />
        )}
      </div>
      {problem?.axis === axis && (
        <p role="alert" className="mt-1.5 text-sm text-danger">
          {problem.message}
        </p>
      )}
    </fieldset>
  );
  const tiers = inOrder(document.tiers);
  const nameOf = (tier: Id) => {
    const curve = curvesIn(resolution, tier)[0]?.curve;
    return curve ? `Heights of ${curve.name}${'′'.repeat(curve.order)}` : 'Heights';
  };
  return (
    <>
      {row('x', `Along ${variable}`, shownX(document, stage), document.xTicks, document.xTitle)}
      {tiers.map(([id, tier]) => row(id, nameOf(id), shownY(document, stage, id), tier.yTicks, tier.title))}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => void fit(workbench, 'height')}>Fit the heights</Button>
        {document.xTyped && (
          <Button
            look="bare"
            onClick={() => workbench.change([{ at: 'document', field: 'xTyped', old: true, new: false }])}
          >
            Let Fit choose {variable} again
          </Button>
        )}
      </div>
    </>
  );
}

/** A limit with the digits that matter. */
function limitText(limit: number): string {
  const text = String(Number(limit.toPrecision(7)))
    .replace('e+', 'E')
    .replace('e', 'E');
  return rational.parseDecimal(text) ? text : '0';
}
