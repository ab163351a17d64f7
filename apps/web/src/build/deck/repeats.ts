import type { Repeat } from '@yperkine/demonstration';
import { ArrowLeftRight, ArrowRightToLine, Repeat as RepeatAgain } from 'lucide-react';

export const repeatNames: Readonly<Record<Repeat, string>> = {
  once: 'Once',
  overAndOver: 'Over and over',
  thereAndBack: 'There and back',
};
export const repeatIcons = {
  once: ArrowRightToLine,
  overAndOver: RepeatAgain,
  thereAndBack: ArrowLeftRight,
} as const;
