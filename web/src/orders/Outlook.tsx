import type { OrderRow } from '@yosegi/contract';
import { Chip, type Tone } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { standingWords } from './words.ts';

type Ahead = Pick<OrderRow, 'outlook' | 'completeOn' | 'standing' | 'canLeave'>;

const tones: Record<OrderRow['outlook'], Tone> = {
  ready: 'ok',
  'in-time': 'coming',
  late: 'short',
  unknown: 'short',
  over: 'held',
};

/** How an order looks ahead, in a word or two. */
export function Outlook({ order }: { order: Ahead }) {
  const format = useFormat();
  const isQuote = order.standing === 'quote';
  return <Chip $tone={isQuote ? 'held' : tones[order.outlook]}>{words(order, (day) => format.day(day))}</Chip>;
}

function words({ outlook, completeOn, standing, canLeave }: Ahead, day: (iso: string) => string): string {
  if (standing === 'quote' || outlook === 'over') return standingWords[standing];
  if (outlook === 'ready') return 'ready to ship';
  if (canLeave) return completeOn ? `ready to ship, arrives late: ${day(completeOn)}` : 'ready to ship, late';
  if (completeOn === null || completeOn === '') return 'no date yet';
  return outlook === 'late' ? `late: ${day(completeOn)}` : day(completeOn);
}
