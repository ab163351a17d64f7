import { limits } from '@yperkine/demonstration';
import { TextField } from '../../parts/TextField.tsx';

/** The unit of a function's heights, in the teacher's own symbols. */
export const UnitField = (field: { readonly value: string; readonly onCommit: (unit: string) => void }) => (
  <TextField label="Unit" placeholder="none" maxLength={limits.unit} {...field} />
);
