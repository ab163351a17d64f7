import { evaluateAt, rational } from '@yperkine/core';
import {
  catchOn,
  curveOf,
  decimalText,
  nearestDecimal,
  nearestPosition,
  stepped,
  type Handle,
  type ParameterResult,
  type Resolution,
} from '@yperkine/demonstration';
import { memo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { stepsOf } from '../../parts/stepKeys.ts';
import { useWorkbench } from '../../state/context.ts';
import { Grip } from './Grip.tsx';
import { lastGood } from './lastGood.ts';
import type { Painter } from './painter.ts';

interface HandleDotProps {
  readonly handle: Pick<Handle, 'key' | 'tier' | 'entry' | 'parameter' | 'sign'>;
  readonly name: string;
  readonly painter: () => Painter | null;
}

const halvings = 30;

/** The grip of a point that stands where a slider says. */
export const HandleDot = memo(function HandleDot({ handle, name, painter }: HandleDotProps) {
  const workbench = useWorkbench();
  const grip = useRef<{ offset: number } | null>(null);

  const parameter = (resolution: Resolution): ParameterResult | null => {
    const resolved = resolution.entries.get(handle.parameter);
    return resolved?.outcome.ok ? (resolved.outcome.result as ParameterResult) : null;
  };
  const viewOf = () => painter()?.scene?.tiers.find(({ id }) => id === handle.tier)?.view;

  /** Where the scene has the handle just now. */
  const place = () => painter()?.scene?.handles.find(({ key }) => key === handle.key);

  /** Whether the curve has a point at a value of the parameter; a grip that has lost its point could not come back. */
  const isOnCurve = (value: number): boolean => {
    const { document, resolution } = workbench.state;
    const { entry = '', offset = 0 } = place() ?? {};
    const study = document.entries[entry];
    const curve = study && 'on' in study ? curveOf(resolution, study.on) : undefined;
    return (
      !curve || Number.isFinite(evaluateAt(curve.program, offset + handle.sign * value, curve.parameters))
    );
  };

  const begin = (event: PointerEvent<HTMLDivElement>) => {
    const view = viewOf();
    const now = parameter(workbench.current());
    if (!view || !now) return;
    workbench.stop(handle.parameter);
    workbench.choose(handle.parameter);
    const { offset = 0 } = place() ?? {};
    grip.current = { offset: event.clientX - view.toX(offset + handle.sign * now.value.value) };
  };

  const drag = (event: PointerEvent<HTMLDivElement>) => {
    // Only the slider's limits are needed, and those of the last frame will do: nothing is worked out here.
    const [view, now] = [viewOf(), parameter(workbench.state.resolution)];
    if (!grip.current || !view || !now) return;
    const { offset = 0 } = place() ?? {};
    const toValue = (x: number) => (x - offset) * handle.sign;
    const pointed = toValue(view.fromX(event.clientX - grip.current.offset));
    const wanted = lastGood(now.value.value, pointed, isOnCurve, halvings);
    const ticks = painter()?.scene?.xTicks.map(({ value }) => toValue(value)) ?? [];
    const inside = ticks.filter(
      (tick) => tick >= rational.toNumber(now.scale.from) && tick <= rational.toNumber(now.scale.to),
    );
    const caught = event.shiftKey
      ? { value: wanted, isCaught: false }
      : catchOn(wanted, inside, view.pixelsPerX);
    const text = caught.isCaught
      ? decimalText(nearestDecimal(caught.value))
      : nearestPosition(wanted, now.scale);
    if (isOnCurve(Number(text)))
      workbench.show(handle.parameter, text, caught.isCaught ? caught.value : null);
  };

  const end = () => {
    if (!grip.current) return;
    grip.current = null;
    workbench.settle(handle.parameter);
  };

  const press = (event: KeyboardEvent<HTMLDivElement>) => {
    const now = parameter(workbench.current());
    if (!now) return;
    const steps = stepsOf(event) * handle.sign;
    const limit = event.key === 'Home' ? now.scale.from : event.key === 'End' ? now.scale.to : null;
    if (steps === 0 && !limit) return;
    event.preventDefault();
    event.stopPropagation();
    workbench.stop(handle.parameter);
    const value = now.value.exact ? decimalText(now.value.exact) : now.value.value;
    const next = limit ? decimalText(limit) : stepped(value, steps, now.scale);
    if (isOnCurve(Number(next))) workbench.setValue(handle.parameter, next, `keys ${handle.parameter}`);
  };

  return (
    <Grip
      name={name}
      title="Drag along the curve; hold Shift to pass round values freely"
      data-handle={handle.key}
      className="cursor-grab active:cursor-grabbing data-caught:shadow-[inset_0_0_0_3px_var(--here)]"
      entry={handle.entry}
      onBegin={begin}
      onMove={drag}
      onEnd={end}
      onPress={press}
    />
  );
});
