export { reckonUse } from './reckonUse.ts';
export { StartButton } from './StartButton.tsx';
export { UseGrid } from './UseGrid.tsx';
