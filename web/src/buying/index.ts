export { OrderChip } from './words.tsx';
