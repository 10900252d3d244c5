import type { Line, LineInput, PartItem, Rate, Revision } from '@yosegi/contract';
import { entryFault, wordsOf } from '@yosegi/contract/problems';
import {
  balanceShares,
  type Line as CoreLine,
  type Revision as CoreRevision,
  type DefinitionCost,
  definitionCost,
} from '@yosegi/core/definitions';
import {
  formatDecimal,
  fromZero,
  type Money,
  type Percent,
  parseDecimal,
  parseMoney,
  parsePercent,
  parseQuantity,
  percentTo,
  positive,
  type Quantity,
  readExact,
  readQuantity,
} from '@yosegi/core/number';
import type { PastedRow } from '../lines/matchPasted.ts';
import { measuringOf } from '../ui/measuring.ts';

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
  /** Percent; empty for any. */
  readonly tolerance: string;
  readonly rateId: number;
  readonly fromBinId: number | null;
  readonly alternates: readonly DraftAlternate[];
}

/** What may stand in for a part, and how much of it does for one of the part. */
export interface DraftAlternate {
  readonly item: PartItem;
  readonly ratio: string;
}

export interface Draft {
  readonly outputQuantity: string;
  readonly lines: readonly DraftLine[];
  /** What one is to sell at once the draft is in use; empty for no other price than now. */
  readonly price: string;
  readonly mending: readonly PastedRow[];
}

let nextKey = 0;
export const newKey = () => `line${Date.now().toString(36)}-${++nextKey}`;

const blank = {
  item: null,
  text: '',
  basis: 'per-output',
  amount: '',
  waste: '0',
  taken: 'picked-first',
  share: '',
  comesBack: false,
  tolerance: '',
  rateId: 0,
  fromBinId: null,
  alternates: [],
} as const;

export const partLine = (item: PartItem, amount = '1', waste = ''): DraftLine => ({
  ...blank,
  key: newKey(),
  kind: 'part',
  item,
  amount,
  ...(waste ? { waste } : {}),
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
  price: revision.sellPrice ?? '',
  mending: [],
});

function toDraftLine(line: Line): DraftLine {
  const key = newKey();
  if (line.kind === 'part') {
    const { item, basis, quantity, waste, taken, share, comesBack, fromBinId } = line;
    const alternates = line.alternates.map((alternate) => ({ item: alternate.item, ratio: alternate.ratio }));
    const part = { item, basis, amount: quantity, waste, taken, comesBack, fromBinId, alternates };
    return { ...blank, key, kind: 'part', ...part, share: share ?? '', tolerance: line.tolerance ?? '' };
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
        quantity: plainAmount(line) ?? (line.amount.trim() || '0'),
        waste: line.waste.trim() || '0',
        taken: line.taken,
        share: line.share.trim() === '' ? null : line.share.trim(),
        comesBack: line.comesBack,
        tolerance: line.tolerance.trim() === '' ? null : line.tolerance.trim(),
        fromBinId: line.fromBinId,
        alternates: line.alternates.map(({ item, ratio }) => ({ itemId: item.id, ratio: ratio.trim() || '0' })),
      };
    }
    if (kind === 'labour') return { kind, text, basis, minutes: line.amount.trim() || '0', rateId: line.rateId };
    if (kind === 'charge') return { kind, text, basis, amount: line.amount.trim() || '0' };
    return { kind, text };
  });

/** Whether a draft is, but for rows still to be placed, what the server has of the revision. */
export const isSavedAs = (draft: Draft, revision: Revision): boolean => {
  const asSent = (one: Draft) => JSON.stringify([one.outputQuantity.trim(), one.price.trim(), toInput(one)]);
  return asSent(draft) === asSent(draftOf(revision));
};

/** A part's typed quantity ("450 g") as the plain decimal of its stock unit; undefined while it cannot be read. */
export function plainAmount({ item, amount }: Pick<DraftLine, 'item' | 'amount'>): string | undefined {
  try {
    return item ? formatDecimal(readQuantity(amount, measuringOf(item))) : undefined;
  } catch {
    return undefined;
  }
}

/** The three costs an item can be counted at. */
export const costBases = ['averageCost', 'latestCost', 'standardCost'] as const;
export type CostBasis = (typeof costBases)[number];

/** What the typed lines come to; faults by `lines.N.field`, as the server would name them. */
export interface Reckoning {
  readonly faults: ReadonlyMap<string, string>;
  readonly revision: CoreRevision;
  /** At moving averages. */
  readonly cost: DefinitionCost;
  readonly byBasis: Readonly<Record<CostBasis, DefinitionCost>>;
  /** Parts of which nobody knows what they cost, or not all of it: the whole costs at least what is shown. */
  readonly unknown: readonly string[];
  /** How many parts have no cost on a basis, so that their average stands in. */
  readonly lacking: Readonly<Record<CostBasis, number>>;
  /** Take-apart shares as they balance; null where a line does not come back, or while they cannot sum to 100. */
  readonly shares: readonly (Percent | null)[];
}

/** Reads and costs a draft at every key press; what cannot be read counts as zero and is listed as a fault. */
export function reckon(draft: Draft, productDecimals: number, rates: readonly Rate[]): Reckoning {
  const faults = new Map<string, string>();
  const read = <T extends number>(field: string, parse: () => T, zeroIsFault = false): T => {
    try {
      return (zeroIsFault ? positive : fromZero)(parse());
    } catch (error) {
      faults.set(field, entryFault(error));
      return 0 as T;
    }
  };
  const outputQuantity = read('outputQuantity', () => parseQuantity(draft.outputQuantity, productDecimals), true);
  const lines = draft.lines.map((line, index): CoreLine => {
    const at = (name: string) => `lines.${index}.${name}`;
    const { basis } = line;
    if (line.kind === 'part') {
      const decimals = line.item?.decimals ?? 0;
      if (line.tolerance.trim() !== '') read(at('tolerance'), () => parsePercent(line.tolerance));
      return {
        kind: 'part',
        itemId: line.item?.id ?? 0,
        basis,
        quantity: read(
          at('quantity'),
          () => (line.item ? readQuantity(line.amount, measuringOf(line.item)) : parseQuantity(line.amount, 0)),
          true,
        ),
        waste: read(at('waste'), () => percentTo(parsePercent(line.waste || '0'), 1000)),
        taken: line.taken,
        decimals,
        alternates: line.alternates.map(({ item, ratio }, place) => ({
          itemId: item.id,
          ratio: read(at(`alternates.${place}.ratio`), () => parseDecimal(ratio) as Quantity, true) || (1 as Quantity),
          decimals: item.decimals,
        })),
      };
    }
    if (line.kind === 'labour') {
      const minutes = read(at('minutes'), () => parseDecimal(line.amount, 2) as Quantity, true);
      const perHour = rates.find((rate) => rate.id === line.rateId)?.perHour ?? '0';
      return { kind: 'labour', basis, minutes, ratePerHour: parseMoney(perHour) };
    }
    if (line.kind === 'charge') {
      if (line.text.trim() === '') faults.set(at('text'), 'Enter what the charge is for.');
      return { kind: 'charge', basis, amount: read(at('amount'), () => parseMoney(line.amount)) };
    }
    if (line.text.trim() === '') faults.set(at('text'), 'Enter the note, or remove the line.');
    return { kind: 'note' };
  });
  if (draft.mending.length > 0)
    faults.set('mending', 'Some pasted rows are not placed yet: choose their items above, or leave them out.');
  const revision = { outputQuantity: outputQuantity || (1_000_000 as Quantity), lines };
  const items = new Map(draft.lines.flatMap((line) => (line.item ? [[line.item.id, line.item]] : [])));
  const costAt = (basis: CostBasis) => {
    try {
      return definitionCost(revision, (itemId) => {
        const item = items.get(itemId);
        return readExact(item?.[basis] ?? item?.averageCost ?? '0') as Money;
      });
    } catch (error) {
      faults.set('cost', wordsOf(error) ?? 'This cost can’t be calculated.');
      return definitionCost({ ...revision, lines: [] }, () => 0 as Money);
    }
  };
  const cost = costAt('averageCost');
  const byBasis = { averageCost: cost, latestCost: costAt('latestCost'), standardCost: costAt('standardCost') };
  const unknown = [...items.values()]
    .filter(({ costFrom }) => costFrom === 'none' || costFrom === 'at-least')
    .map(({ name }) => name);
  const lacks = (basis: CostBasis) => [...items.values()].filter((item) => item[basis] === null).length;
  const withoutAverage = [...items.values()].filter(({ costFrom }) => costFrom === 'standard').length;
  const lacking = { averageCost: withoutAverage, latestCost: lacks('latestCost'), standardCost: lacks('standardCost') };
  return { faults, revision, cost, byBasis, unknown, lacking, shares: sharesOf(draft, cost, faults) };
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
