import type { Line, LineInput, PartItem, Rate, Revision } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import {
  balanceShares,
  type Line as CoreLine,
  type Revision as CoreRevision,
  type DefinitionCost,
  definitionCost,
} from '@yosegi/core/definition';
import {
  type Money,
  type Percent,
  parseDecimal,
  parseMoney,
  parsePercent,
  parseQuantity,
  type Quantity,
} from '@yosegi/core/number';

/** A line as it is being typed: texts that may not be numbers yet. */
export interface DraftLine {
  /** Stays with the line while it moves. */
  readonly key: string;
  readonly kind: Line['kind'];
  readonly item: PartItem | null;
  readonly text: string;
  readonly basis: 'per-output' | 'per-run';
  /** Quantity, minutes or amount. */
  readonly amount: string;
  readonly waste: string;
  readonly taken: 'picked-first' | 'when-finished';
  readonly share: string;
  readonly comesBack: boolean;
  readonly rateId: number;
}

export interface Draft {
  readonly outputQuantity: string;
  readonly lines: readonly DraftLine[];
}

let nextKey = 0;
const newKey = () => `line${++nextKey}`;

const blank = {
  item: null,
  text: '',
  basis: 'per-output',
  amount: '',
  waste: '0',
  taken: 'picked-first',
  share: '',
  comesBack: false,
  rateId: 0,
} as const;

export const partLine = (item: PartItem): DraftLine => ({
  ...blank,
  key: newKey(),
  kind: 'part',
  item,
  amount: '1',
  comesBack: true,
});
export const labourLine = (rateId: number): DraftLine => ({
  ...blank,
  key: newKey(),
  kind: 'labour',
  amount: '10',
  rateId,
});
export const chargeLine = (): DraftLine => ({ ...blank, key: newKey(), kind: 'charge', amount: '1' });
export const noteLine = (): DraftLine => ({ ...blank, key: newKey(), kind: 'note' });

export const draftOf = (revision: Revision): Draft => ({
  outputQuantity: revision.outputQuantity,
  lines: revision.lines.map(toDraftLine),
});

function toDraftLine(line: Line): DraftLine {
  const key = newKey();
  if (line.kind === 'part') {
    const { item, basis, quantity, waste, taken, share, comesBack } = line;
    return { ...blank, key, kind: 'part', item, basis, amount: quantity, waste, taken, share: share ?? '', comesBack };
  }
  if (line.kind === 'labour') {
    return {
      ...blank,
      key,
      kind: 'labour',
      text: line.text,
      basis: line.basis,
      amount: line.minutes,
      rateId: line.rateId,
    };
  }
  if (line.kind === 'charge')
    return { ...blank, key, kind: 'charge', text: line.text, basis: line.basis, amount: line.amount };
  return { ...blank, key, kind: 'note', text: line.text };
}

/** The lines as the server takes them. */
export const toInput = (draft: Draft): LineInput[] =>
  draft.lines.map((line): LineInput => {
    const { kind, text, basis } = line;
    if (kind === 'part') {
      return {
        kind,
        itemId: line.item?.id ?? 0,
        basis,
        quantity: line.amount.trim() || '0',
        waste: line.waste.trim() || '0',
        taken: line.taken,
        share: line.share.trim() === '' ? null : line.share.trim(),
        comesBack: line.comesBack,
      };
    }
    if (kind === 'labour') return { kind, text, basis, minutes: line.amount.trim() || '0', rateId: line.rateId };
    if (kind === 'charge') return { kind, text, basis, amount: line.amount.trim() || '0' };
    return { kind, text };
  });

export type CostBasis = 'averageCost' | 'latestCost';

/** What the typed lines come to; faults by `lines.N.field`, as the server would name them. */
export interface Reckoning {
  readonly faults: ReadonlyMap<string, string>;
  readonly revision: CoreRevision;
  readonly cost: DefinitionCost;
  readonly latest: DefinitionCost;
  /** Take-apart shares as they balance; null where a line does not come back, or while they cannot sum to 100. */
  readonly shares: readonly (Percent | null)[];
}

/** Reads and costs a draft at every key press; what cannot be read counts as zero and is listed as a fault. */
export function reckon(draft: Draft, productDecimals: number, rates: readonly Rate[]): Reckoning {
  const faults = new Map<string, string>();
  const read = <T extends number>(field: string, parse: () => T, zeroIsFault = false): T => {
    try {
      const value = parse();
      if (value < 0 || (zeroIsFault && value === 0)) faults.set(field, 'Type an amount above zero.');
      return Math.max(0, value) as T;
    } catch (error) {
      faults.set(field, wordsOf(error) ?? 'This cannot be read.');
      return 0 as T;
    }
  };
  const outputQuantity = read('outputQuantity', () => parseQuantity(draft.outputQuantity, productDecimals), true);
  const lines = draft.lines.map((line, index): CoreLine => {
    const at = (name: string) => `lines.${index}.${name}`;
    const { basis } = line;
    if (line.kind === 'part') {
      const decimals = line.item?.decimals ?? 0;
      return {
        kind: 'part',
        itemId: line.item?.id ?? 0,
        basis,
        quantity: read(at('quantity'), () => parseQuantity(line.amount, decimals), true),
        waste: read(at('waste'), () => parsePercent(line.waste || '0')),
        taken: line.taken,
        decimals,
      };
    }
    if (line.kind === 'labour') {
      const minutes = read(at('minutes'), () => parseDecimal(line.amount, 2) as Quantity, true);
      const perHour = rates.find((rate) => rate.id === line.rateId)?.perHour ?? '0';
      return { kind: 'labour', basis, minutes, ratePerHour: parseMoney(perHour) };
    }
    if (line.kind === 'charge') {
      if (line.text.trim() === '') faults.set(at('text'), 'Say what the charge is for.');
      return { kind: 'charge', basis, amount: read(at('amount'), () => parseMoney(line.amount)) };
    }
    if (line.text.trim() === '') faults.set(at('text'), 'Type the note, or remove the line.');
    return { kind: 'note' };
  });
  const revision = { outputQuantity: outputQuantity || (1_000_000 as Quantity), lines };
  const items = new Map(draft.lines.flatMap((line) => (line.item ? [[line.item.id, line.item]] : [])));
  const costAt = (basis: CostBasis) =>
    definitionCost(revision, (itemId) => {
      const item = items.get(itemId);
      return parseMoney((basis === 'latestCost' ? item?.latestCost : null) ?? item?.averageCost ?? '0');
    });
  const cost = costAt('averageCost');
  return { faults, revision, cost, latest: costAt('latestCost'), shares: sharesOf(draft, cost, faults) };
}

function sharesOf(draft: Draft, cost: DefinitionCost, faults: Map<string, string>): (Percent | null)[] {
  const lines = draft.lines.map((line, index) => {
    let typed: Percent | null = null;
    try {
      typed = line.share.trim() === '' ? null : parsePercent(line.share);
    } catch (error) {
      faults.set(`lines.${index}.share`, wordsOf(error) ?? '');
    }
    return { typed, cost: cost.lines[index] ?? (0 as Money), comesBack: line.kind === 'part' && line.comesBack };
  });
  try {
    const shares = balanceShares(lines);
    return shares.map((share, index) => (lines[index]?.comesBack ? share : null));
  } catch (error) {
    faults.set('share', wordsOf(error) ?? '');
    return lines.map(() => null);
  }
}
