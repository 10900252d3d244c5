export { comes, Job, JobLane, Lane } from './JobLane.tsx';
export { leftOf, reckonUse } from './reckonUse.ts';
export { StartButton } from './StartButton.tsx';
export { UseGrid } from './UseGrid.tsx';
