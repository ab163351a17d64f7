/** The menus that a press on the graphs opens, loaded together when the first of them is wanted. */
export { CurveMenu } from './CurveMenu.tsx';
export { StripMenu } from './StripMenu.tsx';
export { VertexMenu } from './VertexMenu.tsx';
