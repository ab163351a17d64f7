import type { Id } from '@yperkine/demonstration';
import type { MenuAction } from '../../parts/ActionMenu.tsx';
import { setField } from '../../state/actions.ts';
import type { Workbench } from '../../state/workbench.ts';

/** From a broken line to a smooth curve and back, for functions through points. */
export const shapeAction = (workbench: Workbench, id: Id, shape: 'broken' | 'smooth'): MenuAction => ({
  label: shape === 'broken' ? 'Make it smooth' : 'Make it a broken line',
  run: () => setField(workbench, id, 'shape', shape === 'broken' ? 'smooth' : 'broken'),
});
