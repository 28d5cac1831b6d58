export { WIRE_HEX } from './colours';
export { drawFace, type FaceLayout } from './drawFace';
export type { Drawing, Mark } from './drawing';
export { drawStrip } from './drawStrip';
export { fitText, measureText } from './measureText';
export { PAPERS, type Paper, type SheetMeta, type SheetPage } from './sheets/createFlow';
export { createSheets } from './sheets/createSheets';
export { layoutStrip, type StripLayout, type StripOptions, type StripTrace } from './strip/layoutStrip';
export { toSvg } from './toSvg';
