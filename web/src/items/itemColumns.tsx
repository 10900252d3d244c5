import type { Item } from '@yosegi/contract';
import type { Format } from '../ui/format.ts';
import type { ListColumn } from '../ui/LongList.tsx';
import { Faint, Late, VisuallyHidden } from '../ui/text.ts';
import { costNames } from './costNames.ts';

const money = (amount: string | null, format: Format) => (amount === null ? '–' : format.money(amount));
const unitCost = (amount: string | null, format: Format) => (amount === null ? '–' : format.unitCost(amount));
const quantity = (amount: string, { unit, decimals }: Item, format: Format) => format.quantity(amount, unit, decimals);

/** Columns that the list of items can show beside code and name. */
export const itemColumns: readonly ListColumn<Item>[] = [
  {
    key: 'source',
    text: ({ source }) => source,
    title: 'Bought or made',
    width: 90,
    show: ({ source }) => source,
  },
  {
    key: 'tracking',
    text: ({ tracking }) => tracking,
    title: 'Tracking',
    width: 80,
    show: ({ tracking }) => (tracking === 'none' ? '' : tracking),
  },
  {
    key: 'homeBin',
    usual: true,
    text: ({ homeBin }) => homeBin ?? '',
    title: 'Home bin',
    width: 80,
    show: ({ homeBin }) => homeBin ?? '',
  },
  {
    key: 'onHand',
    usual: true,
    text: ({ onHand }) => onHand,
    title: 'On hand',
    width: 100,
    numeric: true,
    sort: 'onHand',
    show: (item, format) => quantity(item.onHand, item, format),
  },
  {
    key: 'onBench',
    text: ({ onBench }) => onBench,
    title: 'On benches',
    width: 90,
    numeric: true,
    show: (item, format) => (item.onBench === '0' ? '' : quantity(item.onBench, item, format)),
  },
  {
    key: 'promised',
    usual: true,
    text: ({ promised }) => promised,
    title: 'Promised',
    width: 96,
    numeric: true,
    show: (item, format) => (item.promised === '0' ? '' : quantity(item.promised, item, format)),
  },
  {
    key: 'free',
    usual: true,
    text: ({ free }) => free,
    title: 'Free',
    width: 100,
    numeric: true,
    sort: 'free',
    show: (item, format) => {
      const text = quantity(item.free, item, format);
      return Number(item.free) < 0 ? <Late>{text}</Late> : <b>{text}</b>;
    },
  },
  {
    key: 'reorderPoint',
    text: ({ reorderPoint }) => reorderPoint ?? '',
    title: 'Reorder at',
    width: 90,
    numeric: true,
    show: (item, format) => (item.reorderPoint === null ? '' : quantity(item.reorderPoint, item, format)),
  },
  {
    key: 'value',
    text: ({ value }) => value,
    title: 'Value',
    width: 104,
    numeric: true,
    sort: 'value',
    show: ({ value }, format) => format.money(value),
  },
  {
    key: 'averageCost',
    usual: true,
    text: ({ averageCost }) => averageCost,
    title: 'Average cost',
    width: 100,
    numeric: true,
    sort: 'averageCost',
    show: ({ averageCost, costFrom }, format) => (
      <span>
        {costFrom !== 'average' && <VisuallyHidden>{costNames[costFrom]} </VisuallyHidden>}
        {costFrom === 'at-least' && <Faint>at least </Faint>}
        {costFrom === 'none' ? '–' : unitCost(averageCost, format)}
        {costFrom === 'standard' && <Faint> std</Faint>}
        {costFrom === 'built' && <Faint> built</Faint>}
      </span>
    ),
  },
  {
    key: 'latestCost',
    text: ({ latestCost }) => latestCost ?? '',
    title: 'Latest cost',
    width: 96,
    numeric: true,
    show: ({ latestCost }, format) => unitCost(latestCost, format),
  },
  {
    key: 'standardCost',
    text: ({ standardCost }) => standardCost ?? '',
    title: 'Standard cost',
    width: 104,
    numeric: true,
    show: ({ standardCost }, format) => unitCost(standardCost, format),
  },
  {
    key: 'sellPrice',
    usual: true,
    text: ({ sellPrice }) => sellPrice ?? '',
    title: 'Sells at',
    width: 92,
    numeric: true,
    sort: 'sellPrice',
    show: ({ sellPrice }, format) => money(sellPrice, format),
  },
  {
    key: 'barcode',
    text: ({ barcode }) => barcode ?? '',
    title: 'Barcode',
    width: 130,
    show: ({ barcode }) => barcode ?? '',
  },
  {
    key: 'taxFree',
    text: ({ taxFree }) => (taxFree ? 'tax-free' : ''),
    title: 'Tax-free',
    width: 70,
    show: ({ taxFree }) => (taxFree ? 'tax-free' : ''),
  },
];
