import { knownNumber, partOf, type RiemannSum } from '@yperkine/core';
import { format, type Id, type RoundingRule, type SumResult } from '@yperkine/demonstration';
import clsx from 'clsx';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { createContext, useContext, useState, type KeyboardEvent } from 'react';
import { List, useListRef, type RowComponentProps } from 'react-window';
import { sumOf } from '../../../state/areas.ts';
import { useWorkbench, useWorkbenchState } from '../../../state/context.ts';
import type { Workbench } from '../../../state/workbench.ts';

const columns = ['index', 'x', 'height', 'width', 'area'] as const;
type Column = (typeof columns)[number];

interface Sorting {
  readonly by: Column;
  readonly isDown: boolean;
}

const rowHeight = 30;
const mostShown = 8;

/** All rectangles of a sum, of which only those in sight are on the page: ten thousand scroll like ten. */
export function PartsTable({
  id,
  result,
}: {
  readonly id: Id;
  readonly result: SumResult & { sum: RiemannSum };
}) {
  const workbench = useWorkbench();
  const list = useListRef(null);
  const [sorting, setSorting] = useState<Sorting>({ by: 'index', isDown: false });
  const { sum, curve, total, chosen } = result;
  const count = sum.xs.length;
  const order = orderOf(sum, sorting);
  const rule = useWorkbenchState(({ resolution }) => resolution.rule);
  const heads: Readonly<Record<Column, string>> = {
    index: 'i',
    x: `${curve.variable}*`,
    height: `${curve.name}${'′'.repeat(curve.order)}(${curve.variable}*)`,
    width: `Δ${curve.variable}`,
    area: 'area',
  };
  const look = (row: number): void => {
    const at = Math.max(0, Math.min(count - 1, row));
    list.current?.scrollToRow({ index: at });
    workbench.lookAt(id, order?.[at] ?? at);
  };
  const onLook = (part: number): void => workbench.lookAt(id, part === lookedAt(workbench, id) ? null : part);
  const press = (event: KeyboardEvent<HTMLDivElement>): void => {
    const part = lookedAt(workbench, id);
    const place = part === null ? -1 : order ? order.indexOf(part) : part;
    const to = {
      ArrowDown: place + 1,
      ArrowUp: place - 1,
      PageDown: place + mostShown,
      PageUp: place - mostShown,
      Home: 0,
      End: count - 1,
    }[event.key];
    if (event.key === 'Escape') workbench.lookAt(id, null);
    else if (to !== undefined) look(place < 0 ? 0 : to);
    else return;
    event.preventDefault();
  };
  return (
    <div className="mt-2 text-right text-[0.92rem]">
      <div role="table" aria-label="All rectangles" aria-rowcount={count + 1}>
        <div
          role="row"
          aria-rowindex={1}
          className="grid grid-cols-[2.6rem_1fr_1.2fr_1fr_1.2fr] border-b border-rule pr-3 text-quiet"
        >
          {columns.map((column) => (
            <Head
              key={column}
              name={heads[column]}
              sorting={sorting.by === column ? sorting : null}
              onSort={() => setSorting((now) => ({ by: column, isDown: now.by === column && !now.isDown }))}
            />
          ))}
        </div>
        <Shown value={{ sum, order, rule, chosen, onLook }}>
          <List
            listRef={list}
            role="rowgroup"
            tabIndex={0}
            aria-label="Rows; the arrow keys look at one after another"
            onKeyDown={press}
            className="outline-offset-[-2px]"
            rowComponent={Row}
            rowCount={count}
            rowHeight={rowHeight}
            overscanCount={3}
            style={{ height: Math.min(count, mostShown) * rowHeight + 2 }}
            rowProps={noProps}
          />
        </Shown>
      </div>
      <p className="flex justify-between border-t border-rule py-1 pr-3 font-semibold">
        <span>total of {count}</span>
        <span>{format(total, rule).text}</span>
      </p>
    </div>
  );
}

/** The part that is looked at this moment, which no frame may have shown yet. */
const lookedAt = (workbench: Workbench, id: Id): number | null => sumOf(workbench, id)?.chosen ?? null;

interface HeadProps {
  readonly name: string;
  readonly sorting: Sorting | null;
  readonly onSort: () => void;
}

function Head({ name, sorting, onSort }: HeadProps) {
  const Arrow = sorting?.isDown ? ArrowDown : ArrowUp;
  return (
    <div
      role="columnheader"
      aria-sort={sorting ? (sorting.isDown ? 'descending' : 'ascending') : 'none'}
      className="px-1 py-1"
    >
      <button
        type="button"
        onClick={onSort}
        title={`Sort by ${name}`}
        className="inline-flex items-center gap-0.5 rounded hover:text-ink"
      >
        {sorting && <Arrow size={13} aria-hidden />}
        {name}
      </button>
    </div>
  );
}

interface ShownParts {
  readonly sum: RiemannSum;
  readonly order: Uint32Array | null;
  readonly rule: RoundingRule;
  readonly chosen: number | null;
  readonly onLook: (part: number) => void;
}

/** What the rows show. The list does not get it: with every change of its own it would measure the page. */
const Shown = createContext<ShownParts | null>(null);
const noProps = {};

function Row({ index: row, style }: RowComponentProps) {
  const shown = useContext(Shown);
  if (!shown) return null;
  const { sum, order, rule, chosen, onLook } = shown;
  const part = order?.[row] ?? row;
  const isChosen = part === chosen;
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      aria-selected={isChosen}
      onClick={() => onLook(part)}
      className={clsx(
        'grid cursor-pointer grid-cols-[2.6rem_1fr_1.2fr_1fr_1.2fr] items-center pr-3 whitespace-nowrap hover:bg-hover',
        isChosen && 'bg-here/20',
      )}
      style={style}
    >
      <span role="cell" className="px-1">
        {part + 1}
      </span>
      {cellsOf(sum, part, rule).map((cell, i) => (
        <span key={i} role="cell" className="px-1">
          {cell}
        </span>
      ))}
    </div>
  );
}

function cellsOf(sum: RiemannSum, i: number, rule: RoundingRule): string[] {
  const { from, to, x, height, area } = partOf(sum, i);
  return [x, height, to - from, area].map((value) => format(knownNumber(value), rule).text);
}

/** The parts in the order of a column; null for their own order. */
function orderOf(sum: RiemannSum, { by, isDown }: Sorting): Uint32Array | null {
  if (by === 'index' && !isDown) return null;
  const { xs, heights, areas, ends } = sum;
  const value = (i: number): number => {
    if (by === 'index') return i;
    if (by === 'width') return (ends[i + 1] as number) - (ends[i] as number);
    return { x: xs, height: heights, area: areas }[by][i] as number;
  };
  const sign = isDown ? -1 : 1;
  return Uint32Array.from(xs, (_, i) => i).sort((p, q) => sign * (value(p) - value(q)) || p - q);
}
