import type { Item, ItemSort } from '@yosegi/contract';
import type { ReactNode } from 'react';
import type { Format } from '../ui/format.ts';
import { Faint, Late } from '../ui/text.ts';
import { costNames } from './costNames.ts';

export interface ItemColumn {
  readonly key: string;
  readonly title: string;
  readonly width: string;
  readonly numeric?: boolean;
  readonly sort?: ItemSort;
  readonly show: (item: Item, format: Format) => ReactNode;
}

const money = (amount: string | null, format: Format) => (amount === null ? '–' : format.money(amount));
const unitCost = (amount: string | null, format: Format) => (amount === null ? '–' : format.unitCost(amount));
const quantity = (amount: string, { unit, decimals }: Item, format: Format) => format.quantity(amount, unit, decimals);

/** Columns that the list of items can show beside code and name. */
export const itemColumns: readonly ItemColumn[] = [
  { key: 'source', title: 'How it comes', width: '90px', show: ({ source }) => source },
  { key: 'tracking', title: 'Tracking', width: '80px', show: ({ tracking }) => (tracking === 'none' ? '' : tracking) },
  { key: 'homeBin', title: 'Home bin', width: '80px', show: ({ homeBin }) => homeBin ?? '' },
  {
    key: 'onHand',
    title: 'On hand',
    width: '100px',
    numeric: true,
    sort: 'onHand',
    show: (item, format) => quantity(item.onHand, item, format),
  },
  {
    key: 'onBench',
    title: 'On benches',
    width: '90px',
    numeric: true,
    show: (item, format) => (item.onBench === '0' ? '' : quantity(item.onBench, item, format)),
  },
  {
    key: 'promised',
    title: 'Promised',
    width: '96px',
    numeric: true,
    show: (item, format) => (item.promised === '0' ? '' : quantity(item.promised, item, format)),
  },
  {
    key: 'free',
    title: 'Free',
    width: '100px',
    numeric: true,
    sort: 'free',
    show: (item, format) => {
      const text = quantity(item.free, item, format);
      return Number(item.free) < 0 ? <Late>{text}</Late> : <b>{text}</b>;
    },
  },
  {
    key: 'reorderPoint',
    title: 'Reorder at',
    width: '90px',
    numeric: true,
    show: (item, format) => (item.reorderPoint === null ? '' : quantity(item.reorderPoint, item, format)),
  },
  {
    key: 'value',
    title: 'Value',
    width: '104px',
    numeric: true,
    sort: 'value',
    show: ({ value }, format) => format.money(value),
  },
  {
    key: 'averageCost',
    title: 'Average cost',
    width: '100px',
    numeric: true,
    sort: 'averageCost',
    show: ({ averageCost, costFrom }, format) => (
      <span title={costNames[costFrom]}>
        {costFrom === 'none' ? '–' : unitCost(averageCost, format)}
        {costFrom === 'standard' && <Faint> std</Faint>}
      </span>
    ),
  },
  {
    key: 'latestCost',
    title: 'Latest cost',
    width: '96px',
    numeric: true,
    show: ({ latestCost }, format) => unitCost(latestCost, format),
  },
  {
    key: 'standardCost',
    title: 'Standard cost',
    width: '104px',
    numeric: true,
    show: ({ standardCost }, format) => unitCost(standardCost, format),
  },
  {
    key: 'sellPrice',
    title: 'Sells at',
    width: '92px',
    numeric: true,
    sort: 'sellPrice',
    show: ({ sellPrice }, format) => money(sellPrice, format),
  },
  { key: 'barcode', title: 'Barcode', width: '130px', show: ({ barcode }) => barcode ?? '' },
  { key: 'taxFree', title: 'Tax-free', width: '70px', show: ({ taxFree }) => (taxFree ? 'tax-free' : '') },
];
export const usualColumns = ['homeBin', 'onHand', 'promised', 'free', 'averageCost', 'sellPrice'] as const;
