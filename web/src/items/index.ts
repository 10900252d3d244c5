export { UnitsCard } from './UnitsCard.tsx';
