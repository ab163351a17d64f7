/** Settings of studies that many demonstrations do without: they come together when one of them does. */
export { AgreementControls } from './agreement/AgreementControls.tsx';
export { AreaBetweenControls } from './areaBetween/AreaBetweenControls.tsx';
export { AverageControls } from './averageValue/AverageControls.tsx';
export { CoarseControls } from './coarse/CoarseControls.tsx';
export { HoldsControls } from './holds/HoldsControls.tsx';
export { IntegralControls } from './integral/IntegralControls.tsx';
export { JoinsControls } from './joins/JoinsControls.tsx';
export { KeyPointsControls } from './keyPoints/KeyPointsControls.tsx';
export { NearestControls } from './nearest/NearestControls.tsx';
export { OriginalControls } from './original/OriginalControls.tsx';
export { ReadingControls } from './reading/ReadingControls.tsx';
export { SecantControls } from './secant/SecantControls.tsx';
export { SignStripControls } from './signStrip/SignStripControls.tsx';
export { SolutionsControls } from './solutions/SolutionsControls.tsx';
export { PointsControls } from './throughPoints/PointsControls.tsx';
export { ValueTableControls } from './valueTable/ValueTableControls.tsx';
