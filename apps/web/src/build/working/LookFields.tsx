import { Radio, RadioGroup } from '@headlessui/react';
import {
  usualLook,
  type ColourRole,
  type Entry,
  type Id,
  type Look,
  type Tone,
} from '@yperkine/demonstration';
import { Button } from '../../parts/Button.tsx';
import { NumberField } from '../../parts/NumberField.tsx';
import { SelectField } from '../../parts/SelectField.tsx';
import { TextField } from '../../parts/TextField.tsx';
import { setField } from '../../state/actions.ts';
import { useWorkbench } from '../../state/context.ts';
import { cssColour } from '../../theme/colour.ts';

/** The colours of the theme that an entry can wear; they follow day and night. */
const colours: readonly (readonly [ColourRole, string])[] = [
  ['f', 'Indigo'],
  ['f1', 'Burnt orange'],
  ['f2', 'Green-teal'],
  ['g', 'The second family’s first'],
  ['g1', 'The second family’s slope'],
  ['g2', 'The second family’s bend'],
  ['h', 'The third family’s first'],
  ['h1', 'The third family’s slope'],
  ['h2', 'The third family’s bend'],
  ['ink', 'Ink'],
];

const usual = { value: '', label: 'as usual' };
const lines = [
  usual,
  { value: 'whole', label: 'whole' },
  { value: 'dashed', label: 'dashed' },
  { value: 'dotted', label: 'dotted' },
];
const points = [
  usual,
  { value: 'disc', label: 'disc' },
  { value: 'ring', label: 'ring' },
  { value: 'square', label: 'square' },
  { value: 'diamond', label: 'diamond' },
  { value: 'cross', label: 'cross' },
];
const labels = [
  usual,
  { value: 'none', label: 'none' },
  { value: 'name', label: 'its name' },
  { value: 'value', label: 'its value' },
  { value: 'text', label: 'own text' },
];
const layers = [
  { value: '-2', label: 'at the very back' },
  { value: '-1', label: 'behind the others' },
  { value: '0', label: 'in order' },
  { value: '1', label: 'before the others' },
  { value: '2', label: 'at the very front' },
];

interface LookFieldsProps {
  readonly id: Id;
  readonly entry: Entry;
  readonly onClose: () => void;
}

/** How the marks of an entry look: colour, lines, points, label, layer. */
export function LookFields({ id, entry: { look }, onClose }: LookFieldsProps) {
  const workbench = useWorkbench();
  const set = (part: Partial<Look>) => setField(workbench, id, 'look', { ...look, ...part });
  const sizeField = (field: 'weight' | 'size', label: string, [least, most]: readonly [number, number]) => (
    <NumberField
      label={label}
      emptyMeans="as usual"
      value={look[field] === null ? '' : String(look[field])}
      refuse={(text) =>
        text === '' || (Number(text) >= least && Number(text) <= most)
          ? null
          : `This is a number of pixels from ${least} to ${most}.`
      }
      onCommit={(text) => set({ [field]: text === '' ? null : Number(text) })}
    />
  );
  const choice = <K extends 'line' | 'point' | 'label'>(
    field: K,
    label: string,
    options: readonly { value: string; label: string }[],
  ) => (
    <SelectField
      label={label}
      value={look[field] ?? ''}
      options={options}
      onChange={(value) => set({ [field]: value === '' ? null : value })}
    />
  );
  return (
    <div role="group" aria-label="Look" className="mt-3 rounded-[10px] border border-rule bg-paper p-3">
      <ColourField tone={look.tone} onChange={(tone) => set({ tone })} />
      <div className="mt-3 grid grid-cols-2 gap-2.5">
        {choice('line', 'Lines', lines)}
        {sizeField('weight', 'Weight of lines', [0.5, 12])}
        {choice('point', 'Points', points)}
        {sizeField('size', 'Size of points', [2, 20])}
        {choice('label', 'Label', labels)}
        <SelectField
          label="Layer"
          value={String(look.layer)}
          options={layers}
          onChange={(layer) => set({ layer: Number(layer) })}
        />
      </div>
      {look.label === 'text' && (
        <div className="mt-2.5">
          <TextField
            label="Text of the label"
            maxLength={200}
            value={look.text}
            onCommit={(text) => set({ text })}
          />
        </div>
      )}
      <div className="mt-3 flex gap-2">
        <Button onClick={onClose}>Done</Button>
        <Button look="bare" onClick={() => setField(workbench, id, 'look', usualLook)}>
          The usual look
        </Button>
      </div>
    </div>
  );
}

interface ColourFieldProps {
  readonly tone: Tone | null;
  readonly onChange: (tone: Tone | null) => void;
}

const swatch =
  'inline-flex size-8 cursor-pointer items-center justify-center rounded-full border-2 border-transparent data-checked:border-ink';

/** A colour of the theme, one of one's own, or that of the order. */
function ColourField({ tone, onChange }: ColourFieldProps) {
  const own = tone?.startsWith('#') ? tone : null;
  return (
    <div className="flex flex-wrap items-center gap-1">
      <RadioGroup
        aria-label="Colour"
        value={own === null ? (tone ?? '') : null}
        onChange={(choice: string | null) => onChange(choice ? (choice as Tone) : null)}
        className="flex flex-wrap items-center gap-1"
      >
        <Radio
          value=""
          className="cursor-pointer rounded-lg border border-rule bg-sheet px-2 py-1 text-sm data-checked:border-ink data-checked:font-semibold"
        >
          of its order
        </Radio>
        {colours.map(([role, name]) => (
          <Radio key={role} value={role} aria-label={name} title={name} className={swatch}>
            <span aria-hidden className="size-5 rounded-full" style={{ background: cssColour(role) }} />
          </Radio>
        ))}
      </RadioGroup>
      <label className="ml-1 flex items-center gap-1.5 text-sm text-quiet">
        own
        <input
          type="color"
          aria-label="A colour of one’s own"
          value={own ?? '#777777'}
          onChange={(event) => onChange(event.target.value as Tone)}
          className="h-8 w-9 rounded border border-rule bg-sheet"
        />
      </label>
    </div>
  );
}
