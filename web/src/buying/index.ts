export { BoughtForIt } from './BoughtFor.tsx';
export { buyPath } from './paths.ts';
export { OrderChip } from './words.tsx';
