import type { Line, Rate, Revision } from '@yosegi/contract';
import { type ComparedLine, type Comparison, compareLines } from '@yosegi/core/definitions';
import type { Money } from '@yosegi/core/number';
import { draftOf, reckon } from './draft.ts';

/** A line ready to be compared, with what a person reads of it. */
export interface ShownLine extends ComparedLine {
  readonly line: Line;
  readonly title: string;
  readonly code: string | null;
}

/** What each fact of a line is called. */
export const factNames: Readonly<Record<string, string>> = {
  amount: 'quantity',
  basis: 'counted',
  waste: 'waste %',
  taken: 'taken',
  share: 'take-apart share',
  comesBack: 'comes back',
  tolerance: 'tolerance %',
  from: 'from bin',
  alternates: 'alternates',
  rate: 'rate',
};

/** The difference between two revisions, line by line, each costed at today's averages. */
export function difference(
  before: Revision,
  after: Revision,
  decimals: number,
  rates: readonly Rate[],
  binName: (id: number) => string,
): Comparison<ShownLine> {
  const shown = (revision: Revision) => {
    const { cost } = reckon(draftOf(revision), decimals, rates);
    return revision.lines.map((line, index) => show(line, cost.lines[index] ?? (0 as Money), rates, binName));
  };
  return compareLines(shown(before), shown(after));
}

const words = (choice: string) => choice.replaceAll('-', ' ');

function show(line: Line, cost: Money, rates: readonly Rate[], binName: (id: number) => string): ShownLine {
  if (line.kind === 'part') {
    const { item } = line;
    return {
      line,
      title: item.name,
      code: item.code,
      cost,
      identity: `part:${item.id}`,
      facts: {
        amount: line.quantity,
        basis: words(line.basis),
        waste: line.waste,
        taken: words(line.taken),
        comesBack: line.comesBack,
        share: line.share,
        tolerance: line.tolerance,
        from: line.fromBinId === null ? null : binName(line.fromBinId),
        alternates: line.alternates.map((one) => `${one.item.code} × ${one.ratio}`).join(', ') || null,
      },
    };
  }
  if (line.kind === 'note')
    return { line, title: line.text, code: null, cost, identity: `note:${line.text}`, facts: {} };
  const identity = `${line.kind}:${line.text}`;
  const title = line.text || 'Labour';
  if (line.kind === 'charge')
    return { line, title, code: null, cost, identity, facts: { amount: line.amount, basis: words(line.basis) } };
  const rate = rates.find((one) => one.id === line.rateId)?.name ?? null;
  return { line, title, code: null, cost, identity, facts: { amount: line.minutes, basis: words(line.basis), rate } };
}
