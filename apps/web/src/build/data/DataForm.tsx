import {
  likelyColumns,
  limits,
  mostRows,
  pointsIn,
  readCsv,
  type CsvTable,
  type Id,
  type PointsOfTable,
} from '@yperkine/demonstration';
import clsx from 'clsx';
import { useId, useMemo, useState } from 'react';
import { SelectField } from '../../parts/SelectField.tsx';
import { Button } from '../../parts/Button.tsx';
import { freeName } from '../../state/actions.ts';
import { useWorkbench } from '../../state/context.ts';
import { addData, functionHead, functionLetters, type DataSettings } from '../../state/givens.ts';
import type { Workbench } from '../../state/workbench.ts';

interface DataFormProps {
  readonly table: string;
  readonly into: Id | null;
  readonly onClose: () => void;
}

/** Which columns of a table are x and heights, with their names and units, over a preview of what becomes of its rows. */
export function DataForm({ table, into, onClose }: DataFormProps) {
  const workbench = useWorkbench();
  const csv = useMemo(() => readCsv(table), [table]);
  const [settings, setSettings] = useState(() => firstSettings(workbench, csv, table, into));
  const [problem, setProblem] = useState<string | null>(null);
  const found = useMemo(() => pointsIn(csv, settings.x, settings.y), [csv, settings.x, settings.y]);
  const set = (part: Partial<DataSettings>) => {
    setProblem(null);
    setSettings({ ...settings, ...part });
  };
  const columns = csv.columns.map(({ name }, i) => ({ value: String(i), label: name }));
  const fault = faultOf(csv, found, settings);
  const put = () => {
    const addition = addData(workbench, settings, into);
    if (addition.ok) onClose();
    else setProblem(addition.message);
  };

  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (fault === null) put();
      }}
    >
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-[2fr_1fr_1fr]">
        <SelectField
          label="Along x"
          value={String(settings.x)}
          options={columns}
          onChange={(x) => set({ x: Number(x), xUnit: csv.columns[Number(x)]?.unit || settings.xUnit })}
          className="max-sm:col-span-2"
        />
        <Field label="Variable" value={settings.variable} onChange={(variable) => set({ variable })} />
        <Field label="Unit of x" value={settings.xUnit} onChange={(xUnit) => set({ xUnit })} />
        <SelectField
          label="Heights"
          value={String(settings.y)}
          options={columns}
          onChange={(y) => set({ y: Number(y), unit: csv.columns[Number(y)]?.unit ?? '' })}
          className="max-sm:col-span-2"
        />
        <Field label="Name" value={settings.name} onChange={(name) => set({ name })} />
        <Field label="Unit of heights" value={settings.unit} onChange={(unit) => set({ unit })} />
      </div>
      <fieldset className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-1">
        <legend className="float-left mr-4 text-quiet max-sm:float-none max-sm:mb-1">Between the rows</legend>
        {(['broken', 'smooth'] as const).map((shape) => (
          <label key={shape} className="flex min-h-9 items-center gap-2">
            <input
              type="radio"
              name="shape"
              checked={settings.shape === shape}
              onChange={() => set({ shape })}
              className="size-4 accent-ink"
            />
            {shape === 'broken' ? 'straight' : 'smooth'}
          </label>
        ))}
      </fieldset>
      <Preview csv={csv} found={found} x={settings.x} y={settings.y} />
      {(problem ?? fault) !== null && (
        <p role="alert" className="mt-3 text-danger">
          {problem ?? fault}
        </p>
      )}
      <div className="mt-4 flex flex-wrap justify-end gap-2">
        <Button onClick={() => workbench.importing({ table: '', into })}>Other data</Button>
        <Button onClick={onClose}>Cancel</Button>
        <Button look="strong" type="submit" disabled={fault !== null}>
          {into === null ? 'Put it in' : 'Change it'}
        </Button>
      </div>
    </form>
  );
}

/** What is likely meant: the entry's own settings, or the first columns of numbers under the next free name. */
function firstSettings(workbench: Workbench, csv: CsvTable, table: string, into: Id | null): DataSettings {
  const { document } = workbench.state;
  const known = into === null ? undefined : document.entries[into];
  const { xUnit } = document;
  if (known?.kind === 'data' && known.table === table) {
    const { name, variable, x, y, shape, unit } = known;
    return { name, variable, table, x, y, shape, unit, xUnit };
  }
  const { x, y } = likelyColumns(csv);
  const isTime = /^t(ime)?\b/i.test(csv.columns[x]?.name ?? '');
  const names =
    known?.kind === 'data'
      ? { name: known.name, variable: known.variable, shape: known.shape }
      : {
          name: freeName(workbench, functionLetters),
          variable: isTime ? 't' : 'x',
          shape: 'broken' as const,
        };
  const unit = csv.columns[y]?.unit ?? '';
  return { ...names, table, x, y, unit, xUnit: csv.columns[x]?.unit || xUnit };
}

/** Why these settings give no function; null where they do. */
function faultOf(
  csv: CsvTable,
  { points }: PointsOfTable,
  { name, variable, table }: DataSettings,
): string | null {
  if (table.length > limits.data) {
    return `This table is larger than ${limits.data / 1000} kB; please leave out columns that are not needed.`;
  }
  if (csv.rows.length > mostRows) {
    return `This table has ${csv.rows.length} rows; a function takes at most ${mostRows} of them.`;
  }
  if (points.length < 2) return 'At least two rows with two numbers are needed for a function.';
  const head = functionHead(name, variable);
  return typeof head === 'string' ? head : null;
}

interface FieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}

function Field({ label, value, onChange }: FieldProps) {
  const id = useId();
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-1 block text-sm text-quiet">
        {label}
      </label>
      <input
        id={id}
        value={value}
        maxLength={limits.unit}
        autoComplete="off"
        autoCapitalize="off"
        onChange={(event) => onChange(event.target.value.trim())}
        className="min-h-9 w-full min-w-0 rounded-lg border border-rule bg-sheet px-2.5 py-1.5 text-ink"
      />
    </div>
  );
}

/** Rows and faults that the preview shows. */
const shownRows = 6;
const shownFaults = 4;

function Preview({
  csv,
  found: { points, faults },
  x,
  y,
}: {
  csv: CsvTable;
  found: PointsOfTable;
  x: number;
  y: number;
}) {
  const faulty = new Set(faults.map(({ row }) => row));
  const first = csv.rows.slice(0, shownRows);
  const role = (i: number) => (i === x ? 'x' : i === y ? 'height' : '');
  return (
    <section aria-label="Preview" className="mt-4">
      <div className="overflow-x-auto rounded-[10px] border border-rule">
        <table className="w-full text-[0.95rem]">
          <caption className="sr-only">The first rows of the table</caption>
          <thead>
            <tr className="border-b border-rule text-left text-quiet">
              <th scope="col" className="px-3 py-1.5 font-normal">
                row
              </th>
              {csv.columns.map(({ name, unit }, i) => (
                <th
                  key={i}
                  scope="col"
                  className={clsx('px-3 py-1.5 font-normal', role(i) && 'font-semibold text-ink')}
                >
                  {name}
                  {unit && ` in ${unit}`}
                  {role(i) && <span className="ml-1.5 text-sm font-normal text-quiet">({role(i)})</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {first.map(({ number, cells }) => (
              <tr
                key={number}
                className={clsx('border-b border-rule/60 last:border-0', faulty.has(number) && 'text-danger')}
              >
                <td className="px-3 py-1 text-quiet">{number}</td>
                {csv.columns.map((_, i) => (
                  <td
                    key={i}
                    className={clsx(
                      'px-3 py-1',
                      !role(i) && 'text-quiet',
                      faulty.has(number) && 'line-through',
                    )}
                  >
                    {cells[i] ?? ''}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p role="status" className="mt-2">
        {points.length === 1 ? '1 row becomes a point.' : `${points.length} rows become points.`}
        {csv.rows.length > shownRows && ` The first ${shownRows} of ${csv.rows.length} are shown.`}
      </p>
      {faults.length > 0 && (
        <ul className="mt-1 text-danger">
          {faults.slice(0, shownFaults).map(({ row, message }) => (
            <li key={row}>{message}</li>
          ))}
          {faults.length > shownFaults && <li>{faults.length - shownFaults} more rows are left out.</li>}
        </ul>
      )}
    </section>
  );
}
