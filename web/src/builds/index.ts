export { comes, Job, JobLane, Lane } from './JobLane.tsx';
export { reckonUse } from './reckonUse.ts';
export { StartButton } from './StartButton.tsx';
export { UseGrid } from './UseGrid.tsx';
