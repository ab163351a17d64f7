import type { KnownNumber } from '@yperkine/core';
import type { StudyTable, Tone } from '@yperkine/demonstration';
import { useState, type KeyboardEvent, type MouseEvent } from 'react';
import { openableClass, Opened } from '../../parts/LiveNumber.tsx';
import { IconButton } from '../../parts/Button.tsx';
import clsx from 'clsx';
import { Crosshair } from 'lucide-react';
import { cssColour } from '../../theme/colour.ts';

interface ResultTableProps {
  readonly table: StudyTable;
  readonly tone: Tone;
  /** Brings a place that a row speaks of into the window. */
  readonly onJump?: (place: NonNullable<StudyTable['rows'][number]['place']>) => void;
}

/** The table of a study: numbers under one another, the row that they lead to in the study's tone. */
export function ResultTable({ table, tone, onJump }: ResultTableProps) {
  // One card for the whole table: hundreds of cells that follow the motion stay as cheap as text.
  const [opened, setOpened] = useState<HTMLElement | null>(null);
  const open = (event: MouseEvent<HTMLElement>) => {
    const button = event.target instanceof Element ? event.target.closest('button') : null;
    setOpened(button === opened ? null : button);
  };
  const press = (event: KeyboardEvent<HTMLTableSectionElement>) => {
    if (event.key === 'Escape') setOpened(null);
    else moveInTable(event);
  };
  const number = opened && numberUnder(table, opened);
  const hasPlaces = onJump !== undefined && table.rows.some(({ place }) => place !== undefined);
  const isWords = (column: number): boolean => table.wordColumns?.includes(column) ?? false;
  const first = table.rows[0]?.numbers?.findIndex((number) => number !== null);
  return (
    <div className="mt-2 overflow-x-auto">
      <table aria-label={table.caption} className="w-full text-right text-[0.92rem] max-sm:text-[0.84rem]">
        <thead>
          <tr className="border-b border-rule text-quiet">
            {table.head.map((name, column) => (
              <th
                key={name}
                scope="col"
                className={clsx(
                  'px-1.5 py-1 font-normal first:pl-0 last:pr-0 max-sm:px-1',
                  isWords(column) && 'text-left',
                )}
              >
                {name}
              </th>
            ))}
            {hasPlaces && (
              <th scope="col">
                <span className="sr-only">In the window</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody onKeyDown={press} onClick={open} onBlur={() => setOpened(null)}>
          {table.rows.map(({ cells, numbers, place, isGoal = false, isDoubtful = false }, i) => (
            <tr
              key={i}
              style={isGoal ? { color: cssColour(table.goalTone ?? tone) } : undefined}
              className={clsx(isGoal && 'font-semibold', isDoubtful && 'text-quiet italic')}
            >
              {cells.map((cell, column) => (
                <td
                  key={column}
                  className={clsx(
                    'px-1.5 py-1 first:pl-0 last:pr-0 max-sm:px-1',
                    isWords(column) ? 'text-left' : 'whitespace-nowrap',
                  )}
                >
                  {numbers?.[column] ? (
                    <button
                      type="button"
                      tabIndex={i === 0 && column === first ? 0 : -1}
                      className={openableClass}
                    >
                      {cell}
                    </button>
                  ) : (
                    cell
                  )}
                </td>
              ))}
              {hasPlaces && (
                <td className="py-0 pl-1">
                  {place && onJump && (
                    <IconButton
                      label={`Show ${cells[0] ?? ''} at ${cells[1] ?? ''} in the window`}
                      onClick={() => onJump(place)}
                      className="size-7!"
                    >
                      <Crosshair size={15} aria-hidden />
                    </IconButton>
                  )}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {opened && number && <Opened of={{ number, form: null }} under={opened} />}
      {table.note && <p className="mt-1.5 text-[0.95rem] text-quiet">{table.note}</p>}
    </div>
  );
}

/** The number behind the cell that a button stands in. */
function numberUnder({ rows }: StudyTable, button: HTMLElement): KnownNumber | null {
  const cell = button.closest('td');
  const row = cell?.parentElement as HTMLTableRowElement | undefined;
  return cell && row ? (rows[row.sectionRowIndex]?.numbers?.[cell.cellIndex] ?? null) : null;
}

/** Tab comes to the first number of a table, the arrow keys lead on to the others. */
const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
};

function moveInTable(event: KeyboardEvent<HTMLTableSectionElement>): void {
  const step = arrows[event.key];
  const cell = event.target instanceof Element ? event.target.closest('td') : null;
  if (!step || !cell) return;
  const row = cell.parentElement as HTMLTableRowElement;
  const next = event.currentTarget.rows[row.sectionRowIndex + step[0]]?.cells[cell.cellIndex + step[1]];
  const button = next?.querySelector('button');
  if (!button) return;
  event.preventDefault();
  button.focus();
}
