import type { StudyTable, Tone } from '@yperkine/demonstration';
import clsx from 'clsx';
import { cssColour } from '../../theme/colour.ts';

/** The table of a study: numbers under one another, the row that they lead to in the study's tone. */
export function ResultTable({ table, tone }: { table: StudyTable; tone: Tone }) {
  return (
    <div className="mt-2 overflow-x-auto">
      <table aria-label={table.caption} className="w-full text-right text-[0.92rem] max-sm:text-[0.84rem]">
        <thead>
          <tr className="border-b border-rule text-quiet">
            {table.head.map((name) => (
              <th key={name} scope="col" className="px-1.5 py-1 font-normal first:pl-0 last:pr-0 max-sm:px-1">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map(({ cells, isGoal = false, isDoubtful = false }, i) => (
            <tr
              key={i}
              style={isGoal ? { color: cssColour(table.goalTone ?? tone) } : undefined}
              className={clsx(isGoal && 'font-semibold', isDoubtful && 'text-quiet italic')}
            >
              {cells.map((cell, column) => (
                <td key={column} className="px-1.5 py-1 whitespace-nowrap first:pl-0 last:pr-0 max-sm:px-1">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {table.note && <p className="mt-1.5 text-[0.95rem] text-quiet">{table.note}</p>}
    </div>
  );
}
