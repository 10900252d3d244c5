export { PromisedRows } from './PromisedRows.tsx';
export { UnitsCard } from './UnitsCard.tsx';
