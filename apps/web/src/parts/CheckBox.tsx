interface CheckBoxProps {
  readonly label: string;
  readonly isOn: boolean;
  readonly onChange: () => void;
}

/** A setting that is on or off. */
export function CheckBox({ label, isOn, onChange }: CheckBoxProps) {
  return (
    <label className="flex min-h-8 items-center gap-2 text-[0.95rem]">
      <input type="checkbox" checked={isOn} onChange={onChange} className="size-4 accent-ink" />
      {label}
    </label>
  );
}
