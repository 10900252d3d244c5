export { BoughtForIt } from './BoughtFor.tsx';
export { OrderChip } from './words.tsx';
