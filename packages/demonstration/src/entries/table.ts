import type { EntryKindName } from '../schema/document.ts';
import { derivativeKind } from './derivative/derivative.ts';
import { functionKind } from './function/function.ts';
import type { EntryKind } from './kind.ts';
import { parameterKind } from './parameter/parameter.ts';
import { pointKind } from './point/point.ts';
import { tangentKind } from './tangent/tangent.ts';

/** Every kind of entry: adding a study adds a folder and a row here. */
export const entryKinds: { readonly [K in EntryKindName]: EntryKind<K> } = {
  function: functionKind,
  parameter: parameterKind,
  point: pointKind,
  tangent: tangentKind,
  derivative: derivativeKind,
};
