import type { Looks, TypeLook } from '@yperkine/demonstration';
import { NumberField } from '../../parts/NumberField.tsx';
import { refuseDecimals } from '../../parts/refuseDecimals.ts';
import { SelectField } from '../../parts/SelectField.tsx';
import { useWorkbench, useWorkbenchState } from '../../state/context.ts';

const backdrops = [
  { value: 'viewer', label: 'as each viewer likes' },
  { value: 'paper', label: 'paper' },
  { value: 'slate', label: 'slate' },
];
const keys = [
  { value: 'none', label: 'none' },
  { value: 'topRight', label: 'top right' },
  { value: 'topLeft', label: 'top left' },
  { value: 'bottomRight', label: 'bottom right' },
  { value: 'bottomLeft', label: 'bottom left' },
];
const faces = [
  { value: 'plain', label: 'plain' },
  { value: 'mathematics', label: 'as in formulas' },
];
const sizes = [
  { value: 'small', label: 'small' },
  { value: 'medium', label: 'medium' },
  { value: 'large', label: 'large' },
  { value: 'veryLarge', label: 'very large' },
];
const marks = [
  { value: '.', label: 'point: 4.250' },
  { value: ',', label: 'comma: 4,250' },
];

const angleUnits = [
  { value: 'radians', label: 'radians: sin(π/2) = 1' },
  { value: 'degrees', label: 'degrees: sin(90°) = 1' },
];

const ticked = [
  ['grid', 'Grid'],
  ['axes', 'Axes'],
  ['numbers', 'Numbers on the axes'],
  ['piScale', 'Multiples of π along x'],
  ['sameScale', 'Same scale on both axes'],
] as const;

/** How the whole demonstration looks, and how it rounds. */
export function LooksForm() {
  const workbench = useWorkbench();
  const looks = useWorkbenchState((state) => state.document.looks);
  const decimals = useWorkbenchState((state) => state.document.decimals);
  const set = (part: Partial<Looks>) =>
    workbench.change([{ at: 'document', field: 'looks', old: looks, new: { ...looks, ...part } }]);
  const angles = useWorkbenchState((state) => state.document.angles);
  const setAngles = (unit: string) =>
    workbench.change([{ at: 'document', field: 'angles', old: angles, new: unit }]);
  const setDecimals = (text: string) =>
    workbench.change([{ at: 'document', field: 'decimals', old: decimals, new: Number(text) }]);
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-2 gap-3">
        <SelectField
          label="Background"
          value={looks.backdrop}
          options={backdrops}
          onChange={(backdrop) => set({ backdrop: backdrop as Looks['backdrop'] })}
        />
        <SelectField
          label="Key of the lines"
          value={looks.key}
          options={keys}
          onChange={(key) => set({ key: key as Looks['key'] })}
        />
      </div>
      <div className="grid grid-cols-2 gap-x-3">
        {ticked.map(([field, label]) => (
          <label key={field} className="flex min-h-9 items-center gap-2">
            <input
              type="checkbox"
              checked={looks[field]}
              onChange={() => set({ [field]: !looks[field] })}
              className="size-4 accent-ink"
            />
            {label}
          </label>
        ))}
      </div>
      <div className="grid grid-cols-2 gap-3">
        <NumberField
          label="Decimal places"
          value={String(decimals)}
          refuse={refuseDecimals}
          onCommit={setDecimals}
        />
        <SelectField
          label="Decimal mark"
          value={looks.decimalMark}
          options={marks}
          onChange={(mark) => set({ decimalMark: mark as Looks['decimalMark'] })}
        />
      </div>
      <SelectField label="Angles" value={angles} options={angleUnits} onChange={setAngles} />
      <TypeFields label="Titles" look={looks.titles} onChange={(titles) => set({ titles })} />
      <TypeFields
        label="Tick numbers"
        look={looks.tickNumbers}
        onChange={(tickNumbers) => set({ tickNumbers })}
      />
      <p className="text-sm text-quiet">
        A title can hold mathematics between dollar signs, such as the height $h(t)$ in m.
      </p>
    </div>
  );
}

interface TypeFieldsProps {
  readonly label: string;
  readonly look: TypeLook;
  readonly onChange: (look: TypeLook) => void;
}

function TypeFields({ label, look, onChange }: TypeFieldsProps) {
  return (
    <div role="group" aria-label={label} className="grid grid-cols-2 gap-3">
      <SelectField
        label={`${label}: typeface`}
        value={look.face}
        options={faces}
        onChange={(face) => onChange({ ...look, face: face as TypeLook['face'] })}
      />
      <SelectField
        label={`${label}: size`}
        value={look.size}
        options={sizes}
        onChange={(size) => onChange({ ...look, size: size as TypeLook['size'] })}
      />
    </div>
  );
}
