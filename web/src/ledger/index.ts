export { MovementTable } from './MovementTable.tsx';
