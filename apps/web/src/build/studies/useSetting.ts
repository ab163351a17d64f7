import type { Id } from '@yperkine/demonstration';
import { setField } from '../../state/actions.ts';
import { useWorkbench } from '../../state/context.ts';

/** For the fields of a card: given a field's name, what puts a text into it. */
export function useSetting(id: Id): (field: string) => (text: string) => void {
  const workbench = useWorkbench();
  return (field) => (text) => setField(workbench, id, field, text);
}
