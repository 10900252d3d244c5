export { AddPart } from './adding.ts';
export { BuildLines } from './BuildLines.tsx';
export { AndMore, comes, Job, JobLane, Lane } from './JobLane.tsx';
export { leftOf, needOf, progressOf, reckonUse } from './reckonUse.ts';
export { StartButton } from './StartButton.tsx';
export { NOTHING_USED, TypedUse, usedLines } from './typedUse.ts';
export { UseGrid } from './UseGrid.tsx';
