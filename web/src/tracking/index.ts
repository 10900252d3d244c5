export { LotTable, SerialTable } from './LotTables.tsx';
