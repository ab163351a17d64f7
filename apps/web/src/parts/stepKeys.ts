import type { KeyboardEvent } from 'react';

/** Parts of the window that one press of a key moves a grip by. */
export const keyParts = 100;

const many = 10;
const keySteps: Readonly<Record<string, number>> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: many,
  PageDown: -many,
};
const directions: Readonly<Record<string, readonly [number, number]>> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

type Press = Pick<KeyboardEvent, 'key' | 'shiftKey'>;

/** How many steps a key moves what goes one way: ten by Page Up and Page Down, ten times as many with Shift. */
export const stepsOf = ({ key, shiftKey }: Press): number => (keySteps[key] ?? 0) * (shiftKey ? many : 1);

/** How many steps a key moves what goes both ways, to the right and up; null for other keys. */
export function directionOf({ key, shiftKey }: Press): readonly [number, number] | null {
  const direction = directions[key];
  const times = shiftKey ? many : 1;
  return direction ? [direction[0] * times, direction[1] * times] : null;
}
