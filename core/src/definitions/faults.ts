import type { Money } from '../number/index.ts';

/** Something about a definition that its owner should put right; `itemIds` are the parts it is about. */
export interface DefinitionFault {
  readonly fault: 'none-in-use' | 'beyond-reckoning' | 'unpriced-part' | 'archived-part' | 'below-cost';
  readonly itemIds: readonly number[];
}

export interface FaultInput {
  readonly purpose: 'build' | 'rework' | 'record';
  readonly hasRevisionInUse: boolean;
  readonly parts: readonly { itemId: number; unitCost: Money; archived: boolean }[];
  /** What one costs; the revision in use, or the draft while there is no other. */
  /** Null when it is more than can be kept. */
  readonly unitCost: Money | null;
  readonly price: Money | null;
}

/** What is wrong with a definition, the gravest first. Rework and record-only definitions are not sold by it. */
export function faultsOf(input: FaultInput): DefinitionFault[] {
  const faults: DefinitionFault[] = [];
  const about = (parts: FaultInput['parts']) => [...new Set(parts.map((part) => part.itemId))];
  if (!input.hasRevisionInUse) faults.push({ fault: 'none-in-use', itemIds: [] });
  const archived = about(input.parts.filter((part) => part.archived));
  if (archived.length > 0) faults.push({ fault: 'archived-part', itemIds: archived });
  if (input.unitCost === null) faults.push({ fault: 'beyond-reckoning', itemIds: [] });
  if (input.purpose === 'record') return faults;
  const unpriced = about(input.parts.filter((part) => part.unitCost === 0));
  if (unpriced.length > 0) faults.push({ fault: 'unpriced-part', itemIds: unpriced });
  if (input.purpose === 'build' && input.price !== null && input.unitCost !== null && input.price < input.unitCost)
    faults.push({ fault: 'below-cost', itemIds: [] });
  return faults;
}
