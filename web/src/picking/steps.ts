import type { BinQuantity, PartItem, Store } from '@yosegi/contract';
import { formatDecimal, readExact } from '@yosegi/core/number';
import { writeSerials } from '@yosegi/core/tracking';
import { NOTHING_TYPED, type TypedTrack } from '../lines/typed.ts';
import type { PickLine } from './job.ts';

/** One stop of the walk: a line, and the bin to take it from first. */
export interface Step {
  readonly line: PickLine;
  readonly item: PartItem;
  /** Bins that have it, in walking order; empty when none has. */
  readonly bins: readonly BinQuantity[];
  /** What to bring from the first bin. */
  readonly suggested: string;
}

/** What is open in walking order; what no bin can serve comes last. */
export function stepsOf(lines: readonly PickLine[], stores: readonly Store[]): Step[] {
  const rank = new Map(stores.flatMap((store) => store.bins).map((bin, index) => [bin.id, index]));
  const place = (step: Step) => rank.get(step.bins[0]?.binId ?? -1) ?? Number.MAX_SAFE_INTEGER;
  return lines
    .map((line): Step => {
      const bins = line.bins.filter((bin) => readExact(bin.quantity) > 0);
      return { line, item: line.item, bins, suggested: suggestion(line.open, bins[0]) };
    })
    .sort((a, b) => place(a) - place(b));
}

/** As much as is open and the bin holds. */
export function suggestion(open: string, bin: BinQuantity | undefined): string {
  if (!bin) return '0';
  return formatDecimal(Math.min(readExact(open), readExact(bin.quantity)));
}

/** Of serials the first ones that the bin holds; a lot is left to be the first to expire. */
export function suggestedTrack(item: PartItem, bin: BinQuantity | undefined, quantity: string): TypedTrack {
  if (item.tracking !== 'serial') return NOTHING_TYPED;
  const codes = (bin?.pieces ?? []).flatMap((piece) => piece.serial ?? []).slice(0, Number(quantity) || 0);
  return { ...NOTHING_TYPED, serials: writeSerials(codes) };
}
